<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Material, Measure } from '../../api/client'
import { useFinding } from '../../stores/finding'
import { useLibraries } from '../../stores/libraries'
import { useWorkspace } from '../../stores/workspace'
import { lengthSaid } from '../shared/lengths'
import { factLines, repeatText, sharpText } from './measures'

/** The back of a chip: what is measured and known of its material. */
const props = defineProps<{ material: Material; left: number; bottom: number }>()
const WIDTH = 264
const libraries = useLibraries()
const workspace = useWorkspace()
const unit = computed(() => workspace.state?.unit ?? 'mm')

const facts = computed(() => props.material.facts)
const measure = ref<Measure | null>(null)
watch(
  () => props.material,
  async (m) => {
    const finding = useFinding()
    measure.value = finding.measures.get(m.chip) ?? null
    measure.value = await finding.measure(m, true)
  },
  { immediate: true },
)
const lines = computed(() => {
  const x = measure.value
  const f = facts.value
  const all: [string, string][] = []
  if (x) {
    all.push(
      ['Mean colour', `${x.colour.hex}, ${x.tone}`],
      ['Undertone', x.colour.undertone],
      ['LRV', x.colour.lightReflectanceValue.toFixed(0)],
      ['Gloss', `${x.gloss.toFixed(0)} GU, ${x.finish}`],
      ['Body', x.clarity],
    )
    if (x.pattern) {
      all.push(
        ['One repeat', repeatText(x, unit.value)],
        [
          'Busyness',
          `${x.pattern.busyness.toFixed(1)}, ${x.pattern.word}; details of ${lengthSaid(x.pattern.detail, unit.value)}`,
        ],
        ['Sharpness', sharpText(x, unit.value)],
      )
    }
  }
  if (x && x.usedIn.length > 0)
    all.push(['Used in', x.usedIn.slice(0, 3).join(', ') + (x.usedIn.length > 3 ? ' …' : '')])
  if (f) all.push(...factLines(f))
  const place = props.material.place
  if (place) all.push(['Lies in', libraries.pathOf(place) + (place.approved ? '' : ', waits for approval')])
  if (place?.keptBy) all.push(['Kept by', place.keptBy])
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
      <i v-if="measure" class="patch" :style="{ background: measure.colour.hex }" />
      <b>{{ material.code }}</b> {{ material.name }}
      <dl>
        <template v-for="[name, value] in lines" :key="name">
          <dt class="soft">{{ name }}</dt>
          <dd>{{ value }}</dd>
        </template>
      </dl>
      <p v-if="facts?.tags?.length" class="soft">{{ facts.tags.join(', ') }}</p>
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
.patch {
  float: right;
  width: 34px;
  height: 20px;
  border: 1px solid var(--line);
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
