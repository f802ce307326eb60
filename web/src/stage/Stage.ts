import {
  BackSide,
  Box3,
  DoubleSide,
  FrontSide,
  Matrix4,
  Mesh,
  MeshPhysicalMaterial,
  NeutralToneMapping,
  Object3D,
  PerspectiveCamera,
  Raycaster,
  Scene as ThreeScene,
  Vector2,
  Vector3,
  WebGLRenderer,
  type BufferGeometry,
  type DataTexture,
  type Intersection,
  type Side,
} from 'three'
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'
import { acceleratedRaycast } from 'three-mesh-bvh'
import type { Look, Physical, ProjectState, Scene } from '../api/client'
import { PartAges, type AgeingNews, type AgeLoader } from './ageing'
import { atMost } from './atMost'
import { Batches, type PartMesh } from './batches'
import { PlaceHandles, Pull, type Pulled } from './placeHandles'
import { copiesOf } from './copies'
import { GlassLayers } from './glassLayers'
import { GroundShadow } from './groundShadow'
import { haze } from './haze'
import { Outline } from './outline'
import { readGeometry } from './geometry'
import { LeafCover, type LeafLoader } from './leaves'
import { giveBack, holdPrograms, takeRenderer } from './pageRenderer'
import { PartShapes, type ShapeLoader } from './shapes'
import { boxOf, firstHit, isBehind } from './picking'
import { FaceTool, type FaceHandlers } from './faceTool'
import { PickedFaces } from './pickedFaces'
import { PlainColours, type Mark } from './plainColours'
import { ScaleFigure } from './scaleFigure'
import { Sides } from './sides'
import { lightBy } from './lampLight'
import { Surfaces, type ImageLoader, type ReliefLoader } from './surfaces'
import { Reflections } from './reflections'
import { backdrop, loadSurroundings, type PartedLoader, type Surroundings } from './surroundings'
import { TwoSided, type OuterLoader } from './twoSided'
import { filling, Viewpoint, type View } from './viewpoint'

Mesh.prototype.raycast = acceleratedRaycast

/** A place on the model: a part and which of its spans. */
export interface Region {
  part: number
  span: number
}

/** A region, which of its part's faces, whether that is seen from behind, and where it is, in metres. */
export interface Place extends Region {
  face: number
  behind: boolean
  point: number[]
}

/** A region that shows something on its front, its back, or both. */
export interface Reached extends Region {
  front: boolean
  back: boolean
}

/** How the stage is lit. Strength is a factor, turn in degrees, exposure in stops. */
export interface Light {
  surroundings: string
  strength: number
  turn: number
  exposure: number
}

interface Events {
  /** The stage is looked at from elsewhere, or has another size. */
  moved: () => void
  /** Something is tried or pointed out for the moment, or no more. */
  passing: (is: boolean) => void
  pick: (place: Place | null, event: PointerEvent) => void
  /** A place was clicked twice. */
  twice: (place: Place) => void
  drawn: (revision: number) => void
  /** How far it has come that parts' ages are worked out. */
  ageing: (news: AgeingNews) => void
  /** Something could not be fetched. */
  problem: (e: unknown) => void
  /** How many leaves a region has now. */
  leaves: (count: (r: Region) => number) => void
  /** A model is being pulled somewhere; or was, at the end; or, null, stands where it stood. */
  pull: (pulled: Pulled | null, ended: boolean) => void
}

/** Where geometry and images come from, by SHA-256. */
export interface AssetLoader {
  mesh: (sha256: string) => Promise<ArrayBuffer>
  image: ImageLoader
  relief: ReliefLoader
  surroundings: PartedLoader
  ageing: AgeLoader
  leaves: LeafLoader
  shape: ShapeLoader
  outer: OuterLoader
}

/** Names of what draws by the processor alone. */
const SOFTWARE = /swiftshader|llvmpipe|softpipe|software|basic render/i

function drawsInSoftware(renderer: WebGLRenderer): boolean {
  const gl = renderer.getContext()
  const names = gl.getExtension('WEBGL_debug_renderer_info')
  return SOFTWARE.test(String(gl.getParameter(names ? names.UNMASKED_RENDERER_WEBGL : gl.RENDERER)))
}

/** What one side of a region shows. */
interface Shown {
  physical: Physical
  mapping: string
  painted: boolean
}

/** What a region shows until the next looks or the end of the trial; null for what it shows otherwise. */
interface Trial {
  front: Shown | null
  back: Shown | null
}

/** The greys of the backdrop at the edges of the picture. */
export const BACKDROP_TOP = 0.6 + 0.04 // scene-linear; the tone curve takes 0.04 off, leaving about L* 82
export const BACKDROP_BOTTOM = 0.52 + 0.04
const FEW_PARTS = 200 // so many are drawn one by one, nearest first, which shades the fewest pixels
const CLICK_SLOP = 4
const MESHES_AT_ONCE = 16
/** How much around a place is shown with it, as a share of the model. */
const AROUND = 0.02
/** Surroundings that reach so many times farther than the design have no shadow on the ground. */
const WITHIN = 3
const MARGIN = 0.05 // of the view that stays free around what fills it
const BAR = 58 // pixels at the bottom that the stage's buttons take
const SLOW = 120 // ms that a frame takes to be finished
const IDLE = 250 // ms without movement after which the picture is drawn in full

/**
 * The 3D view. Fed with plain data, it draws only when something has changed and says so by counting up `data-submitted`
 * when a frame is with the graphics card, and `data-drawn` when that has finished it, on
 * its element; `data-busy` stands there while geometry or textures are still on their way.
 */
