<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Beside, type Colour, type ColourAround, type NearMaterial } from '../../api/client'
import { useFinding } from '../../stores/finding'
import { useWorkspace } from '../../stores/workspace'
import type { Card } from './card'
import ColourReader from './ColourReader.vue'
import FollowedColour from './FollowedColour.vue'
import ColourSliders from './ColourSliders.vue'
import PaletteShelf from './PaletteShelf.vue'
import PictureSampler from './PictureSampler.vue'
import PictureTone from './PictureTone.vue'
import SwatchRow from './SwatchRow.vue'

/** The colour a designer means, and all that helps to find it. */
const props = defineProps<{ of: Card }>()
const emit = defineEmits<{ take: [material: string] }>()
const workspace = useWorkspace()
const finding = useFinding()
const colour = ref<Colour | null>(null)
const around = ref<ColourAround | null>(null)
const near = ref<NearMaterial[]>([])
const help = ref<'' | 'tones' | 'company' | 'palettes' | 'picture' | 'reader' | 'near'>('')
const HELPS = [
  { value: 'tones', text: 'Tones' },
  { value: 'company', text: 'With it' },
  { value: 'palettes', text: 'Palettes' },
  { value: 'picture', text: 'Picture' },
  { value: 'reader', text: 'Reader' },
  { value: 'near', text: 'Library' },
] as const

const parameter = computed(() => props.of.material.colourParameter)
const stored = computed(() => workspace.materials.get(props.of.material.id) ?? props.of.material)
/** Whether a picture gives it its colours; then it is that which is seen, compared and measured. */
const pictured = computed(() => stored.value.textures.some((t) => t.parameter === parameter.value))
const seen = computed(() =>
  pictured.value ? finding.seen(stored.value) : (colour.value ?? props.of.material.colour),
)
/** A coat lets less of the colour be seen. */
const coated = computed(() => {
  const lrv = props.of.material.coatedReflectance
  return lrv === null ? '' : `, ${lrv.toFixed(1)} under its coat`
})
const title = computed(() => props.of.control(parameter.value)?.label ?? 'Colour')
/** How long a colour rests before what is around it is asked for. */
const PAUSE = 200
/** How long after it was asked for a help has come, in ms. */
const SHOWN = 250
let resting = 0

async function look(linear: number[]) {
  const read = await api.coloursAround(linear).catch(() => null)
  if (read) around.value = read
}
watch(
  () => props.of.linear(parameter.value),
  (linear) => {
    window.clearTimeout(resting)
    resting = window.setTimeout(() => void look(linear), around.value ? PAUSE : 0)
  },
  { immediate: true },
)
watch([help, () => seen.value.hex], async () => {
  if (help.value === 'near') near.value = await api.nearest(seen.value.linear).catch(() => [])
})

const end = ref<HTMLElement | null>(null)
/** What is asked for lies below what is there: it is brought into view once it has come. */
watch(help, (h) => {
  if (h) window.setTimeout(() => end.value?.scrollIntoView({ block: 'nearest' }), SHOWN)
})

/** Another selected part of another material, to be judged beside this one. */
const neighbour = computed(() => {
  const regions = workspace.selection.slice(0, -1).reverse()
  const other = regions.find((r) => workspace.materialOf(r)?.id !== props.of.material.id)
  const m = other ? workspace.materialOf(other) : null
  return m && m.colourParameter !== 'emission_color' ? m : null
})
const beside = ref<(Beside & { name: string }) | null>(null)
watch(
  [neighbour, () => neighbour.value && finding.seen(neighbour.value).hex, () => seen.value.hex],
  async () => {
    const other = neighbour.value
    const read = other
      ? await api.coloursBeside(seen.value.linear, finding.seen(other).linear).catch(() => null)
      : null
    beside.value = read && other ? { ...read, name: other.name } : null
  },
  { immediate: true },
)

watch(
  () => [props.of.material.id, props.of.material.colourOf] as const,
  ([id, now], [before, was]) => {
    const main = workspace.materials.get(was ?? '')
    if (id === before && main && !now)
      workspace.tell(`${props.of.material.name} no longer follows the colour of ${main.name}`)
  },
)

