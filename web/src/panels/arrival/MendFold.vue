<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, Refusal, type Easing, type Repairing, type RepairPreview } from '../../api/client'
import LengthField from '../shared/LengthField.vue'
import { lengthText } from '../shared/lengths'
import { counted, useWorkspace } from '../../stores/workspace'

type Repair = Repairing['repair']
type Way = Repair | 'MOVE' | 'EASE'
const REPAIRS: { repair: Way; name: string; help: string }[] = [
  { repair: 'WELD', name: 'Join corners', help: 'Corners that lie this near to each other become one.' },
  { repair: 'FILL', name: 'Fill holes', help: 'Flat holes up to this width are closed.' },
  { repair: 'DROP', name: 'Drop doubles', help: 'Triangles that are there twice or have no area go.' },
  { repair: 'NORMALS', name: 'Smooth edges', help: 'Edges up to this angle look round, sharper ones hard.' },
  {
    repair: 'EASE',
    name: 'Ease edges',
    help: 'Sharp outer edges catch light so far to either side, as if they were rounded; the shape stays. 0 leaves them sharp.',
  },
  {
    repair: 'BEVEL',
    name: 'Round off edges',
    help: 'Sharp outer edges are taken off, round from so far on either side: outlines and coordinates go round them, and measures change.',
  },
  {
    repair: 'OFFSET',
    name: 'Grow or shrink',
    help: 'The surface of a closed body moves outward, or inward for less than 0: a liquid into its glass, or off it.',
  },
  { repair: 'MOVE', name: 'Move or turn', help: 'Along and around the axes; y points up.' },
]
const PAUSE = 250
const AXES = ['x', 'y, upright', 'z']

/** Mending the selected parts without modelling them anew. What will be done is said before. */
const workspace = useWorkspace()
const what = ref<Way>('WELD')
const lengths = ref({ WELD: 0.0001, FILL: 0.1, OFFSET: 0.0005, EASE: 0.001, BEVEL: 0.003 } as Record<
  string,
  number
>)
const angle = ref(30)
const way = ref([0, 0, 0])
const axis = ref(1)
const degrees = ref(0)
const preview = ref<RepairPreview | null>(null)
const refused = ref('')
let asked = 0

const chosen = computed(() => [...new Set(workspace.selection.map((r) => r.part))])
const current = computed(() => REPAIRS.find((r) => r.repair === what.value))
const amount = computed(() => (what.value === 'NORMALS' ? angle.value : (lengths.value[what.value] ?? 0)))
/** What a move will do, in words. */
const moving = computed(() => {
  const s = workspace.state
  const steps = way.value.flatMap((w, k) =>
    w === 0
      ? []
      : [`${lengthText(w, s?.unit ?? 'm', s?.unitMetres ?? 1, s?.unitDecimals ?? 3)} along ${'xyz'[k]}`],
  )
  if (degrees.value) steps.push(`${degrees.value}° around ${'xyz'[axis.value]}`)
  return steps.length > 0
    ? `Move ${counted(chosen.value.length, 'part')} ${steps.join(', ')}`
    : 'It stays where it is.'
})
const moves = computed(() => way.value.some((w) => w !== 0) || degrees.value !== 0)
const ready = computed(() => (what.value === 'MOVE' ? moves.value : preview.value?.changes === true))

watch([chosen, what, amount, () => workspace.scene], () => {
  const mine = ++asked
  preview.value = null
  refused.value = ''
  if (what.value !== 'MOVE' && chosen.value.length > 0) window.setTimeout(() => void ask(mine), PAUSE)
})

function wanted(): Repairing {
  return { parts: chosen.value, repair: what.value as Repair, amount: Number(amount.value) || 0 }
}

function easing(): Easing {
  return { parts: chosen.value, width: Number(amount.value) || 0 }
}

async function ask(mine: number) {
  if (mine !== asked) return
  try {
    const answer =
      what.value === 'EASE'
        ? await api.previewEasing(workspace.id, easing())
        : await api.previewRepair(workspace.id, wanted())
    if (mine === asked) preview.value = answer
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    if (mine === asked) refused.value = e.message
  }
}

async function mend() {
  const done = await workspace.run((v) =>
    what.value === 'MOVE'
      ? api.moveBy(workspace.id, v, {
          parts: chosen.value,
          way: way.value,
          axis: axis.value,
          degrees: degrees.value,
        })
      : what.value === 'EASE'
        ? api.ease(workspace.id, v, easing())
        : api.repair(workspace.id, v, wanted()),
  )
  if (done) workspace.tell(`${workspace.state?.undo ?? ''} · undo takes it back`)
}
</script>

<template>
  <section class="fold" aria-label="Mending">
    <h2>Mending</h2>
    <p v-if="chosen.length === 0" class="soft small">
      Select parts to join loose corners, close holes, smooth edges, or to nudge and grow them. The file keeps
      its own.
    </p>
    <form v-else @submit.prevent="mend">
      <div class="pair">
        <select v-model="what" class="field" aria-label="What to mend">
          <option v-for="r in REPAIRS" :key="r.repair" :value="r.repair">{{ r.name }}</option>
        </select>
        <LengthField
          v-if="what in lengths"
          :model-value="amount"
          label="How far"
          @update:model-value="lengths = { ...lengths, [what]: $event }"
        />
        <label v-else-if="what === 'NORMALS'" class="degrees">
          <input v-model.number="angle" class="field" type="number" min="0" max="180" aria-label="Angle" /> °
        </label>
      </div>
      <p class="soft small">{{ current?.help }}</p>
      <template v-if="what === 'MOVE'">
        <div class="way">
          <label v-for="(name, k) in ['x', 'y', 'z']" :key="name">
            {{ name }}
            <LengthField
              :model-value="way[k] ?? 0"
              :label="`Along ${name}`"
              @update:model-value="way = way.map((w, i) => (i === k ? $event : w))"
            />
          </label>
        </div>
        <label class="turn">
          <input
            v-model.number="degrees"
            class="field"
            type="number"
            min="-360"
            max="360"
            aria-label="Degrees"
          />
          ° around
          <select v-model="axis" class="field" aria-label="Axis">
            <option v-for="(name, k) in AXES" :key="name" :value="k">{{ name }}</option>
          </select>
        </label>
      </template>
      <p v-if="what === 'MOVE'" class="small said" role="status">{{ moving }}</p>
      <p v-else class="small said" role="status" :class="{ problem: refused }">
        {{ refused || preview?.sentence || '…' }}
      </p>
      <v-btn size="small" type="submit" :disabled="!ready || workspace.pending > 0">
        {{ what === 'MOVE' ? 'Move' : 'Do it' }}
      </v-btn>
    </form>
  </section>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
}
.degrees,
.turn,
.way label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.degrees .field,
.turn .field[type='number'] {
  width: 66px;
}
.turn select {
  width: 100px;
}
.way {
  display: flex;
  gap: 8px;
  margin: 4px 0;
}
.way :deep(.length) {
  width: 74px;
}
p {
  margin: 4px 0;
}
.said {
  min-height: 17px;
}
</style>
