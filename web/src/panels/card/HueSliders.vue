<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Colour } from '../../api/client'
import ValueSlider from '../shared/ValueSlider.vue'

/** A colour by the three numbers of HSV or HSL; what they are to be is told as a text in that notation. */
const props = defineProps<{ colour: Colour; by: 'hsv' | 'hsl' }>()
const emit = defineEmits<{ input: [notation: string]; change: [notation: string] }>()

/** In per cent: nothing that one sees. */
const TRACE = 0.05
/** What the sliders stand on: a grey has no hue, black no saturation; then they stay where they were. */
const at = ref([0, 0, 0])
watch(
  () => props.colour[props.by],
  ([hue = 0, saturation = 0, level = 0]) => {
    const [h = 0, s = 0] = at.value
    const black = level < TRACE
    at.value = [black || saturation < TRACE ? h : hue, black ? s : saturation, level]
  },
  { immediate: true },
)

const tracks = computed(() => {
  const [h = 0, s = 0, l = 0] = at.value
  const pure = `hsl(${h} 100% 50%)`
  const ends =
    props.by === 'hsv'
      ? [
          [`hsl(0 0% ${l}%)`, `color-mix(in srgb, ${pure} ${l}%, black)`],
          ['black', `color-mix(in srgb, ${pure} ${s}%, white)`],
        ]
      : [
          [`hsl(0 0% ${l}%)`, `hsl(${h} 100% ${l}%)`],
          ['black', `hsl(${h} ${s}% 50%)`, 'white'],
        ]
  const hues = [0, 60, 120, 180, 240, 300, 360].map((hue) => `hsl(${hue} 100% 50%)`)
  return [hues, ...ends].map((stops) => `linear-gradient(90deg, ${stops.join(',')})`)
})
const rows = computed(() => [
  { label: 'Hue', max: 360, unit: '°', hint: 'Around the circle: 0 is red, 60 yellow, 120 green, 240 blue.' },
  { label: 'Saturation', max: 100, unit: ' %', hint: '0 is grey, 100 the purest that a screen shows.' },
  props.by === 'hsv'
    ? { label: 'Value', max: 100, unit: ' %', hint: '0 is black, 100 as light as the hue can be.' }
    : { label: 'HSL lightness', max: 100, unit: ' %', hint: '0 is black, 50 the purest, 100 white.' },
])

function moved(index: number, value: number): string {
  at.value = at.value.map((v, i) => (i === index ? value : v))
  const [h, s, l] = at.value
  return `${props.by}(${h}, ${s}%, ${l}%)`
}
</script>

<template>
  <ValueSlider
    v-for="(r, i) in rows"
    :key="r.label"
    :label="r.label"
    :value="at[i] ?? 0"
    :max="r.max"
    :step="1"
    :decimals="1"
    :unit="r.unit"
    :track="tracks[i]"
    :hint="r.hint"
    @input="emit('input', moved(i, $event))"
    @change="emit('change', moved(i, $event))"
  />
</template>
