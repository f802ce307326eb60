<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Purpose } from '../../api/client'
import type { Dropped } from '../../stores/bundle'
import { useImports } from '../../stores/imports'
import { useWorkspace } from '../../stores/workspace'

/** Takes files for something in the open project: a button first, then how far it is and a way to call it off. */
const props = defineProps<{ purpose: Purpose; label: string; doing: string; multiple?: boolean }>()
const emit = defineEmits<{ take: [files: Dropped[]] }>()

const workspace = useWorkspace()
const imports = useImports()
const picker = ref<HTMLInputElement | null>(null)
const here = computed(() => imports.purpose === props.purpose && imports.into === workspace.id)

function take(event: Event) {
  const input = event.target as HTMLInputElement
  const files = [...(input.files ?? [])].map((file) => ({ path: file.name, file }))
  input.value = ''
  if (files.length > 0) emit('take', files)
}
</script>

<template>
  <input
    ref="picker"
    class="away"
    type="file"
    :multiple="multiple"
    :aria-label="label"
    tabindex="-1"
    @change="take"
  />
  <template v-if="here && imports.busy">
    <div class="meter" role="progressbar" :aria-label="doing"><i class="running" /></div>
    <span class="acts">
      <span class="soft small">{{ imports.job?.step || 'Sending the file' }}</span>
      <v-btn size="small" @click="imports.cancel()">Call off</v-btn>
    </span>
  </template>
  <v-btn v-else size="small" :disabled="imports.busy" @click="picker?.click()"><slot /></v-btn>
  <p v-if="here && imports.problem" class="problem small" role="alert">{{ imports.problem }}</p>
</template>

<style scoped>
.away {
  display: none;
}
.acts {
  display: flex;
  gap: 6px;
  align-items: center;
}
</style>
