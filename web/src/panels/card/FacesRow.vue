<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, type ScenePart } from '../../api/client'
import type { Region } from '../../stage/Stage'
import { areaText } from '../shared/lengths'
import LengthField from '../shared/LengthField.vue'
import NameField from '../shared/NameField.vue'
import OneOf from '../shared/OneOf.vue'
import { useOwnFace } from '../../stores/ownFace'
import { counted, useWorkspace } from '../../stores/workspace'

/** The faces that have been cut into a part, and cutting another. */
const props = defineProps<{ part: ScenePart; region: Region }>()
const MODES = [
  { value: 'paint', text: 'Paint', title: 'Drag over the part; Alt rubs out' },
  {
    value: 'smooth',
    text: 'Smooth areas',
    title: 'Click an area that ends at sharp edges; Alt takes it out',
  },
  { value: 'loop', text: 'Loop of edges', title: 'Click corners all around it, and the first one again' },
] as const
const workspace = useWorkspace()
const cutting = useOwnFace()
const name = ref('')
const renaming = ref<number | null>(null)

const faces = computed(() => {
  const own = [...new Set(props.part.ownFaces.filter((f) => f >= 0))]
  return own.map((index) => ({
    index,
    name: workspace.scene?.ownFaces.find((f) => f.index === index)?.name ?? '',
    regions: props.part.ownFaces.flatMap((f, span) =>
      f === index ? [{ part: props.part.index, span }] : [],
    ),
  }))
})
const isAt = computed(() => props.part.ownFaces[props.region.span] ?? -1)
const active = computed(() => cutting.part === props.part.index)
const given = computed(() => name.value.trim() || `Face ${(workspace.scene?.ownFaces.length ?? 0) + 1}`)
const says = computed(() => {
  if (cutting.sentence) return cutting.sentence
  if (cutting.mode === 'loop' && !cutting.closed)
    return cutting.corners.length === 0
      ? 'Click a corner of the part; the way goes along its edges.'
      : `${counted(cutting.corners.length, 'corner')}. Click the first one again to close.`
  if (cutting.triangles.size === 0)
    return cutting.mode === 'paint' ? 'Drag over the part. Alt rubs out.' : 'Click an area. Alt takes it out.'
  const area = cutting.way?.pieces[cutting.piece]?.area
  return (
    counted(cutting.triangles.size, 'triangle') + (area ? ` · ${areaText(area, workspace.state?.unit)}` : '')
  )
})

async function cut() {
  await cutting.cut(given.value)
  name.value = ''
}
function rename(face: number, to: string) {
  void workspace.run((v) => api.nameFace(workspace.id, v, face, to))
}
async function join(face: number) {
  if (await workspace.run((v) => api.joinFace(workspace.id, v, face)))
    workspace.tell(`${workspace.state?.undo ?? ''} · undo takes it back`)
}
</script>

<template>
  <div v-if="faces.length > 0 && !active" class="faces small" aria-label="Faces of this part">
    <span class="soft">Faces</span>
    <span v-for="f in faces" :key="f.index" class="face" :class="{ on: f.index === isAt }">
      <NameField
        v-if="renaming === f.index"
        :name="f.name"
        label="Name of the face"
        @named="rename(f.index, $event)"
        @done="renaming = null"
      />
      <button
        v-else
        class="plain"
        @click="workspace.select([f.regions[0] ?? region])"
        @dblclick="renaming = f.index"
        @pointerenter="workspace.lit = f.regions"
        @pointerleave="workspace.lit = []"
      >
        {{ f.name }}
        <v-tooltip activator="parent" location="bottom">Select; double-click to rename</v-tooltip>
      </button>
      <button
        v-if="f.index === isAt"
        class="plain soft"
        :aria-label="`Join ${f.name} to the part again`"
        @click="join(f.index)"
      >
        ×
        <v-tooltip activator="parent" location="bottom">Join it to the part again</v-tooltip>
      </button>
    </span>
  </div>
  <section v-if="active" class="fold tool" aria-label="Cutting a face">
    <h2>Cut a face</h2>
    <OneOf v-model="cutting.mode" label="How it is picked" :choices="[...MODES]" />
    <label v-if="cutting.mode === 'paint'" class="row small">
      Brush <LengthField v-model="cutting.radius" label="Radius of the brush" />
    </label>
    <p class="small" :class="cutting.sentence ? 'wrong' : 'soft'" role="status">{{ says }}</p>
    <div v-if="cutting.mode === 'loop' && cutting.corners.length > 0" class="row small">
      <button class="plain link" @click="cutting.back()">One back</button>
      <button
        v-if="!cutting.closed"
        class="plain link"
        :disabled="cutting.corners.length < 3"
        @click="cutting.close()"
      >
        Close the loop
      </button>
      <button
        v-else-if="(cutting.way?.pieces.length ?? 0) > 1"
        class="plain link"
        @click="cutting.take((cutting.piece + 1) % (cutting.way?.pieces.length ?? 1))"
      >
        {{ cutting.way?.pieces.length === 2 ? 'The other side' : 'Another piece' }}
      </button>
    </div>
    <input
      v-model="name"
      class="field"
      :placeholder="given"
      aria-label="Name of the face"
      @keydown.enter="cut"
    />
    <div class="row">
      <v-btn
        size="small"
        color="primary"
        variant="flat"
        :disabled="cutting.triangles.size === 0 || workspace.pending > 0"
        @click="cut"
      >
        Make the face
      </v-btn>
      <v-btn size="small" :disabled="cutting.triangles.size === 0" @click="cutting.clear()">Clear</v-btn>
      <v-btn size="small" @click="cutting.end()">Leave it</v-btn>
    </div>
  </section>
</template>

<style scoped>
.faces {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  align-items: baseline;
  margin-top: 6px;
}
.face {
  display: flex;
  gap: 6px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 0 6px;
}
.face.on {
  border-color: var(--accent);
}
.face .field {
  width: 110px;
}
.link {
  color: var(--accent);
  text-align: left;
}
.tool {
  display: grid;
  gap: 8px;
}
.row {
  display: flex;
  gap: 8px;
  align-items: center;
}
.wrong {
  color: var(--brick);
}
</style>
