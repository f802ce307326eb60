import {
  BackSide,
  Box2,
  Box3,
  type Camera,
  HalfFloatType,
  LinearMipmapLinearFilter,
  MeshPhysicalMaterial,
  PerspectiveCamera,
  Scene,
  ShaderChunk,
  Vector2,
  Vector3,
  Vector4,
  WebGLRenderTarget,
  WebGLRenderer,
  type IUniform,
} from 'three'
import type { PartMesh } from './batches'

/** Where the renderer reads what is behind. */
const WHERE = 'fragCoord.xy, lod'

/** How far a held body keeps off the sides of what holds it, as a share of that one's size. */
const OFF = 1e-4

/** How much around the holding bodies is drawn behind them, as a share of their size, and in which steps, in pixels. */
const ROOM = 0.2
const STEP = 128

/** The two stand-ins of a clear material on an enclosing body. */
interface StandIns {
  of: MeshPhysicalMaterial
  version: number
  far: MeshPhysicalMaterial
  near: MeshPhysicalMaterial
}

/**
 * Whether a body in one box holds that in another: liquid in a vessel, which may stand up to its brim, but not a pane in the
 * place of another, nor one of two that lie in a row.
 */
export function holds(outer: Box3, inner: Box3): boolean {
  const least = OFF * outer.getSize(new Vector3()).length()
  const off = [inner.min.clone().sub(outer.min), outer.max.clone().sub(inner.max)].flatMap((d) => d.toArray())
  return off.every((d) => d > -least) && off.filter((d) => d > least).length >= 5
}

/** A rectangle of a picture, in pixels from its upper left corner. */
export interface Cut {
  x: number
  y: number
  width: number
  height: number
}

/**
 * The part of a picture of a size in which boxes are seen, with some room around it for what is bent into it; of a width and
 * height that seldom change while the camera moves. All of it where a box reaches behind the camera.
 */
export function cutAround(boxes: Box3[], camera: Camera, size: Vector2): Cut {
  const seen = new Box2()
  const corner = new Vector3()
  for (const { min, max } of boxes) {
    for (let i = 0; i < 8; i++) {
      corner.set(i & 1 ? max.x : min.x, i & 2 ? max.y : min.y, i & 4 ? max.z : min.z)
      if (corner.clone().applyMatrix4(camera.matrixWorldInverse).z > -1e-3)
        return { x: 0, y: 0, width: size.x, height: size.y }
      corner.project(camera)
      seen.expandByPoint(new Vector2((0.5 + 0.5 * corner.x) * size.x, (0.5 - 0.5 * corner.y) * size.y))
    }
  }
  const extent = seen.getSize(new Vector2())
  seen.expandByScalar(ROOM * Math.max(extent.x, extent.y))
  const [x, width] = cut(seen.min.x, seen.max.x, size.x)
  const [y, height] = cut(seen.min.y, seen.max.y, size.y)
  return { x, y, width, height }
}

/** Where a stretch begins and how long it is, in whole steps, within so many pixels. */
function cut(from: number, to: number, within: number): [number, number] {
  const length = Math.min(within, STEP * Math.ceil((to - from + 1) / STEP))
  return [Math.round(Math.max(0, Math.min(within - length, (from + to - length) / 2))), length]
}

/**
 * Lets clear bodies show through clear bodies that hold them: oil through its glass. The renderer by itself shows only
 * opaque things through glass. So a frame with held bodies takes two passes: first everything, with the holding bodies
 * reduced to their far walls, into a picture of its own; then the real frame, in which the near walls of the holding
 * bodies bend that picture, which is of no more than there is of them on the screen. A body counts as held when its box lies
 * within another clear body's box, off its sides.
 */
export class GlassLayers {
  private readonly behind = new WebGLRenderTarget(1, 1, {
    type: HalfFloatType,
    generateMipmaps: true,
    minFilter: LinearMipmapLinearFilter,
  })
  private readonly behindMap: IUniform = { value: this.behind.texture }
  /** Where that picture lies on the whole one: its lower left corner and its size, as shares. */
  private readonly behindPlace: IUniform<Vector4> = { value: new Vector4() }
  private readonly cutCamera = new PerspectiveCamera()
  private readonly standIns = new Map<MeshPhysicalMaterial, StandIns>()
  private holding: PartMesh[] = []

