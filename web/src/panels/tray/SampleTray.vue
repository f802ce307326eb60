<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, watch } from 'vue'
import { api, type Level, type Material } from '../../api/client'
import { useCloser } from '../../stores/closer'
import { useDrag } from '../../stores/drag'
import { drawerName, placeOf, useFinding } from '../../stores/finding'
import { useLibraries } from '../../stores/libraries'
import { counted, useWorkspace } from '../../stores/workspace'
import LibraryDesk from '../desk/LibraryDesk.vue'
import KeepIn from './KeepIn.vue'
import SampleChip from './SampleChip.vue'
import SideBySide from './SideBySide.vue'
import SupplierShelf from './SupplierShelf.vue'
import TrayDrawers from './TrayDrawers.vue'
import TrayFilters from './TrayFilters.vue'

const workspace = useWorkspace()
const finding = useFinding()
const libraries = useLibraries()
const drag = useDrag()
const closer = useCloser()

const drawers = computed(() => [
  { id: 'palette', name: 'Palette', count: finding.palette.length },
  { id: 'recent', name: 'Used last', count: finding.recent.length },
  { id: 'arrived', name: 'As arrived', count: finding.arrived.length },
  ...libraries.all.flatMap((l) => {
    const takes = l.role !== 'USE'
    return [
      { id: drawerName(l.id, null), name: l.name, count: l.items, section: true, takes },
      ...l.drawers.map((d) => ({
        id: drawerName(l.id, d.id),
        name: d.name,
        count: d.items,
        depth: d.depth + 1,
        takes,
      })),
    ]
  }),
  { id: 'supplier', name: 'Supplier’s samples', count: null, section: true },
  {
    id: 'all',
    name: 'Whole library',
    count: libraries.shipped + libraries.all.reduce((sum, l) => sum + l.items, 0),
    section: true,
  },
  ...libraries.known.kinds.map((k) => ({
    id: k.kind,
    name: k.kind.charAt(0).toUpperCase() + k.kind.slice(1),
    count: k.count,
  })),
])
watch(
  () => finding.drawer,
  (name) => {
    if (name === 'supplier') {
      finding.open = true
      finding.comparing = false
    }
    finding.desk = null
  },
)
/** The library whose drawer is open. */
const inLibrary = computed(() => libraries.find(placeOf(finding.drawer)[0]))

onMounted(() => {
  void libraries.read()
  drag.setKeep((m, name) => {
    const [library, drawer] = placeOf(name)
    if (library) void keep(m, library, drawer)
  })
})
onBeforeUnmount(() => drag.setKeep(null))

/** Keeps a material in a library; one of that library only moves to another drawer. */
function keep(m: Material, library: string, drawer: string | null) {
  return m.place?.library === library
    ? libraries.act(() => api.moveItems(library, [m.id], drawer), `${m.name} moved`)
    : libraries.keep(library, drawer, [m.id])
}
/** Whether something that needs the width is shown instead of chips. */
const apart = computed(
  () => finding.open && (finding.desk !== null || (finding.drawer === 'supplier' && !finding.words)),
)
function lookAfter() {
  finding.open = true
  finding.comparing = false
  finding.desk = inLibrary.value?.id ?? libraries.all[0]?.id ?? null
}

const chosen = computed(() => (workspace.chosen ? workspace.materials.get(workspace.chosen) : undefined))
const setParts = computed(() => {
  const region = workspace.current
  return region ? (workspace.scene?.sets[workspace.setOf(region)]?.parts ?? 0) : 0
})

