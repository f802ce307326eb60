<script setup lang="ts">
import { computed } from 'vue'
import type { SampleForm } from '../../api/client'
import { useCloser } from '../../stores/closer'
import { useWorkspace } from '../../stores/workspace'

/** A material seen closely, beside the model. */
const closer = useCloser()
const workspace = useWorkspace()
const FORMS: { value: SampleForm; text: string }[] = [
  { value: 'TILE', text: 'Tile' },
  { value: 'CLOTH', text: 'Cloth fold' },
  { value: 'VESSEL', text: 'Vessel' },
]
const material = computed(() => closer.latest())
const part = computed(() => {
  const at = workspace.current
  return at ? workspace.scene?.parts[at.part]?.name : undefined
})
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
      <span v-if="!closer.done" class="state small" role="status">{{
        closer.picture ? 'getting finer …' : 'tracing …'
      }}</span>
    </div>
    <div class="scope" role="radiogroup" aria-label="Form">
      <button
        v-for="f in FORMS"
        :key="f.value"
        role="radio"
        :aria-checked="closer.form === f.value"
        :class="{ on: closer.form === f.value }"
        @click="closer.form = f.value"
      >
        {{ f.text }}
      </button>
      <button
        role="radio"
        :aria-checked="closer.form === null"
        :class="{ on: closer.form === null }"
        :disabled="!part"
        :title="part ? `On ${part}, as large as it is` : 'Select a part first'"
        @click="closer.form = null"
      >
        {{ part ?? 'Part' }}
      </button>
    </div>
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
.scope {
  border: 0;
  border-top: 1px solid var(--line-strong);
}
.scope button {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
