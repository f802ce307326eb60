<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue'
import { api, type Material } from '../../api/client'
import { useWorkspace } from '../../stores/workspace'
import SampleChip from '../tray/SampleChip.vue'

/** What such a part is often made of: by the role that it has, or that its name and shape speak for. */
const props = defineProps<{ part: number }>()
const emit = defineEmits<{ take: [id: string] }>()
const FEW = 3

const workspace = useWorkspace()
type Roles = Awaited<ReturnType<typeof api.roles>>
const roles = shallowRef<Roles | null>(null)
const found = shallowRef<{ suits: string; materials: Material[] }>({ suits: '', materials: [] })

const role = computed(() => {
  const own = workspace.scene?.parts[props.part]?.role
  const name = own ?? roles.value?.proposals.find((g) => g.parts.includes(props.part))?.role
  return roles.value?.known.find((k) => k.role === name)
})

watch(
  () => [workspace.id, workspace.scene?.revision],
  async () => {
    try {
      roles.value = workspace.id ? await api.roles(workspace.id) : null
    } catch (e) {
      workspace.report(e)
    }
  },
  { immediate: true },
)
watch(
  role,
  async (now) => {
    if (!now || now.suits === found.value.suits) return
    try {
      const { materials } = await api.find(workspace.id, { words: now.suits })
      if (role.value === now) found.value = { suits: now.suits, materials: materials.slice(0, FEW) }
    } catch (e) {
      workspace.report(e)
    }
  },
  { immediate: true },
)
</script>

<template>
  <section
    v-if="role && found.suits === role.suits && found.materials.length > 0"
    class="fold"
    aria-label="Often used"
  >
    <h2>Often on a {{ role.word }}</h2>
    <div class="chips">
      <SampleChip
        v-for="m in found.materials"
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
