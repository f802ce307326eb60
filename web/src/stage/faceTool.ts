import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  Matrix4,
  Mesh,
  MeshBasicMaterial,
  Points,
  PointsMaterial,
  Scene,
  Sphere,
  Triangle,
  Vector3,
  type Intersection,
  type PerspectiveCamera,
  type Raycaster,
  type WebGLRenderer,
} from 'three'
import { Line2 } from 'three/addons/lines/Line2.js'
import { LineGeometry } from 'three/addons/lines/LineGeometry.js'
import { LineMaterial } from 'three/addons/lines/LineMaterial.js'
import type { MeshBVH } from 'three-mesh-bvh'
import { PickedFaces } from './pickedFaces'

/** How triangles of a part are picked: by a brush, a smooth region at a time, or as what a loop of edges encloses. */
export type FaceMode = 'paint' | 'smooth' | 'loop'

export interface FaceHandlers {
  /** Triangles were painted, or rubbed out. */
  painted: (triangles: number[], added: boolean) => void
  /** A corner of a loop was clicked, by its vertex. */
  corner: (vertex: number) => void
}

const INK = '#6b2d5c'
/** The brush takes what faces the same way, within 60°: not the other side of a thin sheet. */
const SAME_WAY = 0.5

/** Picks triangles and corners of one part, on its geometry without eased edges, and shows what is picked. */
export class FaceTool {
  mode: FaceMode = 'paint'
  /** Of the brush, in metres. */
  radius = 0
  private readonly mesh: Mesh<BufferGeometry, MeshBasicMaterial>
  private readonly toLocal: Matrix4
  private readonly scale: number
  private readonly hatch = new PickedFaces()
  private readonly lines = new Scene()
  private readonly casing = wide('#ffffff', 5)
  private readonly way = wide(INK, 3)
  private readonly dots = new Points(
    new BufferGeometry(),
    new PointsMaterial({ color: INK, depthTest: false, size: 9, sizeAttenuation: false }),
  )
  private corners: number[] = []
  private hovered = -1
  private painting: 'add' | 'take' | null = null

  /** @param part whose geometry it is */
  constructor(
    readonly part: number,
    private readonly geometry: BufferGeometry,
    toWorld: Matrix4,
    private readonly handlers: FaceHandlers,
  ) {
    this.mesh = new Mesh(geometry, new MeshBasicMaterial({ side: DoubleSide }))
    this.mesh.matrixWorld.copy(toWorld)
    this.toLocal = toWorld.clone().invert()
    this.scale = toWorld.getMaxScaleOnAxis()
    for (const drawn of [this.casing, this.way, this.dots]) {
      drawn.frustumCulled = false
      drawn.matrixAutoUpdate = false
      drawn.matrix.copy(toWorld)
      this.lines.add(drawn)
    }
  }

  /** Begins a stroke; false where nothing of the part is under the cursor. */
  press(raycaster: Raycaster, takes: boolean): boolean {
    if (this.mode !== 'paint' || !this.hit(raycaster)) return false
    this.painting = takes ? 'take' : 'add'
    this.stroke(raycaster)
    return true
  }

  /** Goes on with a stroke, or shows which corner a click would take; whether there is anything new to see. */
  move(raycaster: Raycaster): boolean {
    if (this.painting) {
      this.stroke(raycaster)
      return true
    }
    if (this.mode !== 'loop') return false
    const hit = this.hit(raycaster)
    const next = hit ? this.nearestCorner(hit) : -1
    if (next === this.hovered) return false
    this.hovered = next
    this.layDots()
    return true
  }

  /** Ends a stroke; whether there was one. */
  release(): boolean {
    const was = this.painting !== null
    this.painting = null
    return was
  }

  click(raycaster: Raycaster, takes: boolean): void {
    const hit = this.hit(raycaster)
    if (!hit || typeof hit.faceIndex !== 'number') return
    if (this.mode === 'smooth') {
      const faces = this.geometry.userData['faces'] as Uint32Array
      const face = faces[hit.faceIndex]
      const all = [...faces.keys()].filter((t) => faces[t] === face)
      this.handlers.painted(all, !takes)
    } else if (this.mode === 'loop') this.handlers.corner(this.nearestCorner(hit))
  }

