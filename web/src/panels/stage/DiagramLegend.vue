<script setup lang="ts">
import { onBeforeUnmount, ref } from 'vue'
import type { Diagram } from '../../api/client'
import { styleOf } from '../../stage/plainColours'
import type { Region } from '../../stage/Stage'
import { counted, useWorkspace } from '../../stores/workspace'
import { areaText } from '../shared/lengths'

/** What the colours and hatches on the stage stand for; pointed at, what is of one stands out, and clicked it is selected. */
const props = defineProps<{ diagram: Diagram }>()
const workspace = useWorkspace()
const open = ref(true)
onBeforeUnmount(() => (workspace.lit = []))

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
li button {
  display: grid;
  grid-template-columns: 26px 1fr auto;
  gap: 8px;
  align-items: center;
  width: 100%;
  text-align: left;
  padding: 2px 0;
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
