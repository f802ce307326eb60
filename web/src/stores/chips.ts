import { defineStore } from 'pinia'
import { reactive } from 'vue'
import { api, type Material } from '../api/client'
import { chipPainter } from './stageHandle'
import { useWorkspace } from './workspace'

/** Most pictures asked for at once; a browser has few connections to one server. */
const AT_ONCE = 3

/**
 * Pictures of samples: traced ones from the server, and until one is there what the stage's own painter makes of it. Kept by
 * what they show.
 */
export const useChips = defineStore('chips', () => {
  const pictures = reactive(new Map<string, string>())
  const asked = new Map<string, Material>()
  const queue: Material[] = []
  let running = 0

  /** Sees to it that there will be a picture of the material. */
  function ask(material: Material) {
    if (asked.has(material.chip)) return
    asked.set(material.chip, material)
    queue.push(material)
    next()
  }

  function next() {
    const material = running < AT_ONCE ? queue.shift() : undefined
    if (!material) return
    running++
    void fetchOne(material)
      .catch(() => paint(material))
      .finally(() => {
        running--
        next()
      })
  }

  async function fetchOne(material: Material) {
    const response = await fetch(api.chipAddress(useWorkspace().id, material))
    if (response.status === 200) pictures.set(material.chip, URL.createObjectURL(await response.blob()))
    else await paint(material)
  }

  async function paint(material: Material) {
    const painted = await chipPainter().paint(material.physical)
    if (!pictures.has(material.chip)) pictures.set(material.chip, painted)
  }

  /** Hears that a picture has been traced. */
  function hear(key: string) {
    const material = asked.get(key)
    if (!material) return
    queue.push(material)
    next()
  }

  return { pictures, ask, hear }
})
