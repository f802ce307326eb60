<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api } from '../../api/client'
import { useWorkspace } from '../../stores/workspace'
import NoteLine from '../shared/NoteLine.vue'

/** What is left open about a part, and the field in which one notes it. */
const writing = defineModel<boolean>('writing', { required: true })
const props = defineProps<{ part: number }>()
const workspace = useWorkspace()
const text = ref('')
const open = computed(() =>
  (workspace.state?.notes ?? []).filter((n) => !n.settled && n.level === 'part' && n.target === props.part),
)
watch(
  () => props.part,
  () => {
    writing.value = false
    text.value = ''
  },
)
async function write() {
  const note = { id: crypto.randomUUID(), level: 'part', target: props.part, text: text.value.trim() }
  if (!note.text) {
    writing.value = false
    return
  }
  if (!(await workspace.run((v) => api.writeNote(workspace.id, v, note)))) return
  text.value = ''
  writing.value = false
  workspace.tell('Left open · listed in the history')
}
</script>

<template>
  <section v-if="writing || open.length > 0" aria-label="Left open">
    <NoteLine v-for="n in open" :key="n.id" :note="n" />
    <div v-if="writing" class="writing">
      <textarea
        v-model="text"
        class="field small"
        rows="2"
        maxlength="1000"
        aria-label="What is left open"
        placeholder="What is to be decided later, by whom"
        autofocus
        @keydown.enter.exact.prevent="write"
        @keydown.esc="writing = false"
      />
      <v-btn size="small" :disabled="!text.trim()" @click="write">Note it</v-btn>
    </div>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 4px;
  padding: 3px 0;
}
.writing {
  display: flex;
  gap: 6px;
  align-items: end;
}
textarea {
  flex: 1;
  min-width: 0;
  resize: vertical;
}
</style>