export class Stage {
  private readonly renderer: WebGLRenderer
  private readonly scene = new ThreeScene()
  private readonly model = new Object3D()
  private readonly camera = new PerspectiveCamera(32, 1, 0.01, 100)
  private readonly controls: OrbitControls
  private readonly viewpoint: Viewpoint
  private readonly outline = new Outline()
  private readonly shadow = new GroundShadow()
  private readonly glass = new GlassLayers()
  private readonly surfaces: Surfaces
  private readonly reflections: Reflections
  private readonly ages: PartAges
  private readonly leaves: LeafCover
  private readonly shapes: PartShapes
  private readonly sides = new Sides()
  private showingSides = false
  private readonly plain = new PlainColours()
  private colours: (string | (string | Mark)[])[] | null = null
  private readonly haze = haze()
  private readonly figure = new ScaleFigure()
  private readonly picked = new PickedFaces()
  private faceTool: FaceTool | null = null
  private readonly handles = new PlaceHandles()
  private readonly sided: TwoSided
  private readonly geometries = new Map<string, Promise<BufferGeometry>>()
  /** Parts that are not seen, that can't be picked, that belong to the surroundings, and on which all else stands. */
  private hidden = new Set<number>()
  private locked = new Set<number>()
  private aside = new Set<number>()
  private floor = new Set<number>()
  /** Parts that one sees through from outside: always, and in this view. */
  private into = new Set<number>()
  private also = new Set<number>()
  /** The surroundings, before they are turned. */
  private around: Surroundings | null = null
  /** The parts that the handles move, and the pull that does. */
  private placed = new Map<PartMesh, Matrix4>()
  private foot = new Vector3()
  private grabbed = new Vector3()
  private pull: Pull | null = null
  private lit = new Map<number, Set<number>>()
  private readonly parts: PartMesh[] = []
  private readonly boxes: Box3[] = []
  private readonly batches = new Batches()
  private readonly elsewhere = new MeshPhysicalMaterial({ visible: false, side: DoubleSide })
  private readonly raycaster = new Raycaster()
  private readonly handlers: { [K in keyof Events]?: Events[K] } = {}
  private readonly observer: ResizeObserver
  private looks: Look[] = []
  private regions: ProjectState['regions'] = []
  private trials = new Map<string, Trial>()
  private selection: number[] = []
  private selectedSpans = new Map<number, Set<number>>()
  private selectionVisible = true
  /** Nothing but the picture is drawn. */
  private bare = false
  private elsewhereSelected: { parts: number[]; colour: string }[] = []
  private isolated: Set<number> | null = null
  private light: Light = { surroundings: '', strength: 1, turn: 0, exposure: 0 }
  private loading = 0
  private ageing = false
  private requested = false
  private revision = 0
  private down = new Vector2()
  private readonly mesh: AssetLoader['mesh']
  private disposed = false
  private readonly ended = new AbortController()
  private moving = 0
  private slow = false
  private readonly parted: PartedLoader
  /** Whether the processor draws in the place of a graphics card. */
  private readonly software: boolean
  /** The graphics card is at a frame. */
  private drawing = false
  /** Something has changed since that frame was begun. */
  private outdated = false

  constructor(
    private readonly element: HTMLElement,
    assets: AssetLoader,
  ) {
    this.mesh = atMost(MESHES_AT_ONCE, assets.mesh)
    this.parted = assets.surroundings
    this.renderer = takeRenderer()
    this.software = drawsInSoftware(this.renderer)
    this.renderer.toneMapping = NeutralToneMapping
    this.renderer.setPixelRatio(Math.min(window.devicePixelRatio, 2))
    this.renderer.domElement.tabIndex = 0
    this.renderer.domElement.setAttribute('role', 'img')
    this.renderer.domElement.setAttribute('aria-label', 'The model')
    element.appendChild(this.renderer.domElement)
    this.reflections = new Reflections(
      this.renderer,
      assets.image,
      (change) => {
        this.busy(change)
        this.invalidate()
      },
      (e) => this.handlers.problem?.(e),
    )
    this.surfaces = new Surfaces(
      assets.image,
      (whole) => (whole ? this.applySoon() : this.invalidate()),
      (e) => this.handlers.problem?.(e),
      this.reflections,
      assets.relief,
    )
    this.ages = new PartAges(
      assets.ageing,
      (part, corrodes) => this.wears(part, corrodes),
      () => this.applyLooks(),
      (news) => this.tellAges(news),
      (e) => this.handlers.problem?.(e),
    )
    this.shapes = new PartShapes(
      assets.shape,
      (change) => this.busy(change),
      () => this.applyLooks(),
      (e) => this.handlers.problem?.(e),
    )
    this.leaves = new LeafCover(
      assets.leaves,
      (change) => this.busy(change),
      () => {
        this.handlers.leaves?.((r) => this.leaves.count(r.part, r.span))
        this.invalidate()
      },
      (e) => this.handlers.problem?.(e),
    )
    this.sided = new TwoSided(
      assets.outer,
      (change) => this.busy(change),
      () => this.applyLooks(),
      (e) => this.handlers.problem?.(e),
    )
    this.scene.background = backdrop(BACKDROP_TOP, BACKDROP_BOTTOM)
    this.model.add(this.batches.root, this.leaves.root, this.sided.root)
    this.scene.add(this.model, this.shadow.plane, this.figure.root)
    this.raycaster.firstHitOnly = true
    this.controls = new OrbitControls(this.camera, this.renderer.domElement)
    this.controls.zoomToCursor = true
    this.controls.enableDamping = false
    this.controls.addEventListener('change', () => {
      this.viewpoint.tune()
      this.keepMoving()
      this.handlers.moved?.()
    })
    this.viewpoint = new Viewpoint(this.camera, this.controls, element)
    this.listen()
    this.observer = new ResizeObserver(() => this.resize())
    this.observer.observe(element)
    this.resize()
  }

  on<K extends keyof Events>(event: K, handler: Events[K]): void {
    this.handlers[event] = handler
  }

  /**
   * Shows a model, each part in its place; or other triangles of the model that is shown, from where it is looked at.
   * Resolves when all geometry has arrived.
   */
  async show(scene: Scene): Promise<void> {
    this.busy(1)
    try {
      const parts = await this.fetchParts(scene)
      if (!this.disposed) this.exchange(parts, scene)
    } finally {
      this.busy(-1)
    }
  }

  private async fetchParts(scene: Scene): Promise<PartMesh[]> {
    const { geometries } = this
    for (const part of scene.parts) {
      if (geometries.has(part.mesh)) continue
      const coming = this.mesh(part.mesh).then(readGeometry)
      coming.catch(() => geometries.delete(part.mesh))
      geometries.set(part.mesh, coming)
    }
    return Promise.all(
      scene.parts.map(async (part) => {
        const geometry = await geometries.get(part.mesh)
        const mesh: PartMesh = new Mesh<BufferGeometry, MeshPhysicalMaterial[]>(geometry, [])
        mesh.matrixAutoUpdate = false
        mesh.matrix.copy(new Matrix4().fromArray(part.world))
        mesh.matrixWorld.copy(mesh.matrix)
        mesh.userData['part'] = part.index
        return mesh
      }),
    )
  }

