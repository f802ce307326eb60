<script lang="ts">
import { computed, reactive } from 'vue'

/** Folds that the designer has opened stay open from one selection to the next. */
const opened = reactive(new Set<string>())
</script>

<script setup lang="ts">
/** A part of the card that opens and closes. */
const props = withDefaults(defineProps<{ title: string; summary?: string }>(), { summary: '' })
const open = computed(() => opened.has(props.title))
function turn() {
  if (open.value) opened.delete(props.title)
  else opened.add(props.title)
}
</script>

<template>
  <section class="fold" :aria-label="title">
    <button class="plain head" :aria-expanded="open" @click="turn">
      <i class="turn" :class="{ open }" aria-hidden="true" />
      <span>{{ title }}</span>
      <small class="soft">{{ summary }}</small>
    </button>
    <slot v-if="open" />
  </section>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 6px;
  width: 100%;
  font-size: 12px;
  font-weight: 650;
}
.head small {
  font-weight: 400;
  font-size: 11px;
  margin-left: auto;
}
.turn {
  width: 0;
  height: 0;
  border: 4px solid transparent;
  border-left-color: var(--soft);
  border-right: 0;
}
.turn.open {
  transform: rotate(90deg);
}
</style>
