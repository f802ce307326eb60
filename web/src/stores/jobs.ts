import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api, Refusal, type Job } from '../api/client'

export function isOver(job: Job): boolean {
  return job.state === 'DONE' || job.state === 'FAILED' || job.state === 'CANCELLED'
}

/** The account's long work, newest first; what has ended stays until it is dismissed. */
export const useJobs = defineStore('jobs', () => {
  const all = ref<Job[]>([])
  const problem = ref('')
  const underWay = computed(() => all.value.filter((j) => !isOver(j)))
  const ended = computed(() => all.value.filter(isOver))

  async function read() {
    try {
      all.value = await api.jobs()
    } catch (e) {
      tell(e)
    }
  }

  function tell(e: unknown) {
    if (!(e instanceof Refusal)) throw e
    problem.value = e.message
  }

  function hear(news: Job) {
    const at = all.value.findIndex((j) => j.id === news.id)
    if (at < 0) all.value = [news, ...all.value]
    else all.value = all.value.map((j) => (j.id === news.id ? news : j))
  }

  async function act(work: Promise<Job>) {
    problem.value = ''
    try {
      hear(await work)
    } catch (e) {
      await read()
      tell(e)
    }
  }

  const pause = (job: Job) => act(api.pauseJob(job.id))
  const resume = (job: Job) => act(api.resumeJob(job.id))
  const cancel = (job: Job) => act(api.cancelJob(job.id))
  async function dismiss(jobs: Job[]) {
    problem.value = ''
    const done = await Promise.allSettled(jobs.map((j) => api.dismissJob(j.id)))
    await read()
    done.forEach((d) => d.status === 'rejected' && tell(d.reason))
  }

  return { all, problem, underWay, ended, read, hear, pause, resume, cancel, dismiss }
})
