<script setup lang="ts">
import { computed, ref } from 'vue'
import type { JobQuestion } from '../../api/client'

const props = defineProps<{ fileName: string; question: JobQuestion }>()
const emit = defineEmits<{ answer: [unit: string | null, upAxis: string | null]; cancel: [] }>()

const unit = ref<string | null>(props.question.units[0]?.unit ?? null)
const upAxis = ref<string | null>(props.question.upAxes[0] ?? null)
const reason = computed(() => [
  ...(props.question.units.length > 0 ? [props.question.unitReason] : []),
  ...(props.question.upAxes.length > 0 ? [props.question.upReason] : []),
])

/** A length as one would say it. */
function said(metres: number): string {
  if (metres >= 1000) return `${(metres / 1000).toLocaleString('en', { maximumSignificantDigits: 3 })} km`
  if (metres >= 1) return `${metres.toLocaleString('en', { maximumSignificantDigits: 3 })} m`
  if (metres >= 0.001) return `${(metres * 1000).toLocaleString('en', { maximumSignificantDigits: 3 })} mm`
  return 'under 1 mm'
}
</script>

<template>
  <form
    class="question"
    aria-label="What the file does not say"
    @submit.prevent="emit('answer', unit, upAxis)"
  >
    <b class="file">{{ fileName }}</b>
    <fieldset v-if="question.units.length > 0">
      <legend>How long is the longest side?</legend>
      <div class="choices">
        <label v-for="u in question.units" :key="u.unit" :class="{ on: unit === u.unit }">
          <input v-model="unit" type="radio" name="unit" :value="u.unit" />
          <b>{{ said(u.longestSide) }}</b>
          <span class="soft small">{{ u.unit }}</span>
        </label>
      </div>
    </fieldset>
    <fieldset v-if="question.upAxes.length > 0">
      <legend>Which axis points up?</legend>
      <div class="choices">
        <label v-for="axis in question.upAxes" :key="axis" :class="{ on: upAxis === axis }">
          <input v-model="upAxis" type="radio" name="up" :value="axis" />
          <b>{{ axis }}</b>
        </label>
      </div>
    </fieldset>
    <p v-for="r in reason" :key="r" class="soft small">{{ r }}</p>
    <div class="act">
      <v-btn size="small" @click="emit('cancel')">Call off</v-btn>
      <v-btn size="small" color="primary" variant="flat" type="submit">Import</v-btn>
    </div>
  </form>
</template>

<style scoped>
.question {
  width: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 7px;
  text-align: left;
}
.file {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
}
legend {
  font-size: 12px;
  padding: 0;
  margin-bottom: 3px;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.choices label {
  flex: 1 1 auto;
  white-space: nowrap;
  display: grid;
  text-align: center;
  font-size: 11px;
  line-height: 1.2;
  padding: 4px 3px;
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
  background: var(--white);
  cursor: pointer;
}
.choices .on {
  background: var(--accent-wash);
  border-color: var(--accent);
  box-shadow: inset 0 0 0 1px var(--accent);
}
.choices label b {
  font-size: 12px;
  white-space: nowrap;
}
.choices input {
  position: absolute;
  opacity: 0;
  pointer-events: none;
}
.choices label:focus-within {
  outline: 2px solid var(--accent);
  outline-offset: 1px;
}
p.small {
  font-size: 11px;
  line-height: 1.25;
}
.act {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
