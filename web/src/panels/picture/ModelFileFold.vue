<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { api, Refusal, type ExportFormat } from '../../api/client'
import { counted, useWorkspace } from '../../stores/workspace'

/** The model as a file in one of the open formats, with what that format loses said before. */
const workspace = useWorkspace()
const MATERIALS = [
  { ending: 'mtlx', name: 'MaterialX' },
  { ending: 'glb', name: 'glTF' },
  { ending: 'obj', name: 'OBJ and MTL' },
]
const formats = ref<ExportFormat[]>([])
const ending = ref('glb')
const problem = ref('')

const chosen = computed(() => formats.value.find((f) => f.ending === ending.value))

async function load() {
  try {
    formats.value = await api.exports(workspace.id, workspace.schemeInView)
  } catch (e) {
    problem.value = e instanceof Refusal ? e.message : ''
  }
}
onMounted(load)
watch(() => workspace.state?.version, load)
</script>

<template>
  <section class="fold export" aria-label="Model file">
    <h2>Model file</h2>
    <select v-model="ending" class="field" aria-label="Format of the model file">
      <option v-for="f in formats" :key="f.ending" :value="f.ending">
        {{ f.format }} (.{{ f.ending }}{{ f.zipped ? ' in a zip' : '' }})
      </option>
    </select>
    <p v-if="problem" class="problem small" role="alert">{{ problem }}</p>
    <template v-if="chosen">
      <p v-if="workspace.surroundings.size > 0" class="soft small">
        Surroundings and helper forms stay here.
      </p>
      <p v-if="chosen.losses.length === 0" class="soft small">
        The model with the looks it shows now. Nothing is lost.
      </p>
      <template v-else>
        <p class="soft small">The model with the looks it shows now. This format leaves out:</p>
        <ul class="small" aria-label="What the format leaves out">
          <li v-for="l in chosen.losses" :key="l">{{ l }}</li>
        </ul>
      </template>
      <v-btn
        block
        height="32"
        :href="api.exportAddress(workspace.id, workspace.schemeInView, chosen.ending)"
        download
        >Download model ({{ chosen.format }})</v-btn
      >
    </template>
  </section>
  <section class="fold" aria-label="Materials file">
    <h2>Materials file</h2>
    <p class="soft small">
      The {{ counted(workspace.state?.palette.length ?? 0, 'material') }} of the palette with their pictures,
      in a zip. What a format has no words for is listed in it.
    </p>
    <div class="formats">
      <v-btn
        v-for="f in MATERIALS"
        :key="f.ending"
        size="small"
        :href="api.materialFileAddress(workspace.id, f.ending)"
        :disabled="!workspace.state?.palette.length"
        download
        >{{ f.name }}</v-btn
      >
    </div>
  </section>
</template>

<style scoped>
.export {
  margin-top: 16px;
}
.field {
  width: 100%;
}
p {
  margin: 8px 0 !important;
}
.formats {
  display: flex;
  gap: 6px;
}
ul {
  margin: 0 0 10px;
  padding-left: 16px;
  max-height: 180px;
  overflow: auto;
}
li {
  margin-bottom: 3px;
}
</style>
