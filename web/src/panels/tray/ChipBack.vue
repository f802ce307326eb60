<script setup lang="ts">
import { computed } from 'vue'
import type { Material } from '../../api/client'

/** The back of a chip: what is measured and known of its material. */
const props = defineProps<{ material: Material; left: number; bottom: number }>()
const WIDTH = 236

const size = computed(() => {
  const s = props.material.textures.find((t) => t.size)?.size
  return s ? s.map((m) => (m < 0.1 ? `${(1000 * m).toFixed(0)} mm` : `${m.toFixed(2)} m`)).join(' × ') : ''
})
const facts = computed(() => props.material.facts)
const lines = computed(() => {
  const m = props.material
  const f = facts.value
  const all: [string, string][] = [
    ['Colour', `${m.colour.hex} · ${m.colour.undertone}`],
    ['LRV', m.colour.lightReflectanceValue.toFixed(0)],
    ['Gloss', `${m.gloss.toFixed(0)} GU · ${m.finish}`],
  ]
  if (size.value) all.push(['One repeat', size.value])
  if (f) {
    all.push(['Density', `${f.density.toLocaleString('en')} kg/m³`])
    if (f.price > 0) all.push(['Price', `${f.price.toLocaleString('en')} per m², ${f.waste} % waste`])
    all.push(['Carbon', `${f.carbon} kg CO₂e per m²`])
  }
  return all
})
const place = computed(() => ({
  left: `${Math.max(8, Math.min(window.innerWidth - WIDTH - 8, props.left))}px`,
  bottom: `${props.bottom}px`,
  width: `${WIDTH}px`,
}))
</script>

<template>
  <Teleport to="body">
    <div class="back small" role="tooltip" :style="place">
      <b>{{ material.code }}</b> {{ material.name }}
      <dl>
        <template v-for="[name, value] in lines" :key="name">
          <dt class="soft">{{ name }}</dt>
          <dd>{{ value }}</dd>
        </template>
      </dl>
      <p v-if="facts" class="soft">{{ facts.tags.join(', ') }}</p>
    </div>
  </Teleport>
</template>

<style scoped>
.back {
  position: fixed;
  z-index: 20;
  padding: 8px 10px;
  background: #fdfcfa;
  border: 1px solid #c6c3bd;
  border-radius: var(--radius);
  box-shadow: 0 4px 14px #0003;
  pointer-events: none;
}
dl {
  display: grid;
  grid-template-columns: 70px 1fr;
  gap: 1px 6px;
  margin: 5px 0 0;
}
dd {
  margin: 0;
}
p {
  margin: 5px 0 0;
}
</style>
