<script setup lang="ts">
import { computed, ref } from 'vue'
import { useImports } from '../../stores/imports'
import { useWorkspace } from '../../stores/workspace'

/** Takes another file's materials, without its shapes, into the open project. */
const workspace = useWorkspace()
const imports = useImports()
const picker = ref<HTMLInputElement | null>(null)
const mine = ref(false)

const here = computed(() => mine.value && imports.into === workspace.id)
const busyHere = computed(() => here.value && imports.busy)
const done = computed(() => here.value && imports.job?.state === 'DONE')

function take(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  mine.value = true
  void imports.takeMaterials(workspace.id, file)
}
</script>

<template>
  <section class="fold" aria-label="Materials from a file">
    <h2>Materials from another file</h2>
    <p class="soft small">Only its materials and their textures; its shapes are left out.</p>
    <input
      ref="picker"
      class="away"
      type="file"
      aria-label="File to take materials from"
      tabindex="-1"
      @change="take"
    />
    <template v-if="busyHere">
      <div class="meter" role="progressbar" aria-label="Taking materials"><i class="running" /></div>
      <span class="pair">
        <span class="soft small">{{ imports.job?.step || 'Sending the file' }}</span>
        <v-btn size="small" @click="imports.cancel()">Call off</v-btn>
      </span>
    </template>
    <v-btn v-else size="small" :disabled="imports.busy" @click="picker?.click()">Choose a file</v-btn>
    <p v-if="done" class="small" role="status">
      The materials of “{{ imports.fileName }}” lie in the tray, under As arrived.
    </p>
    <p v-if="here && imports.problem" class="problem small" role="alert">{{ imports.problem }}</p>
  </section>
</template>

<style scoped>
.away {
  display: none;
}
.pair {
  display: flex;
  gap: 6px;
  align-items: center;
  margin-top: 3px;
}
.small {
  margin-top: 3px;
}
</style>