/** Has that very colour seen, of a picture in its shades. */
function give(c: Colour) {
  props.of.commit({ colour: c.linear })
}
</script>

<template>
  <section class="fold" aria-label="Colour">
    <h2>
      {{ title }}
      <small v-if="parameter === 'base_color'">
        LRV {{ seen.lightReflectanceValue.toFixed(1) }}{{ pictured ? ', with its picture' : coated }}
      </small>
    </h2>
    <ColourSliders
      :linear="of.linear(parameter)"
      :known="of.material.colour"
      @shown="colour = $event"
      @attempt="of.attempt({ [parameter]: $event })"
      @commit="of.commit({ [parameter]: $event })"
    />
    <PictureTone :parameter="parameter" :of="of" />
    <p
      v-if="beside"
      class="small"
      :title="`CIEDE2000 between the colours of the two materials, and the ratio of their luminances: 1 is none, 21 white on black`"
    >
      Beside {{ beside.name }}: ΔE {{ beside.difference.toFixed(1) }}, LRV
      {{ beside.contrast.toFixed(1) }} apart, contrast {{ beside.ratio.toFixed(2) }} : 1.
      {{ beside.undertones }}
    </p>
    <div v-if="around" class="steps">
      <button
        v-for="s in around.steps"
        :key="s.label"
        class="step small"
        :title="`${s.label}: ${s.colour.hex}`"
        @click="give(s.colour)"
      >
        <i :style="{ background: s.colour.hex }" />{{ s.label }}
      </button>
    </div>
    <div class="helps" role="tablist" aria-label="Find a colour">
      <button
        v-for="h in HELPS"
        :key="h.value"
        role="tab"
        class="plain small"
        :aria-selected="help === h.value"
        :class="{ on: help === h.value }"
        @click="help = help === h.value ? '' : h.value"
      >
        {{ h.text }}
      </button>
    </div>
    <FollowedColour v-if="of.material.colourOf || help === 'company'" :of="of" />
    <template v-if="around && help === 'tones'">
      <div class="tones">
        <SwatchRow
          v-for="t in around.tones"
          :key="t.label"
          :label="t.label"
          :colours="[t.colour]"
          narrow
          @take="give"
        />
      </div>
    </template>
    <template v-else-if="around && help === 'company'">
      <SwatchRow
        v-for="h in around.harmonies"
        :key="h.label"
        :label="h.label"
        :colours="h.colours"
        @take="give"
      />
    </template>
    <PaletteShelf v-else-if="around && help === 'palettes'" :colour="around.colour" @take="give" />
    <PictureSampler v-else-if="help === 'picture'" @take="give" />
    <ColourReader v-else-if="help === 'reader'" @take="give" />
    <ul v-else-if="help === 'near'" class="near">
      <li v-for="n in near" :key="n.material.id">
        <i :style="{ background: n.material.colour.hex }" />
        <span
          ><b>{{ n.material.code }}</b> {{ n.material.name }}</span
        >
        <small class="soft" title="Colour difference, CIEDE2000">ΔE {{ n.difference.toFixed(1) }}</small>
        <button
          class="plain small link"
          :disabled="!workspace.current"
          title="Puts this library material on the selection"
          @click="emit('take', n.material.id)"
        >
          Use
        </button>
      </li>
    </ul>
    <i ref="end" />
  </section>
</template>

<style scoped>
.tones {
  display: grid;
  grid-template-columns: 1fr 1fr;
}
.steps {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 4px;
  margin: 4px 0;
}
.step {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 2px 4px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--paper);
  cursor: pointer;
}
.step i {
  width: 18px;
  height: 14px;
  border: 1px solid #0003;
}
.helps {
  display: flex;
  justify-content: space-between;
  margin: 6px 0 4px;
}
.helps button {
  padding: 2px 0;
  color: var(--accent);
  border-bottom: 2px solid transparent;
}
.helps .on {
  border-bottom-color: var(--accent);
}
.near {
  list-style: none;
  padding: 0;
}
.near li {
  display: grid;
  grid-template-columns: 20px 1fr auto auto;
  gap: 8px;
  align-items: center;
  height: 24px;
}
.near span {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.near i {
  height: 16px;
  border: 1px solid #0003;
}
.link {
  color: var(--accent);
}
</style>
