<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { api, type Material, type Measure, type Unlike } from '../../api/client'
import OneOf from '../shared/OneOf.vue'
import { useChips } from '../../stores/chips'
import { useFinding } from '../../stores/finding'
import { useWorkspace } from '../../stores/workspace'
import { repeatText, sharpShort } from './measures'

/** Up to six materials beside one another, with what is measured and known of them. */
const finding = useFinding()
const workspace = useWorkspace()
const chips = useChips()

const materials = computed(() =>
  finding.compared.map((id) => workspace.materials.get(id)).filter((m): m is Material => m !== undefined),
)
watch(
  materials,
  (all) => {
    for (const m of all) {
      chips.ask(m)
      void finding.measure(m)
    }
  },
  { immediate: true },
)

/** How much the difference from the first one is exaggerated in the pictures. */
const times = ref(4)
const TIMES = [1, 4, 16].map((value) => ({ value, text: `× ${value}` }))
const unlike = reactive(new Map<string, Unlike>())
const others = computed(() => materials.value.slice(1))
const pair = (m: Material) => `${materials.value[0]?.chip} ${m.chip} ${times.value}`

// what has been traced meanwhile is asked for again
watch(
  [others, times, () => materials.value.map((m) => chips.pictures.get(m.chip))],
  () => {
    for (const m of others.value) void compare(m)
  },
  { immediate: true },
)
async function compare(m: Material) {
  const first = materials.value[0]
  const key = pair(m)
  if (!first || unlike.has(key)) return
  try {
    const found = await api.unlike(workspace.id, first.id, m.id, times.value)
    if (found) unlike.set(key, found)
  } catch (e) {
    workspace.report(e)
  }
}
const fromFirst = computed(() =>
  materials.value.map((m, k) => ({ m, differs: k > 0 ? unlike.get(pair(m)) : undefined })),
)

const measure = (m: Material): Measure | undefined => finding.measures.get(m.chip)

interface Row {
  name: string
  text: (m: Material, x: Measure) => string
  /** Shown as a bar against the largest of them. */
  bar?: (m: Material, x: Measure) => number
}
const ROWS: Row[] = [
  {
    name: 'LRV',
    text: (_, x) => x.colour.lightReflectanceValue.toFixed(0),
    bar: (_, x) => x.colour.lightReflectanceValue,
  },
  {
    name: 'Gloss',
    text: (_, x) => `${x.gloss.toFixed(0)} GU, ${x.finish}`,
    bar: (_, x) => Math.min(100, x.gloss),
  },
  {
    name: 'Busyness',
    text: (_, x) => (x.pattern ? `${x.pattern.busyness.toFixed(1)}, ${x.pattern.word}` : 'even'),
    bar: (_, x) => x.pattern?.busyness ?? 0,
  },
  { name: 'One repeat', text: (_, x) => repeatText(x, workspace.state?.unit ?? 'mm') },
  { name: 'Sharpness', text: (_, x) => sharpShort(x) },
  { name: 'Shows through', text: (_, x) => x.clarity },
  {
    name: 'Price per m²',
    text: (m) => (m.facts?.price ? m.facts.price.toLocaleString('en') : '–'),
    bar: (m) => m.facts?.price ?? 0,
  },
  {
    name: 'Carbon per m²',
    text: (m) => (m.facts?.carbon != null ? `${m.facts.carbon} kg` : '–'),
    bar: (m) => Math.max(0, m.facts?.carbon ?? 0),
  },
  {
    name: 'Density',
    text: (m) => (m.facts?.density ? `${m.facts.density.toLocaleString('en')} kg/m³` : '–'),
  },
]
function share(row: Row, m: Material): string {
  const all = materials.value.map((o) => {
    const x = measure(o)
    return x && row.bar ? row.bar(o, x) : 0
  })
  const x = measure(m)
  const most = Math.max(...all, 1e-9)
  return x && row.bar ? `${(100 * row.bar(m, x)) / most}%` : '0'
}
</script>

<template>
  <div class="beside">
    <table>
      <thead>
        <tr>
          <td class="corner">
            <button class="plain small close" @click="finding.comparing = false">Back to the tray</button>
          </td>
          <th v-for="m in materials" :key="m.id" scope="col">
            <span
              class="face"
              :style="{
                backgroundColor: m.colour.hex,
                backgroundImage: chips.pictures.get(m.chip)
                  ? `url(${chips.pictures.get(m.chip)})`
                  : undefined,
              }"
            />
            <b>{{ m.code }}</b> {{ m.name }}
            <button
              class="plain take"
              :aria-label="`Take ${m.name} off`"
              title="Take off"
              @click="finding.compare(m.id)"
            >
              ×
            </button>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row">Mean colour</th>
          <td v-for="m in materials" :key="m.id">
            <div v-if="measure(m)" class="mean">
              <i class="patch" :style="{ background: measure(m)!.colour.hex }" />
              <span
                >{{ measure(m)!.colour.hex }}<br /><span class="soft">{{
                  measure(m)!.colour.undertone
                }}</span></span
              >
            </div>
          </td>
        </tr>
        <tr v-if="others.length > 0">
          <th scope="row">
            Unlike the first
            <OneOf v-model="times" label="How much the difference is exaggerated" :choices="TIMES" />
          </th>
          <td v-for="({ m, differs }, k) in fromFirst" :key="m.id">
            <template v-if="differs">
              <img
                class="unlike"
                :src="`data:image/png;base64,${differs.picture}`"
                :alt="`${m.name}, its difference ${times} times as large`"
              />
              ΔE {{ differs.mean.toFixed(1) }}, 95 % within {{ differs.p95.toFixed(1) }}:
              <span class="soft">{{ differs.word }}</span>
            </template>
            <span v-else-if="k > 0" class="soft">its picture is being made …</span>
          </td>
        </tr>
        <tr v-for="row in ROWS" :key="row.name">
          <th scope="row">{{ row.name }}</th>
          <td v-for="m in materials" :key="m.id">
            <template v-if="measure(m)">{{ row.text(m, measure(m)!) }}</template>
            <i v-if="row.bar" class="bar"><i :style="{ width: share(row, m) }" /></i>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.beside {
  overflow: auto;
  background: var(--paper);
  min-height: 0;
}
table {
  border-collapse: collapse;
  font-size: 12px;
}
th,
td {
  text-align: left;
  font-weight: 400;
  vertical-align: top;
  padding: 3px 12px;
  border-bottom: 1px solid var(--line);
}
thead th,
.corner {
  border-bottom: 0;
  padding-top: 10px;
  position: relative;
  width: 158px;
  min-width: 158px;
}
tbody th {
  color: var(--soft);
  white-space: nowrap;
}
.face {
  display: block;
  width: 134px;
  height: 114px;
  background-size: cover;
  margin-bottom: 3px;
  border-radius: var(--radius);
}
.take {
  position: absolute;
  right: 14px;
  top: 11px;
  width: 20px;
  text-align: center;
  background: #faf9f7d9;
  border-radius: var(--radius);
}
.close {
  text-decoration: underline;
}
.mean {
  display: flex;
  gap: 8px;
}
.patch {
  display: inline-block;
  width: 40px;
  height: 22px;
  flex: none;
  margin: 2px 0;
  border: 1px solid var(--line);
}
.unlike {
  display: block;
  width: 134px;
  height: 114px;
  border-radius: var(--radius);
}
.bar {
  display: block;
  height: 3px;
  margin-top: 2px;
  background: var(--well);
}
.bar i {
  display: block;
  height: 100%;
  background: var(--soft);
}
</style>
