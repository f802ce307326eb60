<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Colour } from '../../api/client'

/**
 * The hues around, and how strong they are outward, at the lightness of a colour; as far as a screen shows them. Moved over
 * by pointer or arrows: `input` while that goes on, `change` at its end.
 */
const props = defineProps<{ colour: Colour; end: number }>()
const emit = defineEmits<{ input: [at: Place]; change: [at: Place] }>()
type Place = { chroma: number; hue: number }

const SIZE = 168
const RINGS = 14
const sharpness = window.devicePixelRatio
const face = ref<HTMLCanvasElement | null>(null)
const limits = ref<number[]>([])
/** How strong the rim is; it stays while the pointer is down, so that nothing moves under it. */
const held = ref<number | null>(null)
const reach = computed(() => held.value ?? props.end)
let reading = false

/** One request at a time: while lightness moves on, the next is of where it is by then. */
async function read() {
  if (reading) return
  reading = true
  const lightness = props.colour.lightness
  const wheel = await api.colourWheel(lightness).catch(() => null)
  reading = false
  if (wheel) limits.value = wheel.limits
  if (wheel && lightness !== props.colour.lightness) await read()
}
watch(() => props.colour.lightness, read, { immediate: true })
watch([limits, reach, face], draw)

function draw() {
  const pen = face.value?.getContext('2d')
  if (!pen) return
  pen.setTransform(sharpness, 0, 0, sharpness, (sharpness * SIZE) / 2, (sharpness * SIZE) / 2)
  pen.clearRect(-SIZE, -SIZE, 2 * SIZE, 2 * SIZE)
  const n = limits.value.length
  const turn = (2 * Math.PI) / n
  limits.value.forEach((limit, i) => {
    const far = Math.min(limit, reach.value)
    for (let ring = RINGS; ring > 0; ring--) {
      const chroma = ((ring - 0.5) / RINGS) * far
      pen.fillStyle = `oklch(${props.colour.lightness}% ${chroma / 100} ${(360 * i) / n})`
      pen.beginPath()
      pen.moveTo(0, 0)
      pen.arc(0, 0, ((ring / RINGS) * far * SIZE) / (2 * reach.value), -(i + 0.52) * turn, -(i - 0.52) * turn)
      pen.fill()
    }
  })
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
