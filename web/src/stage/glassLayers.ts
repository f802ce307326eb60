import {
  BackSide,
  Box3,
  HalfFloatType,
  LinearMipmapLinearFilter,
  MeshPhysicalMaterial,
  PerspectiveCamera,
  Scene,
  ShaderChunk,
  Vector2,
  WebGLRenderTarget,
  WebGLRenderer,
  type IUniform,
} from 'three'
import type { PartMesh } from './batches'

/** The two stand-ins of a clear material on an enclosing body. */
interface StandIns {
  of: MeshPhysicalMaterial
  version: number
  far: MeshPhysicalMaterial
  near: MeshPhysicalMaterial
}

/**
 * Lets clear bodies show through clear bodies that hold them: oil through its glass. The renderer by itself shows only
 * opaque things through glass. So a frame with held bodies takes two passes: first everything, with the holding bodies
 * reduced to their far walls, into a picture of its own; then the real frame, in which the near walls of the holding
 * bodies bend that picture. A body counts as held when its box lies within another clear body's box.
 */
export class GlassLayers {
  private readonly behind = new WebGLRenderTarget(1, 1, {
    type: HalfFloatType,
    generateMipmaps: true,
    minFilter: LinearMipmapLinearFilter,
  })
  private readonly behindMap: IUniform = { value: this.behind.texture }
  private readonly standIns = new Map<MeshPhysicalMaterial, StandIns>()
  private holding: PartMesh[] = []

  /** Works out which bodies hold others. Called when materials or the model change. */
  arrange(parts: PartMesh[]): void {
    const clear = parts.filter((m) => m?.visible && m.material.some((x) => x?.transmission > 0))
    const boxes = clear.map((m) => new Box3().setFromObject(m))
    this.holding = clear.filter((_, i) => boxes.some((b, k) => k !== i && boxes[i]?.containsBox(b)))
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
    this.behind.setSize(size.x, size.y)
    const own = this.holding.map((m) => m.material)
    this.wear(own, (s) => s.far)
    renderer.setRenderTarget(this.behind)
    renderer.render(scene, camera)
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
        const chunk = ShaderChunk.transmission_pars_fragment.replaceAll('transmissionSamplerMap', 'behindMap')
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
