<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { api } from '../../api/client'
import { useFinding } from '../../stores/finding'
import { useWorkspace } from '../../stores/workspace'
import { lengthSaid } from '../shared/lengths'
import type { Card } from './card'

/** Pictures that don't meet at their edges: what that looks like where they repeat, and having them meet. */
const props = defineProps<{ of: Card; only: number[] | null }>()
const workspace = useWorkspace()
const finding = useFinding()
const working = ref(false)
/** As it is stored: tries are not measured. */
const stored = computed(() => workspace.materials.get(props.of.material.id))
watch(
  stored,
  (m) => {
    if (m?.textures.some((t) => t.size)) void finding.measure(m)
  },
  { immediate: true },
)
const seam = computed(
  () => !!stored.value && finding.measures.get(stored.value.chip)?.pattern?.tiles === false,
)
/** The picture by which a seam is seen best. */
const shown = computed(() => {
  const sized = props.of.material.textures.filter((t) => t.size)
  return sized.find((t) => t.parameter === 'base_color') ?? sized[0]
})

async function meet() {
  const at = workspace.current
  if (!at) return
  working.value = true
  const { behind } = workspace
  const done = await workspace.run((v) =>
    api.meetEdges(workspace.id, v, { part: at.part, span: at.span, only: props.only }, behind),
  )
  working.value = false
  await nextTick()
  const size = shown.value?.size?.map((m) => lengthSaid(m, workspace.state?.unit)).join(' × ')
  if (done) workspace.tell(`The pictures meet at their edges; one repeat is now ${size}`)
}
</script>

<template>
  <div v-if="seam && shown" class="edges" aria-label="Edges of the pictures">
    <i
      class="four"
      role="img"
      aria-label="Four repeats side by side"
      title="Four repeats side by side"
      :style="{ backgroundImage: `url(${api.assetAddress(workspace.id, shown.image)})` }"
    />
    <div class="small">
      <p>Its pictures don’t meet at their edges; a seam shows at each repeat.</p>
      <v-btn
        size="small"
        :loading="working"
        title="Lays one edge over the other and cuts along the line that shows least"
        @click="meet"
      >
        Make the edges meet
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.edges {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 10px;
  align-items: start;
  padding-top: 6px;
}
.four {
  height: 84px;
  border: 1px solid var(--line);
  background-size: 50% 50%;
  background-repeat: repeat;
}
.edges p {
  margin: 0 0 6px;
  color: var(--amber);
}
</style>
