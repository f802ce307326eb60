<script setup lang="ts">
import { useLibraries } from '../../stores/libraries'

/** Chooses a library, and a drawer of it, for something to be kept in. */
defineProps<{ label: string; disabled?: boolean }>()
const emit = defineEmits<{ choose: [library: string, drawer: string | null] }>()
const libraries = useLibraries()

function choose(e: Event) {
  const select = e.target as HTMLSelectElement
  const [library, drawer] = select.value.split(' ')
  select.value = ''
  if (library) emit('choose', library, drawer || null)
}
</script>

<template>
  <select class="field keep-in" :aria-label="label" :disabled="disabled" @change="choose">
    <option value="" selected>{{ label }}</option>
    <optgroup v-for="l in libraries.editable" :key="l.id" :label="l.name">
      <option :value="l.id">{{ l.name }}, no drawer</option>
      <option v-for="d in l.drawers" :key="d.id" :value="`${l.id} ${d.id}`">{{ d.path }}</option>
    </optgroup>
  </select>
</template>

<style scoped>
.keep-in {
  height: 26px;
  font-size: 12px;
}
</style>