  /** Puts parts in the place of those that are shown, if there are any. */
  private exchange(parts: PartMesh[], scene: Scene): void {
    const before = this.parts.splice(0, this.parts.length, ...parts)
    this.boxes.splice(0, this.boxes.length, ...parts.map(boxOf))
    for (const mesh of before) {
      this.model.remove(mesh)
      if (mesh?.geometry.hasAttribute('ageUv') || mesh?.userData['shaped']) mesh.geometry.dispose()
    }
    this.forgetGeometries(scene)
    this.ages.forget()
    this.leaves.forget()
    this.shapes.forget()
    this.sort(scene)
    const [x0 = 0, y0 = 0, z0 = 0, x1 = 0, y1 = 0, z1 = 0] = scene.bounds
    const centre = new Vector3(x0 + x1, y0 + y1, z0 + z1).multiplyScalar(0.5)
    if (!this.isFew) this.batches.lay(this.parts, centre, new Vector3(x1 - x0, y1 - y0, z1 - z0).length() / 2)
    this.applyLooks()
    this.isolate(this.isolated ? [...this.isolated] : null)
    if (before.length === 0) this.frame()
  }

  /** Takes in which models are hidden, locked or surroundings; shapes and places are as they were. */
  arrange(scene: Scene): void {
    this.sort(scene)
    this.applyLooks()
    this.isolate(this.isolated ? [...this.isolated] : null)
  }

  private sort(scene: Scene): void {
    const models = new Map(scene.models.map((m) => [m.index, m]))
    const those = (which: (m: Scene['models'][number]) => boolean) =>
      new Set(
        scene.parts.flatMap((p) => {
          const model = models.get(p.model)
          return model && which(model) ? [p.index] : []
        }),
      )
    this.hidden = those((m) => m.hidden)
    this.locked = those((m) => m.locked)
    this.aside = those((m) => m.belonging === 'SURROUNDINGS')
    this.floor = those((m) => m.floor)
    this.into = new Set(scene.parts.filter((p) => p.lookedInto).map((p) => p.index))
    this.sided.look(new Set([...this.into, ...this.also]))
    for (const mesh of this.parts) mesh.renderOrder = this.floor.has(mesh.userData['part']) ? -2 : 0
  }

  /** Lets go of geometry that no part shows any more. */
  private forgetGeometries(scene: Scene): void {
    const shown = new Set(scene.parts.map((p) => p.mesh))
    for (const [sha256, geometry] of this.geometries) {
      if (shown.has(sha256)) continue
      this.geometries.delete(sha256)
      void geometry.then((g) => g.dispose())
    }
  }

  /** The shadow that lies on the ground is of all that stands on it. */
  private layShadow(): void {
    const floor = this.parts.filter((m) => this.floor.has(m.userData['part']) && m.visible)
    for (const mesh of floor) mesh.visible = false
    this.model.updateMatrixWorld(true)
    const design = this.bounds()
    const all = design.clone()
    for (const mesh of this.parts) if (mesh.visible) all.union(boxOf(mesh))
    const near = all.getSize(new Vector3()).length() < WITHIN * design.getSize(new Vector3()).length()
    this.shadow.update(this.renderer, this.model, near ? all : design)
    for (const mesh of floor) mesh.visible = true
    this.shadow.plane.visible = !this.isolated
  }

  /**
   * Shows handles by which some parts, a model, are moved; none to hide them.
   *
   * @param foot   where it stands, in metres
   * @param inView whether the camera moves where they would be out of sight
   * @returns whether all of the parts are on the stage already
   */
  showHandles(parts: number[], foot: number[], inView: boolean): boolean {
    this.placed = new Map()
    this.handles.hide()
    const meshes = parts.map((p) => this.parts[p]).filter((m): m is PartMesh => !!m)
    if (meshes.length > 0) {
      const [x = 0, y = 0, z = 0] = foot
      this.foot.set(x, y, z)
      for (const mesh of meshes) this.placed.set(mesh, mesh.matrix.clone())
      const box = this.layHandles()
      if (inView && !this.isInView(box)) {
        const towards = this.camera.position.clone().sub(this.controls.target).normalize()
        this.fill(box.union(this.bounds()), towards, 0)
      }
    }
    this.place()
    this.invalidate()
    return meshes.length === parts.length
  }

  private isInView(box: Box3): boolean {
    const { min, max } = box
    this.camera.updateMatrixWorld()
    return [min.x, max.x].every((x) =>
      [min.y, max.y].every((y) =>
        [min.z, max.z].every((z) => {
          const p = new Vector3(x, y, z).project(this.camera)
          return Math.abs(p.x) < 1 && Math.abs(p.y) < 1
        }),
      ),
    )
  }

  /** Puts the handles around what they move; the box of both. */
  private layHandles(): Box3 {
    const box = this.bounds([...this.placed.keys()].map((m) => m.userData['part'] as number))
    const { x, y, z } = this.foot
    const reach = Math.max(box.max.x - x, x - box.min.x, box.max.z - z, z - box.min.z)
    return this.handles.show(this.foot, Math.max(reach, 1e-3), Math.max(0, box.max.y - y))
  }

  /** Takes hold of a handle, or of the model itself. */
  private grab(e: PointerEvent): boolean {
    if (!this.handles.shown || e.button !== 0) return false
    const rect = this.renderer.domElement.getBoundingClientRect()
    const point = new Vector2(e.clientX - rect.left, e.clientY - rect.top)
    const ray = this.aim(e)
    if (!ray) return false
    const handle = this.handles.at(point, new Vector2(rect.width, rect.height), this.camera)
    const hit = handle ? undefined : firstHit(this.raycaster, this.parts, this.boxes)
    const way = handle ?? (hit && this.placed.has(hit.object) ? 'slide' : null)
    if (!way) return false
    const still = (part: number) => !this.parts[part] || !this.placed.has(this.parts[part])
    this.down.set(e.clientX, e.clientY)
    this.grabbed.copy(this.foot)
    this.pull = new Pull(way, this.foot.clone(), ray, () => {
      const below = firstHit(this.raycaster, this.parts, this.boxes, still)
      return below ? below.point.clone() : null
    })
    return true
  }

