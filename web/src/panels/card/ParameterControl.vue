<script setup lang="ts">
import { computed } from 'vue'
import { useWorkspace } from '../../stores/workspace'
import { lengthSaid } from '../shared/lengths'
import ValueSlider from '../shared/ValueSlider.vue'
import { hintOf, type Card } from './card'
import ColourRow from './ColourRow.vue'
import PicturePick from './PicturePick.vue'

/** One parameter of the material on the card, as core says it is to be shown. */
const props = defineProps<{ parameter: string; of: Card }>()
const workspace = useWorkspace()
const control = computed(() => props.of.control(props.parameter))
const picture = computed(() => props.of.material.textures.find((t) => t.parameter === props.parameter))
function values(shown: number) {
  return { [props.parameter]: shown / (control.value?.scale ?? 1) }
}
const size = computed(() => {
  const s = picture.value?.size
  return s
    ? s.map((m) => lengthSaid(m ?? 0, workspace.state?.unit)).join(' × ')
    : 'by the model’s coordinates'
})
</script>

<template>
  <template v-if="control">
    <ValueSlider
      v-if="control.shape === 'NUMBER'"
      :label="control.label"
      :faint="control.traced"
      :value="of.number(parameter) * control.scale"
      :min="control.min"
      :max="control.max"
      :step="control.step"
      :decimals="control.decimals"
      :unit="control.unit"
      :changed="of.changed(parameter)"
      :hint="hintOf(control)"
      :ends="control.ends"
      @input="of.attempt(values($event))"
      @change="of.commit(values($event))"
      @reset="of.reset(parameter)"
    />
    <label v-else-if="control.shape === 'FLAG'" class="flag" :title="hintOf(control)">
      <input
        type="checkbox"
        :checked="of.flag(parameter)"
        @change="of.commit({ [parameter]: ($event.target as HTMLInputElement).checked })"
      />
      {{ control.label }}
    </label>
    <ColourRow v-else :parameter="parameter" :control="control" :of="of" />
    <div v-if="picture" class="picture soft small">
      <span v-if="parameter === 'reflected_surroundings'">Times a picture of surroundings</span>
      <span v-else>
        Times a picture ({{ picture.channel === 'rgb' ? 'colour' : `channel ${picture.channel}` }},
        {{ picture.colourSpace }}, {{ size }})
      </span>
      <button
        class="plain link"
        title="Takes the picture off; the plain value stays"
        @click="of.commit({ plain: parameter })"
      >
        {{ parameter === 'reflected_surroundings' ? 'What is around' : 'Plain value' }}
      </button>
      <PicturePick v-if="control.channel" :parameter="parameter" :of="of" />
    </div>
  </template>
</template>

<style scoped>
.flag {
  display: flex;
  gap: 8px;
  align-items: center;
  height: 26px;
}
.picture {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 0 8px;
}
.link {
  color: var(--accent);
  white-space: nowrap;
}
</style>
