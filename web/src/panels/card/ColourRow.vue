<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Control } from '../../api/client'
import { hintOf, type Card } from './card'
import ColourSliders from './ColourSliders.vue'

/** A colour among other values: a swatch that opens its sliders. */
const props = defineProps<{ parameter: string; control: Control; of: Card }>()
const open = ref(false)
const linear = computed(() => props.of.linear(props.parameter))
const css = computed(() => `color(srgb-linear ${linear.value.join(' ')})`)
</script>

<template>
  <button
    class="plain row"
    :title="hintOf(control)"
    :aria-expanded="open"
    @click="open = !open"
    @dblclick="of.reset(parameter)"
  >
    <span :class="{ soft: control.traced }"
      >{{ control.label }}<i v-if="of.changed(parameter)" class="dot"
    /></span>
    <i class="swatch" :style="{ background: css }" />
  </button>
  <ColourSliders
    v-if="open"
    :linear="linear"
    @attempt="of.attempt({ [parameter]: $event })"
    @commit="of.commit({ [parameter]: $event })"
  />
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 86px 1fr;
  gap: 10px;
  align-items: center;
  height: 26px;
  width: 100%;
}
.row span {
  white-space: nowrap;
}
.swatch {
  height: 16px;
  border: 1px solid #0003;
  border-radius: 2px;
}
.dot {
  display: inline-block;
  width: 5px;
  height: 5px;
  border-radius: 50%;
  background: var(--accent);
  margin: 0 0 2px 4px;
}
</style>