  private drag(e: PointerEvent): void {
    const ray = this.aim(e)
    if (!this.pull || !ray) return
    const pulled = this.pull.to(ray, e.shiftKey)
    const by = this.pull.matrix()
    for (const [mesh, start] of this.placed) {
      mesh.matrix.multiplyMatrices(by, start)
      mesh.matrixWorld.copy(mesh.matrix)
    }
    this.foot.copy(pulled.at)
    this.handles.follow(pulled.at, pulled.times)
    this.handlers.pull?.(pulled, false)
    this.keepMoving()
  }

  /** A pull ends, or was none but a click. */
  private letGo(e: PointerEvent): void {
    if (!this.pull) return
    const { pulled } = this.pull
    this.pull = null
    if (this.isClick(e)) {
      this.putBack()
      this.handlers.pick?.(this.at(e.clientX, e.clientY), e)
      return
    }
    for (const mesh of this.placed.keys()) this.placed.set(mesh, mesh.matrix.clone())
    for (const mesh of this.placed.keys()) this.boxes[this.parts.indexOf(mesh)] = boxOf(mesh)
    this.layShadow()
    this.handlers.pull?.(pulled, true)
    this.invalidate()
  }

  /** What was pulled stands where it stood. */
  private putBack(): void {
    for (const [mesh, start] of this.placed) {
      mesh.matrix.copy(start)
      mesh.matrixWorld.copy(start)
    }
    this.foot.copy(this.grabbed)
    this.layHandles()
    this.handlers.pull?.(null, false)
    this.invalidate()
  }

  private isClick(e: PointerEvent): boolean {
    return Math.hypot(e.clientX - this.down.x, e.clientY - this.down.y) <= CLICK_SLOP
  }

  /** Points the ray at what is under the cursor; null outside of the stage. */
  private aim(e: { clientX: number; clientY: number }) {
    const rect = this.renderer.domElement.getBoundingClientRect()
    const x = ((e.clientX - rect.left) / rect.width) * 2 - 1
    const y = 1 - ((e.clientY - rect.top) / rect.height) * 2
    if (Math.abs(x) > 1 || Math.abs(y) > 1) return null
    this.raycaster.setFromCamera(new Vector2(x, y), this.camera)
    return this.raycaster.ray
  }

  /** Shows what core says each region looks like. */
  setLooks(looks: Look[], regions: ProjectState['regions']): void {
    this.looks = looks
    this.regions = regions
    this.trials.clear()
    this.applyLooks()
    this.tellPassing()
  }

  private tellPassing(): void {
    this.handlers.passing?.(this.trials.size > 0 || this.lit.size > 0)
  }

  /** Shows other numbers on some regions until the next `setLooks` or `endTrial`. */
  tryOn(regions: Reached[], physical: Physical, mapping: string): void {
    this.trials.clear()
    const tried = { physical, mapping, painted: false }
    for (const r of regions)
      this.trials.set(`${r.part}/${r.span}`, { front: r.front ? tried : null, back: r.back ? tried : null })
    this.applyLooks()
    this.keepMoving()
    this.tellPassing()
  }

  endTrial(): void {
    if (this.trials.size === 0) return
    this.trials.clear()
    this.applyLooks()
    this.tellPassing()
  }

  private applying = 0
  /** Applies looks with the next picture, once for all that is asked until then. */
  private applySoon(): void {
    this.applying ||= requestAnimationFrame(() => {
      this.applying = 0
      this.applyLooks()
    })
  }

  private applyLooks(): void {
    this.wearShapes()
    const used = new Set<MeshPhysicalMaterial>()
    for (const r of this.regions) {
      const mesh = this.parts[r.part]
      const own = this.shownOf(mesh, r.look)
      if (!own || !mesh) continue
      const ownBack = r.back === null ? own : this.shownOf(mesh, r.back)
      const trial = this.trials.get(`${r.part}/${r.span}`)
      const front = trial?.front ?? own
      const back = trial?.back ?? ownBack
      const [triesFront, triesBack] = [front !== own, back !== ownBack]
      const isTwo = front !== back || this.sided.isLookedInto(mesh)
      for (const kept of trial ? [own, ownBack] : [])
        if (kept) used.add(this.surfaceOf(mesh, kept, DoubleSide))
      const worn = (mesh.userData['worn'] ??= []) as MeshPhysicalMaterial[]
      const behind = (mesh.userData['behind'] ??= []) as (MeshPhysicalMaterial | undefined)[]
      this.wear(worn, r.span, this.surfaceOf(mesh, front, isTwo ? FrontSide : DoubleSide, triesFront), used)
      if (isTwo && back) this.wear(behind, r.span, this.surfaceOf(mesh, back, BackSide, triesBack), used)
      else behind[r.span] = undefined
    }
    this.surfaces.keepOnly(used)
    this.ages.review()
    this.place()
    this.invalidate()
  }

  private shownOf(mesh: PartMesh | undefined, index: number): Shown | null {
    const look = this.looks[index]
    if (!look || !mesh) return null
    const painted = look.from === null && mesh.geometry.hasAttribute('color')
    return { physical: look.physical, mapping: look.mapping, painted }
  }

  private surfaceOf(
    mesh: PartMesh,
    { physical, mapping, painted }: Shown,
    side: Side,
    tried = false,
  ): MeshPhysicalMaterial {
    return this.surfaces.get(physical, mapping, painted, this.fieldsOf(mesh, physical), side, tried)
  }

  /** A span wears what is wanted once its pictures are there, and what it wore until then. */
  private wear(
    worn: (MeshPhysicalMaterial | undefined)[],
    span: number,
    wanted: MeshPhysicalMaterial,
    used: Set<MeshPhysicalMaterial>,
  ): void {
    const before = worn[span]
    const shown = before?.side !== wanted.side || this.surfaces.isWhole(wanted) ? wanted : before
    worn[span] = shown
    used.add(shown)
  }

  /** Has parts take the shapes that their looks ask for; looks that are only tried on leave them as they are. */
  private wearShapes(): void {
    const reliefs = new Map<PartMesh, string>()
    for (const r of this.regions) {
      const look = this.looks[r.look]
      const mesh = this.parts[r.part]
      const shape = look?.physical.beyond.shape
      if (!mesh || !look) continue
      const aged = look.physical.beyond.ageing ? 'aged' : ''
      const known = reliefs.get(mesh) ?? ''
      reliefs.set(mesh, shape ? `${known}${r.span}/${shape}/${look.mapping}${aged} ` : known)
    }
    for (const [mesh, relief] of reliefs) this.shapes.wear(mesh, relief)
  }

