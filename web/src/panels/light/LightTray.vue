<script setup lang="ts">
import { SURROUNDINGS } from '../../stage/surroundings'
import { useLight } from '../../stores/light'

const light = useLight()
</script>

<template>
  <section class="tray" aria-label="Surroundings">
    <button
      v-for="s in SURROUNDINGS"
      :key="s.id"
      class="picture"
      :class="{ on: s.id === light.shown.surroundings }"
      :aria-pressed="s.id === light.shown.surroundings"
      @click="light.set({ surroundings: s.id })"
    >
      <img :src="`/environments/${s.id}.png`" alt="" />
      <span>{{ s.name }}</span>
    </button>
  </section>
</template>

<style scoped>
.tray {
  display: flex;
  gap: 12px;
  padding: 10px 14px;
  background: var(--well);
  border-top: 1px solid var(--line-strong);
  overflow-x: auto;
}
.picture {
  font: inherit;
  color: inherit;
  padding: 0;
  height: 126px;
  flex: none;
  border: 1px solid #c6c3bd;
  border-radius: var(--radius);
  background: #fdfcfa;
  cursor: pointer;
  text-align: left;
  overflow: hidden;
}
.picture img {
  display: block;
  width: 192px;
  height: 96px;
}
.picture span {
  display: block;
  padding: 6px 10px;
  font-size: 12px;
}
.on {
  outline: 2px solid var(--accent);
}
</style>
