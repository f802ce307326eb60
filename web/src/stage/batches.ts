import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  Matrix3,
  Mesh,
  MeshBasicMaterial,
  Object3D,
  Sphere,
  Vector3,
  type Material,
  type MeshPhysicalMaterial,
} from 'three'

/** A part's mesh with a material for each of its spans. */
export type PartMesh = Mesh<BufferGeometry, MeshPhysicalMaterial[]>

/** A run of the shared index: one span of one part. */
interface Run {
  part: number
  span: number
  start: number
  count: number
}

/**
 * Draws all opaque surfaces of one look in one call. Every part's vertices are laid once, in the model's space, into
 * buffers that all batches share; a batch is only a list of the triangles that wear its material, so that a change of
 * look rewrites two short lists and uploads nothing else. Bodies that light passes through stay apart, since they are
 * drawn one by one.
 *
 * Since a batch is not sorted by depth, one cheap call lays down the depth of everything solid first; then each pixel is
 * shaded once.
 */
export class Batches {
  readonly root = new Object3D()
  private readonly attributes = new Map<string, BufferAttribute>()
  private readonly sphere = new Sphere()
  private readonly meshes = new Map<Material, Mesh<BufferGeometry, MeshPhysicalMaterial>>()
  private index = new Uint32Array(0)
  private runs: Run[] = []
  private worn: (MeshPhysicalMaterial | null)[] = []
  private solid: boolean[] = []
  private depth: Mesh<BufferGeometry, MeshBasicMaterial> | null = null
  private readonly depthOnly = new MeshBasicMaterial({
    colorWrite: false,
    side: DoubleSide,
    polygonOffset: true,
    polygonOffsetFactor: 1,
    polygonOffsetUnits: 1,
  })

  /** Lays out the parts; afterwards nothing is worn yet. */
  lay(parts: PartMesh[], centre: Vector3, radius: number): void {
    this.dispose()
    const present = parts.filter(Boolean)
    const vertices = present.reduce((sum, m) => sum + count(m.geometry), 0)
    const corners = present.reduce((sum, m) => sum + (m.geometry.index?.count ?? 0), 0)
    const position = new Float32Array(3 * vertices)
    const normal = new Float32Array(3 * vertices)
    const uv = new Float32Array(2 * vertices)
    const uv1 = new Float32Array(2 * vertices)
    const painted = present.some((m) => m.geometry.hasAttribute('color'))
    const colour = painted ? new Uint16Array(4 * vertices).fill(0xffff) : null
    this.index = new Uint32Array(corners)
    this.runs = []
    let vertex = 0
    let corner = 0
    parts.forEach((mesh, part) => {
      if (!mesh) return
      const g = mesh.geometry
      const n = count(g)
      place(mesh, centre, position, normal, vertex)
      copy(g, 'uv', uv, 2 * vertex)
      copy(g, 'uv1', uv1, 2 * vertex)
      if (colour && g.hasAttribute('color')) colour.set(g.getAttribute('color').array, 4 * vertex)
      const own = g.index?.array ?? []
      const mirrored = mesh.matrixWorld.determinant() < 0
      for (const group of g.groups) {
        this.runs.push({ part, span: group.materialIndex ?? 0, start: corner, count: group.count })
        for (let i = group.start; i < group.start + group.count; i++) {
          const turned = mirrored ? i + (i % 3 === 1 ? 1 : i % 3 === 2 ? -1 : 0) : i
          this.index[corner++] = (own[turned] ?? 0) + vertex
        }
      }
      vertex += n
    })
    this.worn = this.runs.map(() => null)
    this.solid = this.runs.map(() => false)
    this.attributes.set('position', new BufferAttribute(position, 3))
    this.attributes.set('normal', new BufferAttribute(normal, 3))
    this.attributes.set('uv', new BufferAttribute(uv, 2))
    this.attributes.set('uv1', new BufferAttribute(uv1, 2))
    if (colour) this.attributes.set('color', new BufferAttribute(colour, 4, true))
    this.sphere.set(new Vector3(), radius)
    this.root.position.copy(centre)
    this.root.updateMatrixWorld(true)
  }

