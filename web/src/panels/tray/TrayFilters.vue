<script setup lang="ts">
import { computed } from 'vue'
import type { Facet, Order } from '../../api/client'
import { useFinding } from '../../stores/finding'
import { useWorkspace } from '../../stores/workspace'

/** What the samples on the tray are narrowed down by, and their order. */
const finding = useFinding()
const workspace = useWorkspace()
const NAMES: Record<Facet, string> = {
  KIND: 'Kind',
  TONE: 'Tone',
  FINISH: 'Finish',
  CLARITY: 'Shows through',
  PATTERN: 'Pattern',
  TAG: 'Word',
}

const facets = computed(() =>
  finding.facets.filter((f) => f.values.length > 1 || (finding.wanted[f.name]?.length ?? 0) > 0),
)
function summary(f: Facet) {
  const wanted = finding.wanted[f] ?? []
  return wanted.length === 0 ? NAMES[f] : wanted.join(' or ')
}
function setOrder(e: Event) {
  const value = (e.target as HTMLSelectElement).value
  finding.order = value === '' ? null : (value as Order)
}
</script>

<template>
  <div class="filters">
    <v-menu v-for="f in facets" :key="f.name" :close-on-content-click="false">
      <template #activator="{ props: opener }">
        <button
          v-bind="opener"
          class="facet"
          :class="{ on: finding.wanted[f.name]?.length }"
          :aria-label="`Narrow down by ${NAMES[f.name].toLowerCase()}`"
        >
          {{ summary(f.name) }} <i aria-hidden="true" />
        </button>
      </template>
      <div class="values" role="group" :aria-label="NAMES[f.name]">
        <label v-for="v in f.values" :key="v.value">
          <input
            type="checkbox"
            :checked="finding.wanted[f.name]?.includes(v.value)"
            @change="finding.want(f.name, v.value)"
          />
          <span>{{ v.value }}</span><span class="soft">{{ v.count }}</span>
        </label>
      </div>
    </v-menu>
    <select class="order" aria-label="Order" :value="finding.order ?? ''" @change="setOrder">
      <option value="">As they lie</option>
      <option v-for="o in workspace.controls.orders" :key="o.name" :value="o.name">{{ o.label }}</option>
    </select>
    <button v-if="finding.like" class="facet on" @click="finding.like = null">
      Reflects like {{ finding.like.code || finding.like.name }} ×
    </button>
    <button v-if="finding.near" class="facet on" @click="finding.near = null">
      Near <i class="dot" :style="{ background: finding.near.colour.hex }" />
      {{ finding.near.code || finding.near.name }} ×
    </button>
    <span class="soft small count" role="status"
      >{{ finding.fromLibrary ? `${finding.total} found` : '' }}
      <template v-if="finding.told"> · {{ finding.told }}</template></span
    >
    <button
      v-if="finding.narrowed || finding.words || finding.order || finding.like || finding.near"
      class="plain small clear"
      @click="finding.clear"
    >
      Clear all
    </button>
  </div>
</template>

<style scoped>
.filters {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 5px;
  padding: 7px 12px 0;
}
.facet,
.order {
  font: inherit;
  font-size: 12px;
  height: 24px;
  padding: 0 8px;
  max-width: 190px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  color: inherit;
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
  cursor: pointer;
}
.facet.on {
  background: var(--accent-wash);
  border-color: var(--accent);
  font-weight: 600;
}
.facet > i:not(.dot) {
  display: inline-block;
  border: 4px solid transparent;
  border-top-color: currentcolor;
  border-bottom: 0;
  margin: 0 0 2px 3px;
}
.dot {
  display: inline-block;
  width: 10px;
  height: 10px;
  border: 1px solid var(--line-strong);
  vertical-align: -1px;
}
.values {
  max-height: 300px;
  overflow: auto;
  padding: 5px 0;
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
  font-size: 12px;
}
.values label {
  display: grid;
  grid-template-columns: 18px 1fr auto;
  gap: 12px 6px;
  align-items: center;
  padding: 2px 12px 2px 9px;
  min-width: 160px;
  cursor: pointer;
}
.values label:hover {
  background: var(--well);
}
.values input {
  accent-color: var(--accent);
}
.count {
  margin-left: auto;
}
.clear {
  text-decoration: underline;
}
</style>
