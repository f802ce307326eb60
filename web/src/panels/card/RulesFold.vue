<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { api, type Role, type Rule, type RuleList, type RuleOutcome } from '../../api/client'
import { counted, useWorkspace } from '../../stores/workspace'
import LengthField from '../shared/LengthField.vue'
import SmallChip from '../shared/SmallChip.vue'

/** Rules that dress parts by what is known of them: a list that is kept, says what it would do, and is run again. */
const workspace = useWorkspace()
const lists = shallowRef<RuleList[]>([])
const chosen = ref('')
const list = computed(() => lists.value.find((l) => l.id === chosen.value))
/** A new rule, before anything has been said of what it is for. */
const draft = ref<Rule | null>(null)
const kept = computed(() => list.value?.rules ?? [])
const rules = computed(() => (draft.value ? [...kept.value, draft.value] : kept.value))
watch(chosen, () => (draft.value = null))
const outcomes = shallowRef<RuleOutcome[]>([])
const total = computed(() => outcomes.value.reduce((n, o) => n + o.gets.length, 0))
const name = ref('')
/** The rule that is open to be changed. */
const open = ref<number | null>(null)
const chip = computed(() => {
  const m = workspace.chosen ? workspace.materials.get(workspace.chosen) : undefined
  return m && !workspace.state?.palette.some((u) => u.material.id === m.id) ? m.id : (m?.origin ?? null)
})

onMounted(async () => {
  await attempt(async () => {
    lists.value = await api.ruleLists()
    chosen.value = lists.value[0]?.id ?? ''
  })
})
async function attempt(work: () => Promise<unknown>) {
  try {
    await work()
  } catch (e) {
    workspace.report(e)
  }
}
watch([list, () => workspace.state?.version], ([l]) => {
  if (!l || l.rules.length === 0) {
    outcomes.value = []
    return
  }
  void attempt(async () => {
    const found = await api.tryRules(workspace.id, workspace.schemeInView, l.id)
    if (list.value === l) outcomes.value = found
  })
})

function make() {
  void attempt(async () => {
    const made = await api.createRules(name.value.trim())
    lists.value = [...lists.value, made]
    chosen.value = made.id
    name.value = ''
  })
}
function write(next: Rule[]): Promise<void> {
  const id = chosen.value
  return attempt(async () => {
    const changed = await api.changeRules(id, next)
    lists.value = lists.value.map((l) => (l.id === id ? changed : l))
    draft.value = null
  })
}
function add() {
  if (!chip.value) {
    workspace.tell('Choose a chip of a library in the tray first: what the rule gives.')
    return
  }
  open.value = kept.value.length
  draft.value = { name: '', source: '', role: null, lie: null, shortest: 0, longest: 0, material: chip.value }
}
function change(i: number, part: Partial<Rule>) {
  void write(rules.value.map((r, k) => (k === i ? { ...r, ...part } : r)))
}
function remove(i: number) {
  open.value = null
  if (i === kept.value.length) draft.value = null
  else void write(kept.value.filter((_, k) => k !== i))
}
function earlier(i: number) {
  const next = [...kept.value]
  const [moved] = next.splice(i, 1)
  if (moved) next.splice(i - 1, 0, moved)
  open.value = null
  void write(next)
}
async function apply() {
  if (await workspace.run((v) => api.applyRules(workspace.id, v, chosen.value)))
    workspace.tell(`${workspace.state?.undo ?? ''} · undo takes it back`)
}
function drop() {
  void attempt(async () => {
    await api.deleteRules(chosen.value)
    lists.value = lists.value.filter((l) => l.id !== chosen.value)
    chosen.value = lists.value[0]?.id ?? ''
  })
}

function says(r: Rule): string {
  const role = workspace.controls.roles.find((x) => x.role === r.role)?.word
  const from = r.shortest > 0 ? `from ${length(r.shortest)}` : ''
  const to = r.longest > 0 ? `up to ${length(r.longest)}` : ''
  return [
    r.name && `“${r.name}”`,
    r.source && `arrived as “${r.source}”`,
    role,
    workspace.controls.lies.find((l) => l.lie === r.lie)?.word,
    [from, to].filter(Boolean).join(' '),
  ]
    .filter(Boolean)
    .join(', ')
}
function length(metres: number): string {
  const s = workspace.state
  return s ? `${(metres / s.unitMetres).toFixed(s.unitDecimals)} ${s.unit}` : ''
}
function told(o: RuleOutcome | undefined): string {
  if (!o) return ''
  const more = [
    o.have > 0 && `${o.have} have it`,
    o.locked > 0 && `${o.locked} locked`,
    o.missing > 0 && 'its material is in no library of this project',
  ].filter(Boolean)
  return [counted(o.gets.length, 'part'), ...more].join(' · ')
}
function light(o: RuleOutcome | undefined) {
  const parts = new Set(o?.gets ?? [])
  workspace.lit = (workspace.state?.regions ?? []).filter((r) => parts.has(r.part))
}
function text(e: Event): string {
  return (e.target as HTMLInputElement).value
}
</script>