  /** How readily a part ages, if what it wears has aged and it is known by now. */
  private fieldsOf(mesh: PartMesh | undefined, physical: Physical): DataTexture | null {
    const { ageing } = physical.beyond
    return mesh && ageing ? this.ages.of(mesh, ageing.corrodes) : null
  }

  /** Whether anything of a part shows a look that ages that way. */
  private wears(part: number, corrodes: boolean): boolean {
    return this.regions.some((r) => {
      if (r.part !== part) return false
      const trial = this.trials.get(`${r.part}/${r.span}`)
      const back = r.back === null ? null : this.looks[r.back]
      return [trial?.front, trial?.back, this.looks[r.look], back].some(
        (l) => l?.physical.beyond.ageing?.corrodes === corrodes,
      )
    })
  }

  /** Keeps the stage busy while parts' ages are on their way, and tells how many. */
  private tellAges(news: AgeingNews): void {
    const comes = news.left > 0 && !news.stopped
    if (comes !== this.ageing) this.busy(comes ? 1 : -1)
    this.ageing = comes
    this.handlers.ageing?.(news)
  }

  /** Leaves parts whose ages are still to come as new, or goes on with them. */
  putOffAges(is: boolean): void {
    if (is) this.ages.stop()
    else this.ages.goOn()
  }

  /** Has leaves grow where looks say so. */
  private grow(): void {
    const grown = this.regions.flatMap((r) => {
      const tried = this.trials.get(`${r.part}/${r.span}`)?.front
      const physical = tried?.physical ?? this.looks[r.look]?.physical
      const foliage = physical?.beyond.leaves
      const mesh = this.parts[r.part]
      return foliage && mesh ? [{ part: r.part, span: r.span, foliage, visible: mesh.visible }] : []
    })
    this.leaves.arrange(grown)
    this.handlers.leaves?.((r) => this.leaves.count(r.part, r.span))
  }

  private get isFew(): boolean {
    return this.parts.length <= FEW_PARTS
  }

  /** Whether a part is drawn by itself, whatever it wears. */
  private isAlone(mesh: PartMesh): boolean {
    return (
      this.isFew ||
      mesh.geometry.hasAttribute('ageUv') ||
      mesh.userData['shaped'] === true ||
      this.placed.has(mesh) ||
      this.floor.has(mesh.userData['part'])
    )
  }

  /** Puts what is clear or see-through on the stage part by part, everything else of a large model into batches. */
  private place(): void {
    const apart = new Set<PartMesh>()
    const worn = new Map<PartMesh, MeshPhysicalMaterial[]>()
    const sided = new Set<PartMesh>()
    for (const mesh of this.parts) {
      if (!mesh?.visible) continue
      const behind = (mesh.userData['behind'] ?? []) as (MeshPhysicalMaterial | undefined)[]
      if (behind.some(Boolean)) {
        sided.add(mesh)
        continue
      }
      worn.set(mesh, mesh.userData['worn'] as MeshPhysicalMaterial[])
      if (this.isAlone(mesh) || worn.get(mesh)?.some(isClear)) apart.add(mesh)
    }
    for (const mesh of this.parts) {
      if (!mesh) continue
      const alone = this.isAlone(mesh)
      const wears = (mesh.userData['worn'] ?? []) as MeshPhysicalMaterial[]
      const itself = (m: MeshPhysicalMaterial) => !sided.has(mesh) && (alone || isClear(m))
      mesh.material = wears.map((m) => (itself(m) ? m : this.elsewhere))
      if (apart.has(mesh)) this.model.add(mesh)
      else if (mesh.parent) mesh.removeFromParent()
    }
    this.batches.wear((part, span) => {
      const mesh = this.parts[part]
      const material = mesh && !this.isAlone(mesh) && worn.get(mesh)?.[span]
      return material && !isClear(material) ? material : null
    })
    this.sided.arrange([...sided])
    this.glass.arrange([...apart])
    this.grow()
  }

  /** Shows what others have selected, each in their colour. */
  setOthers(selections: { parts: number[]; colour: string }[]): void {
    this.elsewhereSelected = selections
    this.invalidate()
  }

  /** @param spans by part, where only some of its spans are meant */
  setSelection(parts: number[], spans = new Map<number, Set<number>>()): void {
    this.selection = parts
    this.selectedSpans = spans
    this.invalidate()
  }

  /** Shows the looks alone, without anything that points out or moves. */
  setBare(bare: boolean): void {
    if (this.bare === bare) return
    this.bare = bare
    this.figure.root.visible = !bare
    this.invalidate()
  }

  /** The outline hides while a slider moves, so that the surface can be judged. */
  setSelectionVisible(visible: boolean): void {
    if (this.selectionVisible === visible) return
    this.selectionVisible = visible
    this.invalidate()
  }

  /** Shows only these parts, or all again for null. */
  isolate(parts: number[] | null): void {
    this.isolated = parts ? new Set(parts) : null
    for (const mesh of this.parts) {
      const part = mesh.userData['part'] as number
      mesh.visible = this.isolated ? this.isolated.has(part) : !this.hidden.has(part)
    }
    this.place()
    if (this.isolated) this.shadow.plane.visible = false
    else if (this.parts.length > 0) this.layShadow()
    this.layColours()
    this.invalidate()
  }

  /** Shows fronts and backs instead of looks. */
  showSides(on: boolean): void {
    this.showingSides = on
    this.invalidate()
  }

  /** Shows each part in a plain colour (#rrggbb), or each of its spans in one or in a mark, instead of its look; null for looks again. */
  showColours(colours: (string | (string | Mark)[])[] | null): void {
    this.colours = colours
    this.layColours()
    this.invalidate()
  }

  private layColours(): void {
    const colours = this.colours
    if (!colours) return
    const visible = this.parts.filter((m) => m?.visible)
    this.plain.lay(visible, (m) => colours[m.userData['part']] ?? '#ffffff', this.scene.background)
  }

  /** Marks some faces of a part; none to mark none. */
  markFaces(part: number, faces: Set<number>): void {
    const mesh = this.parts[part]
    const faceOf = mesh?.geometry.userData['faces'] as Uint32Array
    this.picked.mark(mesh?.geometry, mesh?.matrixWorld ?? new Matrix4(), (t) => faces.has(faceOf[t] ?? -1))
    this.invalidate()
  }

