<script setup lang="ts" generic="T extends string">
import { useDrag } from '../../stores/drag'

/**
 * The left of a tray: a word to find by, and the drawers or kinds to choose from. A word goes over all of them. Drawers may lie
 * in one another, begin a section, and take chips.
 */
defineProps<{
  label: string
  drawers: { id: T; name: string; count: number | null; depth?: number; section?: boolean; takes?: boolean }[]
}>()
const drag = useDrag()
const chosen = defineModel<T>({ required: true })
const search = defineModel<string>('search', { required: true })

function open(id: T) {
  chosen.value = id
  search.value = ''
}
</script>

<template>
  <div class="drawers">
    <div class="top">
      <input
        id="tray-search"
        v-model="search"
        class="field find"
        type="search"
        placeholder="Find ( / )"
        :aria-label="label"
      />
      <slot />
    </div>
    <div class="list">
      <button
        v-for="d in drawers"
        :key="d.id"
        class="plain drawer"
        :class="{ on: d.id === chosen && !search, section: d.section, takes: d.takes && drag.over === d.id }"
        :style="{ paddingLeft: `${12 + 11 * (d.depth ?? 0)}px` }"
        :data-keep="d.takes ? d.id : undefined"
        :title="d.takes ? `${d.name}: drop a chip here to keep it` : undefined"
        :aria-pressed="d.id === chosen"
        @click="open(d.id)"
      >
        <span class="name">{{ d.name }}</span><span>{{ d.count }}</span>
      </button>
    </div>
    <slot name="below" />
  </div>
</template>

<style scoped>
.drawers {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: #ebe9e5;
  border-right: 1px solid var(--line);
}
.top {
  display: flex;
  align-items: center;
  margin: 6px 0 4px 8px;
  padding-right: 8px;
  flex: none;
}
.top:has(button) {
  padding-right: 0;
}
.find {
  flex: 1;
  min-width: 0;
  height: 24px;
}
.list {
  overflow: auto;
  padding-bottom: 4px;
}
.drawer {
  display: flex;
  justify-content: space-between;
  width: 100%;
  padding: 2px 12px;
  font-size: 12px;
}
.drawer:focus-visible {
  outline-offset: -2px;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.section {
  border-top: 1px solid var(--line);
  margin-top: 3px;
  padding-top: 4px;
}
.takes {
  background: var(--accent-wash);
  box-shadow: inset 0 0 0 2px var(--accent);
}
.drawer.on {
  background: var(--paper);
  font-weight: 640;
}
</style>
