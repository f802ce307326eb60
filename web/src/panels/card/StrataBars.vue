<script setup lang="ts">
import { mdiArrowCollapseUp, mdiClose, mdiSourceBranchRemove } from '@mdi/js'
import { computed } from 'vue'
import type { Level, Stratum, Why } from '../../api/client'
import { counted, useWorkspace } from '../../stores/workspace'
import SmallChip from '../shared/SmallChip.vue'

/** The levels that hold the selection, from broad to narrow, what each has, and which wins. */
const props = defineProps<{ why: Why | null; arrived: boolean }>()
const emit = defineEmits<{
  take: [stratum: Stratum]
  give: [stratum: Stratum]
  top: [stratum: Stratum]
  back: [stratum: Stratum]
  off: [extent: 'LADDER' | 'MATERIAL']
}>()

const workspace = useWorkspace()

/** Groups that hold nothing by themselves are one bar, that of the innermost. */
const strata = computed(() => {
  const all = props.why?.levels ?? []
  const innermost = all.filter((s) => s.level === 'group').at(-1)
  return all.filter((s) => s.level !== 'group' || s.material || s.differs || s === innermost)
})
const held = computed(() => strata.value.filter((s) => s.material).length)
const winner = computed(() => strata.value.find((s) => s.wins))
const letter = computed(() => workspace.scheme?.letter ?? '')
const baseLetter = computed(
  () => workspace.schemes.find((s) => s.id === workspace.scheme?.bases[0])?.letter ?? '',
)

function material(s: Stratum) {
  return s.material ? workspace.materials.get(s.material) : undefined
}
function label(s: Stratum): string {
  return s.level === 'set' || s.level === 'group' ? `${s.level} ×${s.parts}` : s.level
}
function explain(s: Stratum): string {
  const parts = counted(s.parts, 'part')
  const where = {
    model: `the whole model, ${parts}`,
    set: `the matching set of ${parts}`,
    group: `the group ${s.name}, ${parts}`,
    part: 'this part alone',
    face: `the face ${s.name}`,
  }[s.level as Level]
  const chosen = workspace.chosen ? workspace.materials.get(workspace.chosen)?.name : undefined
  const why = s.why ? `${s.why}${s.inherited ? `, from scheme ${s.inherited}` : ''}. ` : ''
  return chosen
    ? `${why}Put ${chosen} on ${where}`
    : `${why}What ${where} holds. Choose a chip, then click here to put it on.`
}
</script>

<template>
  <div class="strata" aria-label="Where this look comes from">
    <div
      v-for="s in strata"
      :key="`${s.level}/${s.target}`"
      class="layer"
      :class="{ wins: s.wins, none: !s.material, alone: !baseLetter }"
    >
      <em :title="s.name">{{ label(s) }}</em>
      <button class="bar" :title="explain(s)" @click="emit('give', s)">
        <template v-if="material(s)">
          <SmallChip class="chip" :material="material(s) ?? null" />
          <span>{{ material(s)?.code }} {{ material(s)?.name }}</span>
          <small v-if="s.onTop">on top</small>
          <small v-else-if="s.inherited">from {{ s.inherited }}</small>
        </template>
        <span v-else
          >nothing<template v-if="s.differs"> in {{ letter }}</template></span
        >
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
      <span v-else />
      <button
        v-if="s.differs"
        class="plain off up"
        :aria-label="`The ${s.level} as in ${baseLetter}`"
        @click="emit('back', s)"
      >
        <v-icon :icon="mdiSourceBranchRemove" size="14" />
        <v-tooltip activator="parent" location="top"
          >Differs from {{ baseLetter }}: have it as there</v-tooltip
        >
      </button>
      <span v-else-if="baseLetter" />
      <button
        v-if="s.material"
        class="plain off"
        :aria-label="`Take ${material(s)?.name} off the ${s.level}`"
        @click="emit('take', s)"
      >
        <v-icon :icon="mdiClose" size="14" />
        <v-tooltip activator="parent" location="top">Take it off; what lies beneath shows</v-tooltip>
      </button>
    </div>
    <div v-if="arrived" class="layer wins">
      <em>file</em>
      <div class="bar"><span>as it arrived</span></div>
    </div>
    <details v-if="why && held > 0" class="small more">
      <summary>Why this look?</summary>
      <p>{{ why.sentence }}</p>
      <button
        v-if="held > 1"
        class="plain"
        title="Of all levels above; broad ones for all that they cover"
        @click="emit('off', 'LADDER')"
      >
        Take everything off
      </button>
      <button
        v-if="winner"
        class="plain"
        title="From every level of everything in this scheme"
        @click="emit('off', 'MATERIAL')"
      >
        Take {{ material(winner)?.name }} off everywhere
      </button>
    </details>
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
  grid-template-columns: 62px 1fr 18px 18px 18px;
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
.chip {
  flex: none;
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
  width: 18px;
  height: 20px;
  display: grid;
  place-items: center;
}
.up {
  color: var(--accent);
}
.layer {
  column-gap: 3px;
}
.layer.alone {
  grid-template-columns: 62px 1fr 18px 18px;
}
.more summary {
  cursor: pointer;
  color: var(--soft);
}
.more p {
  margin: 3px 0;
}
.more button {
  display: block;
  color: var(--accent);
}
</style>
