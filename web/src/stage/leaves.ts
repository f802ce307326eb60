import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  InstancedBufferAttribute,
  InstancedMesh,
  MeshPhysicalMaterial,
  Object3D,
} from 'three'
import type { Physical } from '../api/client'
import { atMost } from './atMost'

type Foliage = NonNullable<Physical['beyond']['leaves']>

/** Gives the leaves that cover a span wholly, as core writes them. */
export type LeafLoader = (part: number, span: number, size: number) => Promise<ArrayBuffer>

/** A leaf, and where all of them are, in the order in which they come. */
interface LeafData {
  blade: BufferGeometry
  /** How many cover 0, 1, 2 … 100 hundredths. */
  counts: Uint32Array
  places: InstancedBufferAttribute
}

const HUNDREDTHS = 101
const AT_ONCE = 2

function read(buffer: ArrayBuffer): LeafData {
  const [vertices = 0, triangles = 0, count = 0] = new Uint32Array(buffer, 0, 3)
  const floats = (at: number, n: number) => new Float32Array(buffer, at, n)
  const counts = new Uint32Array(buffer, 12, HUNDREDTHS)
  const start = 12 + 4 * HUNDREDTHS
  const blade = new BufferGeometry()
  blade.setAttribute('position', new BufferAttribute(floats(start, 3 * vertices), 3))
  blade.setAttribute('normal', new BufferAttribute(floats(start + 12 * vertices, 3 * vertices), 3))
  blade.setIndex(new BufferAttribute(new Uint32Array(buffer, start + 24 * vertices, 3 * triangles), 1))
  const places = floats(start + 24 * vertices + 12 * triangles, 16 * count)
  return { blade, counts, places: new InstancedBufferAttribute(places, 16) }
}

/** What grows on a region of a part. */
export interface Grown {
  part: number
  span: number
  foliage: Foliage
  visible: boolean
}

/** Draws leaves, each kind of them on a region in one call; more cover only draws more of the same. */
export class LeafCover {
  private readonly load: (g: Grown) => Promise<ArrayBuffer>
  readonly root = new Object3D()
  private readonly known = new Map<string, LeafData | null>()
  private readonly drawn = new Map<string, InstancedMesh<BufferGeometry, MeshPhysicalMaterial>>()
  private grown: Grown[] = []

  /** @param onWaiting more (1) or fewer (−1) are on their way */
  constructor(
    load: LeafLoader,
    private readonly onWaiting: (change: number) => void,
    private readonly onChange: () => void,
    private readonly onProblem: (e: unknown) => void,
  ) {
    this.load = atMost(AT_ONCE, (g) => load(g.part, g.span, g.foliage.size))
  }

  /** Shows these leaves and no others. */
  arrange(grown: Grown[]): void {
    this.grown = grown
    const used = new Set<string>()
    for (const g of grown) {
      const key = `${g.part}/${g.span}/${g.foliage.size}`
      used.add(key)
      const data = this.known.get(key)
      if (data) this.draw(key, data, g)
      else if (data === undefined) this.fetch(key, g)
    }
    for (const [key, mesh] of this.drawn) {
      if (used.has(key)) continue
      this.root.remove(mesh)
      mesh.material.dispose()
      this.drawn.delete(key)
    }
  }

  /** How many leaves there are on a region. */
  count(part: number, span: number): number {
    const g = this.grown.find((o) => o.part === part && o.span === span)
    return (g && this.drawn.get(`${part}/${span}/${g.foliage.size}`)?.count) ?? 0
  }

  private draw(key: string, data: LeafData, g: Grown): void {
    let mesh = this.drawn.get(key)
    if (!mesh) {
      mesh = new InstancedMesh(data.blade, new MeshPhysicalMaterial({ side: DoubleSide }), data.places.count)
      mesh.instanceMatrix = data.places
      mesh.frustumCulled = false
      this.drawn.set(key, mesh)
      this.root.add(mesh)
    }
    const [r = 0, gr = 0, b = 0] = g.foliage.colour
    mesh.material.color.setRGB(r, gr, b)
    mesh.material.roughness = g.foliage.roughness
    mesh.count = data.counts[Math.round(100 * g.foliage.cover)] ?? 0
    mesh.visible = g.visible
  }

  private fetch(key: string, g: Grown): void {
    this.known.set(key, null)
    this.onWaiting(1)
    void this.load(g)
      .then((buffer) => {
        if (this.known.has(key)) this.known.set(key, read(buffer))
      })
      .catch((e: unknown) => this.onProblem(e))
      .finally(() => {
        this.onWaiting(-1)
        this.arrange(this.grown)
        this.onChange()
      })
  }

  /** Other shapes have come: what grew on them is gone. */
  forget(): void {
    this.arrange([])
    for (const data of this.known.values()) data?.blade.dispose()
    this.known.clear()
  }
}
