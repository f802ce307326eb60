import {
  BufferAttribute,
  BufferGeometry,
  Mesh,
  Object3D,
  type Material,
  type MeshPhysicalMaterial,
} from 'three'
import type { PartMesh } from './batches'

/** The triangles of a geometry that face the outside and the others, as geometries of their own. */
interface Halves {
  of: Uint8Array
  outer: BufferGeometry
  inner: BufferGeometry
}

/** Gives the bytes that say which of a part's triangles face the outside. */
export type OuterLoader = (part: number) => Promise<ArrayBuffer>

/**
 * Draws parts whose fronts and backs show different things: once as they are from in front, once from behind. Of parts that
 * one looks into, what faces the outside is drawn only from behind, all else only from its front.
 */
export class TwoSided {
  readonly root = new Object3D()
  private readonly halves = new Map<BufferGeometry, Halves>()
  /** Of each part that one looks into, which of its triangles face the outside; null while that is on its way. */
  private readonly outer = new Map<number, Uint8Array | null>()
  private inside = new Set<number>()

  constructor(
    private readonly load: OuterLoader,
    private readonly onWaiting: (change: number) => void,
    private readonly onChange: () => void,
    private readonly onProblem: (e: unknown) => void,
  ) {}

  /** Takes in which parts one looks into; what faces the outside is asked for anew, since it depends on all others. */
  look(into: Set<number>): void {
    this.inside = into
    this.dispose()
    this.outer.clear()
    for (const part of into) {
      const mine = this.inside
      this.outer.set(part, null)
      this.onWaiting(1)
      void this.load(part)
        .then((bytes) => {
          if (this.inside !== mine) return
          this.outer.set(part, new Uint8Array(bytes))
          this.onChange()
        })
        .catch((e: unknown) => this.onProblem(e))
        .finally(() => this.onWaiting(-1))
    }
  }

  /** Whether a part is drawn so that one looks into it. */
  isLookedInto(mesh: PartMesh): boolean {
    return this.outerOf(mesh) !== null
  }

  /** Whether one looks through a triangle of a part that is met from one of its sides. */
  isLookedThrough(mesh: PartMesh, triangle: number, behind: boolean): boolean {
    const outer = this.outerOf(mesh)
    return outer !== null && (outer[triangle] === 1) !== behind
  }

  private outerOf(mesh: PartMesh): Uint8Array | null {
    const outer = this.outer.get(mesh.userData['part'] as number) ?? null
    return outer && outer.length * 3 === mesh.geometry.index?.count ? outer : null // a relief has triangles of its own
  }

  /** Draws these parts, each span in what it wears in front and behind; nothing behind means the same on both sides. */
  arrange(parts: PartMesh[]): void {
    this.root.clear()
    for (const mesh of parts) {
      const front = (mesh.userData['worn'] ?? []) as MeshPhysicalMaterial[]
      const behind = (mesh.userData['behind'] ?? []) as (MeshPhysicalMaterial | undefined)[]
      const halves = this.halvesOf(mesh)
      this.add(mesh, halves?.inner ?? mesh.geometry, front)
      this.add(mesh, halves?.outer ?? mesh.geometry, behind)
    }
  }

  private add(mesh: PartMesh, geometry: BufferGeometry, materials: (Material | undefined)[]): void {
    const drawn = new Mesh(geometry, materials as Material[]) // what has none is not drawn
    drawn.matrixAutoUpdate = false
    drawn.matrix.copy(mesh.matrix)
    drawn.renderOrder = mesh.renderOrder
    this.root.add(drawn)
    drawn.updateMatrixWorld(true)
  }

  private halvesOf(mesh: PartMesh): Halves | null {
    const outer = this.outerOf(mesh)
    if (!outer) return null
    const known = this.halves.get(mesh.geometry)
    if (known?.of === outer) return known
    this.forget(known)
    const made = {
      of: outer,
      outer: some(mesh.geometry, (t) => outer[t] === 1),
      inner: some(mesh.geometry, (t) => outer[t] !== 1),
    }
    this.halves.set(mesh.geometry, made)
    return made
  }

  private forget(halves: Halves | undefined): void {
    halves?.outer.dispose()
    halves?.inner.dispose()
  }

  dispose(): void {
    for (const halves of this.halves.values()) this.forget(halves)
    this.halves.clear()
  }
}

/** Some triangles of a geometry, in their groups. */
function some(of: BufferGeometry, takes: (triangle: number) => boolean): BufferGeometry {
  const index = of.index?.array ?? []
  const corners: number[] = []
  const made = new BufferGeometry()
  for (const [name, attribute] of Object.entries(of.attributes)) made.setAttribute(name, attribute)
  for (const group of of.groups) {
    const start = corners.length
    for (let i = group.start; i < group.start + group.count; i += 3) {
      if (takes(i / 3)) corners.push(index[i] ?? 0, index[i + 1] ?? 0, index[i + 2] ?? 0)
    }
    if (corners.length > start) made.addGroup(start, corners.length - start, group.materialIndex)
  }
  made.setIndex(new BufferAttribute(new Uint32Array(corners), 1))
  made.boundingSphere = of.boundingSphere
  return made
}
