<script setup lang="ts">
import { computed, ref } from 'vue'
import { stageHandle } from '../../stores/stageHandle'
import { useViews } from '../../stores/views'
import { useWorkspace } from '../../stores/workspace'
import { captioned } from '../../stage/legend'
import { AIDS, isDiagram } from '../shared/aids'
import OneOf from '../shared/OneOf.vue'
import ModelFileFold from './ModelFileFold.vue'

const workspace = useWorkspace()
const views = useViews()
const width = ref(1920)
const height = ref(1440)
const busy = ref(false)
const problem = ref('')

const SIZES: [string, number, number][] = [
  ['Screen, 1920 × 1080', 1920, 1080],
  ['Square, 2048 × 2048', 2048, 2048],
  ['A4 landscape at 150 dpi', 1754, 1240],
  ['A4 portrait at 150 dpi', 1240, 1754],
]

const SHOWN = AIDS.map(({ value, title, says }) => ({ value, text: title, title: says }))
const shownAs = computed(() => SHOWN.find((s) => s.value === workspace.pictured))
const withLegend = ref(true)
/** What the picture is to show is not on the stage yet. */
const isComing = computed(() => isDiagram(workspace.pictured) && !workspace.diagram)

const limit = computed(() => stageHandle.value?.largestPicture ?? 4096)
const fault = computed(() => {
  const bad = (v: number) => !Number.isInteger(v) || v < 16 || v > limit.value
  return bad(width.value) || bad(height.value)
    ? `A picture here can be 16 to ${limit.value.toLocaleString('en')} pixels along each side.`
    : ''
})

/** The stage as it stands, as a file; the view is named where it is one of several. */
async function take(view = '') {
  const alone = await stageHandle.value?.picture(width.value, height.value, 'image/png', true)
  if (!alone) throw new Error('no picture')
  const things = workspace.diagram?.things
  const picture = things && withLegend.value ? await captioned(alone, things) : alone
  const link = document.createElement('a')
  link.href = URL.createObjectURL(picture)
  const aid = workspace.pictured === 'looks' ? '' : shownAs.value?.text.toLowerCase()
  const what = [workspace.state?.name ?? 'Picture', workspace.scheme?.letter, view, aid]
    .filter(Boolean)
    .join(', ')
  link.download = `${what} ${width.value}×${height.value}.png`
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}

async function takeAll() {
  const before = stageHandle.value?.view
  const chosen = views.chosen
  try {
    for (const view of views.all) {
      views.go(view)
      await stageHandle.value?.settled()
      await take(view.name)
    }
  } finally {
    views.chosen = chosen
    if (before) stageHandle.value?.goTo(before)
  }
}

async function save(work: () => Promise<void>) {
  busy.value = true
  problem.value = ''
  try {
    await work()
  } catch {
    problem.value = 'The picture could not be made. Try a smaller size.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <aside class="card side-card" aria-label="Picture">
    <h1 class="title">Picture</h1>
    <p class="soft small">The stage as it stands, without outline, at the size you need.</p>
    <OneOf v-model="workspace.pictured" label="What the picture shows" :choices="SHOWN" class="shows" />
    <label v-if="isDiagram(workspace.pictured)" class="small legend">
      <input v-model="withLegend" type="checkbox" /> With what the colours stand for
    </label>
    <section class="fold" aria-label="Size">
      <h2>Size <small>pixels</small></h2>
      <div class="size">
        <input
          v-model.number="width"
          class="field"
          type="number"
          min="16"
          :max="limit"
          aria-label="Width in pixels"
        />
        <span>×</span>
        <input
          v-model.number="height"
          class="field"
          type="number"
          min="16"
          :max="limit"
          aria-label="Height in pixels"
        />
      </div>
      <div class="sizes">
        <v-btn
          v-for="[name, w, h] in SIZES"
          :key="name"
          size="small"
          block
          @click="((width = w), (height = h))"
          >{{ name }}</v-btn
        >
      </div>
      <p v-if="fault" class="problem small" role="alert">{{ fault }}</p>
      <p v-if="problem" class="problem small" role="alert">{{ problem }}</p>
    </section>
    <v-btn
      color="primary"
      variant="flat"
      block
      height="32"
      :loading="busy"
      :disabled="fault !== '' || isComing"
      @click="save(take)"
    >
      Save picture (PNG)
    </v-btn>
    <v-btn
      v-if="views.all.length > 0"
      block
      class="all"
      :disabled="fault !== '' || busy || isComing"
      @click="save(takeAll)"
    >
      Save a picture of each view ({{ views.all.length }})
    </v-btn>
    <ModelFileFold />
  </aside>
</template>

<style scoped>
.card .small {
  margin-bottom: 10px;
}
.shows {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  margin-bottom: 10px;
}
.legend {
  display: block;
}
.all {
  margin-top: 8px;
}
.size {
  display: grid;
  grid-template-columns: 1fr auto 1fr;
  gap: 8px;
  align-items: center;
}
.sizes {
  display: grid;
  gap: 5px;
  margin: 10px 0;
}
</style>
