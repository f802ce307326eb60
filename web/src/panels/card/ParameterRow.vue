<script setup lang="ts">
import type { Values } from '../../api/client'
import ValueSlider from '../shared/ValueSlider.vue'

/** Reads and changes the parameters of the material on the card. */
export interface Parameters {
  number: (name: string) => number
  changed: (name: string) => boolean
  attempt: (values: Values) => void
  commit: (values: Values) => unknown
  reset: (name: string) => void
}

defineOptions({ inheritAttrs: false })
const props = withDefaults(
  defineProps<{ label: string; parameter: string; of: Parameters; scale?: number }>(),
  {
    scale: 1,
  },
)
const values = (shown: number): Values => ({ [props.parameter]: shown / props.scale })
</script>

<template>
  <ValueSlider
    v-bind="$attrs"
    :label="label"
    :value="of.number(parameter) * scale"
    :changed="of.changed(parameter)"
    @input="of.attempt(values($event))"
    @change="of.commit(values($event))"
    @reset="of.reset(parameter)"
  />
</template>
