<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, Refusal, type Colour, type Material, type Values } from '../../api/client'
import ValueSlider from '../shared/ValueSlider.vue'

const props = defineProps<{ material: Material }>()
const emit = defineEmits<{ attempt: [values: Values]; commit: [values: Values] }>()

/** What the sliders stand on; kept apart from the material's own so that a neutral does not lose its hue. */
const colour = ref<Colour>(props.material.colour)
const problem = ref('')
let newest = 0

watch(
  () => props.material.colour,
  (c) => {
    if (c.hex !== colour.value.hex) colour.value = c
  },
)

const title = computed(
  () =>
    ({ transmission_color: 'Colour of what passes through', emission_color: 'Colour of the glow' })[
      props.material.colourParameter
    ] ?? 'Colour',
)
const lch = computed(() => `${colour.value.lightness.toFixed(2)}% ${(colour.value.chroma / 100).toFixed(4)}`)
const tracks = computed(() => {
  const { lightness, chroma, hue } = colour.value
  const c = chroma / 100
  const stops = [0, 60, 120, 180, 240, 300, 360].map((h) => `oklch(${lightness}% ${Math.max(0.06, c)} ${h})`)
  return {
    lightness: `linear-gradient(90deg in oklch, oklch(0% ${c} ${hue}), oklch(50% ${c} ${hue}), oklch(100% ${c} ${hue}))`,
    chroma: `linear-gradient(90deg, oklch(${lightness}% 0 ${hue}), oklch(${lightness}% 0.3 ${hue}))`,
    hue: `linear-gradient(90deg, ${stops.join(',')})`,
  }
})

async function place(change: Partial<Colour>, done: boolean) {
  const asked = { ...colour.value, ...change }
  colour.value = asked
  const mine = ++newest
  problem.value = ''
  const placed = await api.colourPlaced(asked.lightness, asked.chroma, asked.hue).catch((e: unknown) => {
    problem.value = e instanceof Refusal ? e.message : ''
    return null
  })
  if (!placed || (mine !== newest && !done)) return
  colour.value = { ...placed, hue: asked.hue }
  send(placed, done)
}

async function type(text: string) {
  if (text === colour.value.hex) return
  problem.value = ''
  try {
    colour.value = await api.colourTyped(text)
    send(colour.value, true)
  } catch (e) {
    problem.value = e instanceof Refusal ? e.message : ''
  }
}

function typeCode(index: number, text: string) {
  const codes = [...colour.value.codes]
  codes[index] = Math.max(0, Math.min(255, Math.round(Number(text))))
  if (codes.every(Number.isFinite)) void type(codes.join(' '))
}

function send(c: Colour, done: boolean) {
  const values = { [props.material.colourParameter]: c.linear }
  if (done) emit('commit', values)
  else emit('attempt', values)
}
</script>

<template>
  <section class="fold" aria-label="Colour">
    <h2>
      {{ title }} <small>LRV {{ colour.lightReflectanceValue.toFixed(0) }}</small>
    </h2>
    <div class="typed">
      <i class="swatch" :style="{ background: colour.hex }" />
      <input
        class="field hex"
        aria-label="Hex code"
        :value="colour.hex"
        @change="type(($event.target as HTMLInputElement).value)"
      />
      <input
        v-for="(name, i) in ['Red', 'Green', 'Blue']"
        :key="name"
        class="field code"
        :aria-label="`${name}, 0 to 255`"
        :value="colour.codes[i]"
        @change="typeCode(i, ($event.target as HTMLInputElement).value)"
      />
    </div>
    <p v-if="problem" class="problem small" role="alert">{{ problem }}</p>
    <ValueSlider
      label="Lightness"
      :value="colour.lightness"
      :max="100"
      :step="0.5"
      :decimals="1"
      :track="tracks.lightness"
      hint="From black to white, as the eye steps it. 48 is a deep red, 92 a cream."
      :data-lch="lch"
      @input="place({ lightness: $event }, false)"
      @change="place({ lightness: $event }, true)"
    />
    <ValueSlider
      label="Chroma"
      :value="colour.chroma"
      :max="32"
      :step="0.1"
      :decimals="1"
      :track="tracks.chroma"
      :hint="`How far from grey: 0 is neutral, 1 a trace of tone, 16 a strong red. A screen shows up to ${colour.chromaLimit.toFixed(1)} here.`"
      @input="place({ chroma: $event }, false)"
      @change="place({ chroma: $event }, true)"
    />
    <ValueSlider
      label="Hue"
      :value="colour.hue"
      :max="360"
      :step="1"
      :decimals="1"
      unit="°"
      :track="tracks.hue"
      hint="The direction of the tone: 29 is red, 90 yellow, 145 green, 260 blue."
      @input="place({ hue: $event }, false)"
      @change="place({ hue: $event }, true)"
    />
  </section>
</template>

<style scoped>
.typed {
  display: grid;
  grid-template-columns: 34px 86px repeat(3, 1fr);
  gap: 6px;
  margin-bottom: 4px;
}
.swatch {
  border: 1px solid #0003;
  border-radius: var(--radius);
}
.code {
  text-align: right;
}
</style>
