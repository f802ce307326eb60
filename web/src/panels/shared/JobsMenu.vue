<script setup lang="ts">
import { mdiProgressClock } from '@mdi/js'
import { onMounted } from 'vue'
import { api, type Job } from '../../api/client'
import { isOver, useJobs } from '../../stores/jobs'
import { timeLeft } from './timeLeft'

/** The account's long work of every kind: how far it is, and what can be done about it. */
const jobs = useJobs()
onMounted(() => void jobs.read())

const STATES: Record<Job['state'], string> = {
  QUEUED: 'Waiting',
  RUNNING: '',
  PAUSED: 'Paused',
  ASKING: 'Waits for your answer',
  DONE: 'Done',
  FAILED: '',
  CANCELLED: 'Called off',
}
function told(job: Job): string {
  if (job.state === 'FAILED') return job.problem ?? 'It failed.'
  if (job.state !== 'RUNNING') return STATES[job.state]
  const left = job.secondsLeft === null ? '' : ` · ${timeLeft(job.secondsLeft)}`
  return `${job.step || 'Begun'} · ${Math.round(job.share * 100)} %${left}`
}
function size(bytes: number): string {
  return bytes < 1e6 ? `${Math.ceil(bytes / 1e3)} kB` : `${(bytes / 1e6).toFixed(1)} MB`
}
</script>

<template>
  <v-menu :close-on-content-click="false" location="bottom end" @update:model-value="jobs.read()">
    <template #activator="{ props: menu }">
      <button class="plain jobs" v-bind="menu" aria-label="Long work" title="Long work">
        <v-icon :icon="mdiProgressClock" size="18" />
        <b v-if="jobs.underWay.length > 0">{{ jobs.underWay.length }}</b>
      </button>
    </template>
    <section class="list" aria-label="Long work">
      <p v-if="jobs.all.length === 0" class="soft small">
        Nothing is under way. Files that come in, project files and long pictures are listed here.
      </p>
      <article v-for="j in jobs.all" :key="j.id" :class="{ failed: j.state === 'FAILED' }">
        <p>
          <b>{{ j.title }}</b> <span class="soft small">{{ j.name }}</span>
        </p>
        <progress v-if="j.state === 'RUNNING'" :value="j.share" :aria-label="`${j.title}, done`" />
        <p class="small" :class="{ problem: j.state === 'FAILED', soft: j.state !== 'FAILED' }">
          {{ told(j) }}
        </p>
        <p class="acts small">
          <v-btn
            v-for="r in j.results"
            :key="r.number"
            size="small"
            :href="api.resultAddress(j.id, r.number)"
            download
            :title="r.name"
            >Save the file · {{ size(r.bytes) }}</v-btn
          >
          <v-btn
            v-if="j.state === 'DONE' && j.result && !j.subject"
            size="small"
            :to="`/projects/${j.result}`"
            >Open the project</v-btn
          >
          <v-btn v-if="j.pausable && j.state === 'RUNNING'" size="small" @click="jobs.pause(j)">
            Pause
          </v-btn>
          <v-btn v-if="j.state === 'PAUSED'" size="small" @click="jobs.resume(j)">Go on</v-btn>
          <v-btn v-if="!isOver(j)" size="small" @click="jobs.cancel(j)">Call off</v-btn>
          <v-btn v-else size="small" @click="jobs.dismiss([j])">Dismiss</v-btn>
        </p>
      </article>
      <p v-if="jobs.problem" class="problem small" role="alert">{{ jobs.problem }}</p>
      <p v-if="jobs.ended.length > 1" class="acts all small">
        <v-btn size="small" @click="jobs.dismiss(jobs.ended)">Dismiss all that has ended</v-btn>
      </p>
    </section>
  </v-menu>
</template>

<style scoped>
.jobs {
  display: flex;
  align-items: center;
  gap: 3px;
  color: var(--soft);
}
.jobs b {
  font-size: 11px;
  color: var(--accent);
}
.list {
  width: 340px;
  max-height: 60vh;
  overflow-y: auto;
  padding: 12px 16px;
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
}
.list p {
  margin: 0;
}
.list article {
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
.list article:last-of-type {
  border-bottom: 0;
}
progress {
  display: block;
  width: 100%;
  height: 4px;
  margin: 4px 0;
  accent-color: var(--accent);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
article .acts {
  margin-top: 6px;
}
.all {
  padding-top: 8px;
  border-top: 1px solid var(--line);
}
</style>
