import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api, Refusal, upload, type Job } from '../api/client'

/** Files on their way in: first the upload, then the import job. */
export const useImports = defineStore('imports', () => {
  const fileName = ref('')
  const uploaded = ref<number | null>(null)
  const job = ref<Job | null>(null)
  const problem = ref('')
  let calledOff = new AbortController()

  const busy = computed(
    () => uploaded.value !== null || job.value?.state === 'QUEUED' || job.value?.state === 'RUNNING',
  )

  async function start(file: File): Promise<void> {
    problem.value = ''
    job.value = null
    fileName.value = file.name
    const { uploadBytes } = await api.limits()
    if (file.size > uploadBytes) {
      problem.value = `“${file.name}” is larger than ${Math.round(uploadBytes / 2 ** 20)} MB, the most Zolvan takes. Export it in parts, or with a coarser setting.`
      return
    }
    uploaded.value = 0
    calledOff = new AbortController()
    try {
      hear(await upload(file, (share) => (uploaded.value = share), calledOff.signal))
    } catch (e) {
      problem.value = e instanceof Refusal ? e.message : 'The upload failed. Try it once more.'
    } finally {
      uploaded.value = null
    }
  }

  /** Takes news of a job; older news of the same job is ignored. */
  function hear(news: Job) {
    if (job.value && job.value.id !== news.id) return
    if (job.value && isOver(job.value) && !isOver(news)) return
    job.value = news
    if (news.state === 'FAILED') problem.value = news.problem ?? ''
  }

  async function cancel() {
    calledOff.abort()
    if (job.value) hear(await api.cancelJob(job.value.id))
  }

  /** Catches up after the stream of news was cut. */
  async function catchUp() {
    const current = job.value
    const news = current && (await api.jobs()).find((j) => j.id === current.id)
    if (news) hear(news)
  }

  return { fileName, uploaded, job, problem, busy, start, hear, cancel, catchUp }
})

function isOver(job: Job): boolean {
  return job.state !== 'QUEUED' && job.state !== 'RUNNING'
}
