<script setup lang="ts">
import { computed } from 'vue'
import { FINENESS } from '../../stores/preparation'
import { useImports } from '../../stores/imports'
import { useWorkspace } from '../../stores/workspace'

/** Round surfaces of an open project cut into finer or coarser triangles. */
const props = defineProps<{ cut: number }>()
const workspace = useWorkspace()
const imports = useImports()

const fineness = computed(() => {
  let best = 0
  FINENESS.forEach((f, k) => {
    if (
      Math.abs(Math.log(f.linear / props.cut)) < Math.abs(Math.log((FINENESS[best]?.linear ?? 1) / props.cut))
    )
      best = k
  })
  return best
})
const stray = computed(() => {
  const b = workspace.scene?.bounds ?? []
  const longest = Math.max(...[0, 1, 2].map((k) => (b[k + 3] ?? 0) - (b[k] ?? 0)))
  const mm = props.cut * longest * 1000
  return `${mm.toLocaleString('en', { maximumSignificantDigits: 2 })} mm`
})
const step = computed(() =>
  imports.stage === 'prepare'
    ? `Cutting · ${imports.seconds} s`
    : (imports.job?.step ?? '') || 'Sending the triangles',
)
</script>

<template>
  <span>Stray by at most {{ stray }}</span>
  <template v-if="imports.busy">
    <div class="meter" role="progressbar" aria-label="Cutting round surfaces"><i class="running" /></div>
    <span class="pair">
      <span class="soft small">{{ step }}</span>
      <v-btn size="small" @click="imports.cancel()">Call off</v-btn>
    </span>
  </template>
  <span v-else class="pair">
    <v-btn size="small" :disabled="fineness === 0" @click="imports.cutProject(workspace.id, fineness - 1)"
      >Coarser</v-btn
    >
    <v-btn
      size="small"
      :disabled="fineness === FINENESS.length - 1"
      @click="imports.cutProject(workspace.id, fineness + 1)"
      >Finer</v-btn
    >
  </span>
  <span v-if="imports.problem" class="problem small" role="alert">{{ imports.problem }}</span>
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
