import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, Refusal, upload, type Job, type Purpose } from '../api/client'
import type { Kind } from '../tessellation/kinds.js'
import type { Prepared } from '../tessellation/worker'
import { bundle, unbundle, type Dropped } from './bundle'
import { isOver } from './jobs'
import { AUTOMATIC, FINENESS, preparationFor, prepare, withOriginal } from './preparation'

/** A file that was turned into triangles and waits for the designer's word on how fine they are. */
interface Waiting {
  file: File
  kind: Kind
  fineness: number
  prepared: Prepared
}

/** The order in which a job goes through its states, until it is answered and begins again. */
const RANK = { QUEUED: 0, RUNNING: 1, PAUSED: 2, ASKING: 2, DONE: 3, FAILED: 3, CANCELLED: 3 }

/** Files on their way in: first the upload, then the import job. */
export const useImports = defineStore('imports', () => {
  const fileName = ref('')
  const uploaded = ref<number | null>(null)
  const job = ref<Job | null>(null)
  const problem = ref('')
  const stage = ref<'prepare' | 'gather' | 'send'>('send')
  const waiting = shallowRef<Waiting | null>(null)
  const seconds = ref(0)
  /** The open project that the file is for; empty where a new one is made. */
  const into = ref('')
  const purpose = ref<Purpose>('triangles')
  let clock = 0
  let answered = false
  /** News that came while the upload was not answered yet. */
  const early: Job[] = []
  let calledOff = new AbortController()

  const busy = computed(() => uploaded.value !== null || (job.value !== null && !isOver(job.value)))

  /** Sends what was dropped: one file as it is, several as one zip. */
  async function start(files: Dropped[]): Promise<void> {
    const first = files[0]
    if (!first) return
    const title = files.length === 1 ? first.file.name : `${nameOf(files)} · ${files.length} files`
    begin('', title, 'triangles')
    stage.value = 'send'
    const size = files.reduce((sum, d) => sum + d.file.size, 0)
    calledOff = new AbortController()
    try {
      const { uploadBytes } = await api.limits()
      if (size > uploadBytes) {
        problem.value = `“${fileName.value}” is larger than ${Math.round(uploadBytes / 2 ** 20)} MB, the most Zolvan takes. Export it in parts, or with a coarser setting.`
        return
      }
      const kind = files.length === 1 ? await preparationFor(first.file) : null
      if (kind) {
        await refine(first.file, kind, AUTOMATIC)
        return
      }
      const { name, content } = await gathered(files)
      follow(await upload(name, content, (share) => (uploaded.value = share), calledOff.signal, ''))
    } catch (e) {
      problem.value = e instanceof Refusal ? e.message : 'The files could not be read. Try it once more.'
    } finally {
      uploaded.value = null
    }
  }

  /** One file as it is, several as one zip. */
  async function gathered(files: Dropped[]): Promise<{ name: string; content: Blob }> {
    uploaded.value = 0
    const first = files[0]
    if (first && files.length === 1) return { name: first.file.name, content: first.file }
    stage.value = 'gather'
    const content = await bundle(files, (share) => (uploaded.value = share))
    stage.value = 'send'
    uploaded.value = 0
    return { name: `${nameOf(files)}.zip`, content }
  }

  /** Takes a file's materials, without its shapes, into an open project. */
  function takeMaterials(id: string, files: Dropped[]): Promise<void> {
    return sendInto(id, files, 'materials')
  }

  /** Takes files that an open project's model refers to and that did not come with it. */
  function takeLate(id: string, files: Dropped[]): Promise<void> {
    return sendInto(id, files, 'late')
  }

  /** Has a newer file of an open project's model compared with it, or a model added to it. */
  async function bring(
    id: string,
    files: Dropped[],
    what: 'update' | 'design' | 'surroundings',
  ): Promise<void> {
    const only = files.length === 1 ? files[0]?.file : undefined
    const kind = only ? await preparationFor(only) : null
    if (!only || !kind) return sendInto(id, files, what)
    begin(id, only.name, what)
    await refine(only, kind, AUTOMATIC)
  }

  function begin(id: string, name: string, what: Purpose) {
    into.value = id
    purpose.value = what
    problem.value = ''
    job.value = null
    answered = false
    early.length = 0
    fileName.value = name
  }

  async function sendInto(id: string, files: Dropped[], what: Purpose): Promise<void> {
    begin(id, files[0]?.file.name ?? '', what)
    stage.value = 'send'
    uploaded.value = 0
    calledOff = new AbortController()
    try {
      const { name, content } = await gathered(files)
      follow(await upload(name, content, (share) => (uploaded.value = share), calledOff.signal, id, what))
    } catch (e) {
      problem.value = e instanceof Refusal ? e.message : 'The file could not be read. Try it once more.'
    } finally {
      uploaded.value = null
    }
  }

  /** Turns a file into triangles, and shows what came of it before it is sent. */
  async function refine(file: File, kind: Kind, fineness: number) {
    waiting.value = null
    problem.value = ''
    stage.value = 'prepare'
    uploaded.value = 0
    seconds.value = 0
    calledOff = new AbortController()
    const start = performance.now()
    clock = window.setInterval(() => (seconds.value = Math.round((performance.now() - start) / 1000)), 250)
    try {
      const prepared = await prepare(file, kind, fineness, calledOff.signal)
      waiting.value = { file, kind, fineness, prepared }
    } catch (e) {
      problem.value = e instanceof Error ? e.message : ''
    } finally {
      window.clearInterval(clock)
      uploaded.value = null
    }
    if ((kind === 'packed' || into.value) && waiting.value) await sendPrepared()
  }

  /** Finer by one step, or coarser. */
  function cutAgain(by: number) {
    const w = waiting.value
    if (w) void refine(w.file, w.kind, Math.max(0, Math.min(FINENESS.length - 1, w.fineness + by)))
  }

  /** Cuts an open project's surfaces into other triangles; its looks stay. */
  async function cutProject(id: string, fineness: number) {
    begin(id, '', 'triangles')
    stage.value = 'prepare'
    uploaded.value = 0
    try {
      const files = await unbundle(await api.original(id))
      const original = files.find((f) => f.path.startsWith('original/'))
      const kind = original ? await preparationFor(original.file) : null
      if (!original || !kind) throw new Error('no original')
      fileName.value = original.file.name
      await refine(original.file, kind, fineness)
    } catch (e) {
      problem.value = e instanceof Refusal ? e.message : 'The original could not be read. Try it once more.'
      uploaded.value = null
    }
  }

  async function sendPrepared() {
    const w = waiting.value
    if (!w) return
    waiting.value = null
    stage.value = 'send'
    uploaded.value = 0
    try {
      const content = await withOriginal(w.file, w.kind, w.fineness, w.prepared)
      const name = `${w.file.name.replace(/\.[^.]+$/, '')}.zip`
      follow(
        await upload(
          name,
          content,
          (share) => (uploaded.value = share),
          calledOff.signal,
          into.value,
          purpose.value,
        ),
      )
    } catch (e) {
      problem.value = e instanceof Refusal ? e.message : 'The files could not be read. Try it once more.'
    } finally {
      uploaded.value = null
    }
  }

  /** Says what the file does not; the import goes on then. */
  async function answer(unit: string | null, upAxis: string | null) {
    if (!job.value) return
    try {
      job.value = await api.answerJob(job.value.id, unit, upAxis)
      answered = true
    } catch (e) {
      problem.value = e instanceof Refusal ? e.message : ''
    }
  }

  /** Makes a job this page's own; it may have come further before its upload was answered. */
  function follow(begun: Job) {
    job.value = begun
    own.remember(begun)
    for (const news of early.splice(0)) hear(news)
  }

  /** Takes news of this page's job; news that comes late, about a state it has left, is ignored. */
  function hear(news: Job) {
    const current = job.value
    if (!current && uploaded.value !== null) early.push(news)
    if (current?.id !== news.id) return
    if (RANK[news.state] < RANK[current.state]) return
    if (answered && news.state === 'ASKING') return
    job.value = news
    own.remember(news)
    if (news.state === 'FAILED') problem.value = news.problem ?? ''
  }

  async function cancel() {
    calledOff.abort()
    waiting.value = null
    if (job.value) hear(await api.cancelJob(job.value.id))
  }

  /** Catches up after the stream of news was cut, and takes up what was under way when the page was left. */
  async function catchUp() {
    const jobs = await api.jobs().catch(() => [])
    const current = job.value
    const news = jobs.find((j) => (current ? j.id === current.id : !isOver(j) && own.is(j)))
    if (!news) return
    if (!current) fileName.value = news.title
    if (current) hear(news)
    else follow(news)
  }

  return {
    fileName,
    uploaded,
    stage,
    seconds,
    into,
    purpose,
    waiting,
    job,
    problem,
    busy,
    start,
    cutAgain,
    cutProject,
    sendPrepared,
    takeMaterials,
    takeLate,
    bring,
    answer,
    hear,
    cancel,
    catchUp,
  }
})

/** The folder they came in, or the model among them. */
function nameOf(files: Dropped[]): string {
  const first = files[0]?.path ?? ''
  if (first.includes('/')) return first.slice(0, first.indexOf('/'))
  const models = files.filter((d) => !/\.(png|jpe?g|webp|tga|bmp|tiff?|mtl|bin|txt)$/i.test(d.path))
  return (models[0] ?? files[0])?.file.name.replace(/\.[^.]+$/, '') ?? 'Model'
}

/** The import that this tab began, also after it was loaded again; those of other tabs are theirs. */
const own = {
  is: (job: Job) => sessionStorage.getItem('zolvan-import') === job.id,
  remember(job: Job) {
    if (isOver(job)) sessionStorage.removeItem('zolvan-import')
    else sessionStorage.setItem('zolvan-import', job.id)
  },
}
