<script setup lang="ts">
import { onMounted, shallowRef } from 'vue'
import { api, type Letter } from '../../api/client'
import { useRefusal } from '../shared/refusal'
import { moment } from '../shared/moment'

/** Letters that mail would bring; whoever looks after accounts passes them on. */
const letters = shallowRef<Letter[] | null>(null)
const { refused, attempt } = useRefusal()

onMounted(read)

function read(): Promise<boolean> {
  return attempt(async () => (letters.value = await api.letters()))
}
async function remove(letter: Letter) {
  if (await attempt(() => api.removeLetter(letter.id))) await read()
}
</script>

<template>
  <p class="soft small">
    No mail leaves Zolvan. Pass a letter on to whom it is for, by a way that nobody else reads.
  </p>
  <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
  <p v-if="letters?.length === 0">No letters wait.</p>
  <ul>
    <li v-for="l in letters ?? []" :key="l.id">
      <span
        ><b>{{ l.subject }}</b> <span class="soft">to {{ l.login }}, {{ moment(l.at) }}</span></span
      >
      <v-btn size="small" :aria-label="`Remove the letter to ${l.login}`" @click="remove(l)">Remove</v-btn>
      <p class="text">{{ l.text }}</p>
    </li>
  </ul>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
  max-height: 320px;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 10px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.text {
  grid-column: 1 / 3;
  margin: 0;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  user-select: text;
}
</style>
