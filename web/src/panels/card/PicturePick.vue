<script setup lang="ts">
import { computed, ref } from 'vue'
import { api } from '../../api/client'
import { useWorkspace } from '../../stores/workspace'
import LengthField from '../shared/LengthField.vue'
import type { Card } from './card'

/** Has a picture drive a parameter: one of the project's, or a file; with its real size and the channel that is read. */
const props = defineProps<{ parameter: string; of: Card; begun?: boolean }>()
const workspace = useWorkspace()
const open = ref(false)
/** Those that were brought since the project's own were told. */
const brought = ref<string[]>([])
const pictures = computed(() => [
  ...new Set([...brought.value, ...(workspace.scene?.pictures ?? []).map((p) => p.sha256)]),
])
const control = computed(() => props.of.control(props.parameter))
const picture = computed(() => props.of.material.textures.find((t) => t.parameter === props.parameter))
/** What the stage reads from pictures. */
const ON_STAGE = [
  'base_color',
  'specular_roughness',
  'base_metalness',
  'emission_color',
  'geometry_opacity',
  'reflected_surroundings',
]
/** What lies around the surface rather than on it. */
const isAround = computed(() => props.parameter === 'reflected_surroundings')
const channel = ref('')
/** Of one repeat, in metres. */
const width = ref(0.5)
const height = ref(0.5)

function turn() {
  open.value = !open.value
  if (!open.value) return
  channel.value = picture.value?.channel ?? control.value?.channel ?? ''
  const size = picture.value?.size
  if (size) [width.value, height.value] = size as [number, number]
}

if (props.begun) turn()

async function bring(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  try {
    const { sha256 } = await api.addPicture(workspace.id, file)
    brought.value = [sha256, ...brought.value]
    take(sha256)
  } catch (error) {
    workspace.report(error)
  }
}

function take(image: string) {
  const real_size = [width.value, height.value]
  const picture = { of: props.parameter, image, channel: channel.value }
  void props.of.commit({ picture: isAround.value ? picture : { ...picture, real_size } })
}
function again() {
  if (picture.value) take(picture.value.image)
}
</script>

<template>
  <button v-if="!begun" class="plain small link" :aria-expanded="open" @click="turn">Change</button>
  <div v-if="open" class="pick" :aria-label="`Picture for ${control?.label ?? parameter}`">
    <label v-if="!isAround" class="small" title="Real width and height of one repeat">
      One repeat
      <LengthField v-model="width" lazy label="Width of one repeat" @update:model-value="again" />
      ×
      <LengthField v-model="height" lazy label="Height of one repeat" @update:model-value="again" />
    </label>
    <label v-if="control?.shape !== 'COLOUR'" class="small" title="Which of the picture’s channels is read">
      Channel
      <select v-model="channel" aria-label="Channel" @change="again">
        <option value="r">red</option>
        <option value="g">green</option>
        <option value="b">blue</option>
        <option value="a">alpha</option>
        <option value="rgb">brightness</option>
      </select>
    </label>
    <div class="shelf">
      <button
        v-for="p in pictures"
        :key="p"
        class="thumb"
        :class="{ on: p === picture?.image }"
        :aria-label="`Take picture ${p.slice(0, 6)}`"
        :style="{ backgroundImage: `url(${api.assetAddress(workspace.id, p)})` }"
        @click="take(p)"
      />
    </div>
    <p v-if="!ON_STAGE.includes(parameter)" class="soft small">
      Shows in traced pictures; the stage has the plain value.
    </p>
    <label class="small link file">
      From a file
      <input type="file" accept="image/png,image/jpeg" @change="bring" />
    </label>
  </div>
</template>

<style scoped>
.link {
  color: var(--accent);
  white-space: nowrap;
}
.pick {
  grid-column: 1 / -1;
  display: grid;
  gap: 6px;
  padding: 6px 0;
}
.pick label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.pick input[type='number'],
.pick select {
  height: 24px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--paper);
}
.pick input[type='number'] {
  width: 64px;
  padding: 0 4px;
}
.shelf {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.thumb {
  width: 44px;
  height: 32px;
  border: 1px solid var(--line);
  background-size: cover;
  cursor: pointer;
}
.thumb.on {
  outline: 2px solid var(--accent);
}
.file {
  cursor: pointer;
}
.file input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
</style>