  /** Has triangles of a part be picked; resolves with what shows them, or null where it could not begin. */
  async beginFace(part: number, sha256: string, handlers: FaceHandlers): Promise<FaceTool | null> {
    this.endFace()
    const mesh = this.parts[part]
    if (!mesh) return null
    this.busy(1)
    const geometry = await this.mesh(sha256)
      .then((buffer) => readGeometry(buffer))
      .finally(() => this.busy(-1))
    if (this.disposed || this.parts[part] !== mesh) {
      geometry.dispose()
      return null
    }
    this.faceTool = new FaceTool(part, geometry, mesh.matrixWorld, handlers)
    return this.faceTool
  }

  endFace(): void {
    this.faceTool?.dispose()
    this.faceTool = null
    this.invalidate()
  }

  /** The tool that picks a part's triangles, where the part is what lies under the cursor. */
  private faceAt(e: PointerEvent): FaceTool | null {
    const tool = this.faceTool
    return tool && this.at(e.clientX, e.clientY)?.part === tool.part && this.aim(e) ? tool : null
  }

  /** Has something of a known size stand beside the model; what it is, in words. */
  showScale(on: boolean): string {
    let what = ''
    if (on) {
      const box = this.bounds()
      what = this.figure.place(box)
      box.expandByObject(this.figure.root)
      this.fill(box, this.camera.position.clone().sub(this.controls.target).normalize(), 0)
    } else this.figure.clear()
    this.invalidate()
    return what
  }

  /** Points out some regions: they show their looks, and all else turns into a haze around them. None for all again. */
  lightUp(regions: Region[]): void {
    if (regions.length === 0 && this.lit.size === 0) return
    this.lit = new Map()
    for (const r of regions) {
      const spans = this.lit.get(r.part)
      if (spans) spans.add(r.span)
      else this.lit.set(r.part, new Set([r.span]))
    }
    this.invalidate()
    this.tellPassing()
  }

  async setLight(light: Light): Promise<void> {
    const changed = light.surroundings !== this.light.surroundings
    this.light = { ...light }
    if (changed) {
      const around = await this.surroundings(light.surroundings)
      if (!around) return
      if (this.disposed || this.light.surroundings !== light.surroundings) {
        around.dispose()
        return
      }
      this.around?.dispose()
      this.around = around
    }
    this.scene.environmentIntensity = this.light.strength
    this.scene.environmentRotation.set(0, (this.light.turn * Math.PI) / 180, 0)
    this.renderer.toneMappingExposure = 2 ** this.light.exposure
    this.scene.backgroundIntensity = 2 ** -this.light.exposure
    this.invalidate()
  }

  private async surroundings(name: string): Promise<Surroundings | null> {
    this.busy(1)
    try {
      return await loadSurroundings(this.renderer, name, this.parted, this.software)
    } catch (e) {
      this.handlers.problem?.(e)
      this.light.surroundings = '' // asked for anew next time
      return null
    } finally {
      this.busy(-1)
    }
  }

  /** Moves the camera so that the parts (or the whole model) fill the view. */
  frame(parts?: number[]): void {
    const box = this.bounds(parts && parts.length > 0 ? parts : undefined)
    if (box.isEmpty()) return
    const direction = parts
      ? this.camera.position.clone().sub(this.controls.target).normalize()
      : new Vector3(0.55, 0.3, 1).normalize()
    this.fill(box, direction, 0)
  }

  get view(): View {
    return this.viewpoint.view
  }

  /** How large it is, in pixels of the screen. */
  get size(): { width: number; height: number } {
    const { width, height } = this.renderer.domElement
    return { width, height }
  }

  /** Moves the camera. */
  goTo(view: View): void {
    this.camera.far = 100 * this.bounds().getSize(new Vector3()).length()
    this.viewpoint.go(view)
    this.invalidate()
  }

  /** Goes around to where the light comes from: what is seen from there is lit. */
  goToLight(): void {
    if (!this.around) return
    this.viewpoint.turnTo(this.around.lightFrom + this.scene.environmentRotation.y)
    this.invalidate()
  }

  /** How many degrees of the height are taken in. */
  setDegrees(degrees: number): void {
    this.viewpoint.degrees = degrees
    this.invalidate()
  }

  /** From now on one goes around a point, in metres. */
  circle(point: number[]): void {
    this.viewpoint.circle(point)
    this.invalidate()
  }

  /** A small move to the right, up, or ahead. */
  shift(right: number, up: number, ahead: number): void {
    this.viewpoint.shift(right, up, ahead)
    this.invalidate()
  }

  /** Has some parts be seen through from outside, besides those that always are. */
  lookAlsoInto(parts: number[]): void {
    this.also = new Set(parts)
    this.sided.look(new Set([...this.into, ...this.also]))
    this.applyLooks()
  }

  /** Moves the camera to a place, minimum and maximum x, y, z in metres, with some of what is around it in view. */
  lookAt(place: number[]): void {
    const [x0 = 0, y0 = 0, z0 = 0, x1 = 0, y1 = 0, z1 = 0] = place
    const all = this.bounds().getSize(new Vector3()).length()
    const box = new Box3(new Vector3(x0, y0, z0), new Vector3(x1, y1, z1)).expandByScalar(AROUND * all)
    this.fill(box, this.camera.position.clone().sub(this.controls.target).normalize(), 2 * all)
  }

  private fill(box: Box3, direction: Vector3, farther: number): void {
    const free = { side: MARGIN, top: MARGIN, bottom: BAR / Math.max(3 * BAR, this.element.clientHeight) }
    this.camera.far = box.getSize(new Vector3()).length() * 50 + farther
    const { eye, target } = filling(box, direction, this.camera, free)
    this.camera.position.copy(eye)
    this.controls.target.copy(target)
    this.camera.updateProjectionMatrix()
    this.viewpoint.stand(false)
    this.invalidate()
  }

  /** The box around some parts, or around the design without its surroundings. */
  private bounds(parts?: number[]): Box3 {
    const box = new Box3()
    const wanted = parts ? new Set(parts) : null
    for (const mesh of this.parts) {
      const part = mesh?.userData['part'] as number
      if (mesh && (wanted ? wanted.has(part) : !this.aside.has(part))) box.union(boxOf(mesh))
    }
    return box
  }

