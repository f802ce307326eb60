<script setup lang="ts">
import { mdiEyeOffOutline, mdiEyeOutline, mdiLockOpenVariantOutline, mdiLockOutline } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import { api, type Belonging, type HelperForm, type PlacedModel, type Purpose } from '../../api/client'
import { useImports } from '../../stores/imports'
import { counted, useWorkspace } from '../../stores/workspace'
import OneOf from '../shared/OneOf.vue'
import FileTaker from './FileTaker.vue'
import ImportQuestion from './ImportQuestion.vue'
import PlaceForm from './PlaceForm.vue'

const ADDED: { value: 'surroundings' | 'design'; text: string; title: string }[] = [
  { value: 'surroundings', text: 'Surroundings', title: 'Seen with the design, counted nowhere' },
  { value: 'design', text: 'Part of the design', title: 'Counted, checked and delivered with it' },
]

/** The models of the project: listed, hidden, locked, added and placed. */
const workspace = useWorkspace()
const imports = useImports()
const adding = ref<'surroundings' | 'design'>('surroundings')

const models = computed(() => workspace.scene?.models ?? [])
/** What a file that is on its way is for. */
const underWay = computed(() =>
  imports.into === workspace.id && imports.busy && isAdded(imports.purpose) ? imports.purpose : null,
)
const asked = computed(() => (underWay.value ? (imports.job?.question ?? null) : null))
const placed = computed(() => models.value.find((m) => m.index === workspace.placing) ?? null)

function isAdded(purpose: Purpose): purpose is 'design' | 'surroundings' {
  return purpose === 'design' || purpose === 'surroundings'
}

/** A model that has just come is the next to be placed. */
watch(models, (now, before) => {
  if (!placed.value) workspace.placing = null
  const fresh = now.find((m) => !before.some((b) => b.index === m.index))
  const form = workspace.controls.forms.find((f) => f.form === fresh?.form)
  const isPlaced = fresh && (!form || form.company)
  if (isPlaced && before.length > 0 && now.length === before.length + 1) workspace.placing = fresh.index
})

function change(m: PlacedModel, details: Partial<PlacedModel>) {
  const { name, belonging, hidden, locked } = { ...m, ...details }
  return workspace.run((v) => api.changeModel(workspace.id, v, m.index, { name, belonging, hidden, locked }))
}
function rename(m: PlacedModel, event: Event) {
  const input = event.target as HTMLInputElement
  if (input.value.trim() === m.name) return
  if (input.value.trim() === '') input.value = m.name
  else void change(m, { name: input.value })
}
function partsOf(m: PlacedModel): number[] {
  return (workspace.scene?.parts ?? []).filter((p) => p.model === m.index).map((p) => p.index)
}
function light(m: PlacedModel | null) {
  const parts = new Set(m ? partsOf(m) : [])
  workspace.lit = (workspace.state?.regions ?? []).filter((r) => parts.has(r.part))
}
async function addForm(form: HelperForm) {
  const done = await workspace.run((v) => api.addForm(workspace.id, v, form))
  if (done) workspace.tell(`${workspace.state?.undo ?? ''} · undo takes it back`)
}
</script>

<template>
  <section class="fold" aria-label="Models">
    <h2>
      Models <small>{{ counted(models.length, 'model') }}</small>
    </h2>
    <ul @mouseleave="light(null)">
      <li v-for="m in models" :key="m.index" :class="{ on: m.index === workspace.placing, faint: m.hidden }">
        <span class="head" @mouseenter="light(m)">
          <input
            class="name"
            :value="m.name"
            maxlength="120"
            :aria-label="`Name of ${m.name}`"
            :disabled="m.locked"
            @change="rename(m, $event)"
          />
          <button
            class="plain"
            :aria-label="m.hidden ? `Show ${m.name}` : `Hide ${m.name}`"
            :aria-pressed="m.hidden"
            :title="m.hidden ? 'Show' : 'Hide'"
            :disabled="m.locked"
            @click="change(m, { hidden: !m.hidden })"
          >
            <v-icon :icon="m.hidden ? mdiEyeOffOutline : mdiEyeOutline" size="16" />
          </button>
          <button
            class="plain"
            :aria-label="m.locked ? `Unlock ${m.name}` : `Lock ${m.name}`"
            :aria-pressed="m.locked"
            :title="m.locked ? 'Unlock' : 'Lock: can’t be picked or changed'"
            @click="change(m, { locked: !m.locked })"
          >
            <v-icon :icon="m.locked ? mdiLockOutline : mdiLockOpenVariantOutline" size="16" />
          </button>
        </span>
        <span class="about soft small">
          <button class="plain link" @click="workspace.selectParts(partsOf(m))">
            {{ counted(m.parts, 'part') }}
          </button>
          <template v-if="m.group < 0">the design</template>
          <template v-else-if="m.form">helper form</template>
          <select
            v-else
            class="plain"
            :value="m.belonging"
            :aria-label="`What ${m.name} is`"
            :disabled="m.locked"
            @change="change(m, { belonging: ($event.target as HTMLSelectElement).value as Belonging })"
          >
            <option value="SURROUNDINGS">surroundings</option>
            <option value="DESIGN">part of the design</option>
          </select>
          <button
            v-if="m.group >= 0 && !m.locked"
            class="plain link go"
            :aria-expanded="m.index === workspace.placing"
            @click="workspace.placing = m.index === workspace.placing ? null : m.index"
          >
            {{ m.index === workspace.placing ? 'Done' : 'Place' }}
          </button>
        </span>
        <PlaceForm v-if="placed && placed.index === m.index && !m.locked" :model="placed" />
      </li>
    </ul>
    <p class="soft small">Add a helper form</p>
    <div class="forms">
      <v-btn
        v-for="f in workspace.controls.forms"
        :key="f.form"
        size="small"
        :title="f.says"
        :disabled="workspace.pending > 0"
        @click="addForm(f.form)"
      >
        {{ f.word }}
      </v-btn>
    </div>
    <p class="soft small">Add another file’s model as</p>
    <OneOf v-model="adding" label="What the added model is" :choices="ADDED" />
    <ImportQuestion
      v-if="asked && imports.job?.state === 'ASKING'"
      :file-name="imports.fileName"
      :question="asked"
      @answer="(unit, up) => imports.answer(unit, up)"
      @cancel="imports.cancel()"
    />
    <FileTaker
      v-else
      :purpose="underWay ?? adding"
      label="File of the model to add"
      doing="Adding the model"
      multiple
      @take="imports.bring(workspace.id, $event, adding)"
    >
      Choose a file
    </FileTaker>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0 0 6px;
  padding: 0;
}
li {
  padding: 4px 0 5px;
  border-bottom: 1px solid var(--line);
}
.on {
  box-shadow: inset 3px 0 0 var(--accent);
  padding-left: 8px;
}
.faint .name {
  color: var(--soft);
}
.head,
.about {
  display: flex;
  gap: 8px;
  align-items: center;
}
.about {
  flex-wrap: wrap;
}
.go {
  margin-left: auto;
}
.name {
  font: inherit;
  color: inherit;
  flex: 1;
  min-width: 0;
  border: 1px solid transparent;
  border-radius: var(--radius);
  background: none;
  padding: 1px 3px;
  margin-left: -4px;
  text-overflow: ellipsis;
}
.name:hover:enabled,
.name:focus {
  border-color: var(--line-strong);
  background: var(--white);
}
select.plain {
  font: inherit;
  color: inherit;
  border: 0;
  background: none;
}
.link {
  color: var(--accent);
}
.forms {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 2px 0 8px;
}
</style>
