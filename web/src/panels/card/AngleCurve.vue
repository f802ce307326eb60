<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Card } from './card'
import ParameterControl from './ParameterControl.vue'

/** Reflectance by angle as a curve that can be dragged: its ends and its bend. */
const props = defineProps<{ of: Card }>()
const WIDE = 270
const HIGH = 110
const BEND = 65
const frame = ref<SVGSVGElement | null>(null)
const held = ref<number | null>(null)

const last = computed(() => props.of.material.reflectance.length - 1)
const points = computed(() =>
  props.of.material.reflectance.map((r, i) => ({ x: (i * WIDE) / last.value, y: (1 - r) * HIGH })),
)
const line = computed(() => 'M' + points.value.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join(' L'))
const metal = computed(() => props.of.number('base_metalness') > 0.5)
const handles = computed(() =>
  [0, BEND, 90].map((degrees) => {
    const r = props.of.material.reflectance[Math.round((degrees / 90) * last.value)] ?? 0
    return { degrees, x: (degrees / 90) * WIDE, y: (1 - r) * HIGH, value: r }
  }),
)
const NAMES = ['Reflectance facing', 'Bend of the reflectance', 'Reflectance at the edge']

function valueAt(e: PointerEvent): number {
  const box = frame.value?.getBoundingClientRect()
  if (!box) return 0
  return Math.max(0, Math.min(1, 1 - (e.clientY - box.top) / box.height))
}
function grab(e: PointerEvent, degrees: number) {
  held.value = degrees
  frame.value?.setPointerCapture(e.pointerId)
}
function drag(e: PointerEvent) {
  if (held.value !== null) props.of.attempt({ curve: [held.value, valueAt(e)] })
}
function drop(e: PointerEvent) {
  if (held.value !== null) props.of.commit({ curve: [held.value, valueAt(e)] })
  held.value = null
}
function key(e: KeyboardEvent, degrees: number, value: number) {
  const step = { ArrowUp: 0.02, ArrowDown: -0.02 }[e.key]
  if (step === undefined) return
  e.preventDefault()
  props.of.commit({ curve: [degrees, Math.max(0, Math.min(1, value + (e.altKey ? step / 10 : step)))] })
}
</script>

<template>
  <svg
    ref="frame"
    class="curve"
    :viewBox="`0 0 ${WIDE} ${HIGH}`"
    aria-label="Reflectance by angle"
    @pointermove="drag"
    @pointerup="drop"
    @pointercancel="drop"
  >
    <path v-for="y in [0.25, 0.5, 0.75]" :key="y" class="grid" :d="`M0 ${y * HIGH} H${WIDE}`" />
    <path v-for="x in [1 / 3, 2 / 3]" :key="x" class="grid" :d="`M${x * WIDE} 0 V${HIGH}`" />
    <path class="line" :d="line" />
    <template v-if="!metal">
      <circle
        v-for="(h, i) in handles"
        :key="h.degrees"
        :cx="h.x"
        :cy="h.y"
        r="5"
        tabindex="0"
        role="slider"
        :aria-label="NAMES[i]"
        aria-valuemin="0"
        aria-valuemax="1"
        :aria-valuenow="h.value.toFixed(2)"
        @pointerdown.prevent="grab($event, h.degrees)"
        @keydown="key($event, h.degrees, h.value)"
      />
    </template>
  </svg>
  <p class="axis soft small"><span>facing</span><span>30°</span><span>60°</span><span>edge</span></p>
  <p v-if="metal" class="soft small">A metal’s curve follows from its colour and its reflection tint.</p>
  <template v-else>
    <ParameterControl parameter="generalized_schlick" :of="of" />
    <template v-if="of.flag('generalized_schlick')">
      <ParameterControl parameter="schlick_color0" :of="of" />
      <ParameterControl parameter="schlick_color90" :of="of" />
      <ParameterControl parameter="schlick_exponent" :of="of" />
    </template>
  </template>
</template>

<style scoped>
.curve {
  width: 100%;
  border: 1px solid var(--line-strong);
  background: var(--white);
  overflow: visible;
  touch-action: none;
}
.grid {
  stroke: var(--line);
}
.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}
circle {
  fill: var(--accent);
  stroke: var(--white);
  cursor: ns-resize;
}
.axis {
  display: flex;
  justify-content: space-between;
}
</style>
