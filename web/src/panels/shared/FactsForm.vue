<script setup lang="ts">
import { ref } from 'vue'
import type { Facts } from '../../api/client'
import { NOTHING_KNOWN, numberTyped } from './facts'

/** Fields for what is known of a material besides its look. Empty is not known. */
const facts = defineModel<Facts | null>({ required: true })

type Numbered = 'density' | 'price' | 'waste' | 'carbon'
type Told = 'source' | 'licence' | 'supplier' | 'article'
const NUMBERS: { name: Numbered; label: string; unit: string }[] = [
  { name: 'density', label: 'Density', unit: 'kg/m³' },
  { name: 'price', label: 'Price', unit: 'per m²' },
  { name: 'waste', label: 'Waste', unit: '%' },
  { name: 'carbon', label: 'Carbon', unit: 'kg CO₂e/m²' },
]
const TEXTS: { name: Told; label: string }[] = [
  { name: 'supplier', label: 'Supplier' },
  { name: 'article', label: 'Article' },
  { name: 'source', label: 'Source' },
  { name: 'licence', label: 'Licence' },
]
function change(by: Partial<Facts>) {
  facts.value = { ...NOTHING_KNOWN, ...facts.value, ...by, missing: null }
}
function value(e: Event): string {
  return (e.target as HTMLInputElement).value.trim()
}
/** What was typed and is no number, by its field: it stays to be mended, and what was known stays known. */
const unread = ref<Partial<Record<Numbered, string>>>({})

/** Takes a number as it is typed, with a comma or a point. */
function enter(name: Numbered, e: Event) {
  const text = value(e)
  const read = numberTyped(text)
  unread.value = { ...unread.value, [name]: read === undefined ? text : undefined }
  if (read !== undefined) change({ [name]: read })
}
</script>

<template>
  <div class="facts">
    <label v-for="n in NUMBERS" :key="n.name">
      {{ n.label }}
      <input
        class="field"
        inputmode="decimal"
        :value="unread[n.name] ?? facts?.[n.name] ?? ''"
        :aria-label="`${n.label}, ${n.unit}`"
        :aria-invalid="unread[n.name] !== undefined"
        placeholder="not known"
        @change="enter(n.name, $event)"
      />
      <span class="soft">{{ n.unit }}</span>
      <span v-if="unread[n.name] !== undefined" class="unread" role="alert">
        “{{ unread[n.name] }}” is no number; {{ n.label.toLowerCase() }} stays as it was. Write it as 7.85.
      </span>
    </label>
    <label v-for="t in TEXTS" :key="t.name" class="wide">
      {{ t.label }}
      <input
        class="field"
        maxlength="200"
        :value="facts?.[t.name] ?? ''"
        @change="change({ [t.name]: value($event) || null })"
      />
    </label>
    <label class="wide">
      Words
      <input
        class="field"
        :value="facts?.tags?.join(', ') ?? ''"
        placeholder="room, finish, use, with commas"
        @change="
          change({
            tags: value($event)
              .split(',')
              .map((t) => t.trim())
              .filter(Boolean),
          })
        "
      />
    </label>
  </div>
</template>

<style scoped>
.facts {
  display: grid;
  gap: 5px;
}
label {
  display: grid;
  grid-template-columns: 82px 1fr 74px;
  align-items: center;
}
.wide {
  grid-template-columns: 82px 1fr;
}
.unread {
  grid-column: 1 / -1;
  color: var(--brick);
}
label .soft {
  padding-left: 6px;
}
.field {
  height: 24px;
  font-size: 12px;
}
</style>
