<script setup lang="ts">
import ValueSlider from '../shared/ValueSlider.vue'
import type { Card } from './card'
import ParameterControl from './ParameterControl.vue'

/** Light that a surface gives: as luminance or as lumens of this part, and its temperature. */
defineProps<{ of: Card; area: number }>()
const WARM = [
  { kelvins: 1900, text: 'candle' },
  { kelvins: 2700, text: 'warm' },
  { kelvins: 4000, text: 'neutral' },
  { kelvins: 6500, text: 'day' },
]
</script>

<template>
  <ParameterControl parameter="emission_luminance" :of="of" />
  <ValueSlider
    label="Lumens"
    :value="of.material.lumensPerSquareMetre * area"
    :max="2000"
    :most="1000000"
    :step="10"
    :decimals="0"
    unit=" lm"
    hint="All the light that this part gives, by its area. 250 is a candle-shaped lamp, 800 a room’s bulb."
    @input="of.attempt({ lumens: $event })"
    @change="of.commit({ lumens: $event })"
  />
  <ValueSlider
    label="Temperature"
    :value="of.material.temperature ?? 6500"
    :min="1500"
    :max="10000"
    :most="20000"
    :step="50"
    :decimals="0"
    unit=" K"
    track="linear-gradient(90deg, #ff8a2b, #ffd7a3 35%, #fff 62%, #cddcff)"
    hint="Colour of a glowing body: 1,900 K a candle, 2,700 K a warm lamp, 6,500 K daylight."
    @input="of.attempt({ temperature: $event })"
    @change="of.commit({ temperature: $event })"
  />
  <div class="warm">
    <button
      v-for="w in WARM"
      :key="w.kelvins"
      class="plain small"
      :title="`${w.kelvins} K`"
      @click="of.commit({ temperature: w.kelvins })"
    >
      {{ w.text }}
    </button>
  </div>
  <p v-if="of.material.temperature === null" class="soft small">
    Its colour is no glowing body’s; a temperature replaces it.
  </p>
  <ParameterControl parameter="emission_color" :of="of" />
</template>

<style scoped>
.warm {
  display: flex;
  gap: 12px;
  margin-left: 96px;
}
.warm button {
  color: var(--accent);
}
</style>
