<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { api, Refusal, type Colour, type ColourReading, type ReaderState } from '../../api/client'
import SwatchRow from './SwatchRow.vue'

/** The handheld colour reader: calibrate it, hold it on a sample, take the reading. */
const emit = defineEmits<{ take: [colour: Colour] }>()
const state = ref<ReaderState | null>(null)
const sample = ref('')
const reading = ref<ColourReading | null>(null)
const busy = ref(false)
const problem = ref('')

onMounted(() => attempt(refresh))

async function refresh() {
  state.value = await api.reader()
  sample.value ||= state.value.samples[0] ?? ''
}
async function calibrate() {
  state.value = await api.calibrateReader()
}
async function read() {
  reading.value = await api.readColour(sample.value)
  await refresh()
}
async function attempt(work: () => Promise<unknown>) {
  busy.value = true
  problem.value = ''
  try {
    await work()
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    problem.value = e.message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="reader" aria-label="Colour reader">
    <p v-if="state && !state.connected" class="soft small">
      No colour reader is connected. Start Zolvan with its address in ZOLVAN_COLOUR_READER.
    </p>
    <template v-else-if="state">
      <div class="line">
        <select v-model="sample" class="field" aria-label="Sample that the reader is held on">
          <option v-for="s in state.samples" :key="s" :value="s">{{ s }}</option>
        </select>
        <v-btn size="small" :disabled="busy || !state.calibrated" @click="attempt(read)">Read</v-btn>
      </div>
      <div class="line small soft">
        <span>
          {{ state.calibrated ? `Calibrated; ${state.left} readings left` : 'Wants its white tile first' }}
        </span>
        <button class="plain link" :disabled="busy" @click="attempt(calibrate)">Calibrate</button>
      </div>
      <template v-if="reading">
        <SwatchRow :label="reading.sample" :colours="[reading.colour]" @take="emit('take', $event)" />
        <p class="small soft">
          L* {{ reading.colour.lab[0]?.toFixed(1) }}, a* {{ reading.colour.lab[1]?.toFixed(1) }}, b*
          {{ reading.colour.lab[2]?.toFixed(1) }}; {{ reading.colour.undertone }}. Mean of
          {{ reading.readings }}, ΔE {{ reading.scatter.toFixed(2) }} apart.
          <button class="plain link" @click="emit('take', reading.colour)">Use it</button>
        </p>
      </template>
    </template>
    <p v-if="problem" class="problem small" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.reader {
  display: grid;
  gap: 6px;
}
.line {
  display: flex;
  gap: 10px;
  align-items: center;
  justify-content: space-between;
}
.line .field {
  flex: 1;
  min-width: 0;
}
.link {
  color: var(--accent);
}
</style>
