import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { api, type SavedView } from '../api/client'
import type { Place } from '../stage/Stage'
import { AHEAD, type View } from '../stage/viewpoint'
import { lengthText } from '../panels/shared/lengths'
import { stageHandle } from './stageHandle'
import { useWorkspace } from './workspace'

/** Whoever stands takes in so much of the height, in degrees. */
const STANDING_DEGREES = 52
/** Small pictures of views, in pixels. */
const WIDTH = 320
const HEIGHT = 210

/** Named views, and moving about. */
export const useViews = defineStore('views', () => {
  const workspace = useWorkspace()
  const all = computed(() => workspace.state?.views ?? [])
  /** The view that was gone to last; what is seen through in it stays so until another is chosen. */
  const chosen = ref<string | null>(null)
  const current = computed(() => all.value.find((v) => v.id === chosen.value) ?? null)
  /** Whether the next click says where to stand. */
  const choosing = ref(false)
  /** How many degrees of the height are taken in. */
  const degrees = ref(32)
  /** Of each view that a picture was taken of here, how many were. */
  const pictured = ref<Record<string, number>>({})

  watch(
    () => workspace.id,
    () => leave(),
  )
  watch(
    () => current.value?.lookedInto.join(),
    () => stageHandle.value?.lookAlsoInto(current.value?.lookedInto ?? []),
  )

  function leave() {
    chosen.value = null
    choosing.value = false
  }
  function go(view: SavedView) {
    chosen.value = view.id
    degrees.value = view.degrees
    stageHandle.value?.goTo(view)
  }
  function zoom(to: number) {
    degrees.value = to
    stageHandle.value?.setDegrees(to)
  }
  function camera(): View | null {
    return stageHandle.value?.view ?? null
  }

  async function keep(name: string) {
    const from = camera()
    if (!from) return
    const view = { id: crypto.randomUUID(), name, camera: from, lookedInto: current.value?.lookedInto ?? [] }
    if (!(await workspace.run((v) => api.keepView(workspace.id, v, view)))) return
    chosen.value = view.id
    await picture(view.id)
    workspace.tell(`View ${name} kept, the same for every scheme`)
  }
  async function take(view: SavedView) {
    const from = camera()
    if (from && (await workspace.run((v) => api.takeView(workspace.id, v, view.id, from)))) {
      chosen.value = view.id
      await picture(view.id)
    }
  }
  async function picture(id: string) {
    const jpeg = await stageHandle.value?.picture(WIDTH, HEIGHT, 'image/jpeg')
    if (!jpeg) return
    try {
      await api.putViewPicture(workspace.id, id, jpeg)
      pictured.value = { ...pictured.value, [id]: (pictured.value[id] ?? 0) + 1 }
    } catch {
      // its name does instead
    }
  }
  async function seeThrough(view: SavedView, parts: number[]) {
    await workspace.run((v) => api.seeThrough(workspace.id, v, view.id, parts))
  }

  /** Stands at a place that was clicked. */
  async function stand(place: Place) {
    choosing.value = false
    const from = camera()
    if (!from) return
    const along = from.target.map((t, k) => t - (from.eye[k] ?? 0))
    try {
      const at = await api.standpoint(workspace.id, { picked: place.point, seen: from.eye, along })
      leave()
      degrees.value = STANDING_DEGREES
      const target = at.eye.map((e, k) => e + AHEAD * (at.towards[k] ?? 0))
      stageHandle.value?.goTo({ eye: at.eye, target, degrees: STANDING_DEGREES })
      const s = workspace.state
      const height = lengthText(at.height, s?.unit ?? 'm', s?.unitMetres ?? 1, s?.unitDecimals ?? 3)
      workspace.tell(
        `Eyes ${height} above the floor${at.lowered ? ', for what is above' : ''}, ${at.enclosed ? 'inside' : 'outside'}. Drag looks around; wheel and arrows walk`,
      )
    } catch (e) {
      workspace.report(e)
    }
  }

  return { all, chosen, current, choosing, degrees, pictured, go, leave, zoom, keep, take, seeThrough, stand }
})
