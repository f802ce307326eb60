<script setup lang="ts">
import { mdiChevronDown, mdiChevronRight } from '@mdi/js'
import { computed, nextTick, ref, watch } from 'vue'
import type { Material, ScenePart } from '../../api/client'
import { useWorkspace } from '../../stores/workspace'
import SmallChip from '../shared/SmallChip.vue'
import { materialText } from '../shared/searching'

interface Row {
  key: string
  depth: number
  name: string
  group?: number
  part?: number
  parts: number[]
}

type Scope = 'all' | 'undressed' | 'arrived'
type Order = 'arrived' | 'name'

const ROW = 25

const workspace = useWorkspace()
const filter = ref('')
const scope = ref<Scope>('all')
const order = ref<Order>('arrived')
const folded = ref(new Set<number>())
const list = ref<{ scrollToIndex: (index: number) => void; $el: HTMLElement } | null>(null)
/** The row that keys start from, and the one that a range started at. */
const active = ref('')
const anchor = ref('')
const natural = new Intl.Collator('en', { numeric: true, sensitivity: 'base' })

/** What each group holds, in the order chosen; −1 stands for the model. */
const children = computed(() => {
  const all = new Map<number, { groups: { index: number; name: string }[]; parts: ScenePart[] }>()
  const of = (group: number) => {
    const known = all.get(group)
    if (known) return known
    const made = { groups: [], parts: [] }
    all.set(group, made)
    return made
  }
  for (const g of workspace.scene?.groups ?? []) of(g.parent).groups.push(g)
  for (const p of workspace.scene?.parts ?? []) of(p.group).parts.push(p)
  if (order.value === 'name')
    for (const { groups, parts } of all.values()) {
      groups.sort((a, b) => natural.compare(a.name, b.name))
      parts.sort((a, b) => natural.compare(a.name, b.name))
    }
  return all
})

/** What a part can be found by: names, and, where these say nothing, what it shows. */
const texts = computed(() => {
  const shown = new Map<number, Set<string>>()
  for (const r of workspace.state?.regions ?? []) {
    const m = workspace.materialOf(r)
    if (!m) continue
    const of = shown.get(r.part) ?? new Set()
    shown.set(r.part, of.add(materialText(m)))
  }
  return (workspace.scene?.parts ?? []).map((p) => {
    const sets = p.sets.map((s) => workspace.scene?.sets[s]?.name).join(' ')
    return `${p.name} ${p.role ?? ''} ${[...(shown.get(p.index) ?? [])].join(' ')} ${sets}`.toLowerCase()
  })
})

/** Parts of the design that nobody has dressed somewhere, and parts that show somewhere what they arrived with. */
const kept = computed(() => {
  const undressed = new Set<number>()
  const arrived = new Set<number>()
  const looks = workspace.state?.looks ?? []
  for (const r of workspace.state?.regions ?? []) {
    const look = looks[r.look]
    if (look?.undressed) undressed.add(r.part)
    if (look?.from === null) arrived.add(r.part)
  }
  for (const p of workspace.scene?.parts ?? [])
    if (workspace.surroundings.has(p.model)) undressed.delete(p.index)
  return { undressed, arrived }
})
const counts = computed(() => ({
  all: workspace.scene?.parts.length ?? 0,
  undressed: kept.value.undressed.size,
  arrived: kept.value.arrived.size,
}))

const rows = computed<Row[]>(() => {
  const words = filter.value.toLowerCase().split(/\s+/).filter(Boolean)
  const narrowed = words.length > 0 || scope.value !== 'all'
  const out: Row[] = []
  const visit = (group: number, depth: number): number[] => {
    const inside: number[] = []
    for (const g of children.value.get(group)?.groups ?? []) {
      const place = out.length
      const row: Row = { key: `g${g.index}`, depth, name: g.name, group: g.index, parts: [] }
      out.push(row)
      row.parts = visit(g.index, depth + 1)
      inside.push(...row.parts)
      if (narrowed && row.parts.length === 0) out.length = place
      else if (folded.value.has(g.index) && !narrowed) out.length = place + 1
    }
    for (const p of children.value.get(group)?.parts ?? []) {
      if (scope.value !== 'all' && !kept.value[scope.value].has(p.index)) continue
      if (!words.every((w) => texts.value[p.index]?.includes(w))) continue
      inside.push(p.index)
      out.push({ key: `p${p.index}`, depth, name: p.name, part: p.index, parts: [p.index] })
    }
    return inside
  }
  visit(-1, 0)
  return out
})