  /**
   * What lies under a point of the window, or null.
   *
   * @param behindGlass what one sees through something clear instead of that
   */
  at(clientX: number, clientY: number, behindGlass = false): Place | null {
    const start = performance.now()
    if (!this.aim({ clientX, clientY })) return null
    const { direction } = this.raycaster.ray
    const hit = firstHit(
      this.raycaster,
      this.parts,
      this.boxes,
      (part) => !this.locked.has(part),
      (h) =>
        !this.sided.isLookedThrough(h.object, h.faceIndex ?? 0, isBehind(h, direction)) &&
        !(behindGlass && this.isGlass(h)),
    )
    this.element.dataset['picking'] = `${(performance.now() - start).toFixed(1)} ms`
    if (!hit) return null
    const faces = hit.object.geometry.userData['faces'] as Uint32Array
    return {
      part: hit.object.userData['part'] as number,
      span: hit.face?.materialIndex ?? 0,
      face: faces[hit.faceIndex ?? 0] ?? 0,
      behind: isBehind(hit, direction),
      point: hit.point.toArray(),
    }
  }

  private isGlass(hit: Intersection<PartMesh>): boolean {
    const worn = (hit.object.userData['worn'] ?? []) as MeshPhysicalMaterial[]
    return isClear(worn[hit.face?.materialIndex ?? 0])
  }

  /**
   * The view as a picture of the given size in pixels, without outline.
   *
   * @param asShown in the plain colours that the stage shows, if any, and not in its looks
   */
  async picture(width: number, height: number, type = 'image/png', asShown = false): Promise<Blob> {
    const ratio = this.renderer.getPixelRatio()
    const size = this.renderer.getSize(new Vector2())
    const aspect = this.camera.aspect
    this.renderer.setPixelRatio(1)
    this.renderer.setSize(width, height, false)
    this.camera.aspect = width / height
    this.camera.updateProjectionMatrix()
    this.lightMaterials(true)
    if (asShown && this.colours) this.plain.draw(this.renderer, this.camera)
    else this.glass.render(this.renderer, this.scene, this.camera)
    const blob = new Promise<Blob>((resolve, reject) =>
      this.renderer.domElement.toBlob((b) => (b ? resolve(b) : reject(new Error('no picture'))), type, 0.9),
    )
    this.renderer.setPixelRatio(ratio)
    this.renderer.setSize(size.x, size.y, false)
    this.camera.aspect = aspect
    this.camera.updateProjectionMatrix()
    this.draw()
    return blob
  }

  /** Resolves once nothing is on its way any more and the stage is drawn in full. */
  async settled(): Promise<void> {
    this.invalidate()
    do await new Promise((resolve) => window.setTimeout(resolve, IDLE))
    while (!this.disposed && this.element.dataset['busy'] === 'true')
  }

  /** The largest side a picture can have on this machine, in pixels. */
  get largestPicture(): number {
    const gl = this.renderer.getContext()
    return Math.min(gl.getParameter(gl.MAX_RENDERBUFFER_SIZE), gl.getParameter(gl.MAX_TEXTURE_SIZE), 8192)
  }

  /** True while geometry, textures or surroundings are on their way. */
  get isBusy(): boolean {
    return this.loading > 0 || this.surfaces.isLoading || this.applying > 0
  }

  /** Something moves: on a slow machine frames are drafts (half the resolution, glass without depth) until it rests. */
  private keepMoving(): void {
    window.clearTimeout(this.moving)
    this.moving = window.setTimeout(this.rest, IDLE)
    if (this.slow) {
      this.setRatio(0.5)
      this.element.dataset['busy'] = 'true'
    }
    this.invalidate()
  }

  /** Draws in full once nothing has moved for a while and what moved last is drawn. */
  private readonly rest = () => {
    if (this.drawing || this.requested) {
      this.moving = window.setTimeout(this.rest, IDLE)
      return
    }
    this.moving = 0
    this.setRatio(1)
    this.invalidate()
  }

  private get isDraft(): boolean {
    return this.slow && this.moving !== 0
  }

  private setRatio(factor: number): void {
    const ratio = factor * Math.min(window.devicePixelRatio, 2)
    if (this.renderer.getPixelRatio() === ratio) return
    this.renderer.setPixelRatio(ratio)
    this.outline.resize(this.element.clientWidth, this.element.clientHeight, ratio)
  }

  /** Has the stage drawn anew; while the graphics card is still at a frame, wishes for the next are gathered. */
  invalidate(): void {
    if (this.requested || this.disposed) return
    this.element.dataset['busy'] = 'true'
    if (this.drawing) {
      this.outdated = true
      return
    }
    this.requested = true
    requestAnimationFrame(() => {
      this.requested = false
      if (!this.disposed) this.draw()
    })
  }

  /** Lights what is drawn next: with lamps apart, but where the processor draws, and then only for pictures. */
  private lightMaterials(finely: boolean): void {
    const light = this.around?.prepared(finely)
    this.scene.environment = light?.reflections.texture ?? null
    lightBy(light?.lamps ?? [], this.scene.environmentRotation.y)
    this.reflections.take({
      map: this.scene.environment,
      strength: this.light.strength,
      turn: this.light.turn,
    })
  }

  private draw(): void {
    const start = performance.now()
    this.drawing = true
    this.outdated = false
    const draft = this.isDraft
    this.lightMaterials(false)
    this.figure.turnTo(this.camera)
    if (this.lit.size > 0 && !this.bare) this.drawLit()
    else if (this.showingSides && !this.bare) this.drawSides()
    else if (this.colours && !this.bare) this.plain.draw(this.renderer, this.camera)
    else if (draft) this.renderer.render(this.scene, this.camera)
    else this.glass.render(this.renderer, this.scene, this.camera)
    const { triangles, calls } = this.renderer.info.render
    this.element.dataset['figures'] = `${triangles} triangles, ${calls} draw calls`
    if (!this.bare) this.drawMarks()
    const { position, fov } = this.camera
    this.element.dataset['camera'] = [...position.toArray(), ...this.controls.target.toArray(), fov].join(' ')
    this.element.dataset['lift'] = this.handles.liftAt(this.renderer.getSize(new Vector2()), this.camera)
    this.element.dataset['submitted'] = String(++this.revision)
    this.announce(this.revision, start, draft)
  }

  /** Draws what points out, or moves, something of the model over it. */
  private drawMarks(): void {
    this.picked.draw(this.renderer, this.camera)
    this.faceTool?.draw(this.renderer, this.camera)
    this.handles.draw(this.renderer, this.camera)
    if (!this.selectionVisible) return
    for (const { parts, colour } of this.elsewhereSelected)
      this.outline.draw(this.renderer, this.meshesOf(parts), this.camera, colour)
    this.outline.draw(this.renderer, this.selected(), this.camera, undefined, (mesh) =>
      this.selectedSpans.get(mesh.userData['part'] as number),
    )
  }