  /** Works out which bodies hold others. Called when materials or the model change. */
  arrange(parts: PartMesh[]): void {
    const clear = parts.filter((m) => m?.visible && m.material.some((x) => x?.transmission > 0))
    const boxes = clear.map((m) => new Box3().setFromObject(m))
    this.holding = clear.filter((_, i) => boxes.some((b, k) => k !== i && !!boxes[i] && holds(boxes[i], b)))
    const used = new Set(this.holding.flatMap((m) => m.material))
    for (const [material, s] of this.standIns) {
      if (used.has(material)) continue
      s.far.dispose()
      s.near.dispose()
      this.standIns.delete(material)
    }
  }

  render(renderer: WebGLRenderer, scene: Scene, camera: PerspectiveCamera): void {
    if (this.holding.length === 0) {
      renderer.render(scene, camera)
      return
    }
    const size = renderer.getDrawingBufferSize(new Vector2())
    const boxes = this.holding.map((m) => new Box3().setFromObject(m)) // they may be on the move
    const { x, y, width, height } = cutAround(boxes, camera, size)
    this.behind.setSize(width, height)
    this.behindPlace.value.set(x / size.x, 1 - (y + height) / size.y, width / size.x, height / size.y)
    this.cutCamera.copy(camera, false)
    this.cutCamera.setViewOffset(size.x, size.y, x, y, width, height)
    const own = this.holding.map((m) => m.material)
    this.wear(own, (s) => s.far)
    renderer.setRenderTarget(this.behind)
    renderer.render(scene, this.cutCamera)
    renderer.setRenderTarget(null)
    this.wear(own, (s) => s.near)
    renderer.render(scene, camera)
    this.holding.forEach((mesh, i) => (mesh.material = own[i] ?? []))
  }

  private wear(own: MeshPhysicalMaterial[][], choose: (s: StandIns) => MeshPhysicalMaterial): void {
    this.holding.forEach((mesh, i) => {
      mesh.material = (own[i] ?? []).map((m) => (m.transmission > 0 ? choose(this.standInsOf(m)) : m))
    })
  }

  private standInsOf(material: MeshPhysicalMaterial): StandIns {
    let s = this.standIns.get(material)
    if (!s) {
      s = { of: material, version: -1, far: new MeshPhysicalMaterial(), near: new MeshPhysicalMaterial() }
      s.far.onBeforeCompile = (shader, renderer) => material.onBeforeCompile(shader, renderer)
      s.near.onBeforeCompile = (shader, renderer) => {
        material.onBeforeCompile(shader, renderer)
        shader.uniforms['behindMap'] = this.behindMap
        shader.uniforms['behindPlace'] = this.behindPlace
        const chunk = ShaderChunk.transmission_pars_fragment
          .replace(WHERE, '( fragCoord.xy - behindPlace.xy ) / behindPlace.zw, lod')
          .replace('uniform vec2', 'uniform vec4 behindPlace;\nuniform vec2')
          .replaceAll('transmissionSamplerMap', 'behindMap')
        shader.fragmentShader = shader.fragmentShader.replace('#include <transmission_pars_fragment>', chunk)
      }
      s.near.customProgramCacheKey = () => `near wall ${material.customProgramCacheKey()}`
      s.far.customProgramCacheKey = () => material.customProgramCacheKey()
      this.standIns.set(material, s)
    }
    if (s.version !== material.version) {
      s.version = material.version
      s.far.copy(material)
      s.far.side = BackSide
      s.near.copy(material)
      s.far.needsUpdate = true
      s.near.needsUpdate = true
    }
    return s
  }

  dispose(): void {
    this.behind.dispose()
    for (const s of this.standIns.values()) {
      s.far.dispose()
      s.near.dispose()
    }
  }
}