/** The row that the Tab key leads to. */
const entry = computed(() =>
  rows.value.some((r) => r.key === active.value) ? active.value : rows.value[0]?.key,
)

/** How many looks of a part are shown in its row. */
const SHOWN = 3

/** What a part shows on its surfaces, each look once; null for none yet. */
function worn(part: number): (Material | null)[] {
  const all = new Map<string, Material | null>()
  for (const r of workspace.surfacesOf(part).reverse()) {
    const m = workspace.materialOf(r) ?? null
    all.set(m?.id ?? '', m)
  }
  return [...all.values()]
}
function nameOf(m: Material | null): string {
  return m ? `${m.code} ${m.name}`.trim() : 'No look yet'
}
/** The level that its surfaces have their looks from. */
function level(part: number): string {
  const levels = workspace.surfacesOf(part).map((r) => {
    const look = workspace.lookOf(r)
    return look?.from ?? (look?.material ? 'file' : 'none')
  })
  return new Set(levels).size > 1 ? 'several' : (levels[0] ?? 'none')
}

const selected = computed(() => new Set(workspace.selection.map((r) => r.part)))

/** Whether all of a row is selected. */
function isOn(row: Row): boolean {
  return row.parts.length > 0 && row.parts.every((p) => selected.value.has(p))
}

function choose(row: Row, event: MouseEvent | KeyboardEvent) {
  active.value = row.key
  workspace.aside = null
  if (event.shiftKey) {
    selectTo(row)
    return
  }
  anchor.value = row.key
  if (event.ctrlKey || event.metaKey) {
    const kept = workspace.selection.filter((r) => !row.parts.includes(r.part))
    workspace.select(isOn(row) ? kept : [...kept, ...row.parts.flatMap(workspace.surfacesOf)])
  } else {
    workspace.selectParts(row.parts)
  }
}

/** Selects all rows from where the range started; a group by its own rows where they are listed. */
function selectTo(row: Row) {
  const from = rows.value.findIndex((r) => r.key === anchor.value)
  const to = rows.value.findIndex((r) => r.key === row.key)
  if (from < 0) anchor.value = row.key
  const range = from < 0 ? [row] : rows.value.slice(Math.min(from, to), Math.max(from, to) + 1)
  const within = range.filter((r) => r.group === undefined || !isOpen(r))
  workspace.selectParts([...new Set((within.length > 0 ? within : range).flatMap((r) => r.parts))])
}

/** Whether what a group holds has rows of its own. */
function isOpen(row: Row): boolean {
  const next = rows.value[rows.value.indexOf(row) + 1]
  return next !== undefined && next.depth > row.depth
}

async function key(event: KeyboardEvent) {
  const at = rows.value.findIndex((r) => r.key === active.value)
  const page = Math.max(1, Math.floor((list.value?.$el.clientHeight ?? 0) / ROW) - 1)
  const moves: Record<string, number> = {
    ArrowDown: at + 1,
    ArrowUp: at - 1,
    PageDown: at + page,
    PageUp: at - page,
    Home: 0,
    End: rows.value.length - 1,
  }
  const row = rows.value[at]
  if (event.key in moves) {
    const to = Math.max(0, Math.min(rows.value.length - 1, moves[event.key] ?? 0))
    const next = rows.value[to]
    if (next) {
      choose(next, event)
      await focus(to)
    }
  } else if (row?.group !== undefined && /^Arrow(Left|Right)$/.test(event.key)) {
    if (folded.value.has(row.group) === (event.key === 'ArrowRight')) toggle(row.group)
  } else if (event.key === 'a' && (event.ctrlKey || event.metaKey)) {
    workspace.selectParts([...new Set(rows.value.flatMap((r) => r.parts))])
  } else return
  event.preventDefault()
}

async function focus(index: number) {
  const find = () => list.value?.$el.querySelector<HTMLElement>(`[data-key="${rows.value[index]?.key}"]`)
  if (!find()) list.value?.scrollToIndex(index)
  await nextTick()
  find()?.focus()
}

function toggle(group: number) {
  const next = new Set(folded.value)
  if (!next.delete(group)) next.add(group)
  folded.value = next
}

watch(
  () => workspace.current?.part,
  (part) => {
    if (part !== undefined && !rows.value.some((r) => r.key === active.value && r.parts.includes(part)))
      active.value = `p${part}`
    const row = document.querySelector(`.ledger [data-part="${part}"]`)
    if (row) row.scrollIntoView({ block: 'nearest' })
    else {
      const index = rows.value.findIndex((r) => r.part === part)
      if (part !== undefined && index >= 0) list.value?.scrollToIndex(index)
    }
  },
)
</script>

