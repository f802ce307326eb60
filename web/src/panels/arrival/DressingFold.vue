<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type DressingTable, type Fitting } from '../../api/client'
import { counted, useWorkspace } from '../../stores/workspace'
import SmallChip from '../shared/SmallChip.vue'
import DressingRows from './DressingRows.vue'

/** What source materials become, kept from one project and given to the next. */
const workspace = useWorkspace()
const tables = ref<DressingTable[]>([])
const chosen = ref('')
const fittings = ref<Fitting[]>([])
const name = ref('')
const editing = ref(false)

const hits = computed(() => fittings.value.filter((f) => f.material && !f.dressed))
const misses = computed(() => fittings.value.filter((f) => !f.material && !f.dressed))
const dressed = computed(() => fittings.value.filter((f) => f.dressed).length)

async function read() {
  try {
    tables.value = await api.dressingTables()
  } catch (e) {
    workspace.report(e)
  }
  if (!tables.value.some((t) => t.id === chosen.value)) chosen.value = ''
}
void read()

async function changed() {
  await read()
  await fit(chosen.value)
}
watch([chosen, () => workspace.state?.version], ([table]) => void fit(table))
async function fit(table: string) {
  if (!table) {
    fittings.value = []
    return
  }
  try {
    fittings.value = await api.fitDressing(workspace.id, workspace.schemeInView, table)
  } catch (e) {
    fittings.value = []
    workspace.report(e)
  }
}

function setName(set: number): string {
  return workspace.scene?.sets[set]?.name ?? ''
}
function light(set: number | null) {
  workspace.lit = set === null ? [] : workspace.regionsOf([set])
}

async function save() {
  try {
    const saved = await api.saveDressing(workspace.id, workspace.schemeInView, name.value)
    workspace.tell(`${saved.name} · ${counted(saved.rows, 'row')} kept for the next import`)
    name.value = ''
    await read()
    chosen.value = saved.id
  } catch (e) {
    workspace.report(e)
  }
}
async function apply() {
  if (await workspace.run((v) => api.applyDressing(workspace.id, v, chosen.value)))
    workspace.tell(`${workspace.state?.undo ?? ''} · undo takes it back`)
}
async function remove() {
  try {
    await api.deleteDressing(chosen.value)
    await read()
  } catch (e) {
    workspace.report(e)
  }
}
</script>

<template>
  <section class="fold" aria-label="Dressing table">
    <h2>Dressing table</h2>
    <p class="soft small">What each source material becomes, kept here and given to the next import.</p>
    <form class="row" @submit.prevent="save">
      <input v-model="name" class="field" maxlength="120" placeholder="Name" aria-label="Name of the table" />
      <v-btn size="small" type="submit" :disabled="name.trim() === ''">Keep this project’s</v-btn>
    </form>
    <div v-if="tables.length > 0" class="row">
      <select v-model="chosen" class="field" aria-label="Dressing table">
        <option value="">Choose a table to give</option>
        <option v-for="t in tables" :key="t.id" :value="t.id">
          {{ t.name }} · {{ counted(t.rows, 'row') }}
        </option>
      </select>
      <span v-if="chosen" class="acts">
        <v-btn size="small" :aria-expanded="editing" @click="editing = !editing">
          {{ editing ? 'Done' : 'Edit' }}
        </v-btn>
        <v-btn size="small" @click="remove">Delete</v-btn>
      </span>
    </div>
    <DressingRows v-if="chosen && editing" :table="chosen" @changed="changed" />
    <template v-if="chosen">
      <ul aria-label="What it would do" @mouseleave="light(null)">
        <li v-for="f in hits" :key="f.set" @mouseenter="light(f.set)">
          <span>{{ setName(f.set) }}</span>
          <SmallChip :material="workspace.materials.get(f.material ?? '') ?? null" />
          <span>{{ workspace.materials.get(f.material ?? '')?.name }}</span>
          <span class="soft">{{ f.by === 'NAME' ? 'by name' : 'by colour' }}</span>
        </li>
        <li v-for="f in misses" :key="f.set" class="soft" @mouseenter="light(f.set)">
          <span>{{ setName(f.set) }}</span><i /><span>no row fits</span>
        </li>
      </ul>
      <p v-if="dressed > 0" class="soft small">
        {{ counted(dressed, 'set') }} with a look of their own stay.
      </p>
      <v-btn size="small" :disabled="hits.length === 0 || workspace.pending > 0" @click="apply">
        Dress {{ counted(hits.length, 'set') }}
      </v-btn>
    </template>
  </section>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px;
  margin: 4px 0;
}
.acts {
  display: flex;
  gap: 6px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 4px 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 30px minmax(0, 1.3fr) auto;
  gap: 8px;
  align-items: center;
  padding: 1px 0;
}
li span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
p {
  margin: 3px 0;
}
</style>
