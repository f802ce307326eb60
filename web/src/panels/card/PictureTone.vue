<script setup lang="ts">
import { computed, ref } from 'vue'
import { api } from '../../api/client'
import { useWorkspace } from '../../stores/workspace'
import ValueSlider from '../shared/ValueSlider.vue'
import type { Card } from './card'
import LchSliders from './LchSliders.vue'

/** How the colours of the picture that drives a parameter are changed; the picture itself stays. */
const props = defineProps<{ parameter: string; of: Card }>()
const workspace = useWorkspace()
const picture = computed(() => props.of.material.textures.find((t) => t.parameter === props.parameter))
const PLAIN = { saturation: 1, contrast: 1, brightness: 1, tinted: 0, faded: 0 }
const tone = computed(
  () => picture.value?.tone ?? { ...PLAIN, tint: [0.35, 0.2, 0.1], fade: [0.8, 0.8, 0.8] },
)
const open = ref<'' | 'tint' | 'fade'>('')
const SLIDERS = [
  {
    name: 'saturation',
    label: 'Saturation',
    max: 2,
    hint: 'How colourful the picture is: 0 grey; 1 as it is.',
  },
  {
    name: 'contrast',
    label: 'Contrast',
    max: 2,
    hint: 'How far light and dark are apart: 0 its mean; 1 as it is.',
  },
  {
    name: 'brightness',
    label: 'Brightness',
    max: 2,
    hint: 'How light it is: 0.5 half as light; 1 as it is.',
  },
] as const
const LAID = [
  {
    name: 'tinted',
    colour: 'tint',
    label: 'Tint',
    hint: 'Turns it into shades of one colour, as a stain does: 0.3 a breath; 1 wholly.',
  },
  {
    name: 'faded',
    colour: 'fade',
    label: 'Fade',
    hint: 'Lets it fade into a plain colour: 0.2 chalky; 1 plain.',
  },
] as const

function wish(values: Record<string, unknown>) {
  return { tone: { of: props.parameter, ...values } }
}
function css(linear: number[]): string {
  return `color(srgb-linear ${linear.join(' ')})`
}
</script>

<template>
  <div v-if="picture" class="tone" aria-label="Picture’s colours">
    <div class="head small">
      <img :src="api.assetAddress(workspace.id, picture.image)" alt="" />
      <span class="soft">The colour is multiplied by this picture.</span>
      <button
        v-if="picture.tone"
        class="plain link"
        title="The picture’s own colours again"
        @click="of.commit(wish({ plain: true }))"
      >
        As it was
      </button>
    </div>
    <ValueSlider
      v-for="s in SLIDERS"
      :key="s.name"
      :label="s.label"
      :value="tone[s.name]"
      :max="s.max"
      :changed="tone[s.name] !== PLAIN[s.name]"
      :hint="s.hint"
      @input="of.attempt(wish({ [s.name]: $event }))"
      @change="of.commit(wish({ [s.name]: $event }))"
      @reset="of.commit(wish({ [s.name]: PLAIN[s.name] }))"
    />
    <template v-for="l in LAID" :key="l.name">
      <div class="laid">
        <ValueSlider
          :label="l.label"
          :value="tone[l.name]"
          :changed="tone[l.name] !== 0"
          :hint="l.hint"
          @input="of.attempt(wish({ [l.name]: $event, [l.colour]: tone[l.colour] }))"
          @change="of.commit(wish({ [l.name]: $event, [l.colour]: tone[l.colour] }))"
          @reset="of.commit(wish({ [l.name]: 0 }))"
        />
        <button
          class="swatch"
          :style="{ background: css(tone[l.colour]) }"
          :title="`Its colour`"
          :aria-label="`Colour of the ${l.colour}`"
          :aria-expanded="open === l.colour"
          @click="open = open === l.colour ? '' : l.colour"
        />
      </div>
      <LchSliders
        v-if="open === l.colour"
        :linear="tone[l.colour]"
        @attempt="of.attempt(wish({ [l.colour]: $event, [l.name]: tone[l.name] || 1 }))"
        @commit="of.commit(wish({ [l.colour]: $event, [l.name]: tone[l.name] || 1 }))"
      />
    </template>
  </div>
</template>

<style scoped>
.tone {
  border-top: 1px solid var(--line);
  margin-top: 6px;
  padding-top: 6px;
}
.head {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 2px;
}
.head img {
  width: 36px;
  height: 24px;
  object-fit: cover;
  border: 1px solid #0003;
}
.head span {
  flex: 1;
}
.laid {
  display: grid;
  grid-template-columns: 1fr 20px;
  gap: 6px;
  align-items: center;
}
.swatch {
  height: 16px;
  border: 1px solid #0003;
  border-radius: 2px;
  cursor: pointer;
}
.link {
  color: var(--accent);
}
</style>
