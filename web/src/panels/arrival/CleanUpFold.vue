<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Leftovers } from '../../api/client'
import { weight } from '../shared/lengths'
import { counted, useWorkspace } from '../../stores/workspace'

/** How many of a kind are named. */
const NAMED = 4

/** What came with the file and nothing uses, and what of the palette is on nothing. */
const workspace = useWorkspace()
const left = ref<Leftovers | null>(null)
/** The palette may have been laid out on purpose: it goes only if it is asked for. */
const going = ref({ materials: true, images: true, groups: true, palette: false })

watch(
  () => workspace.state?.version,
  async () => {
    if (!workspace.id) return
    try {
      left.value = await api.leftovers(workspace.id)
    } catch (e) {
      left.value = null
      workspace.report(e)
    }
  },
  { immediate: true },
)

const kinds = computed(() => {
  const l = left.value
  if (!l) return []
  return [
    {
      kind: 'materials' as const,
      text: counted(l.materials.length, 'source material'),
      names: l.materials.map((m) => m.name),
      bytes: l.materials.reduce((sum, m) => sum + m.bytes, 0),
    },
    {
      kind: 'images' as const,
      text: counted(l.images.length, 'image'),
      names: l.images.map((i) => `${i.width} × ${i.height}`),
      bytes: l.images.reduce((sum, i) => sum + i.bytes, 0),
    },
    {
      kind: 'groups' as const,
      text: counted(l.groups.length, 'empty group'),
      names: l.groups.map((g) => g.name),
      bytes: 0,
    },
    {
      kind: 'palette' as const,
      text: `${counted(l.palette.length, 'palette material')} on nothing`,
      names: l.palette.map((m) => m.name),
      bytes: 0,
    },
  ].filter((k) => k.names.length > 0)
})
const count = computed(() =>
  kinds.value.reduce((sum, k) => sum + (going.value[k.kind] ? k.names.length : 0), 0),
)

async function remove() {
  if (await workspace.run((v) => api.cleanUp(workspace.id, v, going.value)))
    workspace.tell(`${workspace.state?.undo ?? ''} · undo takes it back`)
}
</script>

<template>
  <section class="fold" aria-label="Clean-up">
    <h2>Clean-up</h2>
    <p v-if="!left" class="soft small">What is left over can’t be told now.</p>
    <p v-else-if="kinds.length === 0" class="soft small">Everything that came with the file is used.</p>
    <template v-else>
      <label v-for="k in kinds" :key="k.kind">
        <input v-model="going[k.kind]" type="checkbox" />
        <span>
          {{ k.text }}
          <span class="soft small">
            {{ k.names.slice(0, NAMED).join(', ')
            }}{{ k.names.length > NAMED ? ` and ${k.names.length - NAMED} more` : '' }}
          </span>
        </span>
        <span class="soft">{{ k.bytes > 0 ? weight(k.bytes) : '' }}</span>
      </label>
      <v-btn size="small" :disabled="count === 0 || workspace.pending > 0" @click="remove">
        Remove {{ counted(count, 'leftover') }}
      </v-btn>
    </template>
  </section>
</template>

<style scoped>
label {
  display: grid;
  grid-template-columns: 18px 1fr auto;
  gap: 6px;
  padding: 3px 0;
  align-items: start;
}
label .small {
  display: block;
}
</style>
