<script setup lang="ts">
import { computed } from 'vue'
import ValueSlider from '../shared/ValueSlider.vue'
import type { Card } from './card'
import ParameterControl from './ParameterControl.vue'

/** How strongly the surface's own pattern stands out: its normal map's strength, or its height. */
const props = defineProps<{ of: Card }>()
const raised = computed(() => props.of.material.textures.some((t) => t.parameter === 'geometry_height'))
</script>

<template>
  <ValueSlider
    v-if="of.material.relief !== null"
    label="Relief"
    :value="of.material.relief"
    :max="2"
    :most="4"
    :step="0.05"
    hint="How strongly grain, weave or grit stand out: 1 as made, 0 flat, 2 twice as steep."
    @input="of.attempt({ relief: $event })"
    @change="of.commit({ relief: $event })"
    @reset="of.commit({ relief: 1 })"
  />
  <ParameterControl v-if="raised" parameter="geometry_height" :of="of" />
</template>
