<script setup lang="ts">
import type { Card } from './card'
import WishSlider from './WishSlider.vue'

/** Gloss as a meter would read it; the roughness that gives it is core's to find. */
defineProps<{ of: Card; limit: string }>()
/** Bare metals read beyond what the bar shows. */
const MOST = 2000
const TRACK = 'linear-gradient(90deg, #8d8a85, #b9b7b2 30%, #e4e2de 75%, #fff)'
</script>

<template>
  <WishSlider
    wish="gloss"
    :value="of.material.gloss"
    :of="of"
    :most="MOST"
    :track="TRACK"
    :changed="of.changed(of.material.glossParameter)"
    @reset="of.reset(of.material.glossParameter)"
  />
  <p v-if="limit" class="soft small" role="status">{{ limit }}</p>
</template>
