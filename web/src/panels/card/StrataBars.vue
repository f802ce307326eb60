<script setup lang="ts">
import { mdiArrowCollapseUp, mdiClose } from '@mdi/js'
import type { Level, Stratum } from '../../api/client'
import { useFinding } from '../../stores/finding'
import { counted, useWorkspace } from '../../stores/workspace'

defineProps<{ strata: Stratum[]; arrived: boolean }>()
const emit = defineEmits<{ take: [level: Level]; give: [level: Level]; top: [stratum: Stratum] }>()

const workspace = useWorkspace()
const finding = useFinding()

function material(s: Stratum) {
  return s.material ? workspace.materials.get(s.material) : undefined
}
function swatch(s: Stratum): string | undefined {
  const m = material(s)
  return m && finding.seen(m).hex
}
function label(s: Stratum): string {
  return s.level === 'set' ? `set ×${s.parts}` : s.level
}
function explain(s: Stratum): string {
  const where =
    s.level === 'model'
      ? `the whole model, ${counted(s.parts, 'part')}`
      : s.level === 'set'
        ? `the matching set of ${counted(s.parts, 'part')}`
        : 'this part alone'
  const chosen = workspace.chosen ? workspace.materials.get(workspace.chosen)?.name : undefined
  const why = s.why ? `${s.why}. ` : ''
  return chosen
    ? `${why}Put ${chosen} on ${where}`
    : `${why}What ${where} holds. Choose a chip, then click here to put it on.`
}
</script>

<template>
  <div class="strata" aria-label="Where this look comes from">
    <div v-for="s in strata" :key="s.level" class="layer" :class="{ wins: s.wins, none: !s.material }">
      <em>{{ label(s) }}</em>
      <button class="bar" :title="explain(s)" @click="emit('give', s.level as Level)">
        <template v-if="material(s)">
          <i :style="{ background: swatch(s) }" />
          <span>{{ material(s)?.code }} {{ material(s)?.name }}</span>
          <small v-if="s.onTop">on top</small>
        </template>
        <template v-else>nothing</template>
      </button>
      <button
        v-if="s.material"
        class="plain off"
        :class="{ up: s.onTop }"
        :aria-pressed="s.onTop"
        :aria-label="`${material(s)?.name} on top`"
        @click="emit('top', s)"
      >
        <v-icon :icon="mdiArrowCollapseUp" size="14" />
        <v-tooltip activator="parent" location="top">
          {{
            s.onTop
              ? 'On top: wins over everything narrower. Click to let it go'
              : 'Put it on top: it wins over everything narrower'
          }}
        </v-tooltip>
      </button>
      <button
        v-if="s.material"
        class="plain off"
        :aria-label="`Take ${material(s)?.name} off the ${s.level}`"
        @click="emit('take', s.level as Level)"
      >
        <v-icon :icon="mdiClose" size="14" />
        <v-tooltip activator="parent" location="top">Take it off; what lies beneath shows</v-tooltip>
      </button>
    </div>
    <div v-if="arrived" class="layer wins">
      <em>file</em>
      <div class="bar"><span>as it arrived</span></div>
    </div>
  </div>
</template>

<style scoped>
.strata {
  display: grid;
  gap: 3px;
  margin: 10px 0 2px;
  min-height: 44px;
}
.layer {
  display: grid;
  grid-template-columns: 56px 1fr 20px 20px;
  align-items: center;
  gap: 4px;
  font-size: 12px;
}
em {
  font-style: normal;
  color: var(--soft);
}
.bar {
  font: inherit;
  height: 22px;
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0 8px;
  min-width: 0;
  border: 1px solid var(--line-strong);
  border-radius: 2px;
  color: var(--soft);
  background: repeating-linear-gradient(135deg, #0000 0 5px, #00000008 5px 6px);
  text-align: left;
}
button.bar {
  cursor: pointer;
}
.bar span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.bar small {
  margin-left: auto;
  flex: none;
  font-weight: 400;
  color: var(--accent);
}
.bar i {
  width: 22px;
  height: 12px;
  flex: none;
  border: 1px solid #0003;
  border-radius: 1px;
}
.none .bar {
  border-style: dashed;
  background: none;
}
.wins .bar {
  background: var(--white);
  border: 1.5px solid var(--accent);
  color: var(--ink);
  font-weight: 600;
}
.off {
  color: var(--soft);
  width: 20px;
  height: 20px;
  display: grid;
  place-items: center;
}
.up {
  color: var(--accent);
}
</style>
