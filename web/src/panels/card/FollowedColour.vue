<script setup lang="ts">
import { computed } from 'vue'
import { useFinding } from '../../stores/finding'
import { useWorkspace } from '../../stores/workspace'
import SmallChip from '../shared/SmallChip.vue'
import ValueSlider from '../shared/ValueSlider.vue'
import type { Card } from './card'

/** Has a material’s colour follow that of another one of the project, as a shade of it: trim after its main colour. */
const props = defineProps<{ of: Card }>()
const workspace = useWorkspace()
const finding = useFinding()

const main = computed(() => workspace.materials.get(props.of.material.colourOf ?? '') ?? null)
const others = computed(() =>
  [...(workspace.state?.palette ?? []), ...(workspace.state?.arrived ?? [])]
    .filter((u) => u.parts > 0 && u.material.id !== props.of.material.id)
    .map((u) => u.material),
)
const shade = computed(() => Math.round(100 * (props.of.material.shade ?? 0)))
const track = computed(() =>
  main.value ? `linear-gradient(90deg in lab, #000, ${finding.seen(main.value).hex}, #fff)` : '',
)
const wish = (percent: number) => ({
  follow: { of: props.of.material.colourOf, shade: percent / 100 },
})
function choose(event: Event) {
  const of = (event.target as HTMLSelectElement).value
  props.of.commit({ follow: of ? { of } : {} })
}
</script>

<template>
  <div class="followed">
    <label class="whose">
      <span>Follows</span>
      <SmallChip v-if="main" :material="main" />
      <select class="field" aria-label="Whose colour it follows" :value="main?.id ?? ''" @change="choose">
        <option value="">no other colour</option>
        <option v-for="m in others" :key="m.id" :value="m.id">{{ m.name }}</option>
      </select>
    </label>
    <ValueSlider
      v-if="main"
      label="As its shade"
      :value="shade"
      :min="-100"
      :max="100"
      :step="1"
      :decimals="0"
      unit=" %"
      :track="track"
      :hint="`Which shade of ${main.name} it is; when that changes, this follows.`"
      :ends="['black', 'white']"
      @input="of.attempt(wish($event))"
      @change="of.commit(wish($event))"
    />
  </div>
</template>

<style scoped>
.whose {
  display: flex;
  align-items: center;
  gap: 8px;
  height: 30px;
}
.whose > span {
  flex: none;
  width: 86px;
}
.whose select {
  flex: 1;
  min-width: 0;
}
</style>
