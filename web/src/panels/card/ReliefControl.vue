<script setup lang="ts">
import { computed } from 'vue'
import type { Card } from './card'
import DrawnRelief from './DrawnRelief.vue'
import ParameterControl from './ParameterControl.vue'
import WishSlider from './WishSlider.vue'

/** How strongly the surface's own pattern stands out: its normal map's strength, its height, or that it has none. */
const props = defineProps<{ of: Card }>()
const STEEPEST = 4
const raised = computed(() => props.of.material.textures.some((t) => t.parameter === 'geometry_height'))
/** Whether it stands out as a body of its own; then its depth is what counts, and nothing is shaded. */
const shaped = computed(() => raised.value && props.of.flag('geometry_displaced'))
</script>

<template>
  <WishSlider
    v-if="of.material.relief !== null && !shaped"
    wish="relief"
    :value="of.material.relief"
    :of="of"
    :most="STEEPEST"
    @reset="of.commit({ relief: 1 })"
  />
  <template v-if="raised">
    <ParameterControl v-if="shaped || of.material.relief === null" parameter="geometry_height" :of="of" />
    <ParameterControl parameter="geometry_displaced" :of="of" />
  </template>
  <p v-if="!raised && of.material.relief === null" class="soft small">
    Smooth: this material has no picture of a relief.
  </p>
  <DrawnRelief :key="of.material.id" :of="of" />
</template>
