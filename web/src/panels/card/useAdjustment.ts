import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'
import { api, type Material, type Preview, type Values } from '../../api/client'
import type { Region } from '../../stage/Stage'
import { stageHandle } from '../../stores/stageHandle'
import { useWorkspace } from '../../stores/workspace'

/**
 * Changing the selected look: while a control moves, core computes each try and the stage shows it; when it is let go
 * the change is sent. At most one try is on its way; newer ones wait and only the newest is kept.
 */
export function useAdjustment(region: ComputedRef<Region | null>, onlyPart: Ref<boolean>) {
  const workspace = useWorkspace()
  const tried = ref<Preview | null>(null)
  let waiting: Values | null = null
  let asking = false
  let round = 0

  const material = computed<Material | null>(
    () => tried.value?.material ?? (region.value ? workspace.materialOf(region.value) : null),
  )

  watch(region, () => endTrial())

  /** Shows values without sending them. */
  function attempt(values: Values) {
    workspace.adjusting = true
    waiting = values
    if (!asking) void ask()
  }

  async function ask() {
    asking = true
    const mine = round
    while (waiting && region.value) {
      const values = waiting
      const at = region.value
      waiting = null
      const preview = await api.preview(workspace.id, at.part, at.span, values).catch((e: unknown) => {
        workspace.report(e)
        return null
      })
      if (mine !== round || !preview) break
      tried.value = preview
      const reach = onlyPart.value
        ? workspace.sharing(at).filter((r) => r.part === at.part)
        : workspace.sharing(at)
      stageHandle.value?.tryOn(reach, preview.physical, workspace.lookOf(at)?.mapping ?? 'metric')
    }
    asking = false
  }

  /** Sends values; the stage goes on showing the last try until the answer is there. */
  async function commit(values: Values) {
    const at = region.value
    if (!at) return
    round++
    waiting = null
    asking = false
    await workspace.adjust(at, onlyPart.value, values)
    endTrial()
  }

  function endTrial() {
    round++
    waiting = null
    asking = false
    tried.value = null
    workspace.adjusting = false
    stageHandle.value?.endTrial()
  }

  return { material, attempt, commit }
}
