<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type Library, type UnusedItem } from '../../api/client'
import { useLibraries } from '../../stores/libraries'
import { counted, useWorkspace } from '../../stores/workspace'
import { weight } from '../shared/lengths'
import SampleChip from '../tray/SampleChip.vue'

/** Materials of a library that no project shows, and what taking them out would win. */
const props = defineProps<{ library: Library }>()
const workspace = useWorkspace()
const libraries = useLibraries()
const unused = shallowRef<UnusedItem[] | null>(null)
const chosen = ref<string[]>([])

watch(
  () => libraries.known,
  async () => {
    try {
      unused.value = await api.unusedItems(props.library.id)
      chosen.value = chosen.value.filter((id) => unused.value?.some((u) => u.material.id === id))
    } catch (e) {
      workspace.report(e)
    }
  },
  { immediate: true },
)
const bytes = computed(() =>
  (unused.value ?? [])
    .filter((u) => chosen.value.includes(u.material.id))
    .reduce((sum, u) => sum + u.bytes, 0),
)

function toggle(id: string) {
  chosen.value = chosen.value.includes(id) ? chosen.value.filter((c) => c !== id) : [...chosen.value, id]
}
function remove() {
  const what = `${counted(chosen.value.length, 'material')} taken out, ${weight(bytes.value)} won`
  void libraries.act(() => api.removeItems(props.library.id, chosen.value), what)
}
</script>

<template>
  <div class="unused">
    <p v-if="unused === null" class="soft">Looking …</p>
    <p v-else-if="unused.length === 0" class="soft">Every material here is shown by some project.</p>
    <div v-else class="acts small">
      <span class="soft">No project shows these {{ unused.length }}.</span>
      <button
        class="plain link"
        @click="chosen = chosen.length === unused.length ? [] : unused.map((u) => u.material.id)"
      >
        {{ chosen.length === unused.length ? 'Choose none' : 'Choose all' }}
      </button>
      <v-btn size="small" :disabled="chosen.length === 0" @click="remove">
        Take {{ chosen.length }} out · {{ weight(bytes) }}
      </v-btn>
    </div>
    <div class="grid">
      <SampleChip
        v-for="u in unused ?? []"
        :key="u.material.id"
        still
        :material="u.material"
        :chosen="chosen.includes(u.material.id)"
        @choose="toggle(u.material.id)"
        @apply="toggle(u.material.id)"
      >
        <b>{{ u.material.code || 'no code' }}</b>
        <span class="soft">{{ u.bytes > 0 ? weight(u.bytes) : '' }}</span> <br />{{ u.material.name }}
      </SampleChip>
    </div>
  </div>
</template>

<style scoped>
.unused {
  padding: 10px 12px;
}
.acts {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-bottom: 8px;
}
.grid {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.link {
  color: var(--accent);
}
</style>