function choose(m: Material, event?: MouseEvent | KeyboardEvent) {
  if (event && (event.ctrlKey || event.metaKey)) finding.compare(m.id)
  else {
    workspace.chosen = m.id
    if (closer.material) closer.look(m)
  }
}
const parts = computed(() => new Set(workspace.selection.map((r) => r.part)).size)
/** The chosen chip where it is one of the project's own. */
const inPalette = computed(() => workspace.state?.palette.find((u) => u.material.id === workspace.chosen))
function selectUsers() {
  if (workspace.chosen) workspace.select(workspace.usersOf(workspace.chosen).reverse())
}
async function takeOut() {
  const m = inPalette.value?.material
  if (m && (await workspace.run((v) => api.removeMaterial(workspace.id, v, m.id)))) {
    if (workspace.edited === m.id) workspace.edited = null
    workspace.chosen = null
    workspace.tell(`${m.name} is out of the palette · undo brings it back`)
  }
}
/** On all that is selected; without a level, on the one at which each shows it. */
function put(level: Level | null) {
  if (workspace.chosen && workspace.selection.length > 0)
    void workspace.assign({ level, regions: workspace.selection }, workspace.chosen)
}
function quick(m: Material) {
  choose(m)
  if (!workspace.current)
    workspace.tell('Select a part first, then put the chip on it; or drag the chip onto the model.')
  else put(null)
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
      <template #below>
        <button
          v-if="finding.open"
          class="plain tidy"
          :aria-pressed="finding.desk !== null"
          @click="lookAfter"
        >
          Look after libraries …
        </button>
      </template>
    </TrayDrawers>
    <LibraryDesk v-if="finding.open && finding.desk" v-model="finding.desk" />
    <SideBySide v-else-if="finding.open && finding.comparing" />
    <SupplierShelf v-else-if="finding.drawer === 'supplier' && !finding.words" />
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
              ? finding.told ||
                (inLibrary && !finding.narrowed && !finding.words
                  ? 'Nothing is kept here yet. Drop a chip on this drawer, or use “Keep in …” beside a chosen one.'
                  : 'Nothing is like that. Take one of the wishes away.')
              : 'Nothing here yet. Drag a chip from another drawer onto the model.'
          }}
        </p>
      </div>
    </div>
    <div v-if="chosen && !apart" class="act">
      <span class="chosen-name"
        ><b>{{ chosen.code }}</b> {{ chosen.name }}</span
      >
      <span v-if="inPalette" class="own small">
        <button
          v-if="inPalette.parts > 0"
          class="plain"
          title="Selects all that shows it"
          @click="selectUsers"
        >
          Select its {{ counted(inPalette.parts, 'part') }}
        </button>
        <template v-else>
          <button
            class="plain"
            title="Shows it on the card, to be changed before it is on anything"
            @click="workspace.edit(inPalette.material.id)"
          >
            Adjust
          </button>
          <button class="plain" title="Takes it out of the palette" @click="takeOut">Take out</button>
        </template>
      </span>
      <v-btn size="small" :disabled="!workspace.current" @click="put('set')">
        Put on set<template v-if="setParts"> · {{ counted(setParts, 'part') }}</template>
      </v-btn>
      <v-btn size="small" :disabled="!workspace.current" @click="put('part')">
        Only {{ parts > 1 ? `the ${parts} selected` : 'this part' }}
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
      <label class="alone" title="What gets it keeps its density, price and carbon; only the look changes">
        <input v-model="workspace.lookOnly" type="checkbox" /> The look alone
      </label>
      <KeepIn label="Keep in …" @choose="(l, d) => chosen && keep(chosen, l, d)" />
      <div v-if="finding.open" class="more">
        <v-btn size="small" title="Traced on a form of your choice (L)" @click="closer.look(chosen)"
          >Look closely</v-btn
        >
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
    <div v-else-if="!apart && finding.compared.length > 1 && !finding.comparing" class="act">
      <v-btn size="small" @click="beside">Side by side · {{ finding.compared.length }}</v-btn>
    </div>
  </section>
</template>

<style scoped>
.act {
  width: 168px;
  overflow: auto;
}
.own {
  display: flex;
  gap: 12px;
}
.own button {
  color: var(--accent);
}
.chosen-name {
  flex-shrink: 0;
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
.alone {
  display: flex;
  align-items: center;
  gap: 5px;
}
.alone input {
  accent-color: var(--accent);
  margin: 0;
}
.tidy {
  padding: 5px 12px 6px;
  border-top: 1px solid var(--line);
  font-size: 12px;
  color: var(--accent);
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
