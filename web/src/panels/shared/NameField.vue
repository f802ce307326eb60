<script setup lang="ts">
/** A name that is being changed; nothing is given back where it stays. */
const props = defineProps<{ name: string; label: string }>()
const emit = defineEmits<{ named: [name: string]; done: [] }>()

function take(event: Event) {
  const wanted = (event.target as HTMLInputElement).value.trim()
  if (wanted && wanted !== props.name) emit('named', wanted)
  emit('done')
}
</script>

<template>
  <input class="field" :value="name" :aria-label="label" @change="take" @blur="emit('done')" />
</template>
