<script setup lang="ts">
import { computed, watch } from 'vue'
import type { Material } from '../../api/client'
import { useChips } from '../../stores/chips'
import { styleOf } from '../../stage/plainColours'
import { useFinding } from '../../stores/finding'
import { useWorkspace } from '../../stores/workspace'

/** A material's sample at the size of a word: the flat of its tile, or its mark while the stage shows marks. */
const props = defineProps<{ material: Material | null }>()
const chips = useChips()
const finding = useFinding()
const workspace = useWorkspace()

const look = computed(() => {
  const m = props.material
  const marked = workspace.shown === 'MATERIAL' ? workspace.diagram?.things : undefined
  const mark = marked?.find((t) => t.material === (m?.id ?? null))
  if (mark) return styleOf(mark)
  const picture = m && chips.pictures.get(m.chip)
  return {
    backgroundColor: m && !picture ? finding.seen(m).hex : '#b9b9b7',
    backgroundImage: picture ? `url(${picture})` : undefined,
  }
})
watch(
  () => props.material?.chip,
  () => {
    if (props.material) chips.ask(props.material)
  },
  { immediate: true },
)
</script>

<template>
  <i class="small-chip" :style="look" />
</template>

<style scoped>
.small-chip {
  display: block;
  width: 26px;
  height: 14px;
  border: 1px solid #0003;
  border-radius: 2px;
  background-size: 320%;
  background-position: 30% 70%;
}
</style>
