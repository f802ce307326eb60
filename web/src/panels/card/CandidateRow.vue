<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed } from 'vue'
import { useCandidates } from '../../stores/candidates'
import { useWorkspace } from '../../stores/workspace'
import SmallChip from '../shared/SmallChip.vue'

/** What is kept on the selection to choose from: each is shown on the stage before it is put on. */
const workspace = useWorkspace()
const candidates = useCandidates()
const where = computed(() => {
  const spot = candidates.spot
  if (!spot) return ''
  return spot.level === 'set' || spot.level === 'model' ? `the ${spot.level}` : workspace.spotName(spot)
})
const chosen = computed(() => (workspace.chosen ? workspace.materials.get(workspace.chosen) : undefined))
/** What could be kept as well: the chip that was chosen, else what shows. */
const next = computed(() => {
  const shows = workspace.current && workspace.materialOf(workspace.current)
  const m = chosen.value ?? shows
  if (!m || candidates.kept.some((k) => k === m.id || workspace.materials.get(k)?.origin === m.id))
    return null
  return m
})
function name(id: string): string {
  return workspace.materials.get(id)?.name ?? ''
}
const worn = computed(() => workspace.current && workspace.lookOf(workspace.current)?.material)
</script>

<template>
  <section v-if="candidates.spot" class="candidates small" aria-label="Candidates">
    <div class="row">
      <span class="soft">Candidates for {{ where }}</span>
      <button
        v-if="next"
        class="plain link"
        :title="`Keeps ${next.name} to choose from; what shows stays`"
        @click="candidates.keep(next.id)"
      >
        Keep {{ next.name }}
      </button>
    </div>
    <ul v-if="candidates.kept.length > 0">
      <li v-for="(id, i) in candidates.kept" :key="id" :class="{ on: candidates.shown === i }">
        <button
          class="plain chip"
          :title="`${name(id)}: show it on the stage`"
          :aria-pressed="candidates.shown === i"
          @click="candidates.shown === i ? candidates.leave() : candidates.show(i)"
        >
          <SmallChip :material="workspace.materials.get(id) ?? null" />
          <span>{{ name(id) }}</span>
          <small v-if="id === worn" class="soft">on</small>
        </button>
        <button
          class="plain"
          :aria-label="`${name(id)} is no candidate any more`"
          @click="candidates.drop(id)"
        >
          <v-icon :icon="mdiClose" size="12" />
        </button>
      </li>
    </ul>
    <div v-if="candidates.current" class="row">
      <button class="plain link" @click="candidates.putOn()">
        Put {{ name(candidates.current) }} on (Enter)
      </button>
      <button class="plain link" @click="candidates.leave()">Leave it</button>
    </div>
  </section>
</template>

<style scoped>
.candidates {
  padding: 2px 0 4px;
}
.row {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
.link {
  color: var(--accent);
}
ul {
  list-style: none;
  margin: 4px 0;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px;
}
li {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 2px 4px;
  min-width: 0;
  border: 1px solid var(--line);
  border-radius: 2px;
  background: var(--paper);
}
li.on {
  border-color: var(--accent);
}
.chip {
  flex: 1;
  min-width: 0;
  display: flex;
  align-items: center;
  gap: 6px;
}
.chip span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
