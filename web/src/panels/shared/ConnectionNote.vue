<script setup lang="ts">
import { mdiLanDisconnect } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import { useConnection } from '../../stores/connection'
import { useSession } from '../../stores/session'
import { counted, useWorkspace } from '../../stores/workspace'

/** Shorter absences, in ms, are not worth a word. */
const SHORT = 800

const connection = useConnection()
const session = useSession()
const workspace = useWorkspace()
const shown = ref(false)
let timer = 0

watch(
  () => connection.away !== null,
  (away) => {
    window.clearTimeout(timer)
    if (away) timer = window.setTimeout(() => (shown.value = true), SHORT)
    else shown.value = false
  },
)

const waits = computed(() => {
  const n = workspace.pending
  if (n === 0) return 'What you see stays; it is tried again by itself.'
  return `${counted(n, 'change')} ${n === 1 ? 'waits' : 'wait'} here and ${n === 1 ? 'is' : 'are'} sent by ${n === 1 ? 'itself' : 'themselves'}.`
})
</script>

<template>
  <p v-if="shown && !session.ended" class="away" role="status">
    <v-icon :icon="mdiLanDisconnect" size="16" />
    <span>{{ connection.said }}. {{ waits }}</span>
  </p>
</template>

<style scoped>
.away {
  position: fixed;
  top: 64px;
  left: 50%;
  transform: translateX(-50%);
  z-index: 2000;
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 8px 12px;
  background: var(--paper);
  border: 1px solid var(--amber);
  border-radius: var(--radius);
}
</style>
