<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { api, type Alike, type Contact } from '../../api/client'
import { counted, useWorkspace } from '../../stores/workspace'

const LIKE: Record<Alike['by'], string> = {
  SHAPE: 'of the same shape',
  SIZE: 'as large',
  DIRECTION: 'in the same direction',
  SET: 'in the same set',
  ROLE: 'of the same role',
}

/** Where the selected parts belong, what is like them, and which set they follow. */
const workspace = useWorkspace()
const alike = ref<Alike[]>([])
let asked = 0

const chosen = computed(() => [...new Set(workspace.selection.map((r) => r.part))])
const parts = computed(() => chosen.value.flatMap((p) => workspace.scene?.parts[p] ?? []))
const sets = computed(() => [...new Set(parts.value.flatMap((p) => p.sets))])
const away = computed(() => parts.value.filter((p) => p.sets.some((s, i) => s !== p.homes[i])))

watch(
  () => [workspace.current?.part, workspace.scene] as const,
  async ([part]) => {
    const mine = ++asked
    if (part === undefined) {
      alike.value = []
      return
    }
    try {
      const found = await api.similar(workspace.id, part)
      if (mine === asked) alike.value = found
    } catch (e) {
      workspace.report(e)
    }
  },
  { immediate: true },
)

/** How the two selected parts meet. */
const contact = ref<Contact | null>(null)
watch(
  () => [chosen.value, workspace.scene, workspace.state?.unit] as const,
  async ([parts]) => {
    contact.value = null
    const [one, other] = parts
    if (parts.length !== 2 || one === undefined || other === undefined) return
    try {
      const found = await api.contact(workspace.id, one, other)
      if (chosen.value === parts) contact.value = found
    } catch (e) {
      workspace.report(e)
    }
  },
)
async function grow(by: Contact) {
  const repairing = { parts: [by.filling], repair: 'OFFSET' as const, amount: by.growth }
  if (await workspace.run((v) => api.repair(workspace.id, v, repairing)))
    workspace.tell(`${workspace.state?.undo ?? ''} · undo takes it back`)
}

watch(chosen, (parts) => {
  if (parts.length !== 1 || parts[0] !== workspace.facesOf) stopPicking()
})
onBeforeUnmount(stopPicking)
function startPicking() {
  workspace.faces = new Set()
  workspace.facesOf = chosen.value[0] ?? null
}
function stopPicking() {
  workspace.facesOf = null
  workspace.faces = new Set()
}
async function changeFaces(act: 'flip' | 'split') {
  const part = workspace.facesOf
  const picked = [...workspace.faces]
  if (part === null) return
  if (await workspace.run((v) => api.changeFaces(workspace.id, v, part, picked, act)))
    workspace.tell(`${workspace.state?.undo ?? ''} · undo takes it back`)
  stopPicking()
}

function setName(index: number): string {
  return workspace.scene?.sets[index]?.name ?? ''
}
async function move(to: 'own' | 'home', list: number[]) {
  if (await workspace.run((v) => api.moveParts(workspace.id, v, list, to)))
    workspace.tell(`${workspace.state?.undo ?? ''} · undo takes it back`)
}
</script>

<template>
  <section class="fold" aria-label="Selection">
    <h2>
      Selection <small>{{ chosen.length > 0 ? counted(chosen.length, 'part') : '' }}</small>
    </h2>
    <p v-if="chosen.length === 0" class="soft small">
      Click a part on the stage, or rows in the ledger (Shift for a range, Ctrl for single ones).
    </p>
    <template v-else>
      <ul aria-label="Matching sets">
        <li v-for="s in sets.slice(0, 3)" :key="s">
          <button
            class="plain link"
            :title="`Select all of ${setName(s)}`"
            @click="workspace.select(workspace.regionsOf([s]))"
          >
            {{ setName(s) }}
          </button>
          <span class="soft">set of {{ counted(workspace.scene?.sets[s]?.parts ?? 0, 'part') }}</span>
        </li>
        <li v-if="sets.length > 3" class="soft">and {{ sets.length - 3 }} more sets</li>
      </ul>
      <div class="acts">
        <v-btn size="small" :disabled="workspace.pending > 0" @click="move('own', chosen)"
          >Take out of set</v-btn
        >
        <v-btn
          v-if="away.length > 0"
          size="small"
          :disabled="workspace.pending > 0"
          @click="
            move(
              'home',
              away.map((p) => p.index),
            )
          "
        >
          Put back
        </v-btn>
        <v-btn size="small" @click="workspace.climb">
          Whole group
          <v-tooltip activator="parent" location="top">G climbs, Shift G goes back down</v-tooltip>
        </v-btn>
      </div>
      <div v-if="contact" aria-label="How they meet">
        <p class="small">{{ contact.says }}</p>
        <p v-if="contact.advice" class="soft small">{{ contact.advice }}</p>
        <v-btn
          v-if="contact.growth > 0"
          size="small"
          :disabled="workspace.pending > 0"
          @click="grow(contact)"
        >
          Grow the filling
        </v-btn>
      </div>
      <div v-if="chosen.length === 1" class="acts">
        <v-btn v-if="workspace.facesOf === null" size="small" @click="startPicking">Pick faces</v-btn>
        <template v-else>
          <span class="soft small said" role="status">
            {{
              workspace.faces.size > 0
                ? counted(workspace.faces.size, 'face')
                : 'Click faces of this part on the stage.'
            }}
          </span>
          <v-btn size="small" :disabled="workspace.faces.size === 0" @click="changeFaces('split')">
            Split off
          </v-btn>
          <v-btn size="small" :disabled="workspace.faces.size === 0" @click="changeFaces('flip')">Flip</v-btn>
          <v-btn size="small" @click="stopPicking">Leave</v-btn>
        </template>
      </div>
      <ul v-if="chosen.length === 1" aria-label="Parts like this one">
        <li v-for="a in alike" :key="a.by">
          <button class="plain link" :disabled="a.parts.length < 2" @click="workspace.selectParts(a.parts)">
            {{ a.parts.length > 1 ? `Select the ${a.parts.length.toLocaleString('en')}` : 'None' }}
          </button>
          <span class="soft">{{ LIKE[a.by] }}</span>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 118px 1fr;
  gap: 8px;
  padding: 2px 0;
}
.link {
  color: var(--accent);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.acts {
  display: flex;
  align-items: center;
  gap: 6px;
  flex-wrap: wrap;
  margin: 5px 0;
}
</style>
