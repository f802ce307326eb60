<script setup lang="ts">
import { useWorkspace } from '../../stores/workspace'
import type { Card } from './card'

/** Which metal, by reflectance as measured. */
defineProps<{ of: Card }>()
const workspace = useWorkspace()
</script>

<template>
  <div class="metals" role="radiogroup" aria-label="Metal">
    <button
      v-for="m in workspace.controls.metals"
      :key="m.id"
      class="small"
      role="radio"
      :aria-checked="of.material.metal === m.id"
      :class="{ on: of.material.metal === m.id }"
      :title="`${m.label}, bare: reflects ${m.colour.lightReflectanceValue.toFixed(0)} % facing`"
      @click="of.commit({ metal: m.id })"
    >
      <i :style="{ background: m.colour.hex }" />{{ m.label }}
    </button>
  </div>
</template>

<style scoped>
.metals {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 4px;
  margin: 2px 0 6px;
}
.metals button {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 3px;
  white-space: nowrap;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--paper);
  text-align: left;
  cursor: pointer;
}
.metals .on {
  border-color: var(--accent);
  outline: 1px solid var(--accent);
}
.metals i {
  flex: none;
  width: 13px;
  height: 13px;
  border: 1px solid #0003;
  border-radius: 50%;
}
</style>
