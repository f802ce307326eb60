<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type PartName } from '../../api/client'
import OneOf from '../shared/OneOf.vue'
import RenamingFields from '../shared/RenamingFields.vue'
import { counted, useWorkspace } from '../../stores/workspace'

/** How many new names are shown before they are given. */
const LISTED = 6
const PAUSE = 200
type Way = 'pattern' | 'replace' | 'tidy'
const WAYS: { value: Way; text: string }[] = [
  { value: 'pattern', text: 'Pattern' },
  { value: 'replace', text: 'Find and replace' },
  { value: 'tidy', text: 'Tidy up' },
]

/**
 * Names for the selected parts by a pattern with numbers or by replacing a text; or, for all whose names say nothing, by
 * what they are.
 */
const workspace = useWorkspace()
const way = ref<Way>('pattern')
const pattern = ref('')
const first = ref(1)
const find = ref('')
const replacement = ref('')
const preview = ref<PartName[]>([])
let asked = 0

const chosen = computed(() => [...new Set(workspace.selection.map((r) => r.part))])
const ready = computed(
  () =>
    way.value === 'tidy' ||
    (chosen.value.length > 0 && (way.value === 'pattern' ? pattern.value : find.value) !== ''),
)
const changing = computed(() => preview.value.filter((n) => n.name !== nameOf(n.part)))

function nameOf(part: number): string {
  return workspace.scene?.parts[part]?.name ?? ''
}

watch([chosen, way, pattern, first, find, replacement, () => workspace.scene], () => {
  const mine = ++asked
  if (!ready.value) {
    preview.value = []
    return
  }
  window.setTimeout(() => void ask(mine), PAUSE)
})

async function ask(mine: number) {
  if (mine !== asked) return
  const wanted = {
    parts: chosen.value,
    first: Math.round(first.value) || 0,
    pattern: way.value === 'pattern' ? pattern.value : null,
    find: find.value,
    replacement: replacement.value,
  }
  try {
    const names =
      way.value === 'tidy' ? await api.tidyNames(workspace.id) : await api.previewNames(workspace.id, wanted)
    if (mine === asked) preview.value = names
  } catch (e) {
    workspace.report(e)
  }
}

async function give() {
  const names = changing.value
  if (names.length === 0) return
  if (await workspace.run((v) => api.renameParts(workspace.id, v, names)))
    workspace.tell(`${counted(names.length, 'part')} renamed · undo takes it back`)
}
</script>

<template>
  <section class="fold" aria-label="Names of parts">
    <h2>Names of parts</h2>
    <form @submit.prevent="give">
      <OneOf v-model="way" label="How names are made" :choices="WAYS" />
      <p v-if="way === 'tidy'" class="soft small">
        Parts whose names say nothing are called what they are, with a number; equal shapes in a row.
        {{ changing.length === 0 ? 'Every name here says something.' : '' }}
      </p>
      <p v-else-if="chosen.length === 0" class="soft small">
        Select parts in the ledger or on the stage to rename them, one or many.
      </p>
      <RenamingFields
        v-else
        v-model:pattern="pattern"
        v-model:first="first"
        v-model:find="find"
        v-model:replacement="replacement"
        :way="way"
      />
      <ul v-if="preview.length > 0" class="preview" aria-label="New names">
        <li v-for="n in preview.slice(0, LISTED)" :key="n.part" :class="{ same: n.name === nameOf(n.part) }">
          <span class="soft">{{ nameOf(n.part) }}</span>
          <span>{{ n.name || '(no name)' }}</span>
        </li>
        <li v-if="preview.length > LISTED" class="soft small">
          and {{ (preview.length - LISTED).toLocaleString('en') }} more
        </li>
      </ul>
      <v-btn
        v-if="ready"
        size="small"
        type="submit"
        :disabled="changing.length === 0 || workspace.pending > 0"
      >
        Rename {{ counted(changing.length, 'part') }}
      </v-btn>
    </form>
  </section>
</template>

<style scoped>
.preview {
  list-style: none;
  padding: 0;
  margin: 6px 0;
}
.preview li {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  padding: 1px 0;
  overflow-wrap: anywhere;
}
.same {
  color: var(--soft);
}
</style>
