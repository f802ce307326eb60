<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { api, bytesAt, Refusal, type Colour, type Palette } from '../../api/client'
import SwatchRow from './SwatchRow.vue'

/** The account's own palettes, and those that ship. */
const props = defineProps<{ colour: Colour }>()
const emit = defineEmits<{ take: [colour: Colour] }>()
const palettes = ref<Palette[]>([])
const chosen = ref('')
const naming = ref('')
const problem = ref('')
/** Whether a click on a swatch takes it out of the palette. */
const taking = ref(false)
const FORMATS = ['GPL', 'CSV', 'JSON']
/** Whether the palettes have been read: what is made before that could not be shown. */
const ready = ref(false)
/** Number of the last reading begun; an earlier one that is answered later is out of date. */
let reading = 0

onMounted(() => attempt(read))

async function read() {
  const mine = ++reading
  const all = await api.palettes()
  if (mine !== reading) return
  palettes.value = all
  ready.value = true
  if (!palettes.value.some((p) => p.id === chosen.value)) chosen.value = palettes.value[0]?.id ?? ''
}

async function attempt(work: () => Promise<unknown>) {
  problem.value = ''
  try {
    await work()
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    problem.value = e.message
  }
}

function current(): Palette | undefined {
  return palettes.value.find((p) => p.id === chosen.value)
}
const isOwn = computed(() => current()?.shipped === false)
const groups = computed(() =>
  [
    { label: 'My own', palettes: palettes.value.filter((p) => !p.shipped) },
    { label: 'Shipped', palettes: palettes.value.filter((p) => p.shipped) },
  ].filter((g) => g.palettes.length > 0),
)

/** A shipped palette as one's own. */
async function copy(p: Palette) {
  const file = await bytesAt(api.paletteFile(p.id, 'JSON'))
  await take(new File([file], `${p.name}.json`))
}

async function create() {
  const made = await api.createPalette(naming.value || 'My palette')
  naming.value = ''
  chosen.value = made.id
  await read()
}

function swatchesOf(p: Palette) {
  return p.swatches.map((s) => ({ name: s.name, colour: s.colour.hex }))
}

async function add() {
  const p = current()
  if (!p) return
  const name = naming.value.trim() || props.colour.hex
  await api.changePalette(p.id, p.name, [...swatchesOf(p), { name, colour: props.colour.hex }])
  naming.value = ''
  await read()
}

async function drop(index: number) {
  const p = current()
  if (!p) return
  await api.changePalette(
    p.id,
    p.name,
    swatchesOf(p).filter((_, i) => i !== index),
  )
  await read()
}

async function load(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  input.value = ''
  await take(file)
}

async function take(file: File) {
  const made = await api.readPalette(file)
  chosen.value = made.id
  await read()
}

async function remove() {
  const p = current()
  if (p) await api.deletePalette(p.id)
  await read()
}
</script>

<template>
  <div class="shelf" aria-label="Palettes">
    <div class="line">
      <select v-if="palettes.length > 0" v-model="chosen" class="field" aria-label="Palette">
        <optgroup v-for="g in groups" :key="g.label" :label="g.label">
          <option v-for="p in g.palettes" :key="p.id" :value="p.id">
            {{ p.name }}, {{ p.swatches.length }}
          </option>
        </optgroup>
      </select>
      <label class="file small link" title="A palette file: GPL, CSV or JSON">
        Open file
        <input type="file" accept=".gpl,.csv,.json,.txt" @change="attempt(() => load($event))" />
      </label>
    </div>
    <template v-for="p in palettes" :key="p.id">
      <template v-if="p.id === chosen">
        <SwatchRow
          :label="p.name"
          :colours="p.swatches.map((s) => s.colour)"
          :names="p.swatches.map((s) => s.name)"
          @take="(c, i) => (taking && isOwn ? attempt(() => drop(i)) : emit('take', c))"
        />
        <div class="line small">
          <span class="soft">Save as</span>
          <a v-for="f in FORMATS" :key="f" class="link" :href="api.paletteFile(p.id, f)" download>{{ f }}</a>
          <button
            v-if="p.shipped"
            class="plain link"
            title="A palette of your own with the same colours, to be changed"
            @click="attempt(() => copy(p))"
          >
            Copy to my own
          </button>
          <label
            v-else-if="p.swatches.length > 0"
            title="While this is on, a click takes a colour out of the palette"
          >
            <input v-model="taking" type="checkbox" /> take out
          </label>
          <button v-if="!p.shipped" class="plain link" @click="attempt(remove)">Delete</button>
        </div>
      </template>
    </template>
    <div class="line">
      <input v-model="naming" class="field" aria-label="Name of the colour or palette" placeholder="Name" />
      <button class="plain small link" :disabled="!isOwn" @click="attempt(add)">Add colour</button>
      <button class="plain small link" :disabled="!ready" @click="attempt(create)">New palette</button>
    </div>
    <p v-if="problem" class="problem small" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.shelf {
  display: grid;
  gap: 6px;
}
.line {
  display: flex;
  gap: 10px;
  align-items: center;
}
.line .field {
  flex: 1;
  min-width: 0;
}
.link {
  color: var(--accent);
  white-space: nowrap;
  cursor: pointer;
}
.file input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
.file:focus-within {
  outline: 2px solid var(--accent);
}
</style>
