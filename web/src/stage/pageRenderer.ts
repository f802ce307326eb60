import { WebGLRenderer, type WebGLProgram } from 'three'

/** More compiled programs than this are let go of with the renderer that holds them. */
const MOST_PROGRAMS = 150

let kept: WebGLRenderer | null = null
/** Programs that are held beyond the materials that they were compiled for. */
const held = new WeakSet<WebGLProgram>()

/** The page's renderer. One serves all projects that are opened in a page: what it has compiled need not be compiled again. */
export function takeRenderer(): WebGLRenderer {
  const renderer = kept
  kept = null
  if (renderer && !renderer.getContext().isContextLost()) return renderer
  return new WebGLRenderer({ antialias: true, powerPreference: 'high-performance' })
}

/** Keeps the renderer for whoever opens a project next; call it before the materials are disposed of. */
export function holdPrograms(renderer: WebGLRenderer): void {
  for (const program of renderer.info.programs ?? []) {
    if (held.has(program)) continue
    held.add(program)
    program.usedTimes++
  }
}

/** Gives the renderer back, with nothing of a stage's on it. */
export function giveBack(renderer: WebGLRenderer): void {
  renderer.domElement.remove()
  renderer.setRenderTarget(null)
  renderer.renderLists.dispose()
  const crowded = (renderer.info.programs?.length ?? 0) > MOST_PROGRAMS
  if (kept || crowded || renderer.getContext().isContextLost()) renderer.dispose()
  else kept = renderer
}