  private drawSides(): void {
    this.withoutShadow(() => this.sides.draw(this.renderer, this.scene, this.camera, this.selected()))
  }

  private drawLit(): void {
    const lit = [...this.lit.keys()].map((p) => this.parts[p]).filter((m): m is PartMesh => !!m?.visible)
    const dressed = (key: 'worn' | 'behind') => (mesh: PartMesh) => {
      const worn = (mesh.userData[key] ?? []) as (MeshPhysicalMaterial | undefined)[]
      const spans = this.lit.get(mesh.userData['part'])
      return worn.map((m, span) => (m && spans?.has(span) ? m : this.elsewhere))
    }
    const copies = copiesOf(lit, dressed('worn'))
    const backs = copiesOf(lit, dressed('behind')).children
    if (backs.length > 0) copies.add(...backs)
    copies.environment = this.scene.environment
    copies.environmentIntensity = this.scene.environmentIntensity
    copies.environmentRotation.copy(this.scene.environmentRotation)
    this.withoutShadow(() => {
      this.scene.overrideMaterial = this.haze
      this.renderer.render(this.scene, this.camera)
      this.scene.overrideMaterial = null
      this.renderer.autoClear = false
      this.renderer.render(copies, this.camera)
      this.renderer.autoClear = true
    })
  }

  private withoutShadow(draw: () => void): void {
    const shadow = this.shadow.plane.visible
    this.shadow.plane.visible = false
    this.batches.setDepthFirst(false)
    draw()
    this.batches.setDepthFirst(true)
    this.shadow.plane.visible = shadow
  }

  private selected(): PartMesh[] {
    return this.meshesOf(this.selection)
  }

  private meshesOf(parts: number[]): PartMesh[] {
    return parts.map((p) => this.parts[p]).filter((m): m is PartMesh => !!m?.visible)
  }

  /** Says that a frame is drawn once the graphics card has finished it, and learns how long frames take. */
  private announce(revision: number, start: number, draft: boolean): void {
    const gl = this.renderer.getContext() as WebGL2RenderingContext
    const fence = gl.fenceSync(gl.SYNC_GPU_COMMANDS_COMPLETE, 0)
    gl.flush()
    const check = () => {
      if (this.disposed || revision !== this.revision) return
      if (fence && gl.clientWaitSync(fence, 0, 0) === gl.TIMEOUT_EXPIRED) {
        window.setTimeout(check, 4)
        return
      }
      gl.deleteSync(fence)
      if (!draft) this.slow = performance.now() - start > SLOW
      this.finished(revision)
    }
    window.setTimeout(check, 0)
  }

  private finished(revision: number): void {
    this.drawing = false
    if (this.outdated) this.invalidate()
    this.element.dataset['drawn'] = String(revision)
    this.element.dataset['busy'] = String(this.isBusy || this.requested || this.isDraft)
    this.handlers.drawn?.(revision)
  }

  private busy(by: number): void {
    this.loading += by
    this.element.dataset['busy'] = 'true'
    if (this.loading === 0) this.invalidate()
  }

  private resize(): void {
    const width = Math.max(1, this.element.clientWidth)
    const height = Math.max(1, this.element.clientHeight)
    this.renderer.setSize(width, height)
    this.outline.resize(width, height, this.renderer.getPixelRatio())
    this.camera.aspect = width / height
    this.camera.updateProjectionMatrix()
    this.draw()
    this.handlers.moved?.()
  }

  private listen(): void {
    const canvas = this.renderer.domElement
    const taken = { capture: true }
    this.element.addEventListener(
      'pointerdown',
      (e) => {
        const painted = e.button === 0 && this.faceAt(e)?.press(this.raycaster, e.altKey)
        if (!painted && !this.grab(e)) return
        e.stopPropagation() // the view stays
        canvas.setPointerCapture(e.pointerId)
      },
      taken,
    )
    this.element.addEventListener(
      'pointermove',
      (e) => {
        if (this.pull) this.drag(e)
        else if (this.faceTool && e.buttons < 2 && this.faceAt(e)?.move(this.raycaster)) this.invalidate()
      },
      taken,
    )
    this.element.addEventListener(
      'pointerup',
      (e) => {
        if (this.faceTool?.release()) e.stopPropagation()
        if (!this.pull) return
        e.stopPropagation()
        this.letGo(e)
      },
      taken,
    )
    this.element.addEventListener('pointercancel', () => {
      this.faceTool?.release()
      if (!this.pull) return
      this.pull = null
      this.putBack()
    })
    const until = { signal: this.ended.signal } // the canvas goes on to the next stage
    canvas.addEventListener('pointerdown', (e) => this.down.set(e.clientX, e.clientY), until)
    canvas.addEventListener(
      'dblclick',
      (e) => {
        const place = this.faceTool ? null : this.at(e.clientX, e.clientY)
        if (place) this.handlers.twice?.(place)
      },
      until,
    )
    canvas.addEventListener(
      'pointerup',
      (e) => {
        if (e.button !== 0 || !this.isClick(e)) return
        if (this.faceTool) this.faceAt(e)?.click(this.raycaster, e.altKey)
        else this.handlers.pick?.(this.at(e.clientX, e.clientY), e)
      },
      until,
    )
  }

  dispose(): void {
    this.disposed = true
    this.ended.abort()
    holdPrograms(this.renderer)
    window.clearTimeout(this.moving)
    cancelAnimationFrame(this.applying)
    this.observer.disconnect()
    this.controls.dispose()
    this.surfaces.dispose()
    new Set(this.parts.map((m) => m?.geometry)).forEach((g) => g?.dispose())
    this.handles.dispose()
    this.batches.dispose()
    this.elsewhere.dispose()
    this.sides.dispose()
    this.plain.dispose()
    this.haze.dispose()
    this.figure.dispose()
    this.picked.dispose()
    this.faceTool?.dispose()
    this.outline.dispose()
    this.shadow.dispose()
    this.glass.dispose()
    this.sided.dispose()
    this.around?.dispose()
    giveBack(this.renderer)
  }
}

/** Drawn by itself: light passes through it, or it is blended over what lies behind. */
function isClear(m: MeshPhysicalMaterial | undefined): boolean {
  return m !== undefined && (m.transmission > 0 || m.transparent)
}
