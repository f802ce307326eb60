<script setup lang="ts">
import { computed } from 'vue'
import type { SampleForm } from '../../api/client'
import OneOf from '../shared/OneOf.vue'
import { useCloser } from '../../stores/closer'
import { useWorkspace } from '../../stores/workspace'

/** A material seen closely, beside the model. */
const closer = useCloser()
const workspace = useWorkspace()
const material = computed(() => closer.latest())
const part = computed(() => {
  const at = workspace.current
  return at ? workspace.scene?.parts[at.part]?.name : undefined
})
const forms = computed<{ value: SampleForm | null; text: string; title?: string; disabled?: boolean }[]>(
  () => [
    { value: 'TILE', text: 'Tile' },
    { value: 'CLOTH', text: 'Cloth fold' },
    { value: 'VESSEL', text: 'Vessel' },
    {
      value: null,
      text: part.value ?? 'Part',
      title: part.value ? `On ${part.value}, as large as it is` : 'Select a part first',
      disabled: !part.value,
    },
  ],
)
</script>

<template>
  <section v-if="material" class="closer" aria-label="A closer look">
    <header>
      <b>{{ material.code }}</b> <span class="name">{{ material.name }}</span>
      <button class="plain" aria-label="Close the closer look" title="Close (L)" @click="closer.close()">
        ×
      </button>
    </header>
    <div class="picture" :style="{ backgroundColor: material.colour.hex }">
      <img v-if="closer.picture" :src="closer.picture" :alt="`${material.name}, traced`" />
      <span v-if="closer.problem" class="state small" role="alert">
        {{ closer.problem }} <button class="plain link" @click="closer.again()">Try again</button>
      </span>
      <span v-else-if="!closer.done" class="state small" role="status">{{
        closer.picture ? 'getting finer …' : 'tracing …'
      }}</span>
    </div>
    <OneOf v-model="closer.form" class="forms" label="Form" :choices="forms" />
  </section>
</template>

<style scoped>
.closer {
  position: absolute;
  top: 58px;
  right: 342px;
  z-index: 2;
  width: 348px;
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
}
header {
  display: flex;
  gap: 6px;
  padding: 5px 10px;
  font-size: 12px;
}
header button {
  margin-left: auto;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.picture {
  position: relative;
  aspect-ratio: 6 / 5;
}
.picture img {
  width: 100%;
  height: 100%;
  display: block;
}
.state {
  position: absolute;
  left: 8px;
  bottom: 6px;
  padding: 1px 6px;
  background: #faf9f7d9;
  border-radius: 2px;
}
.forms {
  border: 0;
  border-top: 1px solid var(--line-strong);
}
.forms :deep(button) {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
