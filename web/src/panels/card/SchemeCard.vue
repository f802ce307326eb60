<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed, reactive, ref, watch } from 'vue'
import { api, type Beginning, type Difference, type SchemeState, type Spot } from '../../api/client'
import { useSchemes } from '../../stores/schemes'
import { counted, useWorkspace } from '../../stores/workspace'
import { areaText } from '../shared/lengths'
import SmallChip from '../shared/SmallChip.vue'
import NearTwins from './NearTwins.vue'

/** The scheme that is looked at: what it is called, how far it has got, and what differs in another one. */
const workspace = useWorkspace()
const schemes = useSchemes()
const scheme = computed(() => workspace.scheme)
const base = computed(() => workspace.schemes.find((s) => s.id === scheme.value?.bases[0]))
const heirs = computed(() => workspace.schemes.filter((s) => s.bases[0] === scheme.value?.id))
const others = computed(() => workspace.schemes.filter((s) => s.id !== scheme.value?.id))

const text = reactive({ name: '', description: '', reason: '' })
/** A state that waits for its reason. */
const rejecting = ref<SchemeState | null>(null)
watch(
  scheme,
  (s) => {
    if (s) Object.assign(text, { name: s.name, description: s.description, reason: s.reason })
    rejecting.value = null
    if (schemes.other === s?.id) schemes.other = null
  },
  { immediate: true },
)

function needsReason(state: SchemeState): boolean {
  return workspace.controls.schemeStates.some((s) => s.name === state && s.needsReason)
}
function keep(change: { state?: SchemeState } = {}) {
  const s = scheme.value
  if (!s || !text.name.trim()) return
  const state = change.state ?? s.state
  const said = { name: text.name.trim(), description: text.description, state, reason: text.reason }
  if (
    said.name === s.name &&
    said.description.trim() === s.description &&
    state === s.state &&
    (!needsReason(state) || said.reason.trim() === s.reason)
  )
    return
  void workspace.run((v) => api.describeScheme(workspace.id, v, s.id, said))
}
function setState(state: SchemeState) {
  rejecting.value = needsReason(state) && !text.reason.trim() ? state : null
  if (!rejecting.value) keep({ state })
}

const made = reactive<{ name: string; beginning: Beginning }>({ name: '', beginning: 'BASED' })
const beginnings = computed<{ value: Beginning; label: string; says: string }[]>(() => [
  {
    value: 'BASED',
    label: `Based on ${scheme.value?.letter}`,
    says: `Follows ${scheme.value?.letter} in all that you don’t change in it`,
  },
  { value: 'COPY', label: `Copy of ${scheme.value?.letter}`, says: 'Goes its own way from now on' },
  { value: 'EMPTY', label: 'As the model arrived', says: 'Begins with nothing put on anything' },
])
async function make() {
  if (!made.name.trim()) return
  await schemes.create(made.name.trim(), made.beginning)
  made.name = ''
}
function remove() {
  const s = scheme.value
  if (!s) return
  const follow = heirs.value.map((h) => h.letter).join(', ')
  workspace.question = {
    text:
      `Delete scheme ${s.letter} “${s.name}”? ` +
      (follow ? `${follow} ${heirs.value.length > 1 ? 'keep their' : 'keeps its'} looks. ` : '') +
      'Undo brings it back.',
    yes: () => {
      workspace.aside = null
      void workspace.run((v) => api.deleteScheme(workspace.id, v, s.id))
    },
  }
}

