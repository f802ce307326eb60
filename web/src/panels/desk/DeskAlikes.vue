<script setup lang="ts">
import { reactive, shallowRef, watch } from 'vue'
import { api, type Library, type Material } from '../../api/client'
import { useLibraries } from '../../stores/libraries'
import { counted, useWorkspace } from '../../stores/workspace'
import SampleChip from '../tray/SampleChip.vue'

/** Materials of a library that can hardly be told apart: choose which stays, and the others go into it. */
const props = defineProps<{ library: Library }>()
const workspace = useWorkspace()
const libraries = useLibraries()
const groups = shallowRef<Material[][] | null>(null)
const stays = reactive(new Map<number, string>())

watch(
  () => libraries.known,
  async () => {
    try {
      groups.value = await api.alikes(props.library.id)
      stays.clear()
    } catch (e) {
      workspace.report(e)
    }
  },
  { immediate: true },
)
function kept(at: number, group: Material[]): string {
  return stays.get(at) ?? group[0]?.id ?? ''
}
function merge(at: number, group: Material[]) {
  const keep = kept(at, group)
  const gone = group.map((m) => m.id).filter((id) => id !== keep)
  void libraries.act(
    () => api.mergeItems(props.library.id, keep, gone),
    `${counted(group.length, 'material')} made one`,
  )
}
</script>

<template>
  <div class="alikes">
    <p v-if="groups === null" class="soft">Comparing …</p>
    <p v-else-if="groups.length === 0" class="soft">
      No two of these look alike: by colour, gloss, what shows through, pattern and how they reflect.
    </p>
    <p v-else class="soft small">
      These can hardly be told apart. Choose which of each stays; what goes by the others in projects, kits
      and dressing tables goes by it from then on. Looks in projects stay as they are.
    </p>
    <section
      v-for="(g, i) in groups ?? []"
      :key="g[0]?.id"
      class="group"
      :aria-label="`Look-alikes ${i + 1}`"
    >
      <SampleChip
        v-for="m in g"
        :key="m.id"
        still
        :material="m"
        :chosen="kept(i, g) === m.id"
        @choose="stays.set(i, m.id)"
        @apply="stays.set(i, m.id)"
      />
      <v-btn size="small" @click="merge(i, g)"
        >Keep {{ g.find((m) => m.id === kept(i, g))?.code }} of {{ g.length }}</v-btn
      >
    </section>
  </div>
</template>

<style scoped>
.alikes {
  padding: 10px 12px;
}
.group {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
</style>
