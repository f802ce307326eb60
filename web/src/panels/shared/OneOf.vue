<script setup lang="ts" generic="T extends string | number | boolean | null">
/** One of a few, side by side. */
defineProps<{ label: string; choices: { value: T; text: string; title?: string; disabled?: boolean }[] }>()
const chosen = defineModel<T>({ required: true })
</script>

<template>
  <div class="scope" role="radiogroup" :aria-label="label">
    <button
      v-for="c in choices"
      :key="c.text"
      type="button"
      role="radio"
      :aria-checked="chosen === c.value"
      :class="{ on: chosen === c.value }"
      :title="c.title"
      :disabled="c.disabled"
      @click="chosen = c.value"
    >
      {{ c.text }}
    </button>
  </div>
</template>
