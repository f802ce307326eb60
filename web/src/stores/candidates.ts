import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { api, type Spot } from '../api/client'
import { stageHandle } from './stageHandle'
import { useWorkspace } from './workspace'

/** Looks that are kept on what is selected to choose from, and the one of them that the stage shows without putting it on. */
export const useCandidates = defineStore('candidates', () => {
  const workspace = useWorkspace()
  const shown = ref<number | null>(null)
  let round = 0

  /** Where candidates are kept and would be put on: the level that shows, else the matching set. */
  const spot = computed<Spot | null>(() => {
    const levels = workspace.why?.levels
    const at = levels?.find((l) => l.wins) ?? levels?.find((l) => l.level === 'set')
    return at ? { level: at.level as Spot['level'], target: at.target } : null
  })
  const kept = computed(
    () =>
      workspace.state?.candidates.find((c) => c.level === spot.value?.level && c.target === spot.value.target)
        ?.materials ?? [],
  )
  const current = computed(() => (shown.value === null ? null : (kept.value[shown.value] ?? null)))

  watch([spot, kept], ([now], [before]) => {
    if (now?.level !== before?.level || now?.target !== before?.target) leave()
    else if (shown.value !== null && shown.value >= kept.value.length) leave()
  })

  async function show(index: number) {
    const region = workspace.current
    const material = kept.value[index]
    if (!region || !spot.value || !material) return
    const mine = ++round
    shown.value = index
    try {
      const trial = await api.trial(workspace.id, workspace.schemeInView, spot.value, region, material, {
        behind: workspace.behind,
      })
      if (mine === round) stageHandle.value?.tryOn(trial.reached, trial.look.physical, trial.look.mapping)
    } catch (e) {
      workspace.report(e)
    }
  }

  /** Shows the next candidate, or the one before. */
  function step(by: number) {
    const n = kept.value.length
    if (n === 0) {
      workspace.tell(
        workspace.current
          ? 'No candidates are kept on this. Choose a chip, then “Keep” beside “Candidates”.'
          : 'Select a part first.',
      )
      return
    }
    const from = shown.value ?? (by > 0 ? -1 : n)
    void show((((from + by) % n) + n) % n)
  }

  function leave() {
    round++
    if (shown.value === null) return
    shown.value = null
    stageHandle.value?.endTrial()
  }

  /** Puts the candidate on that the stage shows. */
  async function putOn() {
    const material = current.value
    if (!spot.value || !material) return
    await workspace.assign(spot.value, material)
    leave()
  }

  function keep(material: string) {
    const at = spot.value
    if (at) void workspace.run((v) => api.keepCandidate(workspace.id, v, { ...at, material }))
  }

  function drop(material: string) {
    const at = spot.value
    leave()
    if (at) void workspace.run((v) => api.dropCandidate(workspace.id, v, { ...at, material }))
  }

  return { shown, spot, kept, current, show, step, leave, putOn, keep, drop }
})
