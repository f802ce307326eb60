<script setup lang="ts">
import type { Card } from './card'
import ParameterControl from './ParameterControl.vue'
import WishSlider from './WishSlider.vue'

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
  <WishSlider wish="lumens" :value="of.material.lumensPerSquareMetre * area" :of="of" :most="1000000" />
  <WishSlider
    wish="temperature"
    :value="of.material.temperature ?? 6500"
    :of="of"
    :most="20000"
    track="linear-gradient(90deg, #ff8a2b, #ffd7a3 35%, #fff 62%, #cddcff)"
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