  /** The place of a vertex, in the part's space. */
  place(vertex: number): Vector3 {
    return new Vector3().fromBufferAttribute(this.geometry.getAttribute('position'), vertex)
  }

  /**
   * Shows what is picked.
   *
   * @param way x, y, z of the points of a way along edges
   */
  show(triangles: Set<number>, corners: number[], way: number[]): void {
    this.hatch.mark(this.geometry, this.mesh.matrixWorld, (t) => triangles.has(t))
    this.corners = corners
    for (const line of [this.casing, this.way]) {
      line.visible = way.length > 3
      line.geometry.dispose()
      line.geometry = new LineGeometry()
      if (line.visible) line.geometry.setPositions(way)
    }
    this.layDots()
  }

  private layDots(): void {
    const shown = this.hovered >= 0 && this.mode === 'loop' ? [...this.corners, this.hovered] : this.corners
    this.dots.geometry.dispose()
    this.dots.geometry = pointsOf(shown.flatMap((v) => this.place(v).toArray()))
  }

  private stroke(raycaster: Raycaster): void {
    const hit = this.hit(raycaster)
    if (hit && typeof hit.faceIndex === 'number')
      this.handlers.painted(this.under(hit.point, hit.faceIndex), this.painting === 'add')
  }

  /** The triangle at a point, and those around it whose middle is within the brush. */
  private under(point: Vector3, at: number): number[] {
    const out = [at]
    const brush = new Sphere(point.clone().applyMatrix4(this.toLocal), this.radius / this.scale)
    const up = this.triangle(at).getNormal(new Vector3())
    const middle = new Vector3()
    const normal = new Vector3()
    const tree = this.geometry.boundsTree as MeshBVH
    tree.shapecast({
      intersectsBounds: (box) => brush.intersectsBox(box),
      intersectsTriangle: (triangle, t) => {
        if (t !== at && brush.containsPoint(triangle.getMidpoint(middle))) {
          if (triangle.getNormal(normal).dot(up) > SAME_WAY) out.push(t)
        }
        return false
      },
    })
    return out
  }

  private triangle(t: number): Triangle {
    const index = this.geometry.getIndex()
    const corner = (k: number) => this.place(index?.getX(3 * t + k) ?? 0)
    return new Triangle(corner(0), corner(1), corner(2))
  }

  private nearestCorner(hit: Intersection): number {
    const index = this.geometry.getIndex()
    const at = hit.point.clone().applyMatrix4(this.toLocal)
    const three = [0, 1, 2].map((k) => index?.getX(3 * (hit.faceIndex ?? 0) + k) ?? 0)
    return three.reduce((best, v) =>
      this.place(v).distanceToSquared(at) < this.place(best).distanceToSquared(at) ? v : best,
    )
  }

  private hit(raycaster: Raycaster): Intersection | undefined {
    return raycaster.intersectObject(this.mesh, false)[0]
  }

  draw(renderer: WebGLRenderer, camera: PerspectiveCamera): void {
    this.hatch.draw(renderer, camera)
    renderer.autoClear = false
    renderer.render(this.lines, camera)
    renderer.autoClear = true
  }

  dispose(): void {
    this.hatch.dispose()
    for (const drawn of [this.casing, this.way, this.dots]) {
      drawn.geometry.dispose()
      drawn.material.dispose()
    }
    this.mesh.material.dispose()
    this.geometry.dispose()
  }
}

/** A line so many pixels wide, in front of the surface that it lies on. */
function wide(color: string, linewidth: number): Line2 {
  return new Line2(
    new LineGeometry(),
    new LineMaterial({
      color,
      linewidth,
      depthWrite: false,
      polygonOffset: true,
      polygonOffsetFactor: -4,
      polygonOffsetUnits: -4,
    }),
  )
}

function pointsOf(numbers: number[]): BufferGeometry {
  return new BufferGeometry().setAttribute('position', new BufferAttribute(new Float32Array(numbers), 3))
}
