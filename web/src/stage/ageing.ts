import {
  BufferAttribute,
  BufferGeometry,
  DataTexture,
  LinearFilter,
  LinearMipmapLinearFilter,
  RGBAFormat,
} from 'three'
import type { PartMesh } from './batches'

const MAGIC = 0x4547415a
const HEADER_BYTES = 16

/** How readily a part ages: its triangles' own coordinates, and the resistances there. */
interface AgeData {
  uv: Uint16Array
  texture: DataTexture
}

interface Asked {
  key: string
  part: number
  corrodes: boolean
}

/** How many parts are still to come, how long that will take as far as one can tell, and whether it was put off. */
export interface AgeingNews {
  left: number
  seconds: number | null
  stopped: boolean
}

/** So many tell how long one takes. */
const FEW = 3

/** Gives a part's resistances as core writes them. */
export type AgeLoader = (part: number, corrodes: boolean) => Promise<ArrayBuffer>

function read(buffer: ArrayBuffer): AgeData {
  const [magic, width = 0, height = 0, triangles = 0] = new Uint32Array(buffer, 0, HEADER_BYTES / 4)
  if (magic !== MAGIC) throw new Error('no resistances')
  const uv = new Uint16Array(buffer, HEADER_BYTES, 6 * triangles)
  const texels = new Uint8Array(buffer, HEADER_BYTES + uv.byteLength, 4 * width * height)
  const texture = new DataTexture(texels, width, height, RGBAFormat)
  texture.magFilter = LinearFilter
  texture.minFilter = LinearMipmapLinearFilter
  texture.generateMipmaps = true
  texture.needsUpdate = true
  return { uv, texture }
}

/** The same triangles with corners of their own, so that each can have its own coordinates. */
function parted(from: BufferGeometry, uv: Uint16Array): BufferGeometry {
  const to = new BufferGeometry()
  const index = from.index?.array ?? []
  for (const [name, attribute] of Object.entries(from.attributes)) {
    const source = attribute as BufferAttribute
    const size = source.itemSize
    const array = new (source.array.constructor as new (n: number) => typeof source.array)(
      index.length * size,
    )
    for (let i = 0; i < index.length; i++) {
      const at = (index[i] ?? 0) * size
      for (let k = 0; k < size; k++) array[i * size + k] = source.array[at + k] ?? 0
    }
    to.setAttribute(name, new BufferAttribute(array, size, source.normalized))
  }
  to.setAttribute('ageUv', new BufferAttribute(uv, 2, true))
  to.setIndex(
    new BufferAttribute(
      Uint32Array.from({ length: index.length }, (_, i) => i),
      1,
    ),
  )
  for (const g of from.groups) to.addGroup(g.start, g.count, g.materialIndex)
  to.userData['faces'] = from.userData['faces']
  to.boundingSphere = from.boundingSphere
  to.boundsTree = from.boundsTree
  return to
}

/** Fetches how parts age, and gives their meshes coordinates for it; each once for the shapes on the stage. */
export class PartAges {
  private readonly known = new Map<string, AgeData>()
  private readonly asked = new Set<string>()
  private readonly queue: Asked[] = []
  private running = false
  private stopped = false
  private seconds: number | null = null

  /** @param wants whether a part wears what ages that way */
  constructor(
    private readonly load: AgeLoader,
    private readonly wants: (part: number, corrodes: boolean) => boolean,
    private readonly onChange: () => void,
    private readonly onProgress: (news: AgeingNews) => void,
    private readonly onProblem: (e: unknown) => void,
  ) {}

  /** The resistances of a part, whose mesh is made ready for them; null while they are on their way. */
  of(mesh: PartMesh, corrodes: boolean): DataTexture | null {
    const part = mesh.userData['part'] as number
    const key = `${part}/${corrodes}`
    const data = this.known.get(key)
    if (!data) {
      if (!this.asked.has(key)) {
        this.asked.add(key)
        this.queue.push({ key, part, corrodes })
        void this.fetchAll()
      }
      return null
    }
    if (!mesh.geometry.hasAttribute('ageUv')) {
      if (mesh.userData['shaped']) return null // its shape from before it aged; another is on its way
      mesh.geometry = parted(mesh.geometry, data.uv)
    }
    return data.texture
  }

  /** Leaves those that are still to come as new; what is known stays. */
  stop(): void {
    this.stopped = true
    this.tell(null)
  }

  /** Looks have changed: what was put off may not be wanted any more. */
  review(): void {
    if (!this.stopped) return
    for (const a of this.queue.splice(0)) {
      if (this.wants(a.part, a.corrodes)) this.queue.push(a)
      else this.asked.delete(a.key)
    }
    this.stopped = this.queue.length > 0
    this.tell(null)
  }

  /** Goes on where it was stopped. */
  goOn(): void {
    this.stopped = false
    void this.fetchAll()
  }

  private tell(seconds: number | null): void {
    this.seconds = seconds
    this.onProgress({ left: this.queue.length, seconds, stopped: this.stopped && this.queue.length > 0 })
  }

  /** The next that is still wanted: looks may have changed since it was asked for. */
  private next(): Asked | undefined {
    while (this.queue[0] && !this.wants(this.queue[0].part, this.queue[0].corrodes)) {
      this.asked.delete(this.queue[0].key)
      this.queue.shift()
    }
    return this.stopped ? undefined : this.queue[0]
  }

  /** One after another: working them out takes all of the server's cores. */
  private async fetchAll(): Promise<void> {
    if (this.running) {
      this.tell(this.seconds)
      return
    }
    this.running = true
    const start = performance.now()
    let done = 0
    for (let mine = this.next(); mine; mine = this.next()) {
      const each = (performance.now() - start) / 1000 / done
      this.tell(done >= FEW ? each * this.queue.length : null)
      const buffer = await this.load(mine.part, mine.corrodes).catch((e: unknown) => {
        this.onProblem(e)
        return null
      })
      done++
      // shapes may have changed meanwhile: then nobody asks for it any more
      if (this.queue[0] === mine) this.queue.shift()
      if (buffer && this.asked.has(mine.key)) this.known.set(mine.key, read(buffer))
      this.onChange()
    }
    this.running = false
    this.tell(null)
  }

  /** Other shapes have come: all is asked for anew. */
  forget(): void {
    for (const data of this.known.values()) data.texture.dispose()
    this.known.clear()
    this.asked.clear()
    this.queue.length = 0
    this.stopped = false
  }
}
