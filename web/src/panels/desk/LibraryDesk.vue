<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api } from '../../api/client'
import { useFinding } from '../../stores/finding'
import { useLibraries } from '../../stores/libraries'
import OneOf from '../shared/OneOf.vue'
import DeskAlikes from './DeskAlikes.vue'
import DeskDrawers from './DeskDrawers.vue'
import DeskKits from './DeskKits.vue'
import DeskMaterials from './DeskMaterials.vue'
import DeskPeople from './DeskPeople.vue'
import DeskUnused from './DeskUnused.vue'

type Tab = 'materials' | 'drawers' | 'alikes' | 'unused' | 'kits' | 'people'
/** Looks after one library: what lies in it and where, who may do what, and what it could do without. */
const id = defineModel<string | null>({ required: true })
const finding = useFinding()
const libraries = useLibraries()
const tab = ref<Tab>('materials')
const naming = ref<{ id: string | null; name: string } | null>(null)

const library = computed(() => libraries.find(id.value))
const tabs = computed(() => {
  const l = library.value
  const all: { value: Tab; text: string }[] = [{ value: 'materials', text: 'Materials' }]
  if (l && l.role !== 'USE')
    all.push(
      { value: 'drawers', text: 'Drawers' },
      { value: 'alikes', text: 'Look-alikes' },
      { value: 'unused', text: 'Not used' },
    )
  all.push({ value: 'kits', text: 'Kits' })
  if (l && !l.own) all.push({ value: 'people', text: 'People' })
  return all
})
watch(tabs, (all) => {
  if (!all.some((t) => t.value === tab.value)) tab.value = 'materials'
})
watch(library, (l) => {
  if (!l) id.value = libraries.all[0]?.id ?? null
})

async function giveName() {
  const n = naming.value
  const name = n?.name.trim()
  naming.value = null
  if (!n || !name) return
  if (n.id) {
    await libraries.act(() => api.renameLibrary(n.id ?? '', name))
  } else {
    await libraries.act(async () => (id.value = (await api.createLibrary(name)).id), `${name} made`)
  }
}
function turn(to: string) {
  if (to === '') naming.value = { id: null, name: '' }
  else id.value = to
}
</script>

<template>
  <div class="desk" role="region" aria-label="Look after libraries">
    <div class="top">
      <form v-if="naming" class="naming" @submit.prevent="giveName">
        <input
          v-model="naming.name"
          class="field"
          maxlength="120"
          placeholder="Name of the team’s library"
          aria-label="Name of the library"
          autofocus
          @keydown.esc.stop="naming = null"
        />
        <v-btn size="small" type="submit">{{ naming.id ? 'Rename' : 'Make it' }}</v-btn>
        <v-btn size="small" @click="naming = null">Leave it</v-btn>
      </form>
      <template v-else>
        <select
          class="field choice"
          aria-label="Library"
          :value="id"
          @change="turn(($event.target as HTMLSelectElement).value)"
        >
          <option v-for="l in libraries.all" :key="l.id" :value="l.id">{{ l.name }} · {{ l.items }}</option>
          <option value="">New library for a team …</option>
        </select>
        <OneOf v-model="tab" class="tabs" label="What to look after" :choices="tabs" />
        <button
          v-if="library?.role === 'APPROVE'"
          class="plain small link"
          @click="naming = { id: library.id, name: library.name }"
        >
          Rename
        </button>
      </template>
      <button class="plain small link back" @click="finding.desk = null">Back to the tray</button>
    </div>
    <div v-if="library" :key="library.id" class="body">
      <DeskMaterials v-if="tab === 'materials'" :library="library" />
      <DeskDrawers v-else-if="tab === 'drawers'" :library="library" />
      <DeskAlikes v-else-if="tab === 'alikes'" :library="library" />
      <DeskUnused v-else-if="tab === 'unused'" :library="library" />
      <DeskKits v-else-if="tab === 'kits'" :library="library" />
      <DeskPeople v-else :library="library" @gone="id = libraries.all[0]?.id ?? null" />
    </div>
  </div>
</template>

<style scoped>
.desk {
  grid-column: 2 / -1;
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
  background: var(--paper);
}
.top {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 7px 12px;
  border-bottom: 1px solid var(--line);
}
.choice {
  width: 210px;
}
.naming {
  display: flex;
  gap: 6px;
  align-items: center;
}
.naming .field {
  width: 230px;
}
.tabs {
  width: auto;
}
.tabs :deep(button) {
  padding-inline: 10px;
  white-space: nowrap;
}
.back {
  margin-left: auto;
}
.link {
  font-size: 12px;
  color: var(--accent);
}
.body {
  flex: 1;
  min-height: 0;
  overflow: auto;
}
</style>
