<script setup lang="ts">
import { computed, ref } from 'vue'
import { useWorkspace } from '../../stores/workspace'
import { lengthText, parseLength } from './lengths'

/** A length in metres, typed in any unit; where it is lazy, taken when typing has ended. */
const props = defineProps<{ label: string; lazy?: boolean }>()
const metres = defineModel<number>({ required: true })

const workspace = useWorkspace()
const typed = ref<string | null>(null)
const wrong = ref(false)

const text = computed(() => {
  const s = workspace.state
  return typed.value ?? lengthText(metres.value, s?.unit ?? 'm', s?.unitMetres ?? 1, s?.unitDecimals ?? 3)
})

function take(event: Event) {
  typed.value = (event.target as HTMLInputElement).value
  const read = parseLength(typed.value, workspace.state?.unitMetres ?? 1)
  wrong.value = read === null
  if (read !== null && !props.lazy) metres.value = read
}
function leave() {
  const read = typed.value === null ? null : parseLength(typed.value, workspace.state?.unitMetres ?? 1)
  if (props.lazy && read !== null && read !== metres.value) metres.value = read
  typed.value = null
  wrong.value = false
}
</script>

<template>
  <input
    class="field length"
    :class="{ wrong }"
    :value="text"
    :aria-label="label"
    :aria-invalid="wrong"
    title="A length: 5, 5 mm, 1/2 in, 2'6&quot;"
    @input="take"
    @blur="leave"
    @keydown.enter="leave"
  />
</template>

<style scoped>
.length {
  width: 82px;
  font-variant-numeric: tabular-nums;
}
.wrong {
  border-color: var(--brick);
}
</style>
