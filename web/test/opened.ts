import { createPinia, setActivePinia } from 'pinia'
import { vi } from 'vitest'
import { api, type Material, type ProjectState, type Scene } from '../src/api/client'
import { useWorkspace } from '../src/stores/workspace'

/** Three parts on two levels of groups: a post and a rail in a frame, with a shade beside it. */
export const SCENE = {
  projectId: 'p',
  revision: 1,
  models: [{ index: 0, belonging: 'DESIGN' }],
  groups: [
    { name: 'Lamp', parent: -1 },
    { name: 'Frame', parent: 0 },
  ],
  ownFaces: [],
  parts: [
    { index: 0, name: 'Post', model: 0, group: 1, sets: [0], ownFaces: [] },
    { index: 1, name: 'Rail', model: 0, group: 1, sets: [0], ownFaces: [] },
    { index: 2, name: 'Shade', model: 0, group: 0, sets: [1], ownFaces: [] },
  ],
} as unknown as Scene

export function material(id: string, more: Partial<Material> = {}): Material {
  return {
    id,
    name: id,
    code: id.toUpperCase(),
    kind: 'paint',
    finish: 'matt',
    whole: {},
    ...more,
  } as Material
}

/** What is shown by post and rail, by the shade's front and by its back. */
export function stateOf(version: number, frame: string, shade: string, lining = shade): ProjectState {
  const look = (of: string) => ({
    material: of,
    mapping: 'metric',
    mapped: false,
    from: 'part',
    physical: { of },
  })
  return {
    id: 'p',
    scheme: 'a',
    version,
    revision: 1,
    schemes: [{ id: 'a', letter: 'A' }],
    looks: [look(frame), look(shade), look(lining)],
    regions: [
      { part: 0, span: 0, look: 0, back: null },
      { part: 1, span: 0, look: 0, back: null },
      { part: 2, span: 0, look: 1, back: 2 },
    ],
    palette: ['brass', 'glass', 'linen'].map((id) => ({ material: material(id), parts: 1 })),
    arrived: [],
    origins: [],
    candidates: [],
  } as unknown as ProjectState
}

/** A page in name only: what stores need of one. */
export function standInPage() {
  const kept = new Map<string, string>()
  vi.stubGlobal('window', Object.assign(new EventTarget(), { setTimeout, clearTimeout }))
  vi.stubGlobal('localStorage', storage(kept))
  vi.stubGlobal('sessionStorage', storage(new Map()))
}

function storage(kept: Map<string, string>) {
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
    removeItem: (key: string) => kept.delete(key),
  }
}

/** A project that stands open, at version 1: brass frame, glass shade lined with linen. */
export function opened() {
  vi.restoreAllMocks()
  standInPage()
  setActivePinia(createPinia())
  vi.spyOn(api, 'why').mockRejectedValue(new Error('not asked here'))
  vi.spyOn(api, 'recent').mockResolvedValue([])
  const workspace = useWorkspace()
  workspace.scene = SCENE
  workspace.take(stateOf(1, 'brass', 'glass', 'linen'))
  return workspace
}

/** A promise that is answered when it is told to. */
export function later<T>() {
  let give: (value: T) => void = () => undefined
  let fail: (reason: unknown) => void = () => undefined
  const answer = new Promise<T>((yes, no) => {
    give = yes
    fail = no
  })
  return { answer, give, fail }
}
