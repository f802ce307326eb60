<script setup lang="ts">
import { computed } from 'vue'
import ValueSlider from '../shared/ValueSlider.vue'
import { hintOf, type Card } from './card'

/** A wish about several values that is one number, as core says it is to be shown. */
const props = defineProps<{
  wish: string
  value: number
  of: Card
  most?: number
  changed?: boolean
  track?: string
}>()
const emit = defineEmits<{ reset: [] }>()
const control = computed(() => props.of.control(props.wish))
</script>

<template>
  <ValueSlider
    v-if="control"
    :label="control.label"
    :value="value"
    :min="control.min"
    :max="control.max"
    :most="most ?? control.max"
    :step="control.step"
    :decimals="control.decimals"
    :unit="control.unit"
    :changed="changed ?? false"
    :track="track ?? ''"
    :hint="hintOf(control)"
    :ends="control.ends"
    @input="of.attempt({ [wish]: $event })"
    @change="of.commit({ [wish]: $event })"
    @reset="emit('reset')"
  />
</template>
