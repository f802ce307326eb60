<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { api, type DressingRow, type Material, type Role } from '../../api/client'
import { useWorkspace } from '../../stores/workspace'

/** The rows of a dressing table: by what a source material is known, and what it becomes. */
const props = defineProps<{ table: string }>()
const emit = defineEmits<{ changed: [] }>()

const workspace = useWorkspace()
const rows = ref<DressingRow[]>([])
const shipped = ref<Material[]>([])
const library = computed(() => [...shipped.value].sort((a, b) => a.code.localeCompare(b.code)))

watch(
  () => props.table,
  async (table) => {
    try {
      rows.value = await api.dressingRows(table)
    } catch (e) {
      workspace.report(e)
    }
  },
  { immediate: true },
)
onMounted(async () => {
  try {
    shipped.value = await api.library()
  } catch (e) {
    workspace.report(e)
  }
})

async function write(next: DressingRow[]) {
  try {
    rows.value = await api.changeDressing(props.table, next)
    emit('changed')
  } catch (e) {
    workspace.report(e)
    rows.value = [...rows.value] // shows what is kept
  }
}
function change(at: number, by: Partial<DressingRow>) {
  void write(rows.value.map((r, i) => (i === at ? { ...r, ...by } : r)))
}
function add() {
  const first = library.value[0]
  if (first) void write([...rows.value, { name: '*', colour: '#808080', role: null, material: first.id }])
}
function text(event: Event): string {
  return (event.target as HTMLInputElement | HTMLSelectElement).value
}
</script>

<template>
  <div>
    <p class="soft small">
      A name counts first; * stands for any text. Names that say nothing, and sources that no name fits, go by
      colour and role.
    </p>
    <ul aria-label="Rows of the table">
      <li v-for="(r, i) in rows" :key="i">
        <input
          class="field"
          :value="r.name"
          maxlength="120"
          :aria-label="`Name or pattern, row ${i + 1}`"
          @change="change(i, { name: text($event) })"
        />
        <input
          class="colour"
          type="color"
          :value="r.colour"
          :aria-label="`Colour, row ${i + 1}`"
          @change="change(i, { colour: text($event) })"
        />
        <select
          class="field"
          :value="r.role ?? ''"
          :aria-label="`Role, row ${i + 1}`"
          @change="change(i, { role: (text($event) || null) as Role | null })"
        >
          <option value="">any role</option>
          <option v-for="k in workspace.controls.roles" :key="k.role" :value="k.role">{{ k.word }}</option>
        </select>
        <select
          class="field becomes"
          :value="r.material"
          :aria-label="`Becomes, row ${i + 1}`"
          @change="change(i, { material: text($event) })"
        >
          <option v-for="m in library" :key="m.id" :value="m.id">{{ m.code }} {{ m.name }}</option>
        </select>
        <v-btn
          size="small"
          :aria-label="`Take row ${i + 1} out`"
          @click="write(rows.filter((_, k) => k !== i))"
        >
          Out
        </v-btn>
      </li>
    </ul>
    <v-btn size="small" @click="add">Add a row</v-btn>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 4px 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 28px 92px;
  gap: 4px 6px;
  align-items: center;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
}
.field {
  height: 26px;
  padding: 0 5px;
  font-size: 12px;
}
.colour {
  width: 28px;
  height: 26px;
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
  background: none;
  padding: 1px;
}
.becomes {
  grid-column: 1 / 3;
}
p {
  margin: 4px 0;
}
</style>
