<script setup lang="ts">
import type { Facts } from '../../api/client'
import { NOTHING_KNOWN } from './facts'

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
/** A number as it is typed, with a comma or a point; not a number is sent as typed and refused in words. */
function number(e: Event): number | null {
  const text = value(e).replace(',', '.')
  return text === '' ? null : Number(text)
}
</script>

<template>
  <div class="facts">
    <label v-for="n in NUMBERS" :key="n.name">
      {{ n.label }}
      <input
        class="field"
        inputmode="decimal"
        :value="facts?.[n.name] ?? ''"
        :aria-label="`${n.label}, ${n.unit}`"
        placeholder="not known"
        @change="change({ [n.name]: number($event) })"
      />
      <span class="soft">{{ n.unit }}</span>
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
label .soft {
  padding-left: 6px;
}
.field {
  height: 24px;
  font-size: 12px;
}
</style>
