<script setup lang="ts">
import { computed } from 'vue'
import type { Level, Material } from '../../api/client'
import { useFinding } from '../../stores/finding'
import { counted, useWorkspace } from '../../stores/workspace'
import SampleChip from './SampleChip.vue'
import SideBySide from './SideBySide.vue'
import TrayDrawers from './TrayDrawers.vue'
import TrayFilters from './TrayFilters.vue'

const workspace = useWorkspace()
const finding = useFinding()

const drawers = computed(() => {
  const counts = new Map<string, number>()
  for (const m of workspace.library) counts.set(m.kind ?? 'other', (counts.get(m.kind ?? 'other') ?? 0) + 1)
  return [
    { id: 'palette', name: 'Palette', count: finding.palette.length },
    { id: 'recent', name: 'Used last', count: finding.recent.length },
    { id: 'arrived', name: 'As arrived', count: finding.arrived.length },
    { id: 'all', name: 'Whole library', count: workspace.library.length },
    ...[...counts].map(([id, count]) => ({ id, name: id.charAt(0).toUpperCase() + id.slice(1), count })),
  ]
})

const chosen = computed(() => (workspace.chosen ? workspace.materials.get(workspace.chosen) : undefined))
const setParts = computed(() => {
  const region = workspace.current
  return region ? new Set(workspace.reach('set', region).map((r) => r.part)).size : 0
})

function choose(m: Material, event?: MouseEvent | KeyboardEvent) {
  if (event && (event.ctrlKey || event.metaKey)) finding.compare(m.id)
  else workspace.chosen = m.id
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
function beside() {
  finding.open = true
  finding.comparing = true
}
/** Fetches the next page before the end is reached. */
function scrolled(e: Event) {
  const box = e.target as HTMLElement
  const left = finding.open
    ? box.scrollHeight - box.scrollTop - box.clientHeight
    : box.scrollWidth - box.scrollLeft - box.clientWidth
  if (left < 400) finding.more()
}
</script>

<template>
  <section class="sample-tray" :class="{ opened: finding.open }" aria-label="Sample tray">
    <TrayDrawers
      v-model="finding.drawer"
      v-model:search="finding.words"
      label="Find a material"
      :drawers="drawers"
    >
      <button
        class="plain open"
        :aria-expanded="finding.open"
        :title="finding.open ? 'Close the tray (T)' : 'Open the tray to half the window (T)'"
        :aria-label="finding.open ? 'Close the tray' : 'Open the tray'"
        @click="finding.open = !finding.open"
      >
        <i :class="{ down: finding.open }" aria-hidden="true" />
      </button>
    </TrayDrawers>
    <SideBySide v-if="finding.open && finding.comparing" />
    <div v-else class="middle">
      <TrayFilters v-if="finding.open" />
      <p v-else-if="finding.told || finding.failed" class="told small soft" role="status">
        {{ finding.failed || finding.told }}
      </p>
      <div class="chips" @scroll.passive="scrolled">
        <SampleChip
          v-for="m in finding.chips"
          :key="m.id"
          :material="m"
          :chosen="m.id === workspace.chosen"
          :compared="finding.compared.includes(m.id)"
          :users="workspace.users.get(m.id) ?? 0"
          @choose="choose(m, $event)"
          @apply="quick(m)"
        />
        <p v-if="finding.chips.length === 0" class="soft none">
          {{
            finding.fromLibrary
              ? finding.told || 'Nothing is like that. Take one of the wishes away.'
              : 'Nothing here yet. Drag a chip from another drawer onto the model.'
          }}
        </p>
      </div>
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
      <div v-if="finding.open" class="more">
        <v-btn size="small" @click="finding.like = chosen">What reflects like it</v-btn>
        <v-btn size="small" @click="finding.near = chosen">What has its colour</v-btn>
        <v-btn size="small" @click="finding.compare(chosen.id)">
          {{ finding.compared.includes(chosen.id) ? 'Take off the comparison' : 'Lay aside to compare' }}
        </v-btn>
      </div>
      <v-btn v-if="finding.compared.length > 1 && !finding.comparing" size="small" @click="beside">
        Side by side · {{ finding.compared.length }}
      </v-btn>
    </div>
    <div v-else-if="finding.compared.length > 1 && !finding.comparing" class="act">
      <v-btn size="small" @click="beside">Side by side · {{ finding.compared.length }}</v-btn>
    </div>
  </section>
</template>

<style scoped>
.act {
  width: 168px;
  overflow: auto;
}
.chosen-name {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.middle {
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
}
.middle .chips {
  flex: 1;
  min-height: 0;
}
.opened .chips {
  flex-wrap: wrap;
  align-content: flex-start;
  overflow: hidden auto;
}
.told {
  padding: 2px 12px 0;
}
.told + .chips {
  padding-top: 2px;
  padding-bottom: 4px;
}
.more {
  display: flex;
  flex-direction: column;
  gap: 5px;
  margin-top: 6px;
}
.open {
  width: 26px;
  height: 24px;
  text-align: center;
  flex: none;
}
.open i {
  display: inline-block;
  border: 5px solid transparent;
  border-bottom-color: currentcolor;
  border-top: 0;
}
.open i.down {
  border: 5px solid transparent;
  border-top-color: currentcolor;
  border-bottom: 0;
}
</style>