<template>
  <nav class="ledger" aria-label="Parts">
    <div class="top">
      <input
        v-model="filter"
        class="field"
        type="search"
        placeholder="Names, kinds, colours, roles"
        aria-label="Filter parts"
      />
      <div class="pair">
        <select v-model="scope" class="field" aria-label="Which parts are listed">
          <option value="all">
            {{ counts.all === 1 ? 'The one part' : `All ${counts.all.toLocaleString('en')} parts` }}
          </option>
          <option value="undressed">Grey or white · {{ counts.undressed.toLocaleString('en') }}</option>
          <option value="arrived">As arrived · {{ counts.arrived.toLocaleString('en') }}</option>
        </select>
        <select v-model="order" class="field" aria-label="Order of parts">
          <option value="arrived">as in the file</option>
          <option value="name">by name</option>
        </select>
      </div>
    </div>
    <v-virtual-scroll
      ref="list"
      :items="rows"
      :item-height="ROW"
      class="rows"
      role="tree"
      aria-label="Groups and parts"
      aria-multiselectable="true"
      @keydown="key"
    >
      <template #default="{ item }">
        <div
          :key="item.key"
          class="row"
          :class="{ group: item.group !== undefined, on: isOn(item) }"
          :style="{ paddingLeft: `${8 + 12 * item.depth}px` }"
          :data-part="item.part"
          :data-key="item.key"
          :tabindex="item.key === entry ? 0 : -1"
          role="treeitem"
          :aria-level="item.depth + 1"
          :aria-selected="isOn(item)"
          :aria-expanded="item.group === undefined ? undefined : !folded.has(item.group)"
          @click="choose(item, $event)"
          @keydown.enter="choose(item, $event)"
        >
          <button
            v-if="item.group !== undefined"
            class="plain caret"
            tabindex="-1"
            :aria-label="folded.has(item.group) ? `Open ${item.name}` : `Fold ${item.name}`"
            @click.stop="toggle(item.group)"
          >
            <v-icon :icon="folded.has(item.group) ? mdiChevronRight : mdiChevronDown" size="14" />
          </button>
          <span v-else class="caret" />
          <span class="name">{{ item.name }}</span>
          <template v-if="item.part !== undefined">
            <span class="level">{{ level(item.part) }}</span>
            <span class="worn">
              <SmallChip
                v-for="m in worn(item.part).slice(0, SHOWN)"
                :key="m?.id ?? ''"
                :material="m"
                :title="nameOf(m)"
              />
              <span v-if="worn(item.part).length > SHOWN" class="level">
                +{{ worn(item.part).length - SHOWN }}
              </span>
            </span>
          </template>
          <span v-else class="level">{{ item.parts.length }}</span>
        </div>
      </template>
    </v-virtual-scroll>
    <p v-if="rows.length === 0 && filter" class="none soft">No part or material matches “{{ filter }}”.</p>
    <p v-else-if="rows.length === 0" class="none soft">
      {{ scope === 'undressed' ? 'Nothing is left grey or white.' : 'Every part has got a look of its own.' }}
    </p>
  </nav>
</template>

<style scoped>
.ledger {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--paper);
  border-right: 1px solid var(--line);
}
.top {
  padding: 9px 12px;
  border-bottom: 1px solid var(--line);
}
.pair {
  display: grid;
  grid-template-columns: 1fr 92px;
  gap: 6px;
  margin-top: 6px;
}
.pair .field {
  font-size: 11px;
  height: 24px;
  padding: 0 4px;
}
.rows {
  flex: 1;
}
.row {
  height: 25px;
  display: grid;
  grid-template-columns: 16px minmax(0, 1fr) auto auto;
  gap: 4px;
  align-items: center;
  padding-right: 10px;
  border-bottom: 1px solid #ecebe7;
  cursor: pointer;
}
.worn {
  display: flex;
  gap: 2px;
  align-items: center;
}
.row:focus-visible {
  outline-offset: -2px;
}
.group {
  background: #f3f2ef;
  font-weight: 600;
}
.on {
  background: var(--accent-wash);
  box-shadow: inset 3px 0 0 var(--accent);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.level {
  font-size: 10px;
  font-weight: 400;
  color: var(--soft);
  margin-right: 6px;
}
.none {
  padding: 10px 12px;
}
</style>
