<script setup lang="ts">
import type { Colour } from '../../api/client'
import { useDrag } from '../../stores/drag'

/** Colours that one may take, or carry onto a part, with what they are. */
const drag = useDrag()
defineProps<{ label: string; colours: Colour[]; names?: string[]; narrow?: boolean }>()
const emit = defineEmits<{ take: [colour: Colour, index: number] }>()
</script>

<template>
  <div class="swatches" :class="{ narrow }">
    <span class="small">{{ label }}</span>
    <div>
      <button
        v-for="(c, i) in colours"
        :key="i"
        class="plain"
        :style="{ background: c.hex }"
        :aria-label="names?.[i] ?? `${label} ${c.hex}`"
        :title="`${names?.[i] ? names[i] + ' · ' : ''}${c.hex} · LRV ${c.lightReflectanceValue.toFixed(0)} · ${c.undertone}`"
        @pointerdown.left="drag.pressColour($event, c)"
        @dragstart.prevent
        @click="emit('take', c, i)"
      />
    </div>
  </div>
</template>

<style scoped>
.swatches {
  display: grid;
  grid-template-columns: 108px 1fr;
  gap: 8px;
  align-items: center;
  min-height: 22px;
}
.narrow {
  grid-template-columns: 80px 1fr;
}
.swatches div {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
}
.swatches button {
  width: 26px;
  height: 18px;
  border: 1px solid #0003;
  border-radius: 2px;
}
</style>
