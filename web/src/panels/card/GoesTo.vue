<script setup lang="ts">
import { computed } from 'vue'
import { useWorkspace } from '../../stores/workspace'

/** In which schemes what is given next is given: the one that is looked at, its base for all that follow it, or chosen ones. */
const workspace = useWorkspace()
const scheme = computed(() => workspace.scheme)
const base = computed(() => workspace.schemes.find((s) => s.id === scheme.value?.bases[0]))
const chosen = computed(() =>
  workspace.schemes.filter((s) =>
    workspace.goesTo.length > 0 ? workspace.goesTo.includes(s.id) : s.id === scheme.value?.id,
  ),
)
/** Letters of the schemes that follow those that are chosen. */
const followers = computed(() =>
  workspace.schemes
    .filter((s) => !chosen.value.includes(s) && s.bases.some((b) => chosen.value.some((c) => c.id === b)))
    .map((s) => s.letter),
)

function toggle(id: string) {
  const now = chosen.value.map((s) => s.id)
  const next = now.includes(id) ? now.filter((s) => s !== id) : [...now, id]
  set(next.length > 0 ? next : [id])
}
function set(ids: string[]) {
  workspace.goesTo = ids.length === 1 && ids[0] === scheme.value?.id ? [] : ids
}
</script>

<template>
  <div class="goes small" role="group" aria-label="Schemes that a new look goes to">
    <span class="soft">A new look goes to</span>
    <button
      v-for="s in workspace.schemes"
      :key="s.id"
      class="plain letter"
      :class="{ on: chosen.includes(s) }"
      :aria-pressed="chosen.includes(s)"
      :title="`${s.letter} ${s.name}`"
      @click="toggle(s.id)"
    >
      {{ s.letter }}
    </button>
    <button
      v-if="base && !(chosen.length === 1 && chosen[0] === base)"
      class="plain link"
      :title="`Only ${base.letter} stores it; all that follow ${base.letter} show it`"
      @click="set([base.id])"
    >
      base {{ base.letter }}
    </button>
    <span v-if="followers.length > 0" class="soft"
      >and shows in {{ followers.join(', ') }}, where they don’t differ</span
    >
  </div>
</template>

<style scoped>
.goes {
  display: flex;
  flex-wrap: wrap;
  gap: 3px 5px;
  align-items: center;
  padding: 4px 0 6px;
}
.letter {
  min-width: 20px;
  height: 20px;
  padding: 0 5px;
  text-align: center;
  border: 1px solid var(--line-strong);
  border-radius: 2px 7px 2px 2px;
  background: var(--paper);
}
.letter.on {
  border-color: var(--accent);
  color: var(--accent);
  font-weight: 650;
}
.link {
  color: var(--accent);
}
</style>
