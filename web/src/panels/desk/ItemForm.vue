<script setup lang="ts">
import { reactive } from 'vue'
import { api, type Material } from '../../api/client'
import { useLibraries } from '../../stores/libraries'
import { useWorkspace } from '../../stores/workspace'
import FactsForm from '../shared/FactsForm.vue'
import { NOTHING_KNOWN } from '../shared/facts'

/** What a library's material is called and known for. */
const props = defineProps<{ material: Material }>()
const emit = defineEmits<{ done: [] }>()
const workspace = useWorkspace()
const libraries = useLibraries()
const form = reactive({
  name: props.material.name,
  code: props.material.code,
  kind: props.material.kind ?? '',
  facts: props.material.facts,
})

async function keep() {
  const told = { ...form, kind: form.kind || null, facts: form.facts ?? NOTHING_KNOWN }
  if (await libraries.act(() => api.describeItem(props.material.id, told), `${form.name} described`))
    emit('done')
}
</script>

<template>
  <form class="item small" @submit.prevent="keep">
    <label>Name <input v-model="form.name" class="field" maxlength="120" /></label>
    <label>Code <input v-model="form.code" class="field" maxlength="24" /></label>
    <label>
      Kind
      <select v-model="form.kind" class="field">
        <option value="">none</option>
        <option v-for="k in workspace.controls.kinds" :key="k.kind" :value="k.kind">{{ k.kind }}</option>
      </select>
    </label>
    <FactsForm v-model="form.facts" />
    <v-btn size="small" color="primary" variant="flat" type="submit">Keep</v-btn>
  </form>
</template>

<style scoped>
.item {
  display: grid;
  gap: 5px;
  margin-top: 8px;
}
label {
  display: grid;
  grid-template-columns: 82px 1fr;
  align-items: center;
}
.field {
  height: 24px;
  font-size: 12px;
}
</style>
