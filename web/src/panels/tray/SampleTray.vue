<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Level, Material } from '../../api/client'
import { counted, useWorkspace } from '../../stores/workspace'
import SampleChip from './SampleChip.vue'
import TrayDrawers from './TrayDrawers.vue'

const workspace = useWorkspace()
const drawer = ref('palette')
const search = ref('')

const palette = computed(() => (workspace.state?.palette ?? []).map((u) => u.material))
const arrived = computed(() => (workspace.state?.arrived ?? []).map((u) => u.material))

const drawers = computed(() => {
  const counts = new Map<string, number>()
  for (const m of workspace.library) counts.set(m.kind ?? 'other', (counts.get(m.kind ?? 'other') ?? 0) + 1)
  return [
    { id: 'palette', name: 'Palette', count: palette.value.length },
    { id: 'arrived', name: 'As arrived', count: arrived.value.length },
    ...[...counts].map(([id, count]) => ({ id, name: id.charAt(0).toUpperCase() + id.slice(1), count })),
  ]
})

const chips = computed<Material[]>(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  if (words.length > 0) {
    const all = [...palette.value, ...arrived.value, ...workspace.library]
    const text = (m: Material) =>
      `${m.code} ${m.name} ${m.kind ?? ''} ${m.finish} ${m.facts?.tags.join(' ') ?? ''}`.toLowerCase()
    return all.filter((m) => words.every((w) => text(m).includes(w)))
  }
  if (drawer.value === 'palette') return palette.value
  if (drawer.value === 'arrived') return arrived.value
  return workspace.library.filter((m) => m.kind === drawer.value)
})

const chosen = computed(() => (workspace.chosen ? workspace.materials.get(workspace.chosen) : undefined))
const setParts = computed(() => {
  const region = workspace.current
  return region ? new Set(workspace.reach('set', region).map((r) => r.part)).size : 0
})

function choose(m: Material) {
  workspace.chosen = m.id
}
function put(level: Level) {
  if (workspace.chosen && workspace.selection.length > 0)
    void workspace.assign(level, workspace.selection, workspace.chosen)
}
function quick(m: Material) {
  choose(m)
  if (!workspace.current)
    workspace.tell('Select a part first, then put the chip on it; or drag the chip onto the model.')
  else put(workspace.shownLevel(workspace.current))
}
</script>

<template>
  <section class="sample-tray" aria-label="Sample tray">
    <TrayDrawers v-model="drawer" v-model:search="search" label="Find a material" :drawers="drawers" />
    <div class="chips">
      <SampleChip
        v-for="m in chips"
        :key="m.id"
        :material="m"
        :chosen="m.id === workspace.chosen"
        :users="workspace.users.get(m.id) ?? 0"
        @choose="choose(m)"
        @apply="quick(m)"
      />
      <p v-if="chips.length === 0" class="soft none">
        {{
          search
            ? `No material matches “${search}”. Try a kind (metal), a finish (satin) or a code.`
            : 'Nothing here yet. Drag a chip from another drawer onto the model.'
        }}
      </p>
    </div>
    <div v-if="chosen" class="act">
      <b>{{ chosen.code }}</b> <span class="chosen-name">{{ chosen.name }}</span>
      <v-btn size="small" :disabled="!workspace.current" @click="put('set')">
        Put on set<template v-if="setParts"> · {{ counted(setParts, 'part') }}</template>
      </v-btn>
      <v-btn size="small" :disabled="!workspace.current" @click="put('part')">
        Only {{ workspace.selection.length > 1 ? `the ${workspace.selection.length} selected` : 'this part' }}
      </v-btn>
      <v-btn
        size="small"
        :variant="workspace.applying ? 'flat' : 'outlined'"
        :color="workspace.applying ? 'primary' : undefined"
        :aria-pressed="workspace.applying"
        @click="workspace.applying = !workspace.applying"
      >
        Click to apply (A)
      </v-btn>
    </div>
  </section>
</template>

<style scoped>
.act {
  width: 168px;
}
.chosen-name {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
