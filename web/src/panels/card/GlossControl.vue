<script setup lang="ts">
import ValueSlider from '../shared/ValueSlider.vue'
import type { Card } from './card'

/** Gloss as a meter would read it; the roughness that gives it is core's to find. */
defineProps<{ of: Card; limit: string }>()
const TRACK = 'linear-gradient(90deg, #8d8a85, #b9b7b2 30%, #e4e2de 75%, #fff)'
const HINT =
  'Gloss at 60° as a meter reads it: below 5 dead matt, 30 to 50 satin, above 75 gloss. 35 is satin enamel, 90 a polished varnish.'
</script>

<template>
  <ValueSlider
    label="Gloss"
    :value="of.material.gloss"
    :max="100"
    :most="2000"
    :step="1"
    :decimals="1"
    unit=" GU"
    :track="TRACK"
    :changed="of.changed(of.material.glossParameter)"
    :hint="HINT"
    @input="of.attempt({ gloss: $event })"
    @change="of.commit({ gloss: $event })"
    @reset="of.reset(of.material.glossParameter)"
  />
  <p v-if="limit" class="soft small" role="status">{{ limit }}</p>
</template>
