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
    <input
      id="tray-search"
      v-model="search"
      class="field find"
      type="search"
      placeholder="Find ( / )"
      :aria-label="label"
    />
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
.find {
  margin: 6px 8px 4px;
  width: auto;
  height: 24px;
  flex: none;
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
