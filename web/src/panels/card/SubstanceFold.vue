<script setup lang="ts">
import { ref, shallowRef, watch } from 'vue'
import { api, type Facts, type Material } from '../../api/client'
import { counted, useWorkspace } from '../../stores/workspace'
import FactsForm from '../shared/FactsForm.vue'
import { factLines } from '../tray/measures'

/** What a material is made of, apart from what it looks like: told by hand, or taken from another material. */
const props = defineProps<{ material: Material }>()
const PAUSE = 200
const SHOWN = 6
const workspace = useWorkspace()
const editing = ref(false)
const seeking = ref(false)
const words = ref('')
const withLook = ref(false)
const facts = ref<Facts | null>(null)
const found = shallowRef<Material[]>([])
let waiting = 0
let asked = 0

watch(
  () => props.material,
  (m) => (facts.value = m.facts),
  { immediate: true },
)
watch(words, () => {
  window.clearTimeout(waiting)
  waiting = window.setTimeout(() => void ask(), PAUSE)
})
async function ask() {
  const mine = ++asked
  try {
    const all = await api.find(workspace.id, { words: words.value })
    if (mine !== asked) return
    workspace.know(all.materials)
    found.value = all.materials.filter((m) => m.facts?.hasSubstance).slice(0, SHOWN)
  } catch (e) {
    workspace.report(e)
  }
}
async function tell() {
  const told = facts.value
  if (!told || JSON.stringify(told) === JSON.stringify(props.material.facts)) return
  await workspace.run((v) => api.tellFacts(workspace.id, v, props.material.id, told))
}
async function make(of: Material | null) {
  const done = await workspace.run((v) =>
    api.setSubstance(workspace.id, v, props.material.id, of?.id ?? null, of !== null && withLook.value),
  )
  if (!done) return
  seeking.value = false
  if (of)
    workspace.tell(
      withLook.value
        ? `Made of ${of.name}, and looks like it`
        : `Made of ${of.name}; the look stays · ${counted(workspace.users.get(props.material.id) ?? 0, 'part')}`,
    )
}
</script>

<template>
  <div class="substance small">
    <dl v-if="!editing && material.facts">
      <template v-for="[name, value] in factLines(material.facts)" :key="name">
        <dt class="soft">{{ name }}</dt>
        <dd>{{ value }}</dd>
      </template>
    </dl>
    <p v-if="!editing && material.facts?.tags?.length" class="soft">{{ material.facts.tags.join(', ') }}</p>
    <p v-if="material.facts === null" class="soft">Nothing is known of what it is made of.</p>
    <p v-else-if="material.facts.missing?.length" class="lacks">
      Not known: {{ material.facts.missing.join(', ') }}. A finish schedule leaves that out.
    </p>
    <FactsForm v-if="editing" :model-value="facts" @update:model-value="((facts = $event), tell())" />
    <div class="acts">
      <button class="plain" @click="editing = !editing">{{ editing ? 'Done' : 'Tell by hand …' }}</button>
      <button class="plain" @click="((seeking = !seeking), words === '' && ask())">
        {{ seeking ? 'Leave it' : 'Make it of …' }}
      </button>
      <button
        v-if="material.facts?.hasSubstance"
        class="plain"
        title="Density, price, waste and carbon are not known any more; the look stays"
        @click="make(null)"
      >
        Take the substance away
      </button>
    </div>
    <div v-if="seeking" class="seek">
      <input
        v-model="words"
        class="field"
        type="search"
        placeholder="oak, cast iron, code …"
        aria-label="Find what it is made of"
        autofocus
      />
      <label><input v-model="withLook" type="checkbox" /> and have it look like that</label>
      <button
        v-for="m in found"
        :key="m.id"
        class="plain found"
        :title="
          m.facts
            ? factLines(m.facts)
                .map((l) => l.join(' '))
                .join(' · ')
            : ''
        "
        @click="make(m)"
      >
        <i :style="{ background: m.colour.hex }" /><b>{{ m.code }}</b> {{ m.name }}
        <span v-if="m.facts?.density" class="soft">{{ m.facts.density.toLocaleString('en') }} kg/m³</span>
      </button>
    </div>
  </div>
</template>

<style scoped>
.substance,
.seek {
  display: grid;
  gap: 5px;
}
dl {
  display: grid;
  grid-template-columns: 70px 1fr;
  gap: 1px 6px;
  margin: 0;
}
dd {
  margin: 0;
}
.lacks {
  color: var(--amber);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}
.acts button {
  color: var(--accent);
}
.seek input[type='checkbox'] {
  accent-color: var(--accent);
  vertical-align: -2px;
}
.found {
  display: flex;
  gap: 6px;
  align-items: center;
}
.found i {
  width: 12px;
  height: 12px;
  border: 1px solid var(--line-strong);
  flex: none;
}
.found .soft {
  margin-left: auto;
}
.found:hover {
  background: var(--accent-wash);
}
</style>
