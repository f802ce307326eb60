import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api } from '../api/client'
import type { FaceMode, FaceTool } from '../stage/faceTool'
import { stageHandle } from './stageHandle'
import { useWorkspace } from './workspace'

/** The brush is this share of a part's size at first. */
const BRUSH = 0.06

/** A face that is being cut into a part: which triangles have been picked, and how. */
export const useOwnFace = defineStore('ownFace', () => {
  const workspace = useWorkspace()
  const part = ref<number | null>(null)
  const mode = ref<FaceMode>('paint')
  /** Of the brush, in metres. */
  const radius = ref(0)
  const triangles = shallowRef<Set<number>>(new Set())
  /** Corners that the way goes through; the first two places are one where it is closed. */
  const corners = shallowRef<number[]>([])
  const closed = ref(false)
  const way = shallowRef<Awaited<ReturnType<typeof api.edgeWay>> | null>(null)
  /** Which of the pieces that a loop parts is meant. */
  const piece = ref(0)
  let mesh = ''
  const tool = shallowRef<FaceTool | null>(null)
  const sentence = computed(() => way.value?.sentence ?? '')

  async function begin(of: number) {
    const p = workspace.scene?.parts[of]
    if (!p) return
    workspace.applying = false
    mesh = p.plainMesh ?? p.mesh
    clear()
    radius.value = Number((Math.hypot(...p.size) * BRUSH).toPrecision(1))
    part.value = of
    try {
      tool.value = (await stageHandle.value?.beginFace(of, mesh, { painted, corner })) ?? null
    } catch (e) {
      workspace.report(e)
    }
    if (tool.value && part.value === of) tune()
    else end()
  }
  function end() {
    part.value = null
    tool.value = null
    stageHandle.value?.endFace()
  }
  function clear() {
    triangles.value = new Set()
    corners.value = []
    closed.value = false
    way.value = null
    piece.value = 0
  }
  function tune() {
    if (!tool.value) return
    tool.value.mode = mode.value
    tool.value.radius = radius.value
    show()
  }
  function show() {
    tool.value?.show(triangles.value, corners.value, way.value?.points ?? [])
    stageHandle.value?.invalidate()
  }
  watch([mode, radius], tune)
  watch(mode, () => {
    corners.value = []
    way.value = null
    show()
  })
  watch(
    () => [workspace.step, workspace.id, workspace.selection] as const,
    () => {
      const still = workspace.step === 'assign' && workspace.selection.some((r) => r.part === part.value)
      if (part.value !== null && !still) end()
    },
  )

  function painted(some: number[], added: boolean) {
    const next = new Set(triangles.value)
    for (const t of some)
      if (added) next.add(t)
      else next.delete(t)
    triangles.value = next
    show()
  }
  function corner(vertex: number) {
    const first = corners.value[0]
    if (closed.value) clear()
    else if (first !== undefined && corners.value.length > 2 && isSame(vertex, first)) return void close()
    corners.value = [...corners.value, vertex]
    void go(false)
  }
  function isSame(a: number, b: number): boolean {
    const of = tool.value
    return of !== null && of.place(a).equals(of.place(b))
  }
  async function close() {
    closed.value = true
    await go(true)
    take(0)
  }
  /** Takes the last corner back. */
  function back() {
    corners.value = closed.value ? corners.value : corners.value.slice(0, -1)
    closed.value = false
    triangles.value = new Set()
    if (corners.value.length > 0) void go(false)
    else clear()
    show()
  }
  async function go(round: boolean) {
    const asked = corners.value
    if (part.value === null) return
    try {
      const found = await api.edgeWay(workspace.id, { part: part.value, mesh, corners: asked, closed: round })
      if (corners.value !== asked) return
      way.value = found
    } catch (e) {
      workspace.report(e)
    }
    show()
  }
  function take(index: number) {
    const pieces = way.value?.pieces ?? []
    piece.value = index
    triangles.value = new Set(pieces.length > 1 ? pieces[index]?.triangles : [])
    show()
  }

  async function cut(name: string) {
    const of = part.value
    if (of === null) return
    const wanted = { part: of, mesh, triangles: [...triangles.value].sort((a, b) => a - b), name }
    if (!(await workspace.run((v) => api.cutFace(workspace.id, v, wanted)))) return
    end()
    await workspace.reread()
    const made = Math.max(-1, ...(workspace.scene?.ownFaces.map((f) => f.index) ?? []))
    const span = workspace.scene?.parts[of]?.ownFaces.indexOf(made) ?? -1
    if (span >= 0) workspace.select([{ part: of, span }])
    workspace.tell(`${name} is a face of its own now: what it is given at the level “face” is on it alone`)
  }

  return {
    part,
    mode,
    radius,
    triangles,
    corners,
    closed,
    way,
    piece,
    sentence,
    begin,
    end,
    clear,
    close,
    back,
    take,
    cut,
  }
})
