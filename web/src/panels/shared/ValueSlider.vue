<script setup lang="ts">
import { computed, ref } from 'vue'

const props = withDefaults(
  defineProps<{
    label: string
    value: number
    min?: number
    max?: number
    step?: number
    decimals?: number
    unit?: string
    track?: string
    changed?: boolean
    hint?: string
    /** What may be typed at most, where that is more than the bar shows. */
    most?: number
    /** Shows elsewhere than where one looks. */
    faint?: boolean
    /** What the two ends are called. */
    ends?: string[]
  }>(),
  {
    min: 0,
    max: 1,
    step: 0.01,
    decimals: 2,
    unit: '',
    track: '',
    changed: false,
    hint: '',
    most: undefined,
    faint: false,
    ends: () => [],
  },
)
const emit = defineEmits<{ input: [value: number]; change: [value: number]; reset: [] }>()

const bar = ref<HTMLElement | null>(null)
const moving = ref<number | null>(null)
const typed = ref<string | null>(null)

const shown = computed(() => moving.value ?? props.value)
const share = computed(() => Math.max(0, Math.min(1, (shown.value - props.min) / (props.max - props.min))))
const text = computed(() => typed.value ?? shown.value.toFixed(props.decimals) + props.unit)

function limited(v: number): number {
  return Math.max(props.min, Math.min(props.most ?? props.max, v))
}

function move(v: number) {
  moving.value = limited(v)
  emit('input', moving.value)
}

function finish() {
  if (moving.value === null) return
  const v = moving.value
  moving.value = null
  emit('change', v)
}

/** Follows the pointer until it is let go; `at` gives the value for a pointer event. */
function follow(event: PointerEvent, at: (e: PointerEvent) => number) {
  const target = event.currentTarget as HTMLElement
  target.setPointerCapture(event.pointerId)
  const onMove = (e: PointerEvent) => move(at(e))
  const onUp = () => {
    target.removeEventListener('pointermove', onMove)
    target.removeEventListener('pointerup', onUp)
    target.removeEventListener('pointercancel', onUp)
    finish()
  }
  target.addEventListener('pointermove', onMove)
  target.addEventListener('pointerup', onUp)
  target.addEventListener('pointercancel', onUp)
}

function pressBar(event: PointerEvent) {
  const rect = bar.value?.getBoundingClientRect()
  if (!rect || event.button !== 0) return
  const at = (e: PointerEvent) => props.min + ((e.clientX - rect.left) / rect.width) * (props.max - props.min)
  move(at(event))
  follow(event, at)
}

function pressLabel(event: PointerEvent) {
  if (event.button !== 0 || event.detail > 1) return
  let last = event.clientX
  let v = props.value
  follow(event, (e) => {
    const fine = e.altKey ? 0.1 : 1
    v = limited(v + ((e.clientX - last) * fine * (props.max - props.min)) / 300)
    last = e.clientX
    return v
  })
}

function key(event: KeyboardEvent) {
  const steps = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 } as Record<string, number>
  const direction = steps[event.key]
  if (direction === undefined) return
  event.preventDefault()
  const v = limited(props.value + direction * props.step * (event.altKey ? 0.1 : event.shiftKey ? 10 : 1))
  emit('change', v)
}

function commitTyped() {
  const entered = typed.value
  typed.value = null
  if (entered === null) return
  const number = Number.parseFloat(entered.replace(',', '.'))
  if (Number.isFinite(number) && number !== props.value) emit('change', limited(number))
}
</script>

<template>
  <div class="row" :class="{ tall: ends.length === 2 }">
    <span
      class="label"
      :class="{ soft: faint }"
      :title="hint"
      @pointerdown="pressLabel"
      @dblclick="emit('reset')"
    >
      {{ label }}<i v-if="changed" class="dot" title="Changed; double-click the name to go back" />
    </span>
    <div
      ref="bar"
      class="bar"
      role="slider"
      tabindex="0"
      :aria-label="label"
      :aria-valuenow="shown"
      :aria-valuemin="min"
      :aria-valuemax="max"
      :aria-valuetext="text"
      :style="{ background: track || undefined }"
      @pointerdown="pressBar"
      @keydown="key"
    >
      <i class="mark" :style="{ left: `${100 * share}%` }" />
      <span v-if="ends.length === 2" class="ends" aria-hidden="true">
        <span>{{ ends[0] }}</span><span>{{ ends[1] }}</span>
      </span>
    </div>
    <input
      class="number"
      :value="text"
      :aria-label="`${label}, typed`"
      @focus="($event.target as HTMLInputElement).select()"
      @input="typed = ($event.target as HTMLInputElement).value"
      @keydown.enter="($event.target as HTMLInputElement).blur()"
      @keydown.esc="((typed = null), ($event.target as HTMLInputElement).blur())"
      @blur="commitTyped"
    />
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 86px 1fr 70px;
  gap: 10px;
  align-items: center;
  height: 26px;
}
.tall {
  height: 34px;
}
.ends {
  position: absolute;
  top: 9px;
  left: 0;
  right: 0;
  display: flex;
  justify-content: space-between;
  font-size: 10px;
  color: var(--soft);
  pointer-events: none;
}
.label {
  cursor: ew-resize;
  white-space: nowrap;
  user-select: none;
  touch-action: none;
}
.dot {
  display: inline-block;
  width: 5px;
  height: 5px;
  border-radius: 50%;
  background: var(--accent);
  margin: 0 0 2px 4px;
}
.bar {
  position: relative;
  height: 8px;
  border: 1px solid #0003;
  border-radius: 2px;
  background: linear-gradient(90deg, #dcd9d4, #a9a6a0);
  cursor: pointer;
  touch-action: none;
}
.bar::before {
  content: '';
  position: absolute;
  inset: -8px -2px;
}
.mark {
  position: absolute;
  top: -5px;
  width: 5px;
  height: 16px;
  margin-left: -2.5px;
  background: var(--ink);
  border: 1px solid var(--white);
  border-radius: 1px;
  pointer-events: none;
}
.number {
  font: inherit;
  width: 70px;
  height: 22px;
  text-align: right;
  padding: 0 5px;
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
  background: var(--white);
}
</style>
