<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type ItemName, type Material } from '../../api/client'
import { useLibraries } from '../../stores/libraries'
import { counted, useWorkspace } from '../../stores/workspace'
import OneOf from '../shared/OneOf.vue'
import RenamingFields from '../shared/RenamingFields.vue'

/** New names for some of a library's materials, by a pattern with numbers or by replacing a text. */
const props = defineProps<{ library: string; materials: Material[] }>()
const emit = defineEmits<{ done: [] }>()
const LISTED = 8
const PAUSE = 200
const workspace = useWorkspace()
const libraries = useLibraries()
const way = ref<'pattern' | 'replace'>('pattern')
const pattern = ref('{name}')
const first = ref(1)
const find = ref('')
const replacement = ref('')
const preview = ref<ItemName[]>([])
let waiting = 0
let asked = 0

const wanted = computed(() => ({
  items: props.materials.map((m) => m.id),
  pattern: way.value === 'pattern' ? pattern.value : null,
  first: Math.max(0, Math.round(first.value) || 0),
  find: find.value,
  replacement: replacement.value,
}))
const changing = computed(() =>
  preview.value.filter((n) => n.name !== props.materials.find((m) => m.id === n.item)?.name),
)
watch(
  wanted,
  () => {
    window.clearTimeout(waiting)
    waiting = window.setTimeout(() => void ask(), PAUSE)
  },
  { immediate: true },
)
async function ask() {
  const mine = ++asked
  try {
    const names = await api.previewItemNames(props.library, wanted.value)
    if (mine === asked) preview.value = names
  } catch (e) {
    workspace.report(e)
  }
}
async function give() {
  const done = await libraries.act(
    () => api.renameItems(props.library, wanted.value),
    `${counted(changing.value.length, 'material')} renamed`,
  )
  if (done) emit('done')
}
</script>

<template>
  <form class="renaming small" @submit.prevent="give">
    <OneOf
      v-model="way"
      label="How names are made"
      :choices="[
        { value: 'pattern', text: 'Pattern' },
        { value: 'replace', text: 'Find and replace' },
      ]"
    />
    <RenamingFields
      v-model:pattern="pattern"
      v-model:first="first"
      v-model:find="find"
      v-model:replacement="replacement"
      :way="way"
    />
    <p v-for="n in changing.slice(0, LISTED)" :key="n.item" class="soft">{{ n.name }}</p>
    <p v-if="changing.length > LISTED" class="soft">and {{ changing.length - LISTED }} more</p>
    <v-btn size="small" type="submit" :disabled="changing.length === 0">
      Rename {{ counted(changing.length, 'material') }}
    </v-btn>
  </form>
</template>

<style scoped>
.renaming {
  display: grid;
  gap: 5px;
  margin-top: 8px;
}
</style>
