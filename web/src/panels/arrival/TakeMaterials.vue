<script setup lang="ts">
import { computed } from 'vue'
import { useImports } from '../../stores/imports'
import { useWorkspace } from '../../stores/workspace'
import FileTaker from './FileTaker.vue'

/** Takes another file's materials, without its shapes, into the open project. */
const workspace = useWorkspace()
const imports = useImports()
const done = computed(
  () => imports.purpose === 'materials' && imports.into === workspace.id && imports.job?.state === 'DONE',
)
</script>

<template>
  <section class="fold" aria-label="Materials from a file">
    <h2>Materials from another file</h2>
    <p class="soft small">
      MaterialX (.mtlx, with its pictures in a zip), MTL, glTF or any model: only its materials and their
      textures. Or pictures whose names say what they are for: oak_colour, oak_normal, oak_roughness; one
      alone is a colour.
    </p>
    <FileTaker
      purpose="materials"
      label="File to take materials from"
      doing="Taking materials"
      multiple
      @take="imports.takeMaterials(workspace.id, $event)"
    >
      Choose files
    </FileTaker>
    <p v-if="done" class="small" role="status">
      The materials of “{{ imports.fileName }}” lie in the tray of the Assign step, under As arrived. What
      could not be taken is listed under Not used.
    </p>
  </section>
</template>
