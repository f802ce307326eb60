<script setup lang="ts">
import { computed } from 'vue'
import { useProof } from '../../stores/proof'
import { useWorkspace } from '../../stores/workspace'
import { timeLeft } from '../shared/timeLeft'

const workspace = useWorkspace()
const proof = useProof()
const how = computed(() => {
  if (proof.failed) return 'It could not be traced. Press P twice to try once more.'
  if (proof.done) return proof.share < 1 ? 'ended: the rest would take too long here' : 'finished'
  if (!proof.picture) return 'begins …'
  return (
    `${Math.round(100 * proof.share)} %` +
    (proof.secondsLeft === null ? '' : `, ${timeLeft(proof.secondsLeft)}`)
  )
})
const fileName = computed(
  () =>
    [workspace.state?.name ?? 'Picture', workspace.scheme?.letter, 'proof'].filter(Boolean).join(', ') +
    '.png',
)
</script>

<template>
  <section class="proof-note" aria-label="Proof">
    <p>
      <b>Proof</b> <span class="soft">{{ how }}</span>
    </p>
    <v-progress-linear
      v-if="!proof.done"
      :model-value="100 * proof.share"
      :indeterminate="!proof.picture"
      height="3"
      aria-label="How far the proof has come"
    />
    <p v-if="proof.picture" class="soft small">
      <a :href="proof.picture" :download="fileName">Save it as a picture</a>
    </p>
  </section>
</template>

<style scoped>
.proof-note {
  position: absolute;
  right: 14px;
  top: 12px;
  width: 190px;
  background: #faf9f7eb;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 6px 10px;
}
p {
  margin: 0;
}
a {
  color: inherit;
}
</style>
