<script setup lang="ts">
import { computed, ref } from 'vue'
import { api } from '../../api/client'
import { useWorkspace } from '../../stores/workspace'
import ValueSlider from '../shared/ValueSlider.vue'
import { hintOf, type Card } from './card'
import ColourSliders from './ColourSliders.vue'

/** How the colours of the picture that drives a parameter are changed; the picture itself stays. */
const props = defineProps<{ parameter: string; of: Card }>()
const workspace = useWorkspace()
const picture = computed(() => props.of.material.textures.find((t) => t.parameter === props.parameter))
/** Numbers of the tone, and the colour that belongs to some; what they are called and take is core's. */
const NUMBERS = [
  { name: 'saturation', colour: null },
  { name: 'contrast', colour: null },
  { name: 'brightness', colour: null },
  { name: 'tinted', colour: 'tint' },
  { name: 'faded', colour: 'fade' },
] as const
const rows = computed(() =>
  NUMBERS.flatMap(({ name, colour }) => {
    const control = props.of.control(name)
    const standard = Number(control?.standard ?? 0)
    const tone = picture.value?.tone
    const value = tone?.[name] ?? standard
    return control
      ? [{ name, colour, control, standard, value, linear: (colour && tone?.[colour]) ?? GREY }]
      : []
  }),
)
const GREY = [0.5, 0.5, 0.5]
const open = ref<'' | 'tint' | 'fade'>('')

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
    <template v-for="r in rows" :key="r.name">
      <div :class="{ laid: r.colour }">
        <ValueSlider
          :label="r.control.label"
          :value="r.value"
          :max="r.control.max"
          :changed="r.value !== r.standard"
          :hint="hintOf(r.control)"
          @input="of.attempt(wish({ [r.name]: $event }))"
          @change="of.commit(wish({ [r.name]: $event }))"
          @reset="of.commit(wish({ [r.name]: r.standard }))"
        />
        <button
          v-if="r.colour"
          class="swatch"
          :style="{ background: css(r.linear) }"
          title="Its colour"
          :aria-label="`Colour of the ${r.colour}`"
          :aria-expanded="open === r.colour"
          @click="open = open === r.colour ? '' : r.colour"
        />
      </div>
      <ColourSliders
        v-if="r.colour && open === r.colour"
        :linear="r.linear"
        @attempt="of.attempt(wish({ [r.colour]: $event, [r.name]: r.value || 1 }))"
        @commit="of.commit(wish({ [r.colour]: $event, [r.name]: r.value || 1 }))"
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
