import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type Beginning, type Difference, type ProjectState, type SchemeState } from '../api/client'
import { stageHandle } from './stageHandle'
import { useWorkspace } from './workspace'

/** What is done with schemes themselves: comparing two, and making another. */
export const useSchemes = defineStore('schemes', () => {
  const workspace = useWorkspace()
  /** The scheme that the one looked at is compared with. */
  const other = ref<string | null>(null)
  const otherScheme = computed(() => workspace.schemes.find((s) => s.id === other.value) ?? null)
  const differences = shallowRef<Difference[] | null>(null)
  const making = ref(false)
  /** Whether the stage shows the other scheme, for as long as a key is held. */
  const showsOther = ref(false)
  let otherState: ProjectState | null = null

  function stateWord(state: SchemeState): string {
    return workspace.controls.schemeStates.find((s) => s.name === state)?.label ?? ''
  }

  /** Looks at one scheme and has another beside it. */
  async function compare(one: string, with_: string) {
    if (workspace.scheme?.id !== one) await workspace.switchTo(one)
    other.value = with_
    workspace.aside = 'scheme'
    making.value = false
  }

  /** Reads what differs whenever anything changes while two schemes are compared. */
  watch([other, () => workspace.state, () => workspace.aside], async () => {
    const state = workspace.state
    if (!state || !other.value || other.value === state.scheme || !otherScheme.value) {
      differences.value = null
      otherState = null
      return
    }
    if (workspace.aside !== 'scheme' && otherState?.version === state.version) return
    try {
      const [found, read] = await Promise.all([
        api.differences(workspace.id, state.scheme, other.value),
        workspace.stateOf(other.value),
      ])
      if (workspace.state !== state) return
      differences.value = found
      otherState = read
    } catch (e) {
      workspace.report(e)
    }
  })

  /** Shows the other scheme on the stage while it lasts. */
  function showOther(shows: boolean) {
    if (!shows) {
      if (showsOther.value && workspace.state)
        stageHandle.value?.setLooks(workspace.state.looks, workspace.state.regions)
      showsOther.value = false
      return
    }
    if (showsOther.value) return
    if (!otherState) {
      workspace.tell('Drag one scheme’s divider onto another to compare them, then hold C.')
      return
    }
    showsOther.value = true
    stageHandle.value?.setLooks(otherState.looks, otherState.regions)
  }

  async function create(name: string, beginning: Beginning) {
    const before = new Set(workspace.schemes.map((s) => s.id))
    const of = beginning === 'EMPTY' ? null : (workspace.scheme?.id ?? null)
    if (!(await workspace.run((v) => api.createScheme(workspace.id, v, { name, beginning, of })))) return
    making.value = false
    const made = workspace.schemes.find((s) => !before.has(s.id))
    if (made) await workspace.switchTo(made.id)
  }

  return { other, otherScheme, differences, making, showsOther, stateWord, compare, showOther, create }
})
