<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, type PlacedModel, type Placing, type Repetition } from '../../api/client'
import { counted, useWorkspace } from '../../stores/workspace'
import LengthField from '../shared/LengthField.vue'
import OneOf from '../shared/OneOf.vue'

const AXES = ['x', 'y, up', 'z']
const WAYS: { value: Repetition['arrangement']; text: string }[] = [
  { value: 'LINE', text: 'In a line' },
  { value: 'AROUND', text: 'Around' },
  { value: 'OVER', text: 'Over a part' },
]

/** Where a model stands, by numbers; its copies. The handles on the stage do the same. */
const props = defineProps<{ model: PlacedModel }>()
const workspace = useWorkspace()

const shown = computed<Placing>(
  () => workspace.pulled ?? { at: props.model.at, degrees: props.model.degrees, scale: props.model.scale },
)
const way = ref<Repetition['arrangement']>('LINE')
const count = ref(3)
const step = ref([nextTo(), 0, 0])
const centre = ref([0, 0, 0])
const degrees = ref(360)
const apart = ref(1)
const seed = ref(1)
const on = computed(() => workspace.current?.part ?? -1)
const onName = computed(() => {
  const part = workspace.scene?.parts[on.value]
  return part && part.model !== props.model.index ? part.name : ''
})

/** As far along x as the model's widest part and half as much again, in whole centimetres. */
function nextTo(): number {
  const parts = (workspace.scene?.parts ?? []).filter((p) => p.model === props.model.index)
  return Math.ceil(150 * Math.max(...parts.map((p) => p.size[0] ?? 0), 0.01)) / 100
}
function put(change: Partial<Placing>) {
  return workspace.place(props.model.index, { ...shown.value, ...change })
}
function axis(list: number[], k: number, value: number): number[] {
  return list.map((v, i) => (i === k ? value : v))
}
function turn(k: number, event: Event) {
  const value = Number((event.target as HTMLInputElement).value)
  if (Number.isFinite(value)) void put({ degrees: axis(shown.value.degrees, k, value) })
}
function scale(event: Event) {
  const value = Number((event.target as HTMLInputElement).value)
  if (value > 0) void put({ scale: value / 100 })
}
async function setDown() {
  await workspace.run((v) => api.setDown(workspace.id, v, props.model.index))
}
async function repeat() {
  const done = await workspace.run((v) =>
    api.repeatModel(workspace.id, v, props.model.index, {
      arrangement: way.value,
      count: count.value,
      step: step.value,
      centre: centre.value,
      degrees: degrees.value,
      part: Math.max(0, on.value),
      apart: apart.value,
      seed: seed.value,
    }),
  )
  if (!done) return
  workspace.tell(`${workspace.state?.undo ?? ''} · undo takes it back`)
  seed.value++
}
async function remove() {
  const done = await workspace.run((v) => api.removeModel(workspace.id, v, props.model.index))
  if (done) workspace.tell(`${workspace.state?.undo ?? ''} · undo takes it back`)
}
</script>

<template>
  <div class="place">
    <p class="soft small">
      On the stage: pull the model over what it shall stand on, the ring to turn it (Shift: by 15°), the knob
      above to lift it, the square to scale it.
    </p>
    <div class="grid">
      <span class="soft small" />
      <span v-for="a in AXES" :key="a" class="soft small">{{ a }}</span>
      <span class="small">Stands at</span>
      <LengthField
        v-for="k in [0, 1, 2]"
        :key="k"
        :model-value="shown.at[k] ?? 0"
        :label="`Stands at, ${AXES[k]}`"
        lazy
        @update:model-value="put({ at: axis(shown.at, k, $event) })"
      />
      <span class="small">Turned, °</span>
      <input
        v-for="k in [0, 1, 2]"
        :key="k"
        class="field"
        type="number"
        step="15"
        :value="Math.round(10 * (shown.degrees[k] ?? 0)) / 10"
        :aria-label="`Turned about ${AXES[k]}, degrees`"
        @change="turn(k, $event)"
      />
      <span class="small">Size, %</span>
      <input
        class="field"
        type="number"
        min="0.1"
        step="10"
        :value="Math.round(1000 * shown.scale) / 10"
        aria-label="Size, per cent"
        @change="scale"
      />
      <v-btn size="small" class="down" :disabled="workspace.pending > 0" @click="setDown">Set down</v-btn>
    </div>
    <form @submit.prevent="repeat">
      <p class="small">Repeat</p>
      <OneOf v-model="way" label="How copies stand" :choices="WAYS" />
      <div class="line">
        <label class="small">
          <input
            v-model.number="count"
            class="field"
            type="number"
            min="1"
            max="500"
            aria-label="How many more"
          />
          more
        </label>
        <template v-if="way === 'AROUND'">
          <label class="small">
            over
            <input v-model.number="degrees" class="field" type="number" aria-label="Over how many degrees" />°
          </label>
        </template>
        <label v-if="way === 'OVER'" class="small">
          at least <LengthField v-model="apart" label="How far apart" /> apart
        </label>
      </div>
      <div v-if="way !== 'OVER'" class="line">
        <span class="small">{{ way === 'LINE' ? 'by' : 'axis at' }}</span>
        <template v-for="k in [0, 1, 2]" :key="k">
          <LengthField
            v-if="way === 'LINE'"
            :model-value="step[k] ?? 0"
            :label="`Each on by, ${AXES[k]}`"
            @update:model-value="step = axis(step, k, $event)"
          />
          <LengthField
            v-else-if="k !== 1"
            :model-value="centre[k] ?? 0"
            :label="`Axis at, ${AXES[k]}`"
            @update:model-value="centre = axis(centre, k, $event)"
          />
        </template>
      </div>
      <p v-else class="soft small">
        {{ onName ? `Over what looks up of “${onName}”.` : 'Select the part to spread copies over.' }}
      </p>
      <div class="line">
        <v-btn size="small" type="submit" :disabled="workspace.pending > 0 || (way === 'OVER' && !onName)">
          Add {{ counted(count || 0, 'copy', 'copies') }}
        </v-btn>
        <v-btn size="small" class="away" :disabled="workspace.pending > 0" @click="remove"
          >Remove model</v-btn
        >
      </div>
    </form>
  </div>
</template>

<style scoped>
.place {
  padding: 4px 0 2px;
}
.grid {
  display: grid;
  grid-template-columns: 54px 1fr 1fr 1fr;
  gap: 4px 6px;
  align-items: center;
  margin: 4px 0 8px;
}
.grid :deep(.length) {
  width: 100%;
}
.grid .field,
.grid :deep(.length) {
  padding: 0 4px;
  font-size: 12px;
}
.down {
  grid-column: span 2;
}
.line {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 4px 0;
}
.line .field {
  width: 58px;
  padding: 0 4px;
}
.line :deep(.length) {
  width: 74px;
}
.away {
  margin-left: auto;
}
</style>
