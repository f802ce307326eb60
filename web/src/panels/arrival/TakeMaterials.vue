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
    <p class="soft small">Only its materials and their textures; its shapes are left out.</p>
    <FileTaker
      purpose="materials"
      label="File to take materials from"
      doing="Taking materials"
      @take="imports.takeMaterials(workspace.id, $event)"
    >
      Choose a file
    </FileTaker>
    <p v-if="done" class="small" role="status">
      The materials of “{{ imports.fileName }}” lie in the tray of the Assign step, under As arrived.
    </p>
  </section>
</template>
