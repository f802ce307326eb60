<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Colour } from '../../api/client'
import { useDrag } from '../../stores/drag'
import { useRefusal } from '../shared/refusal'
import ValueSlider from '../shared/ValueSlider.vue'
import { COLOUR_WAYS, colourWay } from './colourWay'
import ColourWheel from './ColourWheel.vue'
import HueSliders from './HueSliders.vue'

/** A colour by the numbers one likes best or by the wheel, and typed in any notation; `known` spares asking for its numbers. */
const props = defineProps<{ linear: number[]; known?: Colour }>()
const emit = defineEmits<{
  attempt: [linear: number[]]
  commit: [linear: number[]]
  shown: [colour: Colour]
}>()

const drag = useDrag()
/** What the sliders stand on; kept apart from the material's own so that a neutral does not lose its hue. */
const colour = ref<Colour | null>(null)
const keepsUndertone = ref(true)
const { refused: problem, attempt } = useRefusal()
/** The colour whose undertone is kept while lightness moves. */
let leaning: number[] | null = null
let newest = 0

watch(
  () => props.linear,
  async (linear) => {
    if (colour.value && near(colour.value.linear, linear)) return
    const mine = ++newest
    if (props.known && near(props.known.linear, linear)) {
      colour.value = props.known
      return
    }
    const around = await api.coloursAround(linear).catch(() => null)
    if (around && mine === newest) colour.value = around.colour
  },
  { immediate: true },
)
watch(colour, (c) => c && emit('shown', c))

function near(a: number[], b: number[]): boolean {
  return a.every((v, i) => Math.abs(v - (b[i] ?? 0)) < 1e-6)
}

const lch = computed(() =>
  colour.value ? `${colour.value.lightness.toFixed(2)}% ${(colour.value.chroma / 100).toFixed(4)}` : '',
)
const tracks = computed(() => {
  const { lightness, chroma, hue } = colour.value ?? { lightness: 50, chroma: 0, hue: 0 }
  const c = chroma / 100
  const stops = [0, 60, 120, 180, 240, 300, 360].map((h) => `oklch(${lightness}% ${Math.max(0.06, c)} ${h})`)
  return {
    lightness: `linear-gradient(90deg in oklch, oklch(0% ${c} ${hue}), oklch(50% ${c} ${hue}), oklch(100% ${c} ${hue}))`,
    chroma: `linear-gradient(90deg, oklch(${lightness}% 0 ${hue}), oklch(${lightness}% ${chromaEnd.value / 100} ${hue}))`,
    hue: `linear-gradient(90deg, ${stops.join(',')})`,
  }
})
/** Near grey the slider shows little chroma, so that a pixel of movement is a small step. */
const chromaEnd = computed(() => ((colour.value?.chroma ?? 0) <= 4 ? 5 : 32))

/** Shows what core makes of a wish, unless a newer one has come since, and gives it on; where it refuses it says why. */
async function take(wish: Promise<Colour>, done: boolean, as = (c: Colour) => c) {
  const mine = ++newest
  await attempt(async () => {
    const c = as(await wish)
    if (mine !== newest && !done) return
    colour.value = c
    if (done) emit('commit', c.linear)
    else emit('attempt', c.linear)
  })
}

async function place(change: Partial<Colour>, done: boolean) {
  if (!colour.value) return
  const before = colour.value
  const asked = { ...before, ...change }
  const keeps = 'lightness' in change && keepsUndertone.value && before.nearlyGrey
  if (keeps) leaning ??= before.linear
  colour.value = asked
  await take(
    api.colourPlaced(asked.lightness, asked.chroma, asked.hue, keeps ? leaning : null),
    done,
    (placed) => (keeps ? placed : { ...placed, hue: asked.hue }),
  )
  if (done || !keeps) leaning = null
}

async function type(text: string) {
  if (text !== colour.value?.hex) await take(api.colourTyped(text), true)
}

function typeCode(index: number, text: string) {
  const codes = [...(colour.value?.codes ?? [])]
  codes[index] = Math.max(0, Math.min(255, Math.round(Number(text))))
  if (codes.every(Number.isFinite)) void type(codes.join(' '))
}
</script>

<template>
  <div v-if="colour">
    <div class="typed">
      <i
        class="swatch"
        title="Carry it onto another part to give that the same colour"
        :style="{ background: colour.hex }"
        @pointerdown.left.prevent="drag.pressColour($event, colour)"
      />
      <input
        class="field hex"
        aria-label="Hex code"
        title="A hex code, or any notation: 0.5 0.2 0.1, hsv(4, 81, 65), hsl(…), lab(…), lch(…), oklch(…)"
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
    <HueSliders
      v-if="colourWay === 'hsv' || colourWay === 'hsl'"
      :colour="colour"
      :by="colourWay"
      @input="take(api.colourTyped($event), false)"
      @change="take(api.colourTyped($event), true)"
    />
    <ValueSlider
      v-else
      label="Lightness"
      :value="colour.lightness"
      :max="100"
      :step="0.1"
      :decimals="1"
      :track="tracks.lightness"
      hint="From black to white, as the eye steps it. 48 is a deep red, 92 a cream."
      :data-lch="lch"
      @input="place({ lightness: $event }, false)"
      @change="place({ lightness: $event }, true)"
    />
    <ColourWheel
      v-if="colourWay === 'wheel'"
      :colour="colour"
      :end="chromaEnd"
      @input="place($event, false)"
      @change="place($event, true)"
    />
    <template v-if="colourWay === 'lch'">
      <ValueSlider
        label="Chroma"
        :value="colour.chroma"
        :max="chromaEnd"
        :most="32"
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
    </template>
    <p class="under small">
      <span class="soft" title="Which way the colour leans, and how far from grey it lies in CIELAB">
        {{ colour.undertone }}
      </span>
      <label
        v-if="colour.nearlyGrey && (colourWay === 'lch' || colourWay === 'wheel')"
        title="While lightness moves, the colour goes on leaning the same way"
      >
        <input v-model="keepsUndertone" type="checkbox" /> keep undertone
      </label>
      <select v-model="colourWay" class="way" aria-label="Set the colour by">
        <option v-for="w in COLOUR_WAYS" :key="w.value" :value="w.value" :title="w.title">
          {{ w.text }}
        </option>
      </select>
    </p>
  </div>
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
.under {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.under {
  gap: 8px;
}
.under .soft {
  flex: 1;
}
.way {
  font: inherit;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--paper);
}
.under label {
  display: flex;
  gap: 4px;
  align-items: center;
}
</style>
