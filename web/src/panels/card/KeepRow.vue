<script setup lang="ts">
import { mdiHomeSearchOutline, mdiLockOpenVariantOutline, mdiLockOutline, mdiVectorSelection } from '@mdi/js'
import { computed } from 'vue'
import { api } from '../../api/client'
import { useOwnFace } from '../../stores/ownFace'
import { counted, useWorkspace } from '../../stores/workspace'

/** Whether what is selected keeps its look whatever is given around it, and whether one looks through it from outside. */
const props = defineProps<{ parts: number[] }>()
const workspace = useWorkspace()
const cutting = useOwnFace()
const chosen = computed(() => props.parts.flatMap((p) => workspace.scene?.parts[p] ?? []))
const locked = computed(() => chosen.value.length > 0 && chosen.value.every((p) => p.locked))
const open = computed(() => chosen.value.length > 0 && chosen.value.every((p) => p.lookedInto))

function cut() {
  const [part] = props.parts
  if (part === undefined || cutting.part === part) cutting.end()
  else void cutting.begin(part)
}
async function lock() {
  const on = !locked.value
  if (await workspace.run((v) => api.lockParts(workspace.id, v, props.parts, on)))
    workspace.tell(
      on
        ? `${counted(props.parts.length, 'part')} locked: what is given around ${props.parts.length > 1 ? 'them' : 'it'} passes by`
        : `${counted(props.parts.length, 'part')} unlocked`,
    )
}
async function lookInto() {
  const on = !open.value
  if (await workspace.run((v) => api.lookInto(workspace.id, v, props.parts, on)))
    workspace.tell(on ? 'Seen through from outside, solid from within' : 'Solid from anywhere')
}
</script>

<template>
  <span class="keep">
    <button
      v-if="chosen.length === 1"
      class="plain"
      :class="{ on: cutting.part === parts[0] }"
      :aria-pressed="cutting.part === parts[0]"
      aria-label="Cut a face"
      @click="cut"
    >
      <v-icon :icon="mdiVectorSelection" size="17" />
      <v-tooltip activator="parent" location="bottom"
        >Cut a face: a piece of its surface that gets looks by itself</v-tooltip
      >
    </button>
    <button
      class="plain"
      :class="{ on: open }"
      :aria-pressed="open"
      aria-label="Look inside"
      @click="lookInto"
    >
      <v-icon :icon="mdiHomeSearchOutline" size="17" />
      <v-tooltip activator="parent" location="bottom">{{
        open
          ? 'You see through it from outside. Click to close it'
          : 'Look inside: see through it from outside, solid from within'
      }}</v-tooltip>
    </button>
    <button class="plain" :class="{ on: locked }" :aria-pressed="locked" aria-label="Lock" @click="lock">
      <v-icon :icon="locked ? mdiLockOutline : mdiLockOpenVariantOutline" size="17" />
      <v-tooltip activator="parent" location="bottom">{{
        locked
          ? 'Locked: keeps its look whatever is given around it. Click to unlock'
          : 'Lock: keeps its look whatever is given around it'
      }}</v-tooltip>
    </button>
  </span>
</template>

<style scoped>
.keep {
  display: flex;
  gap: 6px;
}
.keep button {
  color: var(--soft);
}
.keep .on {
  color: var(--accent);
}
</style>
