<script setup lang="ts">
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { api, type Scene, type Update, type UpdatePart } from '../../api/client'
import { useImports } from '../../stores/imports'
import { stageHandle } from '../../stores/stageHandle'
import { counted, useWorkspace } from '../../stores/workspace'
import OneOf from '../shared/OneOf.vue'
import FileTaker from './FileTaker.vue'
import { facesLost } from './facesLost'

type Fate = UpdatePart['fate'] | 'LOST'
const FATES: { fate: Fate; text: string; colour: string }[] = [
  { fate: 'SAME', text: 'as before', colour: '#cfccc5' },
  { fate: 'CHANGED', text: 'changed', colour: '#dba640' },
  { fate: 'DOUBTFUL', text: 'doubtful', colour: '#9a74bd' },
  { fate: 'NEW', text: 'new', colour: '#6aa877' },
  { fate: 'LOST', text: 'lost', colour: '#b5533c' },
]
const COLOUR = new Map(FATES.map((f) => [f.fate, f.colour]))
const VIEWS: { value: 'before' | 'after'; text: string }[] = [
  { value: 'before', text: 'Before' },
  { value: 'after', text: 'After' },
]
/** How many of a kind are listed. */
const LISTED = 40

/** A newer file of the model: what is the same part, what is new and what is lost, decided before anything changes. */
const workspace = useWorkspace()
const imports = useImports()
const update = shallowRef<Update | null>(null)
const newer = shallowRef<Scene | null>(null)
const view = ref<'before' | 'after'>('after')
const open = ref<Fate | null>(null)
/** What the designer has decided: for a part of the newer file the one it is, or that it is none. */
const decided = ref(new Map<number, number | null>())

const here = computed(() => imports.purpose === 'update' && imports.into === workspace.id)
const busy = computed(() => here.value && imports.busy)

watch(
  () => [workspace.id, here.value ? imports.job?.state : ''],
  () => void read(),
  { immediate: true },
)
onBeforeUnmount(() => (workspace.preview = null))

async function read() {
  if (!workspace.id) return
  try {
    update.value = (await api.update(workspace.id)) ?? null
    decided.value = new Map()
    newer.value = update.value ? await api.updateScene(workspace.id) : null
    open.value = update.value?.parts.some((p) => p.fate === 'DOUBTFUL') ? 'DOUBTFUL' : null
  } catch (e) {
    workspace.report(e)
  }
}

/** The part of the model that a newer one goes on being, as things stand. */
function olderOf(p: UpdatePart): number | null {
  return decided.value.get(p.newer) ?? (decided.value.has(p.newer) ? null : p.older)
}
function fateOf(p: UpdatePart): Fate {
  const said = decided.value.get(p.newer)
  return said === undefined ? p.fate : said === null ? 'NEW' : 'CHANGED'
}
const lost = computed(() => {
  const kept = new Set((update.value?.parts ?? []).map(olderOf))
  return (workspace.scene?.parts ?? []).filter((p) => !kept.has(p.index))
})
/** Faces of one's own that go with the shapes they are on. */
const lostFaces = computed(() => {
  const kept = new Set(
    (update.value?.parts ?? [])
      .filter((p) => p.keepsFaces && olderOf(p) === (p.older ?? p.perhaps))
      .map(olderOf),
  )
  return workspace.scene ? facesLost(workspace.scene, kept) : []
})
const byFate = computed(() => {
  const all = new Map<Fate, UpdatePart[]>()
  for (const p of update.value?.parts ?? []) {
    const known = all.get(fateOf(p))
    if (known) known.push(p)
    else all.set(fateOf(p), [p])
  }
  return all
})
function count(fate: Fate): number {
  return fate === 'LOST' ? lost.value.length : (byFate.value.get(fate)?.length ?? 0)
}
const listed = computed(() => byFate.value.get(open.value ?? 'SAME')?.slice(0, LISTED) ?? [])

watch([view, update, newer, decided, () => workspace.step, () => workspace.scene], show)

function show() {
  const u = update.value
  const before = workspace.scene
  if (!u || !before || !newer.value) {
    workspace.preview = null
    return
  }
  const colour = (fate: Fate) => COLOUR.get(fate) ?? '#ffffff'
  if (view.value === 'after') {
    workspace.preview = { scene: newer.value, colours: u.parts.map((p) => colour(fateOf(p))) }
    return
  }
  const fates = new Map<number, Fate>()
  for (const p of u.parts) {
    const older = olderOf(p) ?? (decided.value.has(p.newer) ? null : p.perhaps)
    if (older != null) fates.set(older, fateOf(p))
  }
  workspace.preview = {
    scene: before,
    colours: before.parts.map((p) => colour(fates.get(p.index) ?? 'LOST')),
  }
}

function decide(p: UpdatePart, older: number | null) {
  decided.value = new Map(decided.value).set(p.newer, older)
}

/** Points a part out, in the view that has it. */
function look(where: 'before' | 'after', part: number) {
  view.value = where
  window.setTimeout(() => {
    stageHandle.value?.setSelection([part])
    stageHandle.value?.frame([part])
  }, 300)
}

function nameOf(older: number | null | undefined): string {
  return older == null ? '' : (workspace.scene?.parts[older]?.name ?? '')
}

