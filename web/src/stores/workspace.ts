import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import {
  api,
  Refusal,
  type Controls,
  type Diagram,
  type DiagramBy,
  type Level,
  type Look,
  type Material,
  type Placing,
  type ProjectState,
  type Scene,
  type SchemeWire,
  type Seen,
  type Sides,
  type Spot,
  type Substance,
  type Values,
  type Why,
} from '../api/client'
import type { Reached, Region } from '../stage/Stage'
import { deliver } from './delivery'
import { isSame, StatesSeen } from './statesSeen'

export type Step = 'prepare' | 'assign' | 'light' | 'picture'

/** What the stage shows of the model. */
export type Display = Aid | 'sides' | 'set' | 'shape'

/** What it shows of it while looks are given, and in pictures. */
export type Aid = 'looks' | 'plain' | 'white' | DiagramBy

/** How a look lies where that was put there; null where it lies in its material’s natural way. */
type Mapped = 'metric' | 'model' | null

const NOTICE_TIME = 8000
/** So long nothing changes, in ms, before other schemes are read, so many at most. */
const QUIET = 3000
const FEW = 4
const PAGE_FAULT =
  'Something went wrong in this page, and the change was not made. Reload the page and try again.'

/** The open project: what it shows, what is selected, and what is on its way to the server. */
export const useWorkspace = defineStore('workspace', () => {
  const scene = shallowRef<Scene | null>(null)
  const state = shallowRef<ProjectState | null>(null)
  /** Materials of libraries that were found so far. */
  const found = shallowRef<Material[]>([])
  const substances = shallowRef<Substance[]>([])
  const controls = shallowRef<Controls>({
    controls: [],
    kinds: [],
    first: [],
    metals: [],
    conventions: [],
    orders: [],
    reliefs: [],
    schemeStates: [],
    roles: [],
    lies: [],
    forms: [],
  })
  /** Why the selection shows what it shows. */
  const why = shallowRef<Why | null>(null)
  /** What stands in the place of the step's card, if anything. */
  const aside = ref<'scheme' | 'history' | null>(null)
  /** The schemes that what is given next goes to; none for the one that is looked at. */
  const goesTo = ref<string[]>([])
  /** A look that was picked up, with how it lies. */
  const picked = ref<{ material: string; mapping: Mapped } | null>(null)
  /** How what is put on next is to lie, where that was picked up with it. */
  const pickedMapping = computed(() =>
    picked.value && picked.value.material === chosen.value ? picked.value.mapping : null,
  )
  /** A look that was copied. */
  const copied = ref<{ material: string; mapping: Mapped } | null>(null)
  const selection = ref<Region[]>([])
  /** For which of their sides things are given looks, where that is said; BOTH for those that what shows is for. */
  const sides = ref<Sides>('BOTH')
  /** Whether the selection was met from behind. */
  const metBehind = ref(false)
  /** Whether the card is about backs. */
  const behind = computed(() => sides.value === 'BACK' || (sides.value === 'BOTH' && metBehind.value))
  watch(behind, () => void readStrata())
  const chosen = ref<string | null>(null)
  const applying = ref(false)
  /** Whether what gets a material stays made of what it is made of. */
  const lookOnly = ref(false)
  const isolated = ref<number[] | null>(null)
  const step = ref<Step>('assign')
  const display = ref<Display>('looks')
  /** What the stage shows while looks are given: them, the mean colour of each, or the form alone. */
  const aid = ref<Aid>('looks')
  /** The same of pictures. */
  const pictured = ref<Aid>('looks')
  const shown = computed<Display>(() => {
    if (step.value === 'prepare') return display.value
    if (step.value === 'picture') return pictured.value
    return step.value === 'assign' ? aid.value : 'looks'
  })
  /** Regions that are pointed out while the cursor is over what names them. */
  const lit = shallowRef<Region[]>([])
  let climbed: Region[][] = []
  /** The part whose faces are picked by clicks, if any, and which are. */
  const facesOf = ref<number | null>(null)
  const faces = shallowRef(new Set<number>())
  /** Shown instead of the model and its looks: a newer state of it, or parts in colours that mean something. */
  const preview = shallowRef<{ scene: Scene; colours: string[] } | null>(null)
  /** The model that is being placed, if any, and what has been done to it and is not sent yet. */
  const placing = ref<number | null>(null)
  const pulled = shallowRef<Placing | null>(null)
  const adjusting = ref(false)
  /** Whether the stage shows the looks alone, for as long as a key is held. */
  const bare = ref(false)
  /** How many leaves grow on a region, as the stage has them. */
  const leavesOn = shallowRef<(r: Region) => number>(() => 0)
  const pending = ref(0)
  /** Colours and hatches that stand for what surfaces are, while the stage shows them. */
  const diagram = shallowRef<Diagram | null>(null)
  const problem = ref('')
  /** Whether that is about a change which was not made. */
  const failed = ref(false)
  const notice = ref('')
  const question = ref<{ text: string; yes: () => void } | null>(null)
  let queue: Promise<boolean> = Promise.resolve(true)
  let noticeTimer = 0

  const id = computed(() => state.value?.id ?? '')
  const current = computed<Region | null>(() => selection.value.at(-1) ?? null)
  const schemes = computed(() => state.value?.schemes ?? [])
  const scheme = computed<SchemeWire | null>(
    () => schemes.value.find((s) => s.id === state.value?.scheme) ?? null,
  )
  const materials = computed(() => {
    const all = new Map<string, Material>()
    for (const m of found.value) all.set(m.id, m)
    for (const m of state.value?.origins ?? []) all.set(m.id, m)
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
    () => new Map((state.value?.regions ?? []).map((r) => [`${r.part}/${r.span}`, r])),
  )

  /** The models that are only seen with the design. */
  const surroundings = computed(
    () =>
      new Set(scene.value?.models.filter((m) => m.belonging === 'SURROUNDINGS').map((m) => m.index) ?? []),
  )
  /** Parts that are designed. */
  const design = computed(() => (scene.value?.parts ?? []).filter((p) => !surroundings.value.has(p.model)))

  /** What a region shows on its front, or on its back. */
  function lookOf(region: Region, ofBack = false): Look | null {
    const at = lookIndex.value.get(`${region.part}/${region.span}`)
    return at ? (state.value?.looks[(ofBack ? at.back : null) ?? at.look] ?? null) : null
  }

  function materialOf(region: Region, ofBack = false): Material | null {
    const material = lookOf(region, ofBack)?.material
    return material ? (materials.value.get(material) ?? null) : null
  }

  /** Every region that shows the same material as this one, and on which of its sides. */
  function sharing(region: Region, ofBack = false): Reached[] {
    return usersOf(lookOf(region, ofBack)?.material)
  }

  /** All that shows a material, on its front or its back. */
  function usersOf(material: string | null | undefined): Reached[] {
    const looks = state.value?.looks ?? []
    return (state.value?.regions ?? []).flatMap(({ part, span, look, back }) => {
      const inFront = looks[look]?.material === material
      const inBack = looks[back ?? look]?.material === material
      return inFront || inBack ? [{ part, span, front: inFront, back: inBack }] : []
    })
  }

  /** What a spot is called where its level alone does not say. */
  function spotName({ level, target }: Spot): string {
    if (level === 'group') return scene.value?.groups[target]?.name ?? 'group'
    if (level === 'face') return `face ${scene.value?.ownFaces[target]?.name ?? ''}`
    return level === 'part' ? (scene.value?.parts[target]?.name ?? 'part') : level
  }

  /** All regions that are in some sets. */
  function regionsOf(sets: number[]): Region[] {
    return (scene.value?.parts ?? []).flatMap((p) =>
      p.sets.flatMap((s, span) => (sets.includes(s) ? [{ part: p.index, span }] : [])),
    )
  }

  function setOf(region: Region): number {
    return scene.value?.parts[region.part]?.sets[region.span] ?? 0
  }

  /** The scheme that is looked at, and that commands are about; empty for the first until the project is there. */
  const schemeInView = ref('')

  /** Keeps materials that were found, as they were found last. */
  function know(some: Material[]) {
    const fresh = new Set(some.map((m) => m.id))
    found.value = [...found.value.filter((m) => !fresh.has(m.id)), ...some]
  }

  async function open(projectId: string) {
    close()
    seen.forget()
    schemeInView.value = localStorage.getItem(`zolvan-scheme-${projectId}`) ?? ''
    const [newScene, newState, newSubstances, newControls] = await Promise.all([
      api.scene(projectId),
      api.state(projectId, schemeInView.value),
      api.substances(),
      api.controls(),
    ])
    controls.value = newControls
    substances.value = newSubstances
    scene.value = newScene
    state.value = newState
    seen.keep(newState)
    lookAt(newState.scheme)
    tellApart()
  }

  /** Where everything is grey or white, the Prepare step begins with colours by which parts can be told apart. */
  function tellApart() {
    const parts = design.value
    const grey = parts.every((p) => p.sets.every((_, span) => lookOf({ part: p.index, span })?.undressed))
    if (parts.length < 2 || !grey) return
    display.value = new Set(parts.flatMap((p) => p.sets)).size > 1 ? 'set' : 'shape'
  }

  async function readScene() {
    try {
      const read = await api.scene(id.value)
      if (read.projectId !== state.value?.id) return
      scene.value = read
      const isThere = (r: Region) => r.span < (read.parts[r.part]?.sets.length ?? 0)
      if (!selection.value.every(isThere))
        selection.value = selection.value.flatMap((r) =>
          read.parts[r.part] ? [isThere(r) ? r : { ...r, span: 0 }] : [],
        )
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
    edited.value = null
    why.value = null
    aside.value = null
    diagram.value = null
    goesTo.value = []
    picked.value = null
    copied.value = null
    schemeInView.value = ''
    chosen.value = null
    applying.value = false
    lookOnly.value = false
    found.value = []
    isolated.value = null
    display.value = 'looks'
    aid.value = 'looks'
    pictured.value = 'looks'
    lit.value = []
    preview.value = null
    placing.value = null
    pulled.value = null
    facesOf.value = null
    problem.value = ''
    step.value = 'assign'
  }

  function take(newer: ProjectState) {
    if (state.value && (newer.id !== state.value.id || newer.version < state.value.version)) return
    seen.keep(newer)
    if (
      state.value &&
      newer.scheme !== schemeInView.value &&
      newer.schemes.some((s) => s.id === schemeInView.value)
    )
      return
    if (newer.scheme !== schemeInView.value) lookAt(newer.scheme) // the one that was looked at is gone
    state.value = newer
    if (scene.value && newer.revision > scene.value.revision) void readScene()
    void readStrata()
  }

  /** What schemes show, as far as that was read since the last change. */
  const seen = new StatesSeen()
  /** What a scheme shows now. */
  async function stateOf(scheme: string): Promise<ProjectState> {
    const known = seen.of(scheme)
    if (known) return known
    const read = await api.state(id.value, scheme)
    if (read.id === id.value) seen.keep(read)
    return read
  }
  /** Reads what a scheme shows before it is asked for. */
  function foresee(scheme: string) {
    stateOf(scheme).catch(() => undefined) // asked again when it is needed
  }

  let quiet = 0
  watch(state, (now) => {
    window.clearTimeout(quiet)
    if (now) quiet = window.setTimeout(() => void foreseeOthers(), QUIET)
  })
  /** Reads what the first other schemes show, while nothing changes. */
  async function foreseeOthers() {
    const version = state.value?.version
    for (const { id: scheme } of schemes.value.filter((s) => s.id !== schemeInView.value).slice(0, FEW)) {
      if (pending.value > 0 || state.value?.version !== version) return
      await stateOf(scheme).catch(() => undefined)
    }
  }

  function lookAt(other: string) {
    schemeInView.value = other
    goesTo.value = []
    if (state.value) localStorage.setItem(`zolvan-scheme-${state.value.id}`, other)
  }

  /**
   * Looks at another scheme; what is on its way is done in the one that it was meant for. One that was seen since the last
   * change is there at once, and asked for all the same.
   */
  async function switchTo(other: string) {
    await queue
    lookAt(other)
    const known = seen.of(other)
    if (known) take(known)
    const newest = await api.state(id.value, schemeInView.value).catch(() => null)
    if (newest && !(known && isSame(newest, known))) take(newest)
  }

  async function readStrata() {
    const region = current.value
    if (!region) {
      why.value = null
      return
    }
    const ofBack = behind.value
    const read = await api
      .why(id.value, schemeInView.value, region.part, region.span, ofBack)
      .catch(() => null)
    if (current.value === region && behind.value === ofBack) why.value = read
  }

  /** @param fromBehind whether they were met from behind */
  function select(regions: Region[], fromBehind = false) {
    climbed = []
    sides.value = 'BOTH'
    metBehind.value = fromBehind
    choose(regions)
  }

  function selectParts(parts: number[]) {
    select(parts.flatMap(surfacesOf))
  }

  /** All surfaces of a part, the first one last, as that is what the card is about. */
  function surfacesOf(part: number): Region[] {
    const spans = scene.value?.parts[part]?.sets.length ?? 1
    return Array.from({ length: spans }, (_, i) => ({ part, span: spans - 1 - i }))
  }

  /** Selects all that a target of a level holds. */
  function selectSpot({ level, target }: { level: string; target: number }) {
    const parts = scene.value?.parts ?? []
    const holding = {
      model: (p: Scene['parts'][number]) => p.model === target,
      group: (p: Scene['parts'][number]) => pathOf(p.group).includes(target),
      part: (p: Scene['parts'][number]) => p.index === target,
    }[level]
    if (holding) selectParts(parts.filter(holding).map((p) => p.index))
    else if (level === 'set') select(regionsOf([target]))
    else
      select(
        parts.flatMap((p) =>
          p.ownFaces.flatMap((f, span) => (f === target ? [{ part: p.index, span }] : [])),
        ),
      )
  }

  /** Selects all of the innermost group that holds the selection and more. */
  function climb() {
    const all = scene.value
    if (!all || selection.value.length === 0) return
    const chosen = new Set(selection.value.map((r) => r.part))
    const paths = [...chosen].map((p) => pathOf(all.parts[p]?.group ?? -1))
    for (const group of paths[0] ?? []) {
      if (!paths.every((path) => path.includes(group))) continue
      const inside = all.parts.filter((p) => pathOf(p.group).includes(group))
      if (inside.length <= chosen.size) continue
      climbed.push(selection.value)
      choose(inside.flatMap((p) => surfacesOf(p.index)))
      tell(`${all.groups[group]?.name ?? 'Group'} · ${counted(inside.length, 'part')}`)
      return
    }
    tell('No group holds more than this.')
  }

  /** Goes back to what was selected before climbing. */
  function descend() {
    const before = climbed.pop()
    if (before) choose(before)
  }

  /** A group and those that hold it, from within. */
  function pathOf(group: number): number[] {
    const path: number[] = []
    for (let g = group; g >= 0; g = scene.value?.groups[g]?.parent ?? -1) path.push(g)
    return path
  }

  /** A material of the palette that the card is about although no part is selected; null for none. */
  const edited = ref<string | null>(null)
  function edit(material: string) {
    select([])
    edited.value = material
  }
  function choose(regions: Region[]) {
    edited.value = null
    selection.value = regions
    why.value = null
    void readStrata()
  }

  /**
   * Sends a command after those already on their way, each with the version the last one left. Whatever comes of one, the
   * next is sent.
   */
  function run(command: (seen: Seen) => Promise<ProjectState>, again?: () => void): Promise<boolean> {
    pending.value++
    problem.value = ''
    failed.value = false
    const about = schemeInView.value
    const work = queue.then(async () => {
      try {
        take(await deliver(state.value?.version ?? 0, about, command))
        return true
      } catch (e) {
        await refuse(e, again, () => void run(command))
        return false
      } finally {
        pending.value--
      }
    })
    queue = work.catch((e: unknown) => {
      console.error(e)
      return false
    })
    return queue
  }

  /**
   * @param again does it whatever others have built on it
   * @param over  does it over what others have just done
   */
  async function refuse(e: unknown, again: (() => void) | undefined, over: () => void) {
    if (!(e instanceof Refusal)) {
      problem.value = PAGE_FAULT
      failed.value = true
      throw e
    }
    if (e.type === 'met') {
      await catchUp()
      question.value = { text: e.message, yes: over }
      return
    }
    if (e.type === 'built-upon' && again) {
      question.value = { text: e.message, yes: again }
      return
    }
    problem.value = e.message
    failed.value = true
    if (e.status !== 0) await catchUp()
  }

  /** Says why something that was only tried did not come back. */
  function report(e: unknown) {
    if (!(e instanceof Refusal)) throw e
    problem.value = e.message
  }

  async function catchUp() {
    const newest = await api.state(id.value, schemeInView.value).catch(() => null)
    if (newest) take(newest)
  }

  function tell(text: string) {
    notice.value = text
    window.clearTimeout(noticeTimer)
    noticeTimer = window.setTimeout(() => (notice.value = ''), NOTICE_TIME)
  }

  /**
   * Gives a material, or takes off what is there.
   *
   * @param where a spot; or regions, each at the level named or, without one, at the one that shows
   */
  async function assign(
    where: (Spot | { level: Level | null; regions: Region[] }) & { side?: Sides | null; behind?: boolean },
    material: string | null,
    mapping: 'metric' | 'model' | null = null,
  ) {
    const before = state.value
    const spot = 'target' in where ? where : null
    const regions = 'regions' in where ? where.regions : current.value ? [current.value] : []
    const given = {
      level: where.level,
      targets: spot ? [spot.target] : null,
      side: where.side === undefined ? (sides.value === 'BOTH' ? null : sides.value) : where.side,
      regions: spot ? null : regions.map(({ part, span }) => ({ part, span })),
      material,
      mapping,
      lookOnly: lookOnly.value,
      schemes: goesTo.value.length > 0 ? goesTo.value : null,
    }
    const ofBack = where.behind ?? behind.value
    const done = await run((v) => api.assign(id.value, v, given, ofBack))
    if (!done || !before || state.value === before) return
    const name = material ? (materials.value.get(material)?.name ?? 'Material') : 'Taken off'
    const alone = material && lookOnly.value ? ', the look alone' : ''
    const elsewhere = schemes.value.filter((s) => goesTo.value.includes(s.id)).map((s) => s.letter)
    tell(
      `${name}${alone} · ${counted(changedParts(before), 'part')}` +
        (material && regions[0] ? hiddenAt(regions[0], material) : '') +
        (elsewhere.length > 0 ? ` · in ${elsewhere.join(', ')}` : ''),
    )
  }

  /** How many parts show another material than they did. */
  function changedParts(before: ProjectState): number {
    const worn = (of: ProjectState, r: ProjectState['regions'][number]) =>
      `${of.looks[r.look]?.material} ${of.looks[r.back ?? r.look]?.material}`
    const shown = new Map(before.regions.map((r) => [`${r.part}/${r.span}`, worn(before, r)]))
    const now = state.value
    const other = (now?.regions ?? []).filter((r) => now && worn(now, r) !== shown.get(`${r.part}/${r.span}`))
    return new Set(other.map((r) => r.part)).size
  }

  /** Says what hides a material where it was put, if it is hidden there. */
  function hiddenAt(region: Region, material: string): string {
    const shown = materialOf(region, behind.value)
    if (!shown || shown.id === material || shown.origin === material) return ''
    if (goesTo.value.length > 0 && !goesTo.value.includes(state.value?.scheme ?? '')) return ''
    return ` · hidden here by the ${lookOf(region, behind.value)?.from ?? 'file'}’s own look`
  }

  /** Takes the look of a region up, to be put on others by clicks. */
  function pickUp(region: Region, withMapping: boolean, ofBack = false) {
    const look = lookOf(region, ofBack)
    if (!look?.material) {
      tell('Nothing to pick up: it is plain grey.')
      return
    }
    chosen.value = look.material
    picked.value = withMapping ? { material: look.material, mapping: mappingOf(look) } : null
    applying.value = true
  }

  function mappingOf(look: Look): Mapped {
    if (!look.mapped) return null
    return look.mapping === 'metric' ? 'metric' : 'model'
  }

  function copyLook() {
    const look = current.value && lookOf(current.value, behind.value)
    if (!look?.material) return
    copied.value = { material: look.material, mapping: mappingOf(look) }
    tell(`Copied the look of ${scene.value?.parts[current.value?.part ?? 0]?.name ?? 'it'}`)
  }

  /** Gives the look that was copied to the selection: shared, so that it follows what is changed about it, or as its own. */
  async function pasteLook(shared: boolean) {
    const look = copied.value
    if (!look || selection.value.length === 0) {
      tell(look ? 'Select what is to get it.' : 'Copy a look first: select a part, then Ctrl C.')
      return
    }
    if (shared) {
      await assign({ level: null, regions: selection.value }, look.material, look.mapping)
      return
    }
    const from = materials.value.get(look.material)
    const parts = [...new Set(selection.value.map((r) => r.part))]
    const name = `${from?.name ?? 'Material'} 2`
    const copy = { name, variation: false, parts, colour: null }
    if (await run((v) => api.copyMaterial(id.value, v, look.material, copy)))
      tell(`${name} · ${counted(parts.length, 'part')}, independent of ${from?.name ?? 'the first'}`)
  }

  function adjust(region: Region, only: number[] | null, values: Values, here = false) {
    const ofBack = behind.value
    return run((v) => api.adjust(id.value, v, region, only, here, values, ofBack))
  }

  /** Puts a model somewhere else; where that is refused, it goes back. */
  async function place(model: number, to: Placing) {
    pulled.value = to
    const done = await run((v) => api.place(id.value, v, model, to))
    if (!done) await readScene()
    pulled.value = null
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

  /** Goes to a step, and shows its own card. */
  function go(to: Step) {
    step.value = to
    aside.value = null
  }

  return {
    schemeInView,
    scene,
    state,
    lookOnly,
    know,
    substances,
    controls,
    why,
    aside,
    goesTo,
    picked,
    pickedMapping,
    schemes,
    scheme,
    switchTo,
    stateOf,
    foresee,
    go,
    pickUp,
    copyLook,
    pasteLook,
    spotName,
    selection,
    sides,
    metBehind,
    behind,
    chosen,
    applying,
    isolated,
    step,
    display,
    aid,
    pictured,
    shown,
    lit,
    facesOf,
    faces,
    preview,
    surroundings,
    design,
    placing,
    pulled,
    place,
    adjusting,
    bare,
    leavesOn,
    pending,
    problem,
    failed,
    notice,
    question,
    id,
    current,
    materials,
    users,
    lookOf,
    materialOf,
    sharing,
    regionsOf,
    diagram,
    setOf,
    report,
    open,
    reread,
    close,
    take,
    select,
    selectParts,
    surfacesOf,
    edited,
    edit,
    usersOf,
    selectSpot,
    climb,
    descend,
    run,
    catchUp,
    tell,
    assign,
    adjust,
    undo,
    redo,
  }
})

/** "1 part", "3 parts"; "2 bodies" where the plural is given. */
export function counted(n: number, noun: string, plural = `${noun}s`): string {
  return `${n.toLocaleString('en')} ${n === 1 ? noun : plural}`
}
