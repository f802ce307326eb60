import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { onAnswer } from '../api/client'

/** Pauses between tries, in ms; the last one goes on. */
const PAUSES = [300, 700, 1500, 3000, 5000]

export type Away = 'server' | 'database'

/** Reachability of the server, and the commands that wait for it. */
export const useConnection = defineStore('connection', () => {
  /** The side that does not answer; null while both do. */
  const away = ref<Away | null>(null)
  /** Called when it is time to try again: by the clock, or because somebody has been answered meanwhile. */
  const waiting = new Set<() => void>()

  const said = computed(() => {
    if (away.value === 'server') return 'Zolvan can’t be reached'
    return away.value === 'database' ? 'Zolvan’s database is being brought back' : ''
  })

  /** Takes note of an answer. */
  function hear(status: number, type: string) {
    if (type === 'database-away') away.value = 'database'
    else if (type === 'unreachable') away.value = 'server'
    else if (status !== 503) {
      away.value = null
      for (const goOn of [...waiting]) goOn()
    }
  }
  const listeners = new Set<(status: number, type: string) => void>([hear])
  onAnswer((status, type) => listeners.forEach((listener) => listener(status, type)))

  /** Waits before a try; shorter once the server has answered somebody. */
  function pause(tries: number): Promise<void> {
    return new Promise((resolve) => {
      const goOn = () => {
        clearTimeout(timer)
        waiting.delete(goOn)
        resolve()
      }
      const timer = setTimeout(goOn, PAUSES[Math.min(tries, PAUSES.length - 1)])
      waiting.add(goOn)
    })
  }

  return { away, said, hear, pause, listeners }
})
