<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Kind, type Material, type SetWire, type SplitBy } from '../../api/client'
import { areaText } from '../shared/lengths'
import { materialText } from '../shared/searching'
import { counted, useWorkspace } from '../../stores/workspace'
import SampleChip from './SampleChip.vue'
import TrayDrawers from './TrayDrawers.vue'

type Filter = 'all' | 'unclear' | 'alike'
const SPLITS: Record<SplitBy, string> = { PIECE: 'By shape of piece', DIRECTION: 'By where it faces' }
/** How many kinds are listed before a split. */
const LISTED = 4

/** What arrived with one source material each, to be recognised, named, split and merged. */
const workspace = useWorkspace()
const sets = ref<SetWire[]>([])
const failed = ref(false)
const search = ref('')
const filter = ref<Filter>('all')
const chosen = ref<number[]>([])
const splitting = ref<{ set: number; by: SplitBy; kinds: Kind[] } | null>(null)
const name = ref('')

watch(
  () => workspace.scene,
  async (scene) => {
    if (!scene) return
    try {
      sets.value = await api.sets(workspace.id)
      failed.value = false
    } catch {
      failed.value = true
    }
    chosen.value = chosen.value.filter((s) => sets.value.some((w) => w.index === s))
    splitting.value = null
  },
  { immediate: true },
)

const filters = computed(() => [
  { id: 'all' as const, name: 'All', count: sets.value.length },
  { id: 'unclear' as const, name: 'Unclear names', count: sets.value.filter((s) => !s.meaning).length },
  { id: 'alike' as const, name: 'Look the same', count: sets.value.filter((s) => s.alike !== null).length },
])
/** What a set can be found by: its name, what it arrived as, and the parts that wear it. */
const texts = computed(() => {
  const users = new Map<number, Set<string>>()
  for (const p of workspace.scene?.parts ?? [])
    for (const set of p.sets) {
      const of = users.get(set) ?? new Set()
      users.set(set, of.add(`${p.name} ${p.role ?? ''}`))
    }
  return new Map(
    sets.value.map((s) => {
      const m = material(s)
      const all = [s.name, m ? materialText(m) : '', ...(users.get(s.index) ?? [])]
      return [s.index, all.join(' ').toLowerCase()]
    }),
  )
})
const listed = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  const fit = sets.value.filter(
    (s) =>
      words.every((w) => texts.value.get(s.index)?.includes(w)) &&
      (filter.value === 'all' || (filter.value === 'unclear' ? !s.meaning : s.alike !== null)),
  )
  return filter.value === 'alike' ? fit.sort((a, b) => (a.alike ?? 0) - (b.alike ?? 0)) : fit
})
const current = computed(() => sets.value.find((s) => s.index === chosen.value[0]))
const same = computed(() =>
  chosen.value.length === 1 && current.value?.alike != null
    ? sets.value.filter((s) => s.alike === current.value?.alike)
    : [],
)

watch(current, (set) => {
  name.value = set?.name ?? ''
  splitting.value = null
})

function material(s: SetWire): Material | null {
  return s.source ? (workspace.materials.get(s.source) ?? null) : null
}
function share(s: SetWire): string {
  return s.share >= 0.0095 ? `${Math.round(100 * s.share)} %` : '< 1 %'
}

function choose(s: SetWire, event: MouseEvent | KeyboardEvent) {
  const more = event.ctrlKey || event.metaKey || event.shiftKey
  const without = chosen.value.filter((c) => c !== s.index)
  chosen.value = !more ? [s.index] : without.length < chosen.value.length ? without : [...without, s.index]
  workspace.select(workspace.regionsOf(chosen.value))
}

async function look(by: SplitBy) {
  const set = current.value
  if (!set) return
  try {
    splitting.value = { set: set.index, by, kinds: await api.kinds(workspace.id, set.index, by) }
  } catch (e) {
    workspace.report(e)
  }
}

