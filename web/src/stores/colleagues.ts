import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { api } from '../api/client'
import { useSession } from './session'
import { useWorkspace } from './workspace'

/** What somebody else, or oneself on another page, looks at. */
export interface Looking {
  project: string
  page: string
  name: string
  /** null once they have left. */
  scheme: string | null
  parts: number[]
}

const COLOURS = ['#1d7a8c', '#b0561b', '#3f7a2b', '#7a5bb8', '#a33a4a']
/** So often one says what one looks at though nothing has changed, and so long one is taken to be there without it. */
const BEAT = 20_000
const GONE_AFTER = 50_000
const SOON = 150
const MOST_PARTS = 100

/** Who else is on the project now, and what they have selected. */
export const useColleagues = defineStore('colleagues', () => {
  const workspace = useWorkspace()
  const session = useSession()
  const page = crypto.randomUUID()
  const there = ref(new Map<string, Looking & { colour: string }>())
  /** When each page was heard last; a beat that says nothing new changes nothing that is shown. */
  const heardAt = new Map<string, number>()
  const all = computed(() => [...there.value.values()])
  /** What others have selected, in their colours. */
  const selections = computed(() => all.value.map(({ parts, colour }) => ({ parts, colour })))
  let timer = 0
  let beat = 0

  function hear(l: Looking) {
    if (l.project !== workspace.id || l.page === page) return
    const known = there.value.get(l.page)
    heardAt.set(l.page, Date.now())
    if (known && known.scheme === l.scheme && known.parts.join() === l.parts.join()) return
    const next = new Map(there.value)
    if (l.scheme === null) next.delete(l.page)
    else {
      const taken = new Set(all.value.map((o) => o.colour))
      const colour = known?.colour ?? COLOURS.find((c) => !taken.has(c)) ?? COLOURS[0] ?? ''
      next.set(l.page, { ...l, colour })
    }
    there.value = next
    if (!known && l.scheme !== null) tellSoon() // who comes sees who is there
  }

  function tell(leaves = false) {
    if (!workspace.id || !workspace.scheme) return
    const parts = [...new Set(workspace.selection.map((r) => r.part))].slice(0, MOST_PARTS)
    const scheme = leaves ? null : workspace.scheme.id
    void api.look(workspace.id, { page, scheme, parts }).catch(() => undefined) // said again with the next beat
  }
  function tellSoon() {
    window.clearTimeout(timer)
    timer = window.setTimeout(tell, SOON)
  }
  watch(
    () => [workspace.selection, workspace.scheme?.id],
    () => {
      if (beat) tellSoon()
    },
  )

  function begin() {
    there.value = new Map()
    tell()
    beat = window.setInterval(() => {
      const late = Date.now() - GONE_AFTER
      const isLate = (l: Looking) => (heardAt.get(l.page) ?? 0) < late
      if (all.value.some(isLate)) there.value = new Map([...there.value].filter(([, l]) => !isLate(l)))
      tell()
    }, BEAT)
  }

  function end() {
    window.clearInterval(beat)
    beat = 0
    tell(true)
    there.value = new Map()
  }

  /** Where somebody is, in words. */
  function says(l: Looking): string {
    const scheme = workspace.schemes.find((s) => s.id === l.scheme)
    const first = workspace.scene?.parts[l.parts[0] ?? -1]?.name
    const more = l.parts.length > 1 ? ` and ${l.parts.length - 1} more` : ''
    const who = l.name === session.account?.displayName ? `${l.name} on another page` : l.name
    return `${who} · scheme ${scheme?.letter ?? '?'}${first ? ` · has selected ${first}${more}` : ''}`
  }

  return { all, selections, hear, begin, end, says }
})
