import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import {
  api,
  Refusal,
  type Level,
  type Look,
  type Material,
  type ProjectState,
  type Scene,
  type Stratum,
  type Substance,
  type Values,
} from '../api/client'
import type { Light, Region } from '../stage/Stage'

export type Step = 'prepare' | 'assign' | 'light' | 'picture'

const NOTICE_TIME = 8000
const FIRST_LIGHT: Light = { surroundings: 'studio', strength: 1, turn: 0, exposure: 0 }

/** The open project: what it shows, what is selected, and what is on its way to the server. */
export const useWorkspace = defineStore('workspace', () => {
  const scene = shallowRef<Scene | null>(null)
  const state = shallowRef<ProjectState | null>(null)
  const library = shallowRef<Material[]>([])
  const substances = shallowRef<Substance[]>([])
  const strata = shallowRef<Stratum[]>([])
  const selection = ref<Region[]>([])
  const chosen = ref<string | null>(null)
  const applying = ref(false)
  const isolated = ref<number[] | null>(null)
  const step = ref<Step>('assign')
  /** Fronts and backs are shown instead of looks; only while the model is prepared. */
  const sides = ref(false)
  const showsSides = computed(() => sides.value && step.value === 'prepare')
  const light = ref<Light>({ ...FIRST_LIGHT })
  const adjusting = ref(false)
  const pending = ref(0)
  const problem = ref('')
  const notice = ref('')
  const question = ref<{ text: string; yes: () => void } | null>(null)
  let queue: Promise<unknown> = Promise.resolve()
  let noticeTimer = 0

  const id = computed(() => state.value?.id ?? '')
  const current = computed<Region | null>(() => selection.value.at(-1) ?? null)
  const materials = computed(() => {
    const all = new Map<string, Material>()
    for (const m of library.value) all.set(m.id, m)
    for (const u of state.value?.palette ?? []) all.set(u.material.id, u.material)
    for (const u of state.value?.arrived ?? []) all.set(u.material.id, u.material)
    return all
  })
  const users = computed(() => {
    const all = new Map<string, number>()
    for (const u of [...(state.value?.palette ?? []), ...(state.value?.arrived ?? [])])
      all.set(u.material.id, u.parts)
    return all
  })
  const lookIndex = computed(
    () => new Map((state.value?.regions ?? []).map((r) => [`${r.part}/${r.span}`, r.look])),
  )

  function lookOf(region: Region): Look | null {
    const index = lookIndex.value.get(`${region.part}/${region.span}`)
    return index === undefined ? null : (state.value?.looks[index] ?? null)
  }

  function materialOf(region: Region): Material | null {
    const material = lookOf(region)?.material
    return material ? (materials.value.get(material) ?? null) : null
  }

  /** Every region that shows the same material as this one. */
  function sharing(region: Region): Region[] {
    const material = lookOf(region)?.material
    return (state.value?.regions ?? []).filter((r) => state.value?.looks[r.look]?.material === material)
  }

  /** The regions that an assignment at a level would reach. */
  function reach(level: Level, region: Region): Region[] {
    const parts = scene.value?.parts ?? []
    if (level === 'part')
      return (parts[region.part]?.sets ?? []).map((_, span) => ({ part: region.part, span }))
    const set = setOf(region)
    return parts.flatMap((p) => p.sets.flatMap((s, span) => (s === set ? [{ part: p.index, span }] : [])))
  }

  function setOf(region: Region): number {
    return scene.value?.parts[region.part]?.sets[region.span] ?? 0
  }

  /** The level at which an assignment would show: the part's where it has its own look, else its set's. */
  function shownLevel(region: Region): Level {
    return lookOf(region)?.from === 'part' ? 'part' : 'set'
  }

  function targetOf(level: Level, region: Region): number {
    return level === 'part' ? region.part : setOf(region)
  }

  async function open(projectId: string) {
    close()
    const [newScene, newState, newLibrary, newSubstances] = await Promise.all([
      api.scene(projectId),
      api.state(projectId),
      api.library(),
      api.substances(),
    ])
    substances.value = newSubstances
    library.value = newLibrary
    scene.value = newScene
    state.value = newState
    light.value = readLight(projectId)
  }

  async function readScene() {
    try {
      const read = await api.scene(id.value)
      if (read.projectId === state.value?.id) scene.value = read
    } catch (e) {
      report(e)
    }
  }

  /** Reads the model again after its triangles were replaced. */
  async function reread() {
    await readScene()
    await catchUp()
  }

  function close() {
    scene.value = null
    state.value = null
    selection.value = []
    strata.value = []
    chosen.value = null
    applying.value = false
    isolated.value = null
    sides.value = false
    problem.value = ''
    step.value = 'assign'
  }

  function take(newer: ProjectState) {
    if (state.value && (newer.id !== state.value.id || newer.version < state.value.version)) return
    state.value = newer
    if (scene.value && newer.revision > scene.value.revision) void readScene()
    void readStrata()
  }

  async function readStrata() {
    const region = current.value
    if (!region) {
      strata.value = []
      return
    }
    const read = await api.strata(id.value, region.part, region.span).catch(() => [])
    if (current.value === region) strata.value = read
  }

  function select(regions: Region[]) {
    selection.value = regions
    strata.value = []
    void readStrata()
  }

  /** Sends a command after those already on their way, each with the version the last one left. */
  function run(command: (version: number) => Promise<ProjectState>, again?: () => void): Promise<boolean> {
    pending.value++
    problem.value = ''
    const work = queue.then(async () => {
      try {
        take(await command(state.value?.version ?? 0))
        return true
      } catch (e) {
        await refuse(e, again)
        return false
      } finally {
        pending.value--
      }
    })
    queue = work
    return work
  }

  async function refuse(e: unknown, again?: () => void) {
    if (!(e instanceof Refusal)) throw e
    if (e.type === 'built-upon' && again) {
      question.value = { text: e.message, yes: again }
      return
    }
    problem.value = e.message
    if (e.status !== 0) await catchUp()
  }

  /** Says why something that was only tried did not come back. */
  function report(e: unknown) {
    if (!(e instanceof Refusal)) throw e
    problem.value = e.message
  }

  async function catchUp() {
    const newest = await api.state(id.value).catch(() => null)
    if (newest) take(newest)
  }

  function tell(text: string) {
    notice.value = text
    window.clearTimeout(noticeTimer)
    noticeTimer = window.setTimeout(() => (notice.value = ''), NOTICE_TIME)
  }

  async function assign(level: Level, regions: Region[], material: string | null) {
    const targets = [...new Set(regions.map((r) => targetOf(level, r)))]
    const parts = new Set(regions.flatMap((r) => reach(level, r)).map((r) => r.part)).size
    const before = state.value
    const done = await run((v) => api.assign(id.value, v, level, targets, material))
    if (!done || state.value === before) return
    const name = material ? (materials.value.get(material)?.name ?? 'Material') : 'Taken off'
    const first = regions[0]
    const hidden = level === 'set' && first && material && shownLevel(first) === 'part'
    tell(`${name} · ${counted(parts, 'part')}` + (hidden ? ' · hidden here by the part’s own look' : ''))
  }

  function adjust(region: Region, onlyPart: boolean, values: Values) {
    return run((v) => api.adjust(id.value, v, region.part, region.span, onlyPart, values))
  }

  function undo(force = false) {
    return run(
      (v) => api.undo(id.value, v, force),
      () => undo(true),
    )
  }

  function redo(force = false) {
    return run(
      (v) => api.redo(id.value, v, force),
      () => redo(true),
    )
  }

  function setLight(change: Partial<Light>) {
    light.value = { ...light.value, ...change }
    localStorage.setItem(`zolvan-light-${id.value}`, JSON.stringify(light.value))
  }

  return {
    scene,
    state,
    library,
    substances,
    strata,
    selection,
    chosen,
    applying,
    isolated,
    step,
    sides,
    showsSides,
    light,
    adjusting,
    pending,
    problem,
    notice,
    question,
    id,
    current,
    materials,
    users,
    lookOf,
    materialOf,
    sharing,
    reach,
    setOf,
    shownLevel,
    report,
    open,
    reread,
    close,
    take,
    select,
    run,
    catchUp,
    tell,
    assign,
    adjust,
    undo,
    redo,
    setLight,
  }
})

function readLight(projectId: string): Light {
  try {
    const kept = JSON.parse(localStorage.getItem(`zolvan-light-${projectId}`) ?? '{}') as Partial<Light>
    return { ...FIRST_LIGHT, ...kept }
  } catch {
    return { ...FIRST_LIGHT }
  }
}

/** "1 part", "3 parts"; "2 bodies" where the plural is given. */
export function counted(n: number, noun: string, plural = `${noun}s`): string {
  return `${n.toLocaleString('en')} ${n === 1 ? noun : plural}`
}
