import { ref, watch } from 'vue'

/** By what a designer likes to set colours; the same for every colour, and the next time. */
export const COLOUR_WAYS = [
  { value: 'lch', text: 'by eye', title: 'Lightness, chroma and hue in the steps that the eye sees (OKLCh)' },
  { value: 'wheel', text: 'wheel', title: 'Hue around, chroma outward, at one lightness' },
  { value: 'hsv', text: 'HSV', title: 'Hue, saturation and value' },
  { value: 'hsl', text: 'HSL', title: 'Hue, saturation and lightness as HSL counts it' },
] as const
export type ColourWay = (typeof COLOUR_WAYS)[number]['value']

const KEPT = 'zolvan-colour-way'
const kept = localStorage.getItem(KEPT)
export const colourWay = ref<ColourWay>(COLOUR_WAYS.find((w) => w.value === kept)?.value ?? 'lch')
watch(colourWay, (way) => localStorage.setItem(KEPT, way))
