<script setup lang="ts">
import { useWorkspace } from '../../stores/workspace'
import type { Card } from './card'
import ParameterControl from './ParameterControl.vue'

/** Index of refraction, typed or by a substance. */
defineProps<{ of: Card }>()
const workspace = useWorkspace()
const NEAR = 0.0005
</script>

<template>
  <ParameterControl parameter="specular_ior" :of="of" />
  <div class="pair">
    <span />
    <select
      class="field"
      aria-label="IOR of a substance"
      title="Its index of refraction, and how fast light goes in it as a share of c"
      :value="workspace.substances.find((s) => Math.abs(s.ior - of.number('specular_ior')) < NEAR)?.ior ?? ''"
      @change="of.commit({ specular_ior: Number(($event.target as HTMLSelectElement).value) })"
    >
      <option value="" disabled>Index of a substance …</option>
      <option v-for="s in workspace.substances" :key="s.name" :value="s.ior">
        {{ s.name }} {{ s.ior }} · {{ Math.round(100 * s.lightShare) }} % c
      </option>
    </select>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 86px 1fr;
  gap: 10px;
  margin: 2px 0 4px;
}
</style>