/** Things that have candidates, and those of them that are left out of the combinations. */
const choices = computed(() => workspace.state?.candidates ?? [])
const leftOut = ref(new Set<string>())
const combined = computed(() => choices.value.filter((c) => !leftOut.value.has(`${c.level}/${c.target}`)))
const count = computed(() =>
  combined.value.length === 0 ? 0 : combined.value.reduce((n, c) => n * c.materials.length, 1),
)
function choiceName(c: { level: string; target: number }): string {
  const spot = c as Spot
  return spot.level === 'set'
    ? `set ${workspace.scene?.sets[spot.target]?.name ?? ''}`
    : workspace.spotName(spot)
}
function toggleChoice(key: string) {
  const next = new Set(leftOut.value)
  if (!next.delete(key)) next.add(key)
  leftOut.value = next
}
async function combine() {
  const of = combined.value.map(({ level, target }) => ({ level: level as Spot['level'], target }))
  const n = count.value
  if (await workspace.run((v) => api.combineCandidates(workspace.id, v, of)))
    workspace.tell(`${counted(n, 'scheme')} more, based on ${scheme.value?.letter}`)
}

function material(id: string | null) {
  return id ? (workspace.materials.get(id) ?? null) : null
}
function light(d: Difference | null) {
  workspace.lit = d
    ? d.parts.flatMap((part) => (workspace.scene?.parts[part]?.sets ?? []).map((_, span) => ({ part, span })))
    : []
}
function numbers(d: Difference): string {
  const gloss = Math.round(d.gloss)
  return (
    `ΔE ${d.difference.toFixed(1)}` + (gloss === 0 ? '' : ` · ${gloss > 0 ? '+' : '−'}${Math.abs(gloss)} GU`)
  )
}
</script>

