<script setup lang="ts">
/** How new names are made: by a pattern with numbers, or by replacing a text. */
defineProps<{ way: 'pattern' | 'replace' }>()
const pattern = defineModel<string>('pattern', { required: true })
const first = defineModel<number>('first', { required: true })
const find = defineModel<string>('find', { required: true })
const replacement = defineModel<string>('replacement', { required: true })
</script>

<template>
  <template v-if="way === 'pattern'">
    <label class="pair">
      <span>Name</span>
      <input v-model="pattern" class="field" maxlength="200" placeholder="Board ##" aria-label="Pattern" />
    </label>
    <label class="pair">
      <span>From</span>
      <input v-model.number="first" class="field number" type="number" aria-label="First number" />
    </label>
    <p class="soft small"># is the number, {name} the name so far.</p>
  </template>
  <template v-else>
    <label class="pair">
      <span>Find</span>
      <input v-model="find" class="field" maxlength="200" aria-label="Text to find" />
    </label>
    <label class="pair">
      <span>Put</span>
      <input v-model="replacement" class="field" maxlength="200" aria-label="Text to put in its place" />
    </label>
  </template>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 44px 1fr;
  gap: 8px;
  align-items: center;
  margin: 4px 0;
}
.number {
  width: 80px;
}
</style>
