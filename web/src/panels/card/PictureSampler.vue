<script setup lang="ts">
import { computed, onBeforeUnmount, ref } from 'vue'
import { api, Refusal, type Colour, type PictureColours } from '../../api/client'
import { stageHandle } from '../../stores/stageHandle'
import SwatchRow from './SwatchRow.vue'

/** Takes colours from a picture of one's own, or from what the stage shows: the mean of a rectangle, or its palette. */
const emit = defineEmits<{ take: [colour: Colour] }>()
const picture = ref<Blob | null>(null)
const address = ref('')
const colours = ref<PictureColours | null>(null)
const problem = ref('')
const frame = ref<HTMLElement | null>(null)
const area = ref<number[] | null>(null)
let from: number[] = [0, 0]

async function choose(blob: Blob | null) {
  if (!blob) return
  URL.revokeObjectURL(address.value)
  picture.value = blob
  address.value = URL.createObjectURL(blob)
  area.value = null
  await read()
}
const STAGE_WIDTH = 960
async function fromStage() {
  const box = document.querySelector('[data-testid=stage]')?.getBoundingClientRect()
  if (!stageHandle.value || !box) return
  await choose(
    await stageHandle.value.picture(STAGE_WIDTH, Math.round((STAGE_WIDTH * box.height) / box.width)),
  )
}
onBeforeUnmount(() => URL.revokeObjectURL(address.value))

async function read() {
  problem.value = ''
  if (!picture.value) return
  try {
    colours.value = await api.pictureColours(picture.value, area.value ?? undefined)
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    problem.value = e.message
    colours.value = null
  }
}

function share(e: PointerEvent): number[] {
  const box = frame.value?.getBoundingClientRect()
  if (!box) return [0, 0]
  const within = (v: number) => Math.max(0, Math.min(1, v))
  return [within((e.clientX - box.left) / box.width), within((e.clientY - box.top) / box.height)]
}
function begin(e: PointerEvent) {
  from = share(e)
  frame.value?.setPointerCapture(e.pointerId)
  stretch(e)
}
function stretch(e: PointerEvent) {
  if (!frame.value?.hasPointerCapture(e.pointerId)) return
  const [x = 0, y = 0] = share(e)
  const [x0 = 0, y0 = 0] = from
  const least = 0.01
  area.value = [
    Math.min(x, x0),
    Math.min(y, y0),
    Math.max(least, Math.abs(x - x0)),
    Math.max(least, Math.abs(y - y0)),
  ]
}
const outline = computed(() => {
  const [x = 0, y = 0, w = 0, h = 0] = area.value ?? []
  return { left: `${100 * x}%`, top: `${100 * y}%`, width: `${100 * w}%`, height: `${100 * h}%` }
})
</script>

<template>
  <div class="sampler" aria-label="Colours of a picture">
    <div class="line small">
      <label class="link file">
        Choose picture
        <input
          type="file"
          accept="image/png,image/jpeg"
          aria-label="Picture to take colours from"
          @change="choose(($event.target as HTMLInputElement).files?.[0] ?? null)"
        />
      </label>
      <button class="plain link" @click="fromStage">From the stage</button>
    </div>
    <div
      v-if="address"
      ref="frame"
      class="frame"
      title="Drag over an area to take its mean colour"
      @pointerdown="begin"
      @pointermove="stretch"
      @pointerup="read"
    >
      <img :src="address" alt="The picture that colours are taken from" draggable="false" />
      <i v-if="area" class="area" :style="outline" />
    </div>
    <template v-if="colours">
      <SwatchRow
        :label="area ? 'Mean of the area' : 'Mean of it all'"
        :colours="[colours.area]"
        @take="emit('take', $event)"
      />
      <p class="soft small">
        {{ colours.area.undertone }}; spread ΔE {{ colours.spread.toFixed(1) }}; drag over the picture for an
        area.
      </p>
      <p class="small" title="So many of its pixels are no more coloured than this one">
        <span v-for="t in colours.tails" :key="t.perCent" class="tail" :class="{ problem: t.cast }">
          {{ t.perCent }} %: {{ t.colour.undertone }}{{ t.cast ? ', a cast' : '' }}
        </span>
      </p>
      <SwatchRow
        label="Its palette"
        :colours="colours.palette.map((p) => p.colour)"
        :names="colours.palette.map((p) => `${(100 * p.share).toFixed(0)} % of it`)"
        @take="emit('take', $event)"
      />
      <SwatchRow
        label="Strongest spots"
        :colours="colours.spots.map((s) => s.colour)"
        :names="colours.spots.map((s) => `at ${s.x}, ${s.y}`)"
        @take="emit('take', $event)"
      />
    </template>
    <p v-if="problem" class="problem small" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.sampler {
  display: grid;
  gap: 4px;
}
.line {
  display: flex;
  gap: 14px;
}
.tail + .tail {
  margin-left: 12px;
}
.link {
  color: var(--accent);
  cursor: pointer;
}
.file input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
.file:focus-within {
  outline: 2px solid var(--accent);
}
.frame {
  position: relative;
  cursor: crosshair;
  touch-action: none;
  line-height: 0;
  width: fit-content;
}
.frame img {
  max-width: 100%;
  max-height: 180px;
  user-select: none;
}
.area {
  position: absolute;
  border: 1px solid var(--white);
  outline: 1px solid var(--ink);
  pointer-events: none;
}
</style>
