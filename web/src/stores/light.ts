import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, newKey, type LightSetup } from '../api/client'
import type { Light } from '../stage/Stage'
import { useWorkspace } from './workspace'

/** Shown before a project is there; projects begin with the server's. */
const FIRST_LIGHT: Light = { surroundings: 'studio', strength: 1, turn: 0, exposure: 0 }

function stageLight(of: LightSetup): Light {
  return { surroundings: of.surroundings, strength: of.strength, turn: of.turn, exposure: of.stops }
}
function values({ exposure, ...rest }: Light) {
  return { ...rest, stops: exposure }
}

/** The project's light set-ups, and the one in view. */
export const useLight = defineStore('light', () => {
  const workspace = useWorkspace()
  const setups = computed<LightSetup[]>(() => workspace.state?.lights ?? [])
  const chosen = ref('')
  const current = computed(() => setups.value.find((l) => l.id === chosen.value) ?? setups.value[0])
  /** What a control is being moved to, before it is let go. */
  const tried = shallowRef<Partial<Light> | null>(null)
  const shown = computed<Light>(() => ({
    ...(current.value ? stageLight(current.value) : FIRST_LIGHT),
    ...tried.value,
  }))

  watch(
    () => workspace.state?.id,
    (id) => {
      tried.value = null
      chosen.value = (id && localStorage.getItem(`zolvan-light-in-view-${id}`)) || ''
      if (id) void takeOver(id)
    },
  )

  /** A light that this browser kept before projects had their own becomes the project's, where that is still as it began. */
  async function takeOver(id: string) {
    const key = `zolvan-light-${id}`
    const kept = localStorage.getItem(key)
    if (!kept || !current.value) return
    localStorage.removeItem(key)
    const own = read(kept)
    const isNew = setups.value.length === 1 && same(stageLight(current.value), FIRST_LIGHT)
    if (isNew && !same(own, FIRST_LIGHT)) await set(own)
  }

  /** The first light where what was kept is none. */
  function read(kept: string): Light {
    try {
      return { ...FIRST_LIGHT, ...(JSON.parse(kept) as Partial<Light>) }
    } catch {
      return FIRST_LIGHT
    }
  }

  function same(one: Light, other: Light): boolean {
    return JSON.stringify(values(one)) === JSON.stringify(values(other))
  }

  function look(id: string) {
    tried.value = null
    chosen.value = id
    localStorage.setItem(`zolvan-light-in-view-${workspace.id}`, id)
  }

  /** Shows a change that is not made yet. */
  function tryOut(change: Partial<Light>) {
    tried.value = { ...tried.value, ...change }
  }

  async function set(change: Partial<Light>) {
    const setup = current.value
    if (!setup) return
    const to = { ...stageLight(setup), ...change }
    if (same(to, stageLight(setup))) {
      tried.value = null
      return
    }
    tried.value = change
    await workspace.run((v) => api.setLight(workspace.id, v, setup.id, values(to)))
    if (tried.value === change) tried.value = null
  }

  /** Another set-up that begins as the one in view is. */
  async function copy() {
    const of = current.value
    if (!of) return
    const id = newKey()
    let name = `${of.name} 2`
    for (let n = 3; setups.value.some((l) => l.name === name); n++) name = `${of.name} ${n}`
    if (await workspace.run((v) => api.copyLight(workspace.id, v, of.id, { id, name }))) look(id)
  }
  function rename(name: string) {
    const id = current.value?.id
    return id ? workspace.run((v) => api.nameLight(workspace.id, v, id, name)) : Promise.resolve(false)
  }
  function remove() {
    const id = current.value?.id
    return id ? workspace.run((v) => api.removeLight(workspace.id, v, id)) : Promise.resolve(false)
  }

  return { setups, current, tried, shown, look, tryOut, set, copy, rename, remove }
})
