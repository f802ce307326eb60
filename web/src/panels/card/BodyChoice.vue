<script setup lang="ts">
import type { Card } from './card'

/** Whether a clear thing is a pane or a body: what that does to what is behind, as a picture each. */
defineProps<{ of: Card; open: boolean }>()
const BODIES = [
  {
    thin: false,
    text: 'Solid body',
    says: 'Bends light; its colour deepens with thickness',
    bar: 'M30 6 L30 20 M44 20 L44 34',
  },
  { thin: true, text: 'Thin pane', says: 'A pane or film: nothing is bent', bar: 'M36 6 L36 34' },
]
</script>

<template>
  <div class="bodies" role="radiogroup" aria-label="Body">
    <button
      v-for="b in BODIES"
      :key="b.text"
      role="radio"
      :aria-checked="of.flag('geometry_thin_walled') === b.thin"
      :class="{ on: of.flag('geometry_thin_walled') === b.thin }"
      :title="b.says"
      @click="of.commit({ geometry_thin_walled: b.thin })"
    >
      <svg viewBox="0 0 72 40" aria-hidden="true">
        <path v-if="!b.thin" d="M10 20 H62 V34 H10 Z" fill="#bcd0cf" stroke="#55605f" />
        <path v-else d="M10 20 H62" stroke="#55605f" stroke-width="2" />
        <path :d="b.bar" stroke="#1e1d1b" stroke-width="4" fill="none" />
      </svg>
      {{ b.text }}
    </button>
  </div>
  <p v-if="open" class="small warn">
    This part is not closed, so it can’t show as a solid body; it shows as a thin pane.
  </p>
</template>

<style scoped>
.bodies {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
  margin: 4px 0;
}
.bodies button {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 2px 6px;
  font: inherit;
  font-size: 12px;
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
  background: var(--paper);
  cursor: pointer;
}
.bodies .on {
  border-color: var(--accent);
  outline: 1px solid var(--accent);
}
svg {
  width: 60px;
  height: 34px;
}
.warn {
  color: var(--amber);
}
</style>
