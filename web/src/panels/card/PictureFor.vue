<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Control } from '../../api/client'
import type { Card } from './card'
import PicturePick from './PicturePick.vue'

/** Has a picture drive one of some parameters that none drives yet. */
const props = defineProps<{ controls: Control[]; of: Card }>()
const free = computed(() =>
  props.controls.filter(
    (c) => c.channel !== null && !props.of.material.textures.some((t) => t.parameter === c.name),
  ),
)
const chosen = ref('')
const parameter = computed(() => (free.value.some((c) => c.name === chosen.value) ? chosen.value : ''))
</script>

<template>
  <div v-if="free.length > 0">
    <label class="small soft for">
      Picture for
      <select v-model="chosen" aria-label="Picture for">
        <option value="">none more</option>
        <option v-for="c in free" :key="c.name" :value="c.name">{{ c.label }}</option>
      </select>
    </label>
    <PicturePick v-if="parameter" :key="parameter" :parameter="parameter" :of="of" begun />
  </div>
</template>

<style scoped>
.for {
  display: flex;
  gap: 8px;
  align-items: center;
  padding-top: 4px;
}
.for select {
  height: 24px;
  flex: 1;
  min-width: 0;
}
</style>