<template>
  <section class="fold rules" aria-label="Rules">
    <h2>
      Rules <small v-if="list">{{ counted(list.rules.length, 'rule') }}</small>
    </h2>
    <p class="soft small">
      What parts get by their name, role, size or what they arrived with; the first rule that fits decides.
      Kept for your next projects.
    </p>
    <div v-if="lists.length > 0" class="row">
      <select v-model="chosen" class="field" aria-label="List of rules">
        <option v-for="l in lists" :key="l.id" :value="l.id">{{ l.name }}</option>
      </select>
      <v-btn size="small" @click="drop">Delete</v-btn>
    </div>
    <ol v-if="list" @mouseleave="light(undefined)">
      <li v-for="(r, i) in rules" :key="i" @mouseenter="light(outcomes[i])">
        <button class="plain rule" :aria-expanded="open === i" @click="open = open === i ? null : i">
          <SmallChip :material="workspace.materials.get(r.material) ?? null" />
          <span>
            {{ says(r) || 'Say what it is for' }}
            <small class="soft">
              {{ workspace.materials.get(r.material)?.name }} · {{ told(outcomes[i]) }}
            </small>
          </span>
        </button>
        <div v-if="open === i" class="form small">
          <label
            >Name
            <input class="field" maxlength="200" :value="r.name" @change="change(i, { name: text($event) })"
          /></label>
          <label>
            Arrived as
            <input
              class="field"
              maxlength="200"
              :value="r.source"
              @change="change(i, { source: text($event) })"
            />
          </label>
          <label>
            Role
            <select
              class="field"
              :value="r.role ?? ''"
              @change="change(i, { role: (text($event) || null) as Role | null })"
            >
              <option value="">any</option>
              <option v-for="x in workspace.controls.roles" :key="x.role" :value="x.role">
                {{ x.word }}
              </option>
            </select>
          </label>
          <label>
            Lies
            <select
              class="field"
              :value="r.lie ?? ''"
              @change="change(i, { lie: (text($event) || null) as Rule['lie'] })"
            >
              <option value="">any way</option>
              <option v-for="l in workspace.controls.lies" :key="l.lie" :value="l.lie">{{ l.word }}</option>
            </select>
          </label>
          <label
            >Longest side from
            <LengthField
              label="Longest side from"
              lazy
              :model-value="r.shortest"
              @update:model-value="change(i, { shortest: $event })"
          /></label>
          <label
            >up to
            <LengthField
              label="Longest side up to"
              lazy
              :model-value="r.longest"
              @update:model-value="change(i, { longest: $event })"
          /></label>
          <div class="acts">
            <button class="plain" :disabled="!chip" @click="chip && change(i, { material: chip })">
              Give
              {{ chip ? (workspace.materials.get(chip)?.name ?? 'the chip') : 'a chip of a library' }} instead
            </button>
            <button v-if="i > 0 && i < kept.length" class="plain" @click="earlier(i)">Earlier</button>
            <button class="plain" @click="remove(i)">Take out</button>
          </div>
        </div>
      </li>
    </ol>
    <div v-if="list" class="row two">
      <v-btn size="small" @click="add">Add a rule</v-btn>
      <v-btn
        size="small"
        color="primary"
        variant="flat"
        :disabled="total === 0 || workspace.pending > 0"
        @click="apply"
      >
        Dress {{ counted(total, 'part') }}
      </v-btn>
    </div>
    <form class="row" @submit.prevent="make">
      <input
        v-model="name"
        class="field"
        maxlength="120"
        placeholder="New list of rules"
        aria-label="Name of the new list"
      />
      <v-btn size="small" type="submit" :disabled="!name.trim()">Make</v-btn>
    </form>
  </section>
</template>

<style scoped>
.rules {
  display: grid;
  gap: 6px;
  margin-top: 14px;
}
.rules p {
  margin: 0;
}
.row {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px;
}
.two {
  grid-template-columns: 1fr 1fr;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-bottom: 1px solid var(--line);
}
.rule {
  display: grid;
  grid-template-columns: 26px 1fr;
  gap: 8px;
  align-items: center;
  width: 100%;
  padding: 5px 0;
  text-align: left;
}
.rule small {
  display: block;
}
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 8px;
  padding: 2px 0 8px;
}
.form label {
  display: grid;
  gap: 2px;
  align-content: start;
}
.acts {
  grid-column: 1 / -1;
  display: flex;
  gap: 12px;
}
.acts button {
  color: var(--accent);
}
</style>
