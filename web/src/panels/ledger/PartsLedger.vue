<script setup lang="ts">
import { mdiChevronDown, mdiChevronRight } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import { useWorkspace } from '../../stores/workspace'
import SmallChip from '../shared/SmallChip.vue'

interface Row {
  key: string
  depth: number
  name: string
  group?: number
  part?: number
  parts: number[]
}

const workspace = useWorkspace()
const filter = ref('')
const folded = ref(new Set<number>())
const list = ref<{ scrollToIndex: (index: number) => void } | null>(null)

const rows = computed<Row[]>(() => {
  const scene = workspace.scene
  if (!scene) return []
  const words = filter.value.toLowerCase().split(/\s+/).filter(Boolean)
  const out: Row[] = []
  const visit = (group: number, depth: number): number[] => {
    const inside: number[] = []
    const at = out.length
    scene.groups.forEach((g) => {
      if (g.parent !== group) return
      const place = out.length
      const parts = visit(g.index, depth + 1)
      inside.push(...parts)
      if (words.length > 0 && parts.length === 0) {
        out.length = place
        return
      }
      if (folded.value.has(g.index) && words.length === 0) out.length = place
      out.splice(place, 0, { key: `g${g.index}`, depth, name: g.name, group: g.index, parts })
    })
    scene.parts.forEach((p) => {
      if (p.group !== group) return
      const sources = p.sets.map((s) => scene.sets[s]?.name).join(' ')
      const undressed = level(p.index) === 'none' ? 'no look yet' : ''
      const text = `${p.name} ${p.role ?? ''} ${materialName(p.index)} ${sources} ${undressed}`.toLowerCase()
      if (!words.every((w) => text.includes(w))) return
      inside.push(p.index)
      out.push({ key: `p${p.index}`, depth, name: p.name, part: p.index, parts: [p.index] })
    })
    return at === out.length ? [] : inside
  }
  visit(-1, 0)
  return out
})

function region(part: number) {
  return { part, span: 0 }
}
function materialName(part: number): string {
  const m = workspace.materialOf(region(part))
  return m ? `${m.code} ${m.name}` : ''
}
function level(part: number): string {
  const look = workspace.lookOf(region(part))
  return look?.from ?? (look?.material ? 'file' : 'none')
}

const selected = computed(() => new Set(workspace.selection.map((r) => r.part)))

function choose(row: Row, event: MouseEvent | KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.shiftKey) {
    const all = row.parts.every((p) => selected.value.has(p))
    const kept = workspace.selection.filter((r) => !row.parts.includes(r.part))
    workspace.select(all ? kept : [...kept, ...row.parts.map(region)])
  } else {
    workspace.select(row.parts.map(region))
  }
}

function toggle(group: number) {
  const next = new Set(folded.value)
  if (!next.delete(group)) next.add(group)
  folded.value = next
}

watch(
  () => workspace.current?.part,
  (part) => {
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
        placeholder="Filter parts, looks, sources"
        aria-label="Filter parts"
      />
    </div>
    <v-virtual-scroll ref="list" :items="rows" :item-height="25" class="rows">
      <template #default="{ item }">
        <div
          :key="item.key"
          class="row"
          :class="{ group: item.group !== undefined, on: item.part !== undefined && selected.has(item.part) }"
          :style="{ paddingLeft: `${8 + 12 * item.depth}px` }"
          :data-part="item.part"
          tabindex="0"
          role="button"
          :aria-pressed="item.part !== undefined && selected.has(item.part)"
          @click="choose(item, $event)"
          @keydown.enter="choose(item, $event)"
        >
          <button
            v-if="item.group !== undefined"
            class="plain caret"
            :aria-label="folded.has(item.group) ? `Open ${item.name}` : `Fold ${item.name}`"
            @click.stop="toggle(item.group)"
          >
            <v-icon :icon="folded.has(item.group) ? mdiChevronRight : mdiChevronDown" size="14" />
          </button>
          <span v-else class="caret" />
          <span class="name">{{ item.name }}</span>
          <template v-if="item.part !== undefined">
            <span class="level">{{ level(item.part) }}</span>
            <SmallChip
              :material="workspace.materialOf(region(item.part))"
              :title="materialName(item.part) || 'No look yet'"
            />
          </template>
          <span v-else class="level">{{ item.parts.length }}</span>
        </div>
      </template>
    </v-virtual-scroll>
    <p v-if="rows.length === 0 && filter" class="none soft">No part or material matches “{{ filter }}”.</p>
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
