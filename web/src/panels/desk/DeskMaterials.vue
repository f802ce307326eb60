<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type Library, type Material } from '../../api/client'
import { useLibraries } from '../../stores/libraries'
import { counted, useWorkspace } from '../../stores/workspace'
import SampleChip from '../tray/SampleChip.vue'
import ItemForm from './ItemForm.vue'
import ItemRenaming from './ItemRenaming.vue'

/** What lies in a library: choose some, then move, rename, describe, approve or take them out. */
const props = defineProps<{ library: Library }>()
const workspace = useWorkspace()
const libraries = useLibraries()
const drawer = ref<string | null>(null)
const waitingOnly = ref(false)
const found = shallowRef<Material[]>([])
const total = ref(0)
const chosen = ref<string[]>([])
const acting = ref<'describe' | 'rename' | 'remove' | null>(null)
let asked = 0

const may = computed(() => props.library.role !== 'USE')
const shown = computed(() =>
  waitingOnly.value ? found.value.filter((m) => m.place?.approved === false) : found.value,
)
const selected = computed(() => found.value.filter((m) => chosen.value.includes(m.id)))
const one = computed(() => (selected.value.length === 1 ? selected.value[0] : undefined))
const waiting = computed(() => selected.value.some((m) => m.place?.approved === false))

async function read(from: number) {
  const mine = ++asked
  try {
    const answer = await api.find(workspace.id, {
      place: { library: props.library.id, drawer: drawer.value },
      from,
    })
    if (mine !== asked) return
    found.value = from === 0 ? answer.materials : [...found.value, ...answer.materials]
    total.value = answer.total
    workspace.know(answer.materials)
    chosen.value = chosen.value.filter((id) => found.value.some((m) => m.id === id))
  } catch (e) {
    workspace.report(e)
  }
}
watch([() => libraries.known, drawer], () => void read(0), { immediate: true })
function scrolled(e: Event) {
  const box = e.target as HTMLElement
  const near = box.scrollHeight - box.scrollTop - box.clientHeight < 300
  if (near && found.value.length < total.value) void read(found.value.length)
}

function toggle(m: Material) {
  acting.value = null
  chosen.value = chosen.value.includes(m.id)
    ? chosen.value.filter((id) => id !== m.id)
    : [...chosen.value, m.id]
}
async function act(work: () => Promise<unknown>, done: string) {
  if (await libraries.act(work, done)) acting.value = null
}
function move(e: Event) {
  const select = e.target as HTMLSelectElement
  const to = select.value
  select.value = '-'
  const into = to === '' ? null : to
  void act(
    () => api.moveItems(props.library.id, chosen.value, into),
    `${counted(chosen.value.length, 'material')} moved`,
  )
}
function approve(approved: boolean) {
  const what = counted(chosen.value.length, 'material')
  void act(
    () => api.approveItems(props.library.id, chosen.value, approved),
    approved ? `${what} approved` : `${what} held back`,
  )
}
function remove() {
  void act(
    () => api.removeItems(props.library.id, chosen.value),
    `${counted(chosen.value.length, 'material')} taken out · projects keep what they show`,
  )
}
</script>

<template>
  <div class="materials">
    <div class="left" @scroll.passive="scrolled">
      <div class="filter small">
        <select v-model="drawer" class="field" aria-label="Drawer">
          <option :value="null">All drawers</option>
          <option v-for="d in library.drawers" :key="d.id" :value="d.id">{{ d.path }} · {{ d.items }}</option>
        </select>
        <label v-if="library.waiting > 0" class="soft">
          <input v-model="waitingOnly" type="checkbox" /> {{ library.waiting }} wait for approval
        </label>
        <button
          v-if="shown.length > 0"
          class="plain link"
          @click="chosen = chosen.length === shown.length ? [] : shown.map((m) => m.id)"
        >
          {{ chosen.length === shown.length ? 'Choose none' : 'Choose all shown' }}
        </button>
      </div>
      <p v-if="shown.length === 0" class="soft none">
        Nothing is kept here yet. Choose a chip on the tray and “Keep in …”, or drag it onto a drawer at the
        left.
      </p>
      <div class="grid">
        <SampleChip
          v-for="m in shown"
          :key="m.id"
          still
          :material="m"
          :chosen="chosen.includes(m.id)"
          @choose="toggle(m)"
          @apply="toggle(m)"
        >
          <b>{{ m.code || 'no code' }}</b>
          <i v-if="m.place?.approved === false" class="waits" title="Waits for approval">waits</i>
          <br />{{ m.name }}
        </SampleChip>
      </div>
    </div>
    <div class="right">
      <p v-if="chosen.length === 0" class="soft small">
        {{ may ? 'Choose one or several to move, rename, describe or take them out.' : 'You may use these.' }}
      </p>
      <template v-else>
        <b class="small">{{ one ? one.name : `${chosen.length} chosen` }}</b>
        <div v-if="may" class="acts">
          <select class="field" aria-label="Move to a drawer" value="-" @change="move">
            <option value="-">Move to …</option>
            <option value="">No drawer</option>
            <option v-for="d in library.drawers" :key="d.id" :value="d.id">{{ d.path }}</option>
          </select>
          <v-btn v-if="one" size="small" @click="acting = acting === 'describe' ? null : 'describe'">
            Describe …
          </v-btn>
          <v-btn size="small" @click="acting = acting === 'rename' ? null : 'rename'">Rename …</v-btn>
          <v-btn v-if="library.role === 'APPROVE' && !library.own" size="small" @click="approve(waiting)">
            {{ waiting ? 'Approve' : 'Hold back' }}
          </v-btn>
          <v-btn size="small" @click="acting = acting === 'remove' ? null : 'remove'">Take out …</v-btn>
        </div>
        <div v-if="acting === 'remove'" class="ask small">
          <p>
            Takes {{ counted(chosen.length, 'material') }} out for everybody. Projects keep what they show.
          </p>
          <v-btn size="small" color="primary" variant="flat" @click="remove">Take out</v-btn>
        </div>
        <ItemForm
          v-else-if="acting === 'describe' && one"
          :key="one.id"
          :material="one"
          @done="acting = null"
        />
        <ItemRenaming
          v-else-if="acting === 'rename'"
          :library="library.id"
          :materials="selected"
          @done="acting = null"
        />
      </template>
    </div>
  </div>
</template>

<style scoped>
.materials {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 296px;
  height: 100%;
}
.left {
  overflow: auto;
  padding: 8px 12px;
}
.filter {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-bottom: 8px;
}
.filter .field {
  width: 180px;
  height: 24px;
  font-size: 12px;
}
.filter input {
  accent-color: var(--accent);
  vertical-align: -2px;
}
.grid {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.waits {
  float: right;
  font-style: normal;
  color: var(--amber);
}
.right {
  border-left: 1px solid var(--line);
  padding: 8px 12px;
  overflow: auto;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin-top: 6px;
}
.acts .field {
  height: 26px;
  font-size: 12px;
}
.ask {
  display: grid;
  gap: 6px;
  justify-items: start;
  margin-top: 8px;
}
.link {
  color: var(--accent);
}
</style>
