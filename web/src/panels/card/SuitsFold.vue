<script setup lang="ts">
import { shallowRef, watch } from 'vue'
import { api } from '../../api/client'
import { useWorkspace } from '../../stores/workspace'
import SampleChip from '../tray/SampleChip.vue'

/** What such a part is often made of, as core tells from its role. */
const props = defineProps<{ part: number }>()
const emit = defineEmits<{ take: [id: string] }>()

const workspace = useWorkspace()
const suggested = shallowRef<Awaited<ReturnType<typeof api.suggestions>> | null>(null)

watch(
  () => [props.part, workspace.scene?.revision] as const,
  async ([part]) => {
    suggested.value = null
    try {
      const found = await api.suggestions(workspace.id, part)
      workspace.know(found.materials)
      if (part === props.part) suggested.value = found
    } catch (e) {
      workspace.report(e)
    }
  },
  { immediate: true },
)
</script>

<template>
  <section v-if="suggested && suggested.materials.length > 0" class="fold" aria-label="Often used">
    <h2>Often used: {{ suggested.role }}</h2>
    <div class="chips">
      <SampleChip
        v-for="m in suggested.materials"
        :key="m.id"
        :material="m"
        :chosen="false"
        @choose="emit('take', m.id)"
        @apply="emit('take', m.id)"
      />
    </div>
  </section>
</template>

<style scoped>
.chips {
  display: flex;
  gap: 8px;
}
</style>
