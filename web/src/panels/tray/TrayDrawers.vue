<script setup lang="ts" generic="T extends string">
/** The left of a tray: a word to find by, and the drawers or kinds to choose from. A word goes over all of them. */
defineProps<{ label: string; drawers: { id: T; name: string; count: number }[] }>()
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
        :class="{ on: d.id === chosen && !search }"
        :aria-pressed="d.id === chosen"
        @click="open(d.id)"
      >
        <span>{{ d.name }}</span><span>{{ d.count }}</span>
      </button>
    </div>
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
.drawer.on {
  background: var(--paper);
  font-weight: 640;
}
</style>