<template>
  <aside v-if="scheme" class="card side-card" aria-label="Scheme">
    <header>
      <h1 class="title">Scheme {{ scheme.letter }}</h1>
      <button class="plain" aria-label="Close" @click="workspace.aside = null">
        <v-icon :icon="mdiClose" size="16" />
      </button>
    </header>
    <p class="soft small">
      <template v-if="base">
        Based on {{ base.letter }} {{ base.name }} · {{ counted(scheme.own, 'difference') }}
      </template>
      <template v-else>{{ counted(scheme.own, 'thing') }} dressed</template>
      <template v-if="heirs.length > 0">
        · {{ heirs.map((h) => h.letter).join(', ') }} {{ heirs.length > 1 ? 'follow' : 'follows' }} it
      </template>
    </p>
    <section class="fold form" aria-label="About this scheme">
      <input
        v-model="text.name"
        class="field"
        aria-label="Name of the scheme"
        maxlength="120"
        @change="keep()"
      />
      <textarea
        v-model="text.description"
        class="field words"
        aria-label="What it is about"
        placeholder="What it is about"
        rows="2"
        maxlength="2000"
        @change="keep()"
      />
      <div class="scope" role="radiogroup" aria-label="How far it has got">
        <button
          v-for="s in workspace.controls.schemeStates"
          :key="s.name"
          role="radio"
          :aria-checked="scheme.state === s.name"
          :class="{ on: (rejecting ?? scheme.state) === s.name }"
          @click="setState(s.name)"
        >
          {{ s.label }}
        </button>
      </div>
      <input
        v-if="rejecting || needsReason(scheme.state)"
        v-model="text.reason"
        class="field"
        aria-label="Why it was rejected"
        placeholder="Why it was rejected"
        maxlength="500"
        :autofocus="rejecting !== null"
        @change="keep({ state: rejecting ?? scheme.state })"
      />
    </section>
    <section class="fold" aria-label="New scheme">
      <h2>New scheme</h2>
      <form v-if="schemes.making" class="form" @submit.prevent="make">
        <input
          v-model="made.name"
          class="field"
          aria-label="Name of the new scheme"
          placeholder="Name"
          autofocus
          maxlength="120"
        />
        <label v-for="b in beginnings" :key="b.value" class="way">
          <input v-model="made.beginning" type="radio" :value="b.value" />
          <span
            >{{ b.label }} <small class="soft">{{ b.says }}</small></span
          >
        </label>
        <div class="pair">
          <v-btn size="small" @click="schemes.making = false">Leave it</v-btn>
          <v-btn size="small" color="primary" variant="flat" type="submit" :disabled="!made.name.trim()"
            >Make scheme</v-btn
          >
        </div>
      </form>
      <div v-else class="pair">
        <v-btn size="small" @click="schemes.making = true">New scheme …</v-btn>
        <v-btn size="small" :disabled="others.length === 0" @click="remove">Delete {{ scheme.letter }}</v-btn>
      </div>
    </section>
    <section v-if="choices.length > 0" class="fold form" aria-label="Combinations of candidates">
      <h2>
        Combinations of candidates
        <small>{{ combined.map((c) => c.materials.length).join(' × ') }}</small>
      </h2>
      <label v-for="c in choices" :key="`${c.level}/${c.target}`" class="way">
        <input
          type="checkbox"
          :checked="!leftOut.has(`${c.level}/${c.target}`)"
          @change="toggleChoice(`${c.level}/${c.target}`)"
        />
        <span
          >{{ choiceName(c) }}
          <small class="soft">{{ counted(c.materials.length, 'candidate') }}</small></span
        >
      </label>
      <v-btn size="small" :disabled="count === 0" @click="combine">
        Make {{ counted(count, 'scheme') }} of them
      </v-btn>
    </section>
    <NearTwins />
    <section class="fold" aria-label="Differences">
      <h2>
        Differences
        <small v-if="schemes.differences">{{ counted(schemes.differences.length, 'change') }}</small>
      </h2>
      <p v-if="others.length === 0" class="soft small">
        Make another scheme, and what differs between the two is listed here.
      </p>
      <template v-else>
        <select v-model="schemes.other" class="field" aria-label="Compared with">
          <option :value="null">Compare with …</option>
          <option v-for="o in others" :key="o.id" :value="o.id">{{ o.letter }} {{ o.name }}</option>
        </select>
        <template v-if="schemes.differences && schemes.otherScheme">
          <p class="soft small hint">
            From {{ scheme.letter }} to {{ schemes.otherScheme.letter }} · hold C to see
            {{ schemes.otherScheme.letter }} on the stage
          </p>
          <p v-if="schemes.differences.length === 0" class="small">Both look the same.</p>
          <ul class="list">
            <li
              v-for="(d, i) in schemes.differences"
              :key="i"
              tabindex="0"
              @mouseenter="light(d)"
              @mouseleave="light(null)"
              @focus="light(d)"
              @blur="light(null)"
              @click="workspace.selectParts(d.parts)"
              @keydown.enter="workspace.selectParts(d.parts)"
            >
              <SmallChip :material="material(d.from)" />
              <span class="arrow">→</span>
              <SmallChip :material="material(d.to)" />
              <span class="names">
                {{ d.fromName }} → <b>{{ d.toName }}</b>
                <small class="soft">
                  {{
                    d.parts.length === 1
                      ? workspace.scene?.parts[d.parts[0] ?? 0]?.name
                      : counted(d.parts.length, 'part')
                  }}
                  · {{ areaText(d.area, workspace.state?.unit) }} · {{ numbers(d) }}
                </small>
              </span>
            </li>
          </ul>
        </template>
      </template>
    </section>
  </aside>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
}
.form {
  display: grid;
  gap: 8px;
}
.words {
  height: auto;
  padding: 5px 8px;
  resize: vertical;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.way {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.way small {
  display: block;
}
.hint {
  margin: 6px 0 4px;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
}
.list li {
  display: grid;
  grid-template-columns: 26px 12px 26px 1fr;
  gap: 5px;
  align-items: center;
  padding: 5px 2px;
  border-bottom: 1px solid var(--line);
  cursor: pointer;
}
.list li:hover {
  background: var(--white);
}
.names {
  min-width: 0;
  padding-left: 4px;
}
.names small {
  display: block;
}
.names b {
  font-weight: 600;
}
.arrow {
  color: var(--soft);
}
</style>