async function apply() {
  const pairs = [...decided.value].map(([n, o]) => ({ newer: n, older: o }))
  workspace.preview = null
  if (await workspace.run((v) => api.applyUpdate(workspace.id, v, pairs))) {
    workspace.select([])
    workspace.tell(`${workspace.state?.undo ?? ''} · one undo takes it all back`)
  }
  await read()
}

async function leave() {
  try {
    await api.leaveUpdate(workspace.id)
  } catch (e) {
    workspace.report(e)
  }
  await read()
}
</script>

<template>
  <section class="fold" aria-label="Newer file">
    <h2>Newer file</h2>
    <template v-if="update && !busy">
      <p class="small">
        <b>{{ update.fileName }}</b> waits for your word; nothing has changed yet.
      </p>
      <OneOf v-model="view" label="The stage shows the model" :choices="VIEWS" />
      <ul class="fates">
        <li v-for="f in FATES" :key="f.fate">
          <button
            class="plain"
            :class="{ on: open === f.fate }"
            :disabled="count(f.fate) === 0"
            :aria-expanded="open === f.fate"
            @click="open = open === f.fate ? null : f.fate"
          >
            <i :style="{ background: f.colour }" />
            {{ counted(count(f.fate), 'part') }} {{ f.text }}
          </button>
        </li>
      </ul>
      <ul v-if="open === 'LOST'" class="list" aria-label="Lost parts">
        <li v-for="p in lost.slice(0, LISTED)" :key="p.index">
          <button class="plain link" @click="look('before', p.index)">{{ p.name }}</button>
        </li>
      </ul>
      <ul v-else-if="open" class="list" :aria-label="`Parts: ${open.toLowerCase()}`">
        <li v-for="p in listed" :key="p.newer">
          <button class="plain link" @click="look('after', p.newer)">{{ p.name }}</button>
          <template v-if="p.fate === 'SAME' || p.fate === 'CHANGED'">
            <span v-if="nameOf(p.older) !== p.name" class="soft">was {{ nameOf(p.older) }}</span>
          </template>
          <span v-else class="decision">
            <select
              class="field"
              :aria-label="`What ${p.name} was`"
              :value="olderOf(p) ?? ''"
              @change="
                decide(
                  p,
                  ($event.target as HTMLSelectElement).value === ''
                    ? null
                    : Number(($event.target as HTMLSelectElement).value),
                )
              "
            >
              <option value="">is new</option>
              <option v-if="olderOf(p) !== null" :value="olderOf(p)">was {{ nameOf(olderOf(p)) }}</option>
              <option v-for="l in lost" :key="l.index" :value="l.index">was {{ l.name }}</option>
            </select>
            <v-btn
              v-if="p.perhaps !== null && !decided.has(p.newer)"
              size="small"
              :title="`${Math.round(100 * p.score)} % alike`"
              @click="decide(p, p.perhaps)"
            >
              was {{ nameOf(p.perhaps) }}
            </v-btn>
          </span>
        </li>
        <li v-if="count(open) > LISTED" class="soft small">and {{ count(open) - LISTED }} more</li>
      </ul>
      <p v-if="count('DOUBTFUL') > 0" class="soft small">
        Doubtful parts count as new until you say what they were.
      </p>
      <div v-if="lostFaces.length > 0" class="small warn" role="status">
        <p>
          {{ counted(lostFaces.length, 'face') }} of your own will be lost with what
          {{ lostFaces.length === 1 ? 'it wears' : 'they wear' }}, because the shape below is another one:
        </p>
        <ul class="list" aria-label="Faces that will be lost">
          <li v-for="(f, i) in lostFaces.slice(0, LISTED)" :key="i">
            <button class="plain link" @click="look('before', f.part.index)">{{ f.name }}</button>
            <span class="soft"> on {{ f.part.name }}</span>
          </li>
        </ul>
      </div>
      <div class="acts">
        <v-btn size="small" color="primary" variant="flat" :disabled="workspace.pending > 0" @click="apply">
          Apply
        </v-btn>
        <v-btn size="small" @click="leave">Leave it</v-btn>
      </div>
    </template>
    <template v-else>
      <p class="soft small">
        Changed in the modelling program since? Looks, names and roles stay with the parts that are still
        there.
      </p>
      <FileTaker
        purpose="update"
        label="Newer file of the model"
        doing="Comparing"
        multiple
        @take="imports.bring(workspace.id, $event, 'update')"
      >
        Choose the newer file
      </FileTaker>
    </template>
  </section>
</template>

<style scoped>
.acts {
  display: flex;
  gap: 6px;
  align-items: center;
  margin-top: 6px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 4px 0;
}
.fates button {
  display: flex;
  gap: 8px;
  align-items: center;
  width: 100%;
  padding: 2px 4px;
}
.fates .on {
  font-weight: 640;
}
.fates i {
  width: 16px;
  height: 12px;
  border-radius: 2px;
  border: 1px solid #0003;
}
.list li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr);
  gap: 8px;
  padding: 1px 0;
  align-items: center;
}
.link {
  color: var(--accent);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.decision {
  display: grid;
  gap: 3px;
}
.decision .field {
  height: 24px;
  font-size: 12px;
}
p {
  margin: 3px 0;
}
</style>
