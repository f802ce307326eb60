import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'
import { api, type Material, type Physical, type Preview, type Values } from '../../api/client'
import type { Reached, Region } from '../../stage/Stage'
import { stageHandle } from '../../stores/stageHandle'
import { useWorkspace } from '../../stores/workspace'

/** What a material was when it came onto the card. */
interface Beginning {
  id: string
  whole: Record<string, unknown>
  kind: string | null
  physical: Physical
}

/**
 * Changing the selected look: while a control moves, core computes each try and the stage shows it; when it is let go
 * the change is sent. At most one try is on its way; newer ones wait and only the newest is kept. What the material was
 * when it came onto the card can be shown and put back.
 *
 * @param only the parts that a change is for; null for all that show the same
 * @param here whether other schemes stay as they are
 */
export function useAdjustment(
  region: ComputedRef<Region | null>,
  only: Ref<number[] | null>,
  here: Ref<boolean>,
) {
  const workspace = useWorkspace()
  const tried = ref<Preview | null>(null)
  const limit = ref('')
  const beginning = ref<Beginning | null>(null)
  const showsBefore = ref(false)
  let waiting: Values | null = null
  let asking = false
  let round = 0

  const stored = computed<Material | null>(() => {
    if (region.value) return workspace.materialOf(region.value, workspace.behind)
    return workspace.edited ? (workspace.materials.get(workspace.edited) ?? null) : null
  })
  /** What core makes of values: of what the selected region shows, or of the palette's material on the card. */
  function previewed(values: Values): Promise<Preview> {
    const at = region.value
    return at
      ? api.preview(workspace.id, workspace.schemeInView, at.part, at.span, values, workspace.behind)
      : api.previewOwn(workspace.id, workspace.edited ?? '', values)
  }
  const material = computed<Material | null>(() => tried.value?.material ?? stored.value)

  watch(
    [region, () => stored.value?.id],
    ([at], [before]) => {
      if (at !== before) {
        limit.value = ''
        endTrial()
      }
      // a change may have given the parts a material of their own: that still began with the one they had
      const b = beginning.value
      const m = stored.value
      if (at === before && b && m?.origin === b.id) beginning.value = { ...b, id: m.id }
      else keep()
    },
    { immediate: true },
  )

  /** Whether the material has changed since it came onto the card. */
  const hasChanged = computed(() => {
    const b = beginning.value
    const m = stored.value
    return !!b && !!m && (JSON.stringify(b.whole) !== JSON.stringify(m.whole) || b.kind !== m.kind)
  })

  function reach(at: Region): Reached[] {
    const all = workspace.sharing(at, workspace.behind)
    return only.value ? all.filter((r) => only.value?.includes(r.part)) : all
  }

  function mappingAt(at: Region): string {
    return workspace.lookOf(at, workspace.behind)?.mapping ?? 'metric'
  }

  /** Shows values without sending them. */
  function attempt(values: Values) {
    workspace.adjusting = true
    waiting = values
    if (!asking) void ask()
  }

  async function ask() {
    asking = true
    const mine = round
    try {
      while (waiting && stored.value) {
        const values = waiting
        const at = region.value
        waiting = null
        const preview = await previewed(values).catch((e: unknown) => {
          workspace.report(e)
          return null
        })
        if (mine !== round) return
        if (!preview) continue
        tried.value = preview
        limit.value = preview.limit
        if (at) stageHandle.value?.tryOn(reach(at), preview.physical, mappingAt(at))
      }
    } finally {
      if (mine === round) asking = false // a later round asks by itself
    }
  }

  /** Sends values; the stage goes on showing the last try until the answer is there. */
  async function commit(values: Values) {
    const at = region.value
    const alone = workspace.edited
    if (!at && !alone) return
    round++
    waiting = null
    asking = false
    const wish = 'gloss' in values ? await previewed(values).catch(() => null) : null
    if (at) await workspace.adjust(at, only.value, values, here.value)
    else if (alone) await workspace.run((v) => api.adjustOwn(workspace.id, v, alone, values))
    limit.value = wish?.limit ?? ''
    endTrial()
  }

  function endTrial() {
    round++
    waiting = null
    asking = false
    tried.value = null
    showsBefore.value = false
    workspace.adjusting = false
    stageHandle.value?.endTrial()
  }

  /** While it lasts the stage shows what the material was when it came onto the card. */
  function showBefore(shows: boolean) {
    const at = region.value
    const b = beginning.value
    if (!shows) {
      if (showsBefore.value) endTrial()
      return
    }
    if (!at || !b || !hasChanged.value || showsBefore.value) return
    workspace.adjusting = true
    showsBefore.value = true
    stageHandle.value?.tryOn(workspace.sharing(at, workspace.behind), b.physical, mappingAt(at))
  }

  /** Everything as it was when the material came onto the card, in one step. */
  async function discard() {
    const b = beginning.value
    if (b) await commit(b.kind ? { kind: b.kind, whole: b.whole } : { whole: b.whole })
  }

  /** What has been done so far is kept: it is what "before" means from now on. */
  function keep() {
    const at = region.value
    const m = stored.value
    const look = at ? workspace.lookOf(at, workspace.behind) : null
    beginning.value = m && look ? { id: m.id, whole: m.whole, kind: m.kind, physical: look.physical } : null
  }

  return { material, attempt, commit, limit, hasChanged, showBefore, showsBefore, discard, keep }
}
