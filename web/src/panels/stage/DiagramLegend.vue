<script setup lang="ts">
import { onBeforeUnmount, ref } from 'vue'
import { api, type Diagram, type Facts } from '../../api/client'
import { styleOf, WAYS } from '../../stage/plainColours'
import type { Region } from '../../stage/Stage'
import { counted, useWorkspace } from '../../stores/workspace'
import { NOTHING_KNOWN } from '../shared/facts'
import { areaText } from '../shared/lengths'

/** What the colours and hatches on the stage stand for; pointed at, what is of one stands out, and clicked it is selected. */
const props = defineProps<{ diagram: Diagram }>()
const workspace = useWorkspace()
const open = ref(true)
/** The material whose colour and hatch are being chosen. */
const marking = ref<string | null>(null)
onBeforeUnmount(() => (workspace.lit = []))

type Thing = Diagram['things'][number]
const materialOf = (t: Thing) => workspace.materials.get(t.material ?? '')
const drawingOf = (t: Thing) => materialOf(t)?.facts?.drawing
/** The colour that stays when the hatch changes; null for that of its look. */
function keptColour(t: Thing): string | null {
  const drawing = drawingOf(t)
  return drawing ? drawing.colour : t.colour
}
async function draw(t: Thing, drawing: Facts['drawing']) {
  const m = materialOf(t)
  if (!m) return
  const facts = { ...NOTHING_KNOWN, ...m.facts, missing: null, drawing }
  await workspace.run((v) => api.tellFacts(workspace.id, v, m.id, facts))
}

function regionsOf(thing: number): Region[] {
  return props.diagram.spans.flatMap((spans, part) =>
    spans.flatMap((of, span) => (of === thing ? [{ part, span }] : [])),
  )
}
</script>

<template>
  <section class="diagram small" aria-label="What the colours stand for">
    <button class="plain head" :aria-expanded="open" @click="open = !open">
      {{ counted(diagram.things.length, 'colour') }} {{ open ? '▴' : '▾' }}
    </button>
    <ul v-if="open">
      <li v-for="(t, i) in diagram.things" :key="i">
        <button
          class="plain"
          @click="workspace.select(regionsOf(i))"
          @pointerenter="workspace.lit = regionsOf(i)"
          @pointerleave="workspace.lit = []"
        >
          <i :style="styleOf(t)" />
          <span class="name">{{ t.name }}</span>
          <span class="soft"
            >{{ counted(t.parts, 'part') }} · {{ areaText(t.area, workspace.state?.unit) }}</span
          >
        </button>
        <button
          v-if="materialOf(t)"
          class="plain edit"
          :aria-expanded="marking === t.material"
          :title="`Colour and hatch of ${t.name} in diagrams`"
          :aria-label="`Colour and hatch of ${t.name} in diagrams`"
          @click="marking = marking === t.material ? null : t.material"
        >
          …
        </button>
        <div v-if="marking && marking === t.material" class="marking" role="group" :aria-label="t.name">
          <input
            type="color"
            :value="t.colour"
            aria-label="Colour in diagrams"
            @change="draw(t, { colour: ($event.target as HTMLInputElement).value, hatch: t.hatch })"
          />
          <button
            v-for="(_, hatch) in WAYS"
            :key="hatch"
            class="plain hatch"
            :class="{ on: hatch === t.hatch }"
            :aria-pressed="hatch === t.hatch"
            :aria-label="hatch === 0 ? 'No hatch' : `Hatch ${hatch}`"
            :style="styleOf({ colour: t.colour, hatch })"
            @click="draw(t, { colour: keptColour(t), hatch })"
          />
          <label>
            <input
              type="checkbox"
              :checked="keptColour(t) === null"
              @change="
                draw(t, {
                  colour: ($event.target as HTMLInputElement).checked ? null : t.colour,
                  hatch: t.hatch,
                })
              "
            />
            In the colour of its look
          </label>
          <button v-if="drawingOf(t)" class="plain as-comes" @click="draw(t, null)">As it comes</button>
        </div>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.diagram {
  position: absolute;
  right: 14px;
  top: 12px;
  max-width: 260px;
  max-height: 70%;
  overflow: auto;
  background: #faf9f7eb;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 4px 8px;
}
ul {
  list-style: none;
  margin: 2px 0 0;
  padding: 0;
}
li {
  position: relative;
}
li > button:first-child {
  display: grid;
  grid-template-columns: 26px 1fr auto;
  gap: 8px;
  align-items: center;
  width: 100%;
  text-align: left;
  padding: 2px 20px 2px 0;
}
.edit {
  position: absolute;
  right: 0;
  top: 0;
  width: 18px;
}
.marking {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  align-items: center;
  padding: 2px 0 6px;
}
.marking input[type='color'] {
  width: 30px;
  height: 18px;
  padding: 0;
  border: 1px solid var(--line);
}
.hatch {
  width: 22px;
  height: 16px;
  border: 1px solid #0003;
  border-radius: 2px;
}
.hatch.on {
  outline: 2px solid var(--accent);
}
.marking label {
  display: flex;
  gap: 4px;
  align-items: center;
}
.as-comes {
  text-decoration: underline;
}
i {
  width: 26px;
  height: 14px;
  border: 1px solid #0003;
  border-radius: 2px;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.soft {
  white-space: nowrap;
}
</style>
