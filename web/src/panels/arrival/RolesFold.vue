<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Role, type RoleGroup } from '../../api/client'
import { counted, useWorkspace } from '../../stores/workspace'

/** How many reasons are listed. */
const REASONS = 3

/** What parts may be in the design: proposed with a reason, given on the designer's word. */
const workspace = useWorkspace()
const proposals = ref<RoleGroup[]>([])
const failed = ref(false)
const looking = ref<Role | null>(null)

watch(
  () => workspace.scene,
  async (scene) => {
    failed.value = false
    if (!scene) return
    try {
      proposals.value = await api.roles(workspace.id)
    } catch {
      failed.value = true
    }
  },
  { immediate: true },
)

const given = computed(() => (workspace.scene?.parts ?? []).filter((p) => p.role !== null))
const open = computed(() =>
  proposals.value.flatMap(({ role, parts }) => parts.map((part) => ({ part, role }))),
)

const chosen = computed(() => [...new Set(workspace.selection.map((r) => r.part))])
const chosenRole = computed(() => {
  const roles = new Set(chosen.value.map((p) => workspace.scene?.parts[p]?.role ?? ''))
  return roles.size === 1 ? [...roles][0] : ''
})

function name(role: Role): string {
  return workspace.controls.roles.find((k) => k.role === role)?.word ?? ''
}

function give(event: Event) {
  const role = (event.target as HTMLSelectElement).value as Role | ''
  void confirm(chosen.value.map((part) => ({ part, role: role || null })))
}

function look(row: RoleGroup) {
  looking.value = looking.value === row.role ? null : row.role
  workspace.selectParts(row.parts)
}

async function confirm(list: { part: number; role: Role | null }[]) {
  if (await workspace.run((v) => api.giveRoles(workspace.id, v, list)))
    workspace.tell(`${counted(list.length, 'part')} got ${list.length === 1 ? 'its role' : 'their roles'}`)
}
</script>

<template>
  <section class="fold" aria-label="Roles">
    <h2>
      Roles
      <small
        >{{ counted(given.length, 'part') }} given, {{ open.length.toLocaleString('en') }} proposed</small
      >
    </h2>
    <p v-if="failed" class="soft small" role="alert">Proposals can’t be fetched. Open the project again.</p>
    <p v-else-if="open.length === 0" class="soft small">
      {{
        given.length > 0 ? 'Every proposal is dealt with.' : 'Nothing in this model tells what its parts are.'
      }}
      Filter the ledger by a role’s word to find its parts.
    </p>
    <ul v-else>
      <li v-for="row in proposals" :key="row.role">
        <button
          class="plain entry"
          :class="{ on: looking === row.role }"
          :aria-pressed="looking === row.role"
          @click="look(row)"
        >
          <b>{{ name(row.role) }}</b>
          <span>{{ counted(row.parts.length, 'part') }}</span>
          <span class="soft">{{ row.certainty.toLowerCase() }}</span>
        </button>
        <v-btn
          size="small"
          :disabled="workspace.pending > 0"
          :aria-label="`Confirm ${name(row.role)}`"
          @click="confirm(row.parts.map((part) => ({ part, role: row.role })))"
        >
          Confirm
        </v-btn>
        <p v-if="looking === row.role" class="soft small reasons">
          <span v-for="r in row.reasons.slice(0, REASONS)" :key="r.text">
            {{ r.text
            }}<template v-if="row.reasons.length > 1"> ({{ r.parts.toLocaleString('en') }})</template>
          </span>
          <span v-if="row.reasons.length > REASONS">and {{ row.reasons.length - REASONS }} more reasons</span>
        </p>
      </li>
    </ul>
    <v-btn v-if="open.length > 0" size="small" :disabled="workspace.pending > 0" @click="confirm(open)">
      Confirm all {{ open.length.toLocaleString('en') }}
    </v-btn>
    <label v-if="chosen.length > 0" class="chosen">
      <span class="soft">{{ counted(chosen.length, 'selected part') }}</span>
      <select class="field" aria-label="Role of the selected parts" :value="chosenRole" @change="give">
        <option value="">no role</option>
        <option v-for="k in workspace.controls.roles" :key="k.role" :value="k.role">{{ k.word }}</option>
      </select>
    </label>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 0 0 6px;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px;
  align-items: center;
}
.entry {
  display: grid;
  grid-template-columns: 84px 1fr auto;
  gap: 8px;
  padding: 3px 6px;
  text-align: left;
  border-left: 2px solid var(--line);
}
.entry:hover {
  background: var(--well);
}
.entry.on {
  border-left-color: var(--accent);
}
.chosen {
  display: grid;
  grid-template-columns: 1fr 130px;
  gap: 8px;
  align-items: center;
  margin-top: 6px;
}
.reasons {
  grid-column: 1 / -1;
  margin: 0 0 4px;
  padding-left: 8px;
}
.reasons span {
  display: block;
}
</style>
