import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import {
  api,
  type Colour,
  type Facet,
  type FacetValues,
  type Material,
  type Measure,
  type Order,
} from '../api/client'
import { useWorkspace } from './workspace'

/** How long after the last letter the library is asked, in ms. */
const PAUSE = 120
/** Drawers whose chips are known without asking the library. */
const HERE = ['palette', 'recent', 'arrived', 'supplier']
/** The most that are laid side by side. */
export const ABREAST = 6

/** How a drawer of a library, or all of it, is named among the tray's drawers. */
export function drawerName(library: string, drawer: string | null): string {
  return `in:${library}:${drawer ?? ''}`
}
/** Library and drawer that it names; none for those of what ships. */
export function placeOf(name: string): [library: string | null, drawer: string | null] {
  const [, library, drawer] = /^in:([^:]*):(.*)$/.exec(name) ?? []
  return [library || null, drawer || null]
}

/** What is on the tray: which drawer is open, what is sought, and what was found of it. */
export const useFinding = defineStore('finding', () => {
  const workspace = useWorkspace()
  const open = ref(false)
  /** The library that is looked after instead of finding something; null for none. */
  const desk = ref<string | null>(null)
  const drawer = ref('palette')
  const words = ref('')
  const wanted = ref<Partial<Record<Facet, string[]>>>({})
  const order = ref<Order | null>(null)
  const like = shallowRef<Material | null>(null)
  const near = shallowRef<Material | null>(null)

  const found = shallowRef<Material[]>([])
  const total = ref(0)
  const facets = shallowRef<FacetValues[]>([])
  const told = ref('')
  const failed = ref('')
  let asked = 0
  let waiting = 0

  const recent = shallowRef<Material[]>([])
  watch(
    () => workspace.state?.version,
    async (version) => {
      if (version === undefined) return
      try {
        recent.value = await api.recent()
        workspace.know(recent.value)
      } catch {
        // they stay as they were
      }
    },
    { immediate: true },
  )

  const palette = computed(() => (workspace.state?.palette ?? []).map((u) => u.material))
  const arrived = computed(() => (workspace.state?.arrived ?? []).map((u) => u.material))
  const narrowed = computed(() => Object.values(wanted.value).some((v) => v.length > 0))
  /** Whether what lies on the tray comes from the library rather than from the project. */
  const fromLibrary = computed(
    () =>
      words.value.trim() !== '' ||
      narrowed.value ||
      order.value !== null ||
      like.value !== null ||
      near.value !== null ||
      !HERE.includes(drawer.value),
  )

  /** The project's own that the words name come first. */
  const own = computed(() => {
    const parts = words.value.toLowerCase().split(/\s+/).filter(Boolean)
    if (parts.length === 0) return []
    const text = (m: Material) => `${m.code} ${m.name} ${m.kind ?? ''} ${m.finish}`.toLowerCase()
    return [...palette.value, ...arrived.value].filter((m) => parts.every((w) => text(m).includes(w)))
  })
  const chips = computed<Material[]>(() => {
    if (fromLibrary.value) {
      const first = new Set(own.value.map((m) => m.id))
      return [...own.value, ...found.value.filter((m) => !first.has(m.id))]
    }
    if (drawer.value === 'recent') return recent.value
    return drawer.value === 'arrived' ? arrived.value : palette.value
  })

  async function ask(from: number) {
    const number = ++asked
    const everywhere = [...HERE, 'all'].includes(drawer.value) || words.value.trim() !== ''
    const [library, within] = placeOf(drawer.value)
    try {
      const answer = await api.find(workspace.id, {
        place: everywhere ? null : { library, drawer: within },
        words: words.value,
        wanted: everywhere || library ? wanted.value : { ...wanted.value, KIND: [drawer.value] },
        order: order.value,
        near: near.value ? near.value.colour.linear : null,
        like: like.value?.id ?? null,
        from,
      })
      if (number !== asked) return
      found.value = from === 0 ? answer.materials : [...found.value, ...answer.materials]
      total.value = answer.total
      facets.value = answer.facets
      told.value = answer.told ?? ''
      failed.value = ''
      workspace.know(answer.materials)
    } catch {
      if (number === asked) failed.value = 'The library can’t be asked. What is shown may be old.'
    }
  }

  watch([drawer, words, wanted, order, like, near, fromLibrary], () => {
    window.clearTimeout(waiting)
    if (fromLibrary.value) waiting = window.setTimeout(() => void ask(0), PAUSE)
    else told.value = ''
  })

  /** Looks again after a library has changed. */
  function again() {
    if (fromLibrary.value) void ask(0)
  }

  /** The next page, where there is one. */
  function more() {
    if (fromLibrary.value && found.value.length < total.value) void ask(found.value.length)
  }

  function want(facet: Facet, value: string) {
    const now = wanted.value[facet] ?? []
    wanted.value = {
      ...wanted.value,
      [facet]: now.includes(value) ? now.filter((v) => v !== value) : [...now, value],
    }
  }
  /** Everything but the drawer. */
  function clear() {
    wanted.value = {}
    words.value = ''
    order.value = null
    like.value = null
    near.value = null
  }

  const measures = shallowRef(new Map<string, Measure>())
  /** What is measured of a material; kept by what it shows. Where it is used is only known anew. */
  async function measure(m: Material, anew = false): Promise<Measure | null> {
    const known = measures.value.get(m.chip)
    if (known && !anew) return known
    try {
      const one = await api.measure(workspace.id, m.id)
      measures.value = new Map(measures.value).set(m.chip, one)
      return one
    } catch {
      return known ?? null
    }
  }

  /** What has been asked to be measured, so that it is asked for once. */
  const measured = new Set<string>()
  /** The colour that a stored material is seen in, with its pictures; its own alone until that is measured. */
  function seen(m: Material): Colour {
    const known = measures.value.get(m.chip)
    const pictured = m.textures.some((t) => t.parameter === m.colourParameter)
    if (!known && pictured && !measured.has(m.chip)) {
      measured.add(m.chip)
      void measure(m)
    }
    return known?.colour ?? m.colour
  }

  /** Materials laid side by side. */
  const compared = ref<string[]>([])
  const comparing = ref(false)
  /** What belongs to one project stays there. */
  watch(
    () => workspace.id,
    () => {
      measures.value = new Map()
      measured.clear()
      compared.value = []
      comparing.value = false
      desk.value = null
      open.value = false
      words.value = ''
      wanted.value = {}
      like.value = null
      near.value = null
      drawer.value = workspace.id && !workspace.state?.palette.length ? 'all' : 'palette'
    },
  )
  function compare(id: string) {
    const without = compared.value.filter((c) => c !== id)
    if (without.length < compared.value.length) compared.value = without
    else if (without.length < ABREAST) compared.value = [...without, id]
    else workspace.tell(`${ABREAST} lie side by side already. Take one off first.`)
    if (compared.value.length < 2) comparing.value = false
  }

  return {
    desk,
    again,
    open,
    drawer,
    words,
    wanted,
    order,
    like,
    near,
    total,
    facets,
    told,
    failed,
    palette,
    recent,
    arrived,
    narrowed,
    fromLibrary,
    chips,
    found,
    more,
    want,
    clear,
    measures,
    measure,
    seen,
    compared,
    comparing,
    compare,
  }
})
