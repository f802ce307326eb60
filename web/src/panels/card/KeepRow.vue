<script setup lang="ts">
import {
  mdiHomeSearchOutline,
  mdiLockOpenVariantOutline,
  mdiLockOutline,
  mdiNoteOutline,
  mdiVectorSelection,
} from '@mdi/js'
import { computed } from 'vue'
import { api } from '../../api/client'
import { useOwnFace } from '../../stores/ownFace'
import { counted, useWorkspace } from '../../stores/workspace'

/** What holds for the selected parts whatever they wear: notes, seen through from outside, locked. */
const noting = defineModel<boolean>('noting', { required: true })
const props = defineProps<{ parts: number[] }>()
const workspace = useWorkspace()
const cutting = useOwnFace()
const chosen = computed(() => props.parts.flatMap((p) => workspace.scene?.parts[p] ?? []))
const locked = computed(() => chosen.value.length > 0 && chosen.value.every((p) => p.locked))
const open = computed(() => chosen.value.length > 0 && chosen.value.every((p) => p.lookedInto))

const isCut = computed(() => cutting.part !== null && cutting.part === props.parts[0])
function cut() {
  const [part] = props.parts
  if (part === undefined || isCut.value) cutting.end()
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
const keys = computed(() => [
  ...(chosen.value.length === 1
    ? [
        {
          label: 'Leave open',
          icon: mdiNoteOutline,
          on: noting.value,
          says: 'Note what is to be decided later',
          act: () => (noting.value = !noting.value),
        },
        {
          label: 'Cut a face',
          icon: mdiVectorSelection,
          on: isCut.value,
          says: 'Cut a face: a piece of its surface that gets looks by itself',
          act: cut,
        },
      ]
    : []),
  {
    label: 'Look inside',
    icon: mdiHomeSearchOutline,
    on: open.value,
    says: open.value
      ? 'You see through it from outside. Click to close it'
      : 'Look inside: see through it from outside, solid from within',
    act: lookInto,
  },
  {
    label: 'Lock',
    icon: locked.value ? mdiLockOutline : mdiLockOpenVariantOutline,
    on: locked.value,
    says: locked.value
      ? 'Locked: keeps its look whatever is given around it. Click to unlock'
      : 'Lock: keeps its look whatever is given around it',
    act: lock,
  },
])
</script>

<template>
  <span class="keep">
    <button
      v-for="k in keys"
      :key="k.label"
      class="plain"
      :class="{ on: k.on }"
      :aria-pressed="k.on"
      :aria-label="k.label"
      @click="k.act"
    >
      <v-icon :icon="k.icon" size="17" />
      <v-tooltip activator="parent" location="bottom">{{ k.says }}</v-tooltip>
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
