import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { api, bytesAt, type ProofNews } from '../api/client'
import { BACKDROP_BOTTOM, BACKDROP_TOP } from '../stage/Stage'
import { useDrag } from './drag'
import { useLight } from './light'
import { useSchemes } from './schemes'
import { stageHandle } from './stageHandle'
import { useViews } from './views'
import { useWorkspace } from './workspace'

/** The stage rests so long before its light is traced, in ms. */
const REST = 350
/** As many pixels as a proof has. */
const MOST_PIXELS = 2_500_000

/** The proof: what the stage shows with its light traced, from where it is looked at. It gets finer while one looks. */
export const useProof = defineStore('proof', () => {
  const workspace = useWorkspace()
  const drag = useDrag()
  const views = useViews()
  const schemes = useSchemes()
  const light = useLight()
  /** Whether the stage shows it, as far as it is there. */
  const on = ref(false)
  /** What there is of it, of what the stage shows now. */
  const picture = ref('')
  const share = ref(0)
  const secondsLeft = ref<number | null>(null)
  const done = ref(false)
  const failed = ref(false)
  /** Proofs are of looks: not of diagrams, nor of what is only being tried. */
  const isPossible = computed(() => workspace.shown === 'looks' && !workspace.preview)
  /** Whether the stage shows something for the moment that is not in the looks. */
  const passing = ref(false)
  const isQuick = computed(
    () =>
      passing.value ||
      schemes.showsOther ||
      light.tried !== null ||
      workspace.adjusting ||
      drag.carries ||
      views.choosing,
  )
  const isShown = computed(() => on.value && picture.value !== '' && isPossible.value && !isQuick.value)
  let proof = ''
  let fetched = 0
  /** How far the picture had come that is shown until one traced anew is further. */
  let held = 0
  let asked = 0
  let rest = 0

  function show(address: string) {
    if (picture.value) URL.revokeObjectURL(picture.value)
    picture.value = address
  }

  /** Nobody waits for it any more. */
  function end() {
    void api.endProof(workspace.id).catch(() => undefined)
  }

  /** What the stage shows has changed: what was traced is of before. */
  function forget() {
    asked++
    window.clearTimeout(rest)
    if (proof && !done.value) end()
    proof = ''
    fetched = 0
    held = 0
    share.value = 0
    secondsLeft.value = null
    done.value = false
    failed.value = false
    show('')
    if (on.value && isPossible.value) rest = window.setTimeout(() => void begin(), REST)
  }

  async function begin() {
    const stage = stageHandle.value
    const { width, height } = stage?.size ?? { width: 0, height: 0 }
    if (!stage || width * height === 0) return
    if (isQuick.value || workspace.pending > 0) {
      rest = window.setTimeout(() => void begin(), REST)
      return
    }
    const mine = asked
    const smaller = Math.min(1, Math.sqrt(MOST_PIXELS / (width * height)))
    try {
      const begun = await api.beginProof(workspace.id, workspace.schemeInView, {
        camera: stage.view,
        width: Math.floor(width * smaller),
        height: Math.floor(height * smaller),
        light: light.current?.id ?? null,
        backdrop: { top: BACKDROP_TOP, bottom: BACKDROP_BOTTOM },
        only: workspace.isolated,
        view: views.current?.id ?? null,
      })
      if (mine !== asked) {
        if (!on.value) end()
        return
      }
      proof = begun.proof
      if (held === 0) await fetchPicture(1) // it may have been there before its name was
    } catch (e) {
      on.value = false
      workspace.report(e)
    }
  }

  async function fetchPicture(pictures: number) {
    if (pictures <= fetched) return
    const of = proof
    const png = await bytesAt(api.proofAddress(workspace.id, of)).catch(() => null)
    if (!png || png.byteLength === 0 || of !== proof || pictures <= fetched) return
    fetched = pictures
    show(URL.createObjectURL(new Blob([png], { type: 'image/png' })))
  }

  /** Hears how far one has come. */
  function hear(news: ProofNews) {
    if (news.proof !== proof) return
    share.value = Math.max(held, news.share)
    secondsLeft.value = news.secondsLeft
    done.value = news.done
    failed.value = news.failed
    if (news.share >= held) void fetchPicture(news.pictures)
  }

  /** What was told while nobody listened is told again; where it is gone it begins anew. */
  function catchUp() {
    if (on.value && proof && !done.value) forget()
  }

  function toggle() {
    if (!isPossible.value) {
      workspace.tell('A proof is of looks: show these first.')
      return
    }
    on.value = !on.value
    if (!on.value) pause()
    else if (!proof && !done.value) rest = window.setTimeout(() => void begin(), picture.value ? 0 : REST)
  }

  /** Nothing is traced while the stage shows it not; what there is stays for when it is shown again. */
  function pause() {
    if (done.value) return
    asked++
    window.clearTimeout(rest)
    if (proof) end()
    proof = ''
    fetched = 0
    held = picture.value ? share.value : 0
    secondsLeft.value = null
  }

  function close() {
    on.value = false
    forget()
  }

  watch(
    () => [
      workspace.state,
      workspace.scene,
      light.shown,
      workspace.isolated,
      workspace.shown,
      views.current?.lookedInto.join(),
    ],
    forget,
  )

  return {
    on,
    picture,
    share,
    secondsLeft,
    done,
    failed,
    isPossible,
    passing,
    isShown,
    forget,
    hear,
    catchUp,
    toggle,
    close,
  }
})
