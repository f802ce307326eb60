<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import type { Material } from '../../api/client'
import { useDrag } from '../../stores/drag'
import { useChips } from '../../stores/chips'
import ChipBack from './ChipBack.vue'

/** A chip; what it says below its picture can be said otherwise. One that keeps still can't be carried to the stage. */
const props = defineProps<{
  material: Material | null
  chosen: boolean
  users?: number
  label?: string
  still?: boolean
  compared?: boolean
}>()
const emit = defineEmits<{ choose: [event: MouseEvent | KeyboardEvent]; apply: [] }>()

const drag = useDrag()
const chips = useChips()
const picture = computed(() => chips.pictures.get(props.material?.chip ?? '') ?? '')

watch(
  () => props.material?.chip,
  () => {
    if (props.material) chips.ask(props.material)
  },
  { immediate: true },
)

/** Where its back is shown; null while it isn’t. */
const back = ref<{ left: number; bottom: number } | null>(null)
const BEFORE_TURNING = 500
const HELD = 250
let turning = 0

function turn(event: Event, after: number) {
  window.clearTimeout(turning)
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  turning = window.setTimeout(() => {
    back.value = { left: box.left, bottom: window.innerHeight - box.top + 6 }
  }, after)
}
function turnBack() {
  window.clearTimeout(turning)
  back.value = null
}
onBeforeUnmount(turnBack)

/** A short press chooses, a long one showed the back. */
function letGo(event: KeyboardEvent) {
  const shown = back.value !== null
  turnBack()
  if (!shown) emit('choose', event)
}

function press(event: PointerEvent) {
  turnBack()

  if (props.material && !props.still) drag.press(event, props.material, picture.value)
}
</script>

<template>
  <button
    class="chip"
    :class="{ on: chosen, still, compared }"
    :aria-pressed="chosen"
    :aria-label="label ?? `${material?.code} ${material?.name}, ${material?.finish}`"
    :data-code="material?.code"
    @pointerdown.left="press"
    @click="$emit('choose', $event)"
    @dblclick="$emit('apply')"
    @keydown.enter.prevent="$emit('apply')"
    @keydown.space.prevent="!$event.repeat && turn($event, HELD)"
    @keyup.space.prevent="letGo"
    @pointerenter="turn($event, BEFORE_TURNING)"
    @pointerleave="turnBack"
    @blur="turnBack"
    @dragstart.prevent
  >
    <span
      class="face"
      :style="{
        backgroundColor: material?.colour.hex ?? '#b9b9b7',
        backgroundImage: picture ? `url(${picture})` : undefined,
      }"
    >
      <i class="hole" />
      <span v-if="users" class="users" :title="`Shown by ${users} parts`">{{ users }}</span>
    </span>
    <span class="strip"
      ><slot
        ><b>{{ material?.code || 'file' }}</b
        ><br />{{ material?.name }}</slot
      ></span
    >
    <ChipBack v-if="back && material" :material="material" :left="back.left" :bottom="back.bottom" />
  </button>
</template>

<style scoped>
.chip {
  width: 92px;
  flex: none;
  height: 128px;
  max-height: 100%;
  padding: 0;
  font: inherit;
  color: inherit;
  text-align: left;
  background: #fdfcfa;
  border: 1px solid #c6c3bd;
  border-radius: var(--radius);
  cursor: grab;
  overflow: hidden;
  touch-action: none;
  user-select: none;
}
.still {
  cursor: pointer;
}
.on {
  outline: 2px solid var(--accent);
  outline-offset: 0;
}
.compared:not(.on) {
  outline: 2px dashed var(--accent);
  outline-offset: 0;
}
.face {
  display: block;
  height: 78px;
  position: relative;
  background-size: cover;
  background-position: center;
}
.hole {
  position: absolute;
  left: 7px;
  top: 7px;
  width: 10px;
  height: 10px;
  border-radius: 50%;
  background: var(--well);
  box-shadow: inset 0 1px 1px #0006;
}
.users {
  position: absolute;
  right: 5px;
  top: 5px;
  font-size: 10px;
  line-height: 14px;
  padding: 0 4px;
  border-radius: 2px;
  background: #faf9f7d9;
}
.strip {
  display: block;
  font-size: 11px;
  line-height: 1.2;
  padding: 3px 7px 0;
  height: 48px;
  overflow: hidden;
}
.strip b {
  font-weight: 650;
  letter-spacing: 0.3px;
}
</style>
