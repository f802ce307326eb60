<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, type ReliefName } from '../../api/client'
import { useWorkspace } from '../../stores/workspace'
import LengthField from '../shared/LengthField.vue'
import type { Card } from './card'

/** A relief that is drawn rather than photographed: which pattern, how wide its details are and how deep. */
const props = defineProps<{ of: Card }>()
const workspace = useWorkspace()
const open = ref(false)
const pattern = ref<ReliefName>('FINE_NOISE')
const detail = ref(0.002)
const depth = ref(0.0001)
const seed = ref(1)
const drawing = ref(false)
const there = computed(() => props.of.material.textures.some((t) => t.parameter === 'geometry_normal'))

async function draw() {
  drawing.value = true
  try {
    const { sha256, heights, size } = await api.drawRelief(workspace.id, {
      detail: detail.value,
      depth: depth.value,
      name: pattern.value,
      seed: seed.value,
    })
    await props.of.commit({
      geometry_height: depth.value,
      picture: [
        { of: 'geometry_normal', image: sha256, channel: 'rgb', real_size: [size, size] },
        { of: 'geometry_height', image: heights, channel: 'r', real_size: [size, size] },
      ],
    })
  } catch (e) {
    workspace.report(e)
  } finally {
    drawing.value = false
  }
}
function another() {
  seed.value++
  void draw()
}
</script>

<template>
  <div class="relief small">
    <button class="plain link" :aria-expanded="open" @click="open = !open">
      {{ there ? 'Another relief by a pattern …' : 'Give it a relief by a pattern …' }}
    </button>
    <template v-if="open">
      <label>
        Pattern
        <select v-model="pattern" class="field" aria-label="Pattern of the relief" @change="draw">
          <option v-for="r in workspace.controls.reliefs" :key="r.name" :value="r.name">{{ r.label }}</option>
        </select>
      </label>
      <label>
        Width of a detail
        <LengthField v-model="detail" label="Width of a detail" lazy @update:model-value="draw" />
      </label>
      <label>
        Depth
        <LengthField v-model="depth" label="Depth of the relief" lazy @update:model-value="draw" />
      </label>
      <div class="acts">
        <button class="plain link" :disabled="drawing" @click="draw">
          {{ drawing ? 'drawing …' : 'Lay it' }}
        </button>
        <button class="plain link" :disabled="drawing" @click="another">Another piece of it</button>
      </div>
    </template>
  </div>
</template>

<style scoped>
.relief {
  display: grid;
  gap: 5px;
  padding-top: 3px;
}
label {
  display: grid;
  grid-template-columns: 1fr 120px;
  align-items: center;
}
.field {
  height: 24px;
  font-size: 12px;
}
.acts {
  display: flex;
  gap: 14px;
}
.link {
  color: var(--accent);
}
</style>
