import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { api, type Libraries, type Library } from '../api/client'
import { useFinding } from './finding'
import { counted, useWorkspace } from './workspace'

/** Libraries of the designer's own and of teams, their drawers and kits. */
export const useLibraries = defineStore('libraries', () => {
  const workspace = useWorkspace()
  const known = shallowRef<Libraries>({ kinds: [], libraries: [], kits: [], starter: null })
  const all = computed(() => known.value.libraries)
  const editable = computed(() => all.value.filter((l) => l.role !== 'USE'))
  const kits = computed(() => known.value.kits)
  const shipped = computed(() => known.value.kinds.reduce((sum, k) => sum + k.count, 0))

  async function read() {
    try {
      known.value = await api.libraries()
    } catch (e) {
      workspace.report(e)
    }
  }

  /** Hears that a library has changed, here or elsewhere. */
  async function hear() {
    await read()
    useFinding().again()
  }

  function find(id: string | null): Library | undefined {
    return all.value.find((l) => l.id === id)
  }

  /** Where a material lies, in words. */
  function pathOf(place: { library: string; drawer: string | null }): string {
    const library = find(place.library)
    const drawer = library?.drawers.find((d) => d.id === place.drawer)
    return [library?.name ?? '', drawer?.path].filter(Boolean).join(' › ')
  }

  /** Does something to a library and says so, or says why not. */
  async function act(work: () => Promise<unknown>, done = ''): Promise<boolean> {
    try {
      await work()
    } catch (e) {
      workspace.report(e)
      return false
    }
    if (done) workspace.tell(done)
    await hear()
    return true
  }

  /** Keeps materials of the project in a drawer of a library. */
  async function keep(library: string, drawer: string | null, materials: string[]): Promise<boolean> {
    const names = materials.map((m) => workspace.materials.get(m)?.name ?? '')
    const what = names.length === 1 ? names[0] : counted(names.length, 'material')
    return act(
      () => api.keepInLibrary(workspace.id, library, drawer, materials),
      `${what} kept in ${pathOf({ library, drawer })}`,
    )
  }

  return { known, all, editable, kits, shipped, read, hear, find, pathOf, act, keep }
})
