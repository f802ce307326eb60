<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Colour } from '../../api/client'
import { useRefusal } from '../shared/refusal'

/**
 * The hues around, and how strong they are outward, at the lightness of a colour; as far as a screen shows them. Moved over
 * by pointer or arrows: `input` while that goes on, `change` at its end.
 */
const props = defineProps<{ colour: Colour; end: number }>()
const emit = defineEmits<{ input: [at: Place]; change: [at: Place] }>()
type Place = { chroma: number; hue: number }

const SIZE = 168
const RINGS = 32
const sharpness = window.devicePixelRatio
const face = ref<HTMLCanvasElement | null>(null)
const limits = ref<number[]>([])
/** How strong the rim is; it stays while the pointer is down, so that nothing moves under it. */
const held = ref<number | null>(null)
const reach = computed(() => held.value ?? props.end)
const { refused, attempt } = useRefusal()
let reading = false

/** One request at a time: while lightness moves on, the next is of where it is by then. */
async function read() {
  if (reading) return
  reading = true
  const lightness = props.colour.lightness
  const came = await attempt(async () => {
    limits.value = (await api.colourWheel(lightness)).limits
  })
  reading = false
  if (came && lightness !== props.colour.lightness) await read()
}
watch(() => props.colour.lightness, read, { immediate: true })
watch([limits, reach, face], draw)

/** From the rim inward, ring upon ring: each as far as a screen shows it in every direction, its hues around. */
function draw() {
  const pen = face.value?.getContext('2d')
  if (!pen || limits.value.length === 0) return
  const middle = (sharpness * SIZE) / 2
  pen.setTransform(sharpness, 0, 0, -sharpness, middle, middle) // hues go around against the clock
  pen.clearRect(-SIZE, -SIZE, 2 * SIZE, 2 * SIZE)
  const n = limits.value.length
  const far = limits.value.map((limit) => Math.min(limit, reach.value))
  for (let ring = RINGS; ring > 0; ring--) {
    const hues = pen.createConicGradient(0, 0, 0)
    pen.beginPath()
    for (let i = 0; i <= n; i++) {
      const chroma = far[i % n] ?? 0
      hues.addColorStop(
        i / n,
        `oklch(${props.colour.lightness}% ${(chroma * (ring - 0.5)) / RINGS / 100} ${(360 * i) / n})`,
      )
      const radius = (SIZE / 2) * (chroma / reach.value) * (ring / RINGS)
      const angle = (2 * Math.PI * i) / n
      pen.lineTo(radius * Math.cos(angle), radius * Math.sin(angle))
    }
    pen.fillStyle = hues
    pen.fill()
  }
}

const mark = computed(() => {
  const { chroma, hue } = props.colour
  const radius = (SIZE / 2) * Math.min(1, chroma / reach.value)
  const angle = (hue * Math.PI) / 180
  return {
    left: `${SIZE / 2 + radius * Math.cos(angle)}px`,
    top: `${SIZE / 2 - radius * Math.sin(angle)}px`,
  }
})

function under(event: PointerEvent): Place {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const x = event.clientX - box.left - box.width / 2
  const y = box.height / 2 - (event.clientY - box.top)
  return {
    chroma: Math.min(1, Math.hypot(x, y) / (box.width / 2)) * reach.value,
    hue: ((Math.atan2(y, x) * 180) / Math.PI + 360) % 360,
  }
}
function press(event: PointerEvent) {
  const target = event.currentTarget as HTMLElement
  target.setPointerCapture(event.pointerId)
  held.value = props.end
  emit('input', under(event))
}
function leave(event: PointerEvent) {
  emit('change', under(event))
  held.value = null
}
function move(event: PointerEvent) {
  if ((event.currentTarget as HTMLElement).hasPointerCapture(event.pointerId)) emit('input', under(event))
}

const STEPS: Record<string, [number, number]> = {
  ArrowUp: [0.1, 0],
  ArrowDown: [-0.1, 0],
  ArrowLeft: [0, 1],
  ArrowRight: [0, -1],
}
function key(event: KeyboardEvent) {
  const step = STEPS[event.key]
  if (!step) return
  event.preventDefault()
  const times = event.shiftKey ? 10 : 1
  const { chroma, hue } = props.colour
  emit('change', {
    chroma: Math.max(0, chroma + times * step[0]),
    hue: (hue + times * step[1] + 360) % 360,
  })
}
</script>

<template>
  <div
    class="wheel"
    role="slider"
    tabindex="0"
    aria-label="Colour wheel"
    :aria-valuenow="colour.hue"
    aria-valuemin="0"
    aria-valuemax="360"
    :aria-valuetext="`hue ${colour.hue.toFixed(0)}°, chroma ${colour.chroma.toFixed(1)}`"
    :title="`Hue around, chroma outward up to ${reach}; arrows move it: up and down the chroma, left and right the hue`"
    @pointerdown.left.prevent="press"
    @pointermove="move"
    @pointerup="leave"
    @keydown="key"
  >
    <canvas ref="face" :width="SIZE * sharpness" :height="SIZE * sharpness" />
    <i :style="{ ...mark, background: colour.hex }" />
  </div>
  <p v-if="refused" class="problem small" role="alert">{{ refused }}</p>
</template>

<style scoped>
.wheel {
  position: relative;
  width: 168px;
  height: 168px;
  margin: 4px auto;
  border: 1px solid var(--line);
  border-radius: 50%;
  cursor: crosshair;
  touch-action: none;
}
canvas {
  display: block;
  width: 168px;
  height: 168px;
  border-radius: 50%;
}
i {
  position: absolute;
  width: 12px;
  height: 12px;
  margin: -6px;
  border: 2px solid var(--white);
  outline: 1px solid var(--ink);
  border-radius: 50%;
  pointer-events: none;
}
</style>
