import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { api, type Material, type SampleForm } from '../api/client'
import { useWorkspace } from './workspace'

const FAILED = 'It could not be traced.'
const UNREACHED = 'Zolvan can’t be reached just now.'

/** A material seen closely: traced on a form of choice, or on the selected part. */
export const useCloser = defineStore('closer', () => {
  const workspace = useWorkspace()
  const material = shallowRef<Material | null>(null)
  /** Null for the selected part. */
  const form = ref<SampleForm | null>('TILE')
  const picture = ref('')
  const done = ref(false)
  /** Why there is no picture; empty while one is on its way or there. */
  const problem = ref('')
  let key = ''
  let asked = 0

  function look(at: Material) {
    material.value = at
  }
  function close() {
    material.value = null
    show('')
  }
  function toggle() {
    const chosen = workspace.chosen ? workspace.materials.get(workspace.chosen) : undefined
    const shown = workspace.current ? workspace.materialOf(workspace.current) : null
    const next = chosen ?? shown
    if (material.value) close()
    else if (next) look(next)
    else workspace.tell('Choose a chip or select a part first, then look closely at it.')
  }
  function show(address: string) {
    if (picture.value) URL.revokeObjectURL(picture.value)
    picture.value = address
  }

  async function fetchOne() {
    const m = material.value
    if (!m) return
    const region = workspace.current ?? { part: 0, span: 0 }
    const mine = ++asked
    try {
      const response = await fetch(
        api.closerAddress(workspace.id, workspace.schemeInView, m.id, form.value, region),
      )
      const blob = await response.blob()
      if (mine !== asked) return
      problem.value = response.ok ? '' : FAILED
      key = response.headers.get('X-Picture') ?? ''
      done.value = response.headers.get('X-Final') === 'true'
      show(response.status === 200 ? URL.createObjectURL(blob) : '')
    } catch {
      if (mine === asked) problem.value = UNREACHED
    }
  }
  /** Another material, another form, or the same one changed. */
  watch(
    () => [material.value?.id, latest()?.chip, form.value, form.value ? null : workspace.current],
    () => {
      done.value = false
      problem.value = ''
      void fetchOne()
    },
  )
  /** The material as it is now. */
  function latest(): Material | undefined {
    return material.value ? (workspace.materials.get(material.value.id) ?? material.value) : undefined
  }

  /** Hears that a picture has been traced. */
  function hear(traced: string) {
    if (traced === key && !done.value) void fetchOne()
  }

  return { material, form, picture, done, problem, again: fetchOne, look, latest, close, toggle, hear }
})