async function done(work: Promise<boolean>) {
  if (await work) workspace.tell(`${workspace.state?.undo ?? ''} · undo takes it back`)
}
function split() {
  const s = splitting.value
  if (s) void done(workspace.run((v) => api.split(workspace.id, v, s.set, s.by)))
}
function merge(list: number[]) {
  void done(workspace.run((v) => api.mergeSets(workspace.id, v, list)))
}
function rename() {
  const set = current.value
  if (set && name.value.trim() && name.value.trim() !== set.name)
    void done(workspace.run((v) => api.renameSet(workspace.id, v, set.index, name.value)))
}
</script>

<template>
  <section class="sample-tray" aria-label="Source materials">
    <TrayDrawers v-model="filter" v-model:search="search" label="Find a source material" :drawers="filters" />
    <div class="chips" @mouseleave="workspace.lit = []">
      <SampleChip
        v-for="s in listed"
        :key="s.index"
        still
        :material="material(s)"
        :label="`${s.name}, ${counted(s.parts, 'part')}, ${share(s)} of the surface`"
        :chosen="chosen.includes(s.index)"
        @mouseenter="workspace.lit = workspace.regionsOf([s.index])"
        @focus="workspace.lit = workspace.regionsOf([s.index])"
        @blur="workspace.lit = []"
        @choose="choose(s, $event)"
      >
        <b>{{ s.name }}</b><br />
        {{ counted(s.parts, 'part') }}<br />
        {{ areaText(s.area, workspace.state?.unit) }}, {{ share(s) }}
      </SampleChip>
      <p v-if="failed" class="soft none" role="alert">
        What arrived can’t be fetched. Open the project again.
      </p>
      <p v-else-if="listed.length === 0" class="soft none">
        {{ search ? `Nothing here is called, coloured or used like “${search}”.` : 'None of this kind.' }}
      </p>
    </div>
    <div v-if="current && splitting" class="act">
      <template v-if="splitting.kinds.length > 1">
        <ul>
          <li v-for="(k, i) in splitting.kinds.slice(0, LISTED)" :key="i">
            <span>{{ k.name }} × {{ k.pieces }}</span>
            <span class="soft"
              >{{ areaText(k.area, workspace.state?.unit) }}{{ i === 0 ? ', stays' : '' }}</span
            >
          </li>
          <li v-if="splitting.kinds.length > LISTED" class="soft">
            and {{ splitting.kinds.length - LISTED }} more
          </li>
        </ul>
      </template>
      <p v-else class="soft">{{ current.name }} is all of one kind; there is nothing to split.</p>
      <div class="pair">
        <v-btn
          v-if="splitting.kinds.length > 1"
          size="small"
          :disabled="workspace.pending > 0"
          @click="split"
        >
          Split in {{ splitting.kinds.length }}
        </v-btn>
        <v-btn size="small" @click="splitting = null">Leave it</v-btn>
      </div>
    </div>
    <div v-else-if="chosen.length > 1" class="act">
      <p>
        <b>{{ chosen.length }} sets</b>, to become one that looks as the first with a clear name does.
      </p>
      <v-btn size="small" :disabled="workspace.pending > 0" @click="merge(chosen)">
        Merge {{ chosen.length }} sets
      </v-btn>
    </div>
    <div v-else-if="current" class="act">
      <form @submit.prevent="rename">
        <input v-model="name" class="field" maxlength="120" aria-label="Name of the set" @blur="rename" />
      </form>
      <span class="soft">Split it</span>
      <div class="pair">
        <v-btn v-for="(text, by) in SPLITS" :key="by" size="small" @click="look(by)">{{ text }}</v-btn>
      </div>
      <v-btn
        v-if="same.length > 1"
        size="small"
        :disabled="workspace.pending > 0"
        @click="merge(same.map((s) => s.index))"
      >
        Merge the {{ same.length }} that look the same
      </v-btn>
      <span v-else class="soft small">Ctrl-click another to merge them.</span>
    </div>
  </section>
</template>

<style scoped>
.act {
  width: 300px;
  overflow: auto;
}
.act p {
  margin: 0;
}
.act .field {
  width: 100%;
}
.pair {
  display: flex;
  gap: 6px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
</style>
