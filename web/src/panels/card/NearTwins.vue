<script setup lang="ts">
import { ref, watch } from 'vue'
import { api, type Twins } from '../../api/client'
import { counted, useWorkspace } from '../../stores/workspace'
import SmallChip from '../shared/SmallChip.vue'

/** Materials that look nearly alike in the scheme at hand: what was meant to match is made to. */
const workspace = useWorkspace()
const twins = ref<Twins[]>([])

watch(
  () => workspace.state,
  async (state) => {
    try {
      const found = state ? await api.nearTwins(workspace.id, workspace.schemeInView) : []
      if (workspace.state === state) twins.value = found
    } catch (e) {
      workspace.report(e)
    }
  },
  { immediate: true },
)

function material(id: string) {
  return workspace.materials.get(id) ?? null
}
function name(id: string): string {
  return material(id)?.name ?? ''
}
function light(pair: Twins | null) {
  const parts = pair ? [...pair.parts, ...pair.otherParts] : []
  workspace.lit = parts.flatMap((part) =>
    (workspace.scene?.parts[part]?.sets ?? []).flatMap((_, span) => {
      const shown = workspace.materialOf({ part, span })?.id
      return shown === pair?.one || shown === pair?.other ? [{ part, span }] : []
    }),
  )
}
function numbers({ difference, gloss, match }: Twins): string {
  return match
    ? 'match, but change apart'
    : `ΔE ${difference.toFixed(1)} · ${Math.abs(Math.round(gloss))} GU apart`
}
/** What has the one material has the other instead, in this scheme. */
async function unite(from: string, to: string) {
  const scheme = workspace.scheme
  if (!scheme) return
  light(null)
  const how = { by: to, parts: null, schemes: [scheme.id] }
  const was = name(from)
  if (await workspace.run((v) => api.replaceMaterial(workspace.id, v, from, how)))
    workspace.tell(`${name(to)} instead of ${was}, in scheme ${scheme.letter} alone`)
}
</script>

<template>
  <section v-if="twins.length > 0" class="fold" aria-label="Nearly the same">
    <h2>
      Nearly the same <small>{{ counted(twins.length, 'pair') }}</small>
    </h2>
    <ul>
      <li
        v-for="t in twins"
        :key="t.one + t.other"
        @mouseenter="light(t)"
        @mouseleave="light(null)"
        @focusin="light(t)"
        @focusout="light(null)"
      >
        <template
          v-for="[id, other, parts] in [
            [t.one, t.other, t.parts],
            [t.other, t.one, t.otherParts],
          ] as const"
          :key="id"
        >
          <SmallChip :material="material(id)" />
          <span class="name">
            {{ name(id) }} <small class="soft">{{ counted(parts.length, 'part') }}</small>
          </span>
          <button
            class="plain small"
            :title="`${name(other)} becomes it in this scheme`"
            @click="unite(other, id)"
          >
            All this
          </button>
        </template>
        <small class="apart">{{ numbers(t) }}</small>
      </li>
    </ul>
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
  grid-template-columns: 26px 1fr auto;
  gap: 2px 8px;
  align-items: center;
  padding: 5px 2px;
  border-bottom: 1px solid var(--line);
}
li:hover {
  background: var(--white);
}
.name {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
li button {
  color: var(--accent);
}
.apart {
  grid-column: 2 / 4;
}
</style>