  /** Dresses every span; `of` gives null for what is hidden or drawn apart. */
  wear(of: (part: number, span: number) => MeshPhysicalMaterial | null): void {
    const changed = new Set<MeshPhysicalMaterial>()
    this.runs.forEach((run, i) => {
      const before = this.worn[i] ?? null
      const now = of(run.part, run.span)
      if (before === now) return
      if (before) changed.add(before)
      if (now) changed.add(now)
      this.worn[i] = now
    })
    for (const material of changed) this.write(material)
    const solid = this.worn.map((m) => m !== null && m.alphaTest === 0)
    if (solid.some((s, i) => s !== this.solid[i])) this.writeDepth(solid)
  }

  /** Whether depth is laid down first; of no use where surfaces are drawn otherwise. */
  setDepthFirst(on: boolean): void {
    if (this.depth) this.depth.visible = on
  }

  private writeDepth(solid: boolean[]): void {
    this.solid = solid
    if (this.depth) {
      this.root.remove(this.depth)
      this.depth.geometry.dispose()
      this.depth = null
    }
    const geometry = this.geometryOf((i) => solid[i] === true)
    if (!geometry) return
    this.depth = new Mesh(geometry, this.depthOnly)
    this.depth.renderOrder = -1
    this.depth.matrixAutoUpdate = false
    this.root.add(this.depth)
    this.depth.updateMatrixWorld(true)
  }

  /** The shared vertices with the triangles of some runs; null for none. */
  private geometryOf(taken: (run: number) => boolean): BufferGeometry | null {
    const chosen = this.runs.filter((_, i) => taken(i))
    const corners = chosen.reduce((sum, run) => sum + run.count, 0)
    if (corners === 0) return null
    const index = new Uint32Array(corners)
    let at = 0
    for (const run of chosen) {
      index.set(this.index.subarray(run.start, run.start + run.count), at)
      at += run.count
    }
    const geometry = new BufferGeometry()
    for (const [name, attribute] of this.attributes) geometry.setAttribute(name, attribute)
    geometry.setIndex(new BufferAttribute(index, 1))
    geometry.boundingSphere = this.sphere.clone()
    return geometry
  }

  private write(material: MeshPhysicalMaterial): void {
    const old = this.meshes.get(material)
    if (old) {
      this.root.remove(old)
      old.geometry.dispose()
      this.meshes.delete(material)
    }
    const geometry = this.geometryOf((i) => this.worn[i] === material)
    if (!geometry) return
    const mesh = new Mesh(geometry, material)
    mesh.matrixAutoUpdate = false
    this.meshes.set(material, mesh)
    this.root.add(mesh)
    mesh.updateMatrixWorld(true)
  }

  dispose(): void {
    for (const mesh of this.meshes.values()) {
      this.root.remove(mesh)
      mesh.geometry.dispose()
    }
    this.meshes.clear()
    this.attributes.clear()
    this.solid = []
    if (this.depth) {
      this.root.remove(this.depth)
      this.depth.geometry.dispose()
      this.depth = null
    }
  }
}

function count(g: BufferGeometry): number {
  return g.getAttribute('position').count
}

function copy(g: BufferGeometry, name: string, to: Float32Array, at: number): void {
  if (g.hasAttribute(name)) to.set(g.getAttribute(name).array, at)
}

/** Positions relative to the centre, so that single precision holds them wherever the model stands. */
function place(
  mesh: PartMesh,
  centre: Vector3,
  position: Float32Array,
  normal: Float32Array,
  vertex: number,
): void {
  const p = mesh.geometry.getAttribute('position').array
  const n = mesh.geometry.getAttribute('normal').array
  const m = mesh.matrixWorld.elements
  const k = new Matrix3().getNormalMatrix(mesh.matrixWorld).elements
  const [cx, cy, cz] = [m[12] - centre.x, m[13] - centre.y, m[14] - centre.z]
  for (let i = 0, o = 3 * vertex; i < p.length; i += 3, o += 3) {
    const [x = 0, y = 0, z = 0] = [p[i], p[i + 1], p[i + 2]]
    position[o] = m[0] * x + m[4] * y + m[8] * z + cx
    position[o + 1] = m[1] * x + m[5] * y + m[9] * z + cy
    position[o + 2] = m[2] * x + m[6] * y + m[10] * z + cz
    const [a = 0, b = 0, c = 0] = [n[i], n[i + 1], n[i + 2]]
    const nx = k[0] * a + k[3] * b + k[6] * c
    const ny = k[1] * a + k[4] * b + k[7] * c
    const nz = k[2] * a + k[5] * b + k[8] * c
    const length = Math.hypot(nx, ny, nz) || 1
    normal[o] = nx / length
    normal[o + 1] = ny / length
    normal[o + 2] = nz / length
  }
}
