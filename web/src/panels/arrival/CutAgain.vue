<script setup lang="ts">
import { computed } from 'vue'
import { FINENESS } from '../../stores/preparation'
import { useImports } from '../../stores/imports'
import { useWorkspace } from '../../stores/workspace'

/** Round surfaces of an open project cut into finer or coarser triangles. */
const props = defineProps<{ cut: number; stray: number }>()
const workspace = useWorkspace()
const imports = useImports()

const fineness = computed(() => FINENESS.findIndex((f) => f.linear === props.cut))
const millimetres = computed(() => (1000 * props.stray).toLocaleString('en', { maximumSignificantDigits: 2 }))
const here = computed(() => imports.purpose === 'triangles' && imports.into === workspace.id)
const busyHere = computed(() => imports.busy && here.value)
const step = computed(() =>
  imports.stage === 'prepare'
    ? `Cutting · ${imports.seconds} s`
    : (imports.job?.step ?? '') || 'Sending the triangles',
)
</script>

<template>
  <span>Stray by at most {{ millimetres }} mm</span>
  <template v-if="busyHere">
    <div class="meter" role="progressbar" aria-label="Cutting round surfaces"><i class="running" /></div>
    <span class="pair">
      <span class="soft small">{{ step }}</span>
      <v-btn size="small" @click="imports.cancel()">Call off</v-btn>
    </span>
  </template>
  <span v-else class="pair">
    <v-btn
      size="small"
      :disabled="imports.busy || fineness <= 0"
      @click="imports.cutProject(workspace.id, fineness - 1)"
      >Coarser</v-btn
    >
    <v-btn
      size="small"
      :disabled="imports.busy || fineness === FINENESS.length - 1"
      @click="imports.cutProject(workspace.id, fineness + 1)"
      >Finer</v-btn
    >
  </span>
  <span v-if="imports.problem && here" class="problem small" role="alert">{{ imports.problem }}</span>
</template>

<style scoped>
.pair {
  display: flex;
  gap: 6px;
  align-items: center;
  margin-top: 3px;
}
span {
  display: block;
}
.pair > .v-btn {
  flex: none;
}
</style>
