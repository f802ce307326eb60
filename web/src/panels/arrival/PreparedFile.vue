<script setup lang="ts">
import { computed } from 'vue'
import { FINENESS } from '../../stores/preparation'
import { counted } from '../../stores/workspace'
import type { Kind } from '../../tessellation/kinds.js'
import type { Prepared } from '../../tessellation/worker'

const props = defineProps<{
  fileName: string
  kind: Kind
  fineness: number
  prepared: Prepared
  seconds: number
}>()
const emit = defineEmits<{ cut: [by: number]; send: []; cancel: [] }>()

const isCut = computed(() => props.kind === 'step' || props.kind === 'iges')
const stray = computed(() => {
  const f = FINENESS[props.fineness]
  return f ? `${(100 * f.linear).toLocaleString('en', { maximumSignificantDigits: 2 })} %` : ''
})
</script>

<template>
  <div class="prepared">
    <b class="file">{{ fileName }}</b>
    <span
      >{{ counted(prepared.bodies, 'body', 'bodies') }}, {{ counted(prepared.triangles, 'triangle') }}</span
    >
    <span v-if="isCut" class="soft small">
      Round surfaces are cut into triangles that stray by at most {{ stray }} of the model’s size. It took
      {{ Math.max(1, seconds) }} s.
    </span>
    <div v-if="isCut" class="pair">
      <v-btn size="small" :disabled="fineness === 0" @click="emit('cut', -1)">Coarser</v-btn>
      <v-btn size="small" :disabled="fineness === FINENESS.length - 1" @click="emit('cut', 1)">Finer</v-btn>
    </div>
    <div class="pair">
      <v-btn size="small" @click="emit('cancel')">Call off</v-btn>
      <v-btn size="small" color="primary" variant="flat" @click="emit('send')">Import</v-btn>
    </div>
  </div>
</template>

<style scoped>
.prepared {
  width: 100%;
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 10px;
}
.file {
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
}
.pair {
  display: flex;
  gap: 8px;
}
</style>
