<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useWorkspace } from '../../stores/workspace'
import type { Card } from './card'

/** Values that come from elsewhere: in others' numbers, or from another of the project's materials. */
const props = defineProps<{ of: Card; folds: { title: string; folds: string[] }[] }>()
const workspace = useWorkspace()

const conventions = computed(() => workspace.controls.conventions)
const chosen = ref('GLOSSINESS')
const convention = computed(() => conventions.value.find((c) => c.name === chosen.value))
const current = computed(() => props.of.material.elsewhere[chosen.value] ?? 0)
const typed = ref('')
watch(current, (v) => (typed.value = v >= 100 ? v.toFixed(0) : String(Number(v.toFixed(3)))), {
  immediate: true,
})
function take() {
  const value = Number(typed.value)
  if (typed.value.trim() === '' || Number.isNaN(value)) return
  void props.of.commit({ elsewhere: { convention: chosen.value, value } })
}

const diffuse = ref('#808080')
const specular = ref('#383838')
function takeBoth() {
  void props.of.commit({ elsewhere: { diffuse: diffuse.value, specular: specular.value } })
}

const others = computed(() =>
  (workspace.state?.palette ?? []).map((u) => u.material).filter((m) => m.id !== props.of.material.id),
)
const from = ref('')
const fold = ref('')
watch(others, (all) => {
  if (!all.some((m) => m.id === from.value)) from.value = ''
})
/** The other's values of one part of the card. */
function copy() {
  const other = others.value.find((m) => m.id === from.value)
  const folds = props.folds.find((f) => f.title === fold.value)?.folds
  if (!other || !folds) return
  const names = workspace.controls.controls
    .filter((c) => folds.includes(c.fold) && c.name in other.values)
    .map((c) => c.name)
  const values = other.values as Record<string, unknown>
  void props.of.commit(Object.fromEntries(names.map((n) => [n, values[n]])))
}
</script>

<template>
  <div class="take">
    <p class="soft small">A value as others say it:</p>
    <div class="row">
      <select v-model="chosen" aria-label="Convention" :title="convention?.says">
        <option v-for="c in conventions" :key="c.name" :value="c.name">{{ c.label }}</option>
      </select>
      <input
        v-model="typed"
        aria-label="Value as others say it"
        :title="convention?.says"
        inputmode="decimal"
        @keydown.enter="take"
      />
      <button class="plain link" @click="take">Take</button>
    </div>
    <p class="soft small">A diffuse and a specular colour, which here are body colour and metalness:</p>
    <div class="row">
      <input v-model="diffuse" aria-label="Diffuse colour" placeholder="diffuse" />
      <input v-model="specular" aria-label="Specular colour" placeholder="specular" />
      <button class="plain link" @click="takeBoth">Take</button>
    </div>
    <p class="soft small">Or what another material has:</p>
    <div class="row">
      <select v-model="from" aria-label="Material to take values from">
        <option value="" disabled>Material</option>
        <option v-for="m in others" :key="m.id" :value="m.id">{{ m.name }}</option>
      </select>
      <select v-model="fold" aria-label="Which of its values">
        <option value="" disabled>Which values</option>
        <option v-for="f in folds" :key="f.title">{{ f.title }}</option>
      </select>
      <button class="plain link" :disabled="!from || !fold" @click="copy">Take</button>
    </div>
  </div>
</template>

<style scoped>
.take {
  display: grid;
  gap: 6px;
  padding-top: 4px;
}
.row {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 6px;
  align-items: center;
}
.row select,
.row input {
  min-width: 0;
  height: 26px;
}
.link {
  color: var(--accent);
}
</style>
