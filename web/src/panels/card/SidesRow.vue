<script setup lang="ts">
import { computed } from 'vue'
import type { Sides } from '../../api/client'
import { useFinding } from '../../stores/finding'
import { useWorkspace } from '../../stores/workspace'

/** For which sides of the selection the card is, with what each shows where that is not the same. */
const workspace = useWorkspace()
const finding = useFinding()
const region = computed(() => workspace.current)
const front = computed(() => (region.value ? workspace.materialOf(region.value) : null))
const back = computed(() => (region.value ? workspace.materialOf(region.value, true) : null))
const differ = computed(() => front.value?.id !== back.value?.id)
const choices = computed(() => [
  { value: 'BOTH' as Sides, text: 'Both sides', says: 'What is given here is for both sides', of: null },
  { value: 'FRONT' as Sides, text: 'Front', says: says('fronts', front.value?.name), of: front.value },
  { value: 'BACK' as Sides, text: 'Back', says: says('backs', back.value?.name), of: back.value },
])
function says(which: string, name: string | undefined): string {
  return `What is given here is for ${which} alone` + (differ.value ? `; now: ${name ?? 'plain grey'}` : '')
}
</script>

<template>
  <div class="scope sides" role="radiogroup" aria-label="For which sides">
    <button
      v-for="c in choices"
      :key="c.value"
      role="radio"
      :aria-checked="workspace.sides === c.value"
      :class="{ on: workspace.sides === c.value }"
      :title="c.says"
      @click="workspace.sides = c.value"
    >
      <i
        v-if="differ && c.value !== 'BOTH'"
        :style="{ background: c.of ? finding.seen(c.of).hex : '#b9b9b7' }"
      />
      {{ c.text }}
    </button>
    <span v-if="workspace.sides === 'BOTH' && workspace.metBehind && differ" class="soft small">
      seen from behind
    </span>
  </div>
</template>

<style scoped>
.sides {
  align-items: center;
}
.sides span {
  padding-left: 8px;
}
i {
  display: inline-block;
  width: 10px;
  height: 10px;
  margin-right: 3px;
  border: 1px solid var(--line-strong);
  vertical-align: -1px;
}
</style>
