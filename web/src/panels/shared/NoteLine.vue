<script setup lang="ts">
import { ref } from 'vue'
import { api, type Note } from '../../api/client'
import { useWorkspace } from '../../stores/workspace'

/** A decision that is left open, to be settled or said better. */
const props = defineProps<{ note: Note; place?: boolean }>()
const workspace = useWorkspace()
const wording = ref<string | null>(null)

function settle(settled: boolean) {
  void workspace.run((v) => api.settleNote(workspace.id, v, props.note.id, settled))
}
function rewrite() {
  const text = wording.value?.trim() ?? ''
  wording.value = null
  if (text && text !== props.note.text)
    void workspace.run((v) => api.rewriteNote(workspace.id, v, props.note.id, text))
}
function drop() {
  void workspace.run((v) => api.dropNote(workspace.id, v, props.note.id))
}
</script>

<template>
  <div class="note small" :class="{ settled: note.settled }">
    <button
      v-if="place"
      class="plain about"
      :title="`Select ${note.about}`"
      @click="workspace.selectSpot(note)"
    >
      {{ note.about }}
    </button>
    <textarea
      v-if="wording !== null"
      v-model="wording"
      class="field"
      rows="2"
      maxlength="1000"
      aria-label="What is left open"
      autofocus
      @keydown.enter.exact.prevent="rewrite"
      @keydown.esc="wording = null"
      @blur="rewrite"
    />
    <p v-else>{{ note.text }}</p>
    <div class="acts">
      <span class="soft">{{ note.settled ? 'settled' : note.by }}</span>
      <button v-if="!note.settled" class="plain link" @click="settle(true)">Settled</button>
      <button v-if="!note.settled" class="plain link" @click="wording = note.text">Say it better</button>
      <button v-if="note.settled" class="plain link" @click="settle(false)">Open again</button>
      <button v-if="note.settled" class="plain link" @click="drop">Take away</button>
    </div>
  </div>
</template>

<style scoped>
.note {
  padding: 2px 6px 3px;
  border-left: 3px solid var(--amber);
  overflow-wrap: anywhere;
}
.settled {
  border-left-color: var(--moss);
  color: var(--soft);
}
.about {
  font-weight: 600;
}
p {
  margin: 0;
  white-space: pre-line;
}
textarea {
  width: 100%;
  resize: vertical;
}
.acts {
  display: flex;
  gap: 10px;
}
.link {
  color: var(--accent);
}
</style>
