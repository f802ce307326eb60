<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, type Drawer, type Library } from '../../api/client'
import { useLibraries } from '../../stores/libraries'

/** Drawers of a library: made, named, and dragged to where they belong. */
const props = defineProps<{ library: Library }>()
const libraries = useLibraries()
const fresh = ref('')
/** What is being typed: a new name, or the name of a new drawer within. */
const typing = ref<{ id: string; within: boolean; name: string } | null>(null)
const dragged = ref<string | null>(null)
/** Where it would come to lie. */
const target = ref<{ id: string; where: 'before' | 'in' | 'after' } | null>(null)

const drawers = computed(() => props.library.drawers)
function siblings(parent: string | null) {
  return drawers.value.filter((d) => d.parent === parent)
}

async function add() {
  const name = fresh.value.trim()
  if (name && (await libraries.act(() => api.addDrawer(props.library.id, name, null)))) fresh.value = ''
}
async function give() {
  const t = typing.value
  const name = t?.name.trim()
  typing.value = null
  if (!t || !name) return
  await libraries.act(() =>
    t.within ? api.addDrawer(props.library.id, name, t.id) : api.renameDrawer(props.library.id, t.id, name),
  )
}
function move(id: string, into: string | null, at: number) {
  return libraries.act(() => api.moveDrawer(props.library.id, id, into, at))
}
function over(e: DragEvent, d: Drawer) {
  if (!dragged.value || dragged.value === d.id) return
  e.preventDefault()
  const box = (e.currentTarget as HTMLElement).getBoundingClientRect()
  const share = (e.clientY - box.top) / box.height
  target.value = { id: d.id, where: share < 0.3 ? 'before' : share > 0.7 ? 'after' : 'in' }
}
function drop(d: Drawer) {
  const id = dragged.value
  const where = target.value?.where
  dragged.value = null
  target.value = null
  if (!id || !where) return
  if (where === 'in') {
    void move(id, d.id, siblings(d.id).length)
    return
  }
  const others = siblings(d.parent).filter((s) => s.id !== id)
  const at = others.findIndex((s) => s.id === d.id)
  void move(id, d.parent, where === 'before' ? at : at + 1)
}
/** With Alt and the arrows: up and down among its like, right into the one above, left out of its holder. */
function key(e: KeyboardEvent, d: Drawer) {
  if (!e.altKey || !e.key.startsWith('Arrow')) return
  e.preventDefault()
  const like = siblings(d.parent)
  const at = like.findIndex((s) => s.id === d.id)
  if (e.key === 'ArrowUp' && at > 0) void move(d.id, d.parent, at - 1)
  if (e.key === 'ArrowDown' && at < like.length - 1) void move(d.id, d.parent, at + 1)
  const above = like[at - 1]
  if (e.key === 'ArrowRight' && above) void move(d.id, above.id, siblings(above.id).length)
  const holder = drawers.value.find((o) => o.id === d.parent)
  if (e.key === 'ArrowLeft' && holder)
    void move(d.id, holder.parent, siblings(holder.parent).findIndex((s) => s.id === holder.id) + 1)
}
</script>

<template>
  <div class="drawers">
    <form class="new" @submit.prevent="add">
      <input v-model="fresh" class="field" maxlength="120" placeholder="New drawer" aria-label="New drawer" />
      <v-btn size="small" type="submit" :disabled="!fresh.trim()">Make it</v-btn>
    </form>
    <p class="soft small">
      {{
        drawers.length === 0
          ? 'Drawers keep materials apart: by room, by client, by supplier. They may lie in one another.'
          : 'Drag a drawer above, below or onto another; or Alt and the arrow keys.'
      }}
    </p>
    <ul>
      <li
        v-for="d in drawers"
        :key="d.id"
        tabindex="0"
        draggable="true"
        :style="{ marginLeft: `${18 * d.depth}px` }"
        :class="target?.id === d.id ? target.where : ''"
        :aria-label="`${d.path}, ${d.items}`"
        @dragstart="dragged = d.id"
        @dragend="dragged = null"
        @dragover="over($event, d)"
        @dragleave="target = null"
        @drop.prevent="drop(d)"
        @keydown="key($event, d)"
      >
        <form v-if="typing?.id === d.id" class="new" @submit.prevent="give">
          <input
            v-model="typing.name"
            class="field"
            maxlength="120"
            :aria-label="typing.within ? `Name of the drawer in ${d.name}` : 'Name of the drawer'"
            :placeholder="typing.within ? `Drawer in ${d.name}` : ''"
            autofocus
            @keydown.esc.stop="typing = null"
            @blur="give"
          />
        </form>
        <template v-else>
          <span class="grip" aria-hidden="true">⠿</span>
          <button class="plain" title="Rename" @click="typing = { id: d.id, within: false, name: d.name }">
            {{ d.name }}
          </button>
          <span class="soft small">{{ d.items }}</span>
          <span class="small acts">
            <button class="plain" @click="typing = { id: d.id, within: true, name: '' }">
              Drawer within
            </button>
            <button
              class="plain"
              title="What lies in it comes to lie in the one that holds it"
              @click="libraries.act(() => api.deleteDrawer(library.id, d.id), `${d.name} taken away`)"
            >
              Take away
            </button>
          </span>
        </template>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.drawers {
  padding: 10px 12px;
  max-width: 560px;
}
.new {
  display: flex;
  gap: 6px;
}
.new .field {
  width: 240px;
  height: 26px;
}
p {
  margin: 6px 0;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  height: 30px;
  padding: 0 8px;
  border: 1px solid transparent;
  border-bottom-color: var(--line);
}
li.before {
  border-top-color: var(--accent);
}
li.after {
  border-bottom-color: var(--accent);
}
li.in {
  background: var(--accent-wash);
  border-color: var(--accent);
}
.grip {
  color: var(--line-strong);
  cursor: grab;
}
.acts {
  margin-left: auto;
  display: flex;
  gap: 12px;
}
.acts button {
  color: var(--accent);
}
</style>
