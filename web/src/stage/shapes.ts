import type { BufferGeometry } from 'three'
import { atMost } from './atMost'
import type { PartMesh } from './batches'
import { readGeometry } from './geometry'

/** Gives a part as the reliefs that it wears shape it. */
export type ShapeLoader = (part: number) => Promise<ArrayBuffer>

const AT_ONCE = 2

/** Has parts show the reliefs of what they wear as shapes; until one has come, a part stays as it is. */
export class PartShapes {
  private readonly load: ShapeLoader
  /** By part, which reliefs its geometry shows or is to show. */
  private readonly worn = new Map<number, string>()
  private readonly plain = new Map<number, BufferGeometry>()

  /** @param onWaiting more (1) or fewer (−1) are on their way */
  constructor(
    load: ShapeLoader,
    private readonly onWaiting: (change: number) => void,
    private readonly onChange: () => void,
    private readonly onProblem: (e: unknown) => void,
  ) {
    this.load = atMost(AT_ONCE, load)
  }

  /** @param relief names the reliefs that the part wears; empty for none */
  wear(mesh: PartMesh, relief: string): void {
    const part = mesh.userData['part'] as number
    if ((this.worn.get(part) ?? '') === relief) return
    if (relief === '') {
      this.worn.delete(part)
      this.show(mesh, null)
    } else {
      this.worn.set(part, relief)
      this.fetch(mesh, part, relief)
    }
  }

  private fetch(mesh: PartMesh, part: number, relief: string): void {
    this.onWaiting(1)
    void this.load(part)
      .then((buffer) => {
        if (this.worn.get(part) !== relief) return
        this.show(mesh, readGeometry(buffer, 'ageUv'))
        this.onChange()
      })
      .catch((e: unknown) => {
        if (this.worn.get(part) === relief) this.onProblem(e)
      })
      .finally(() => this.onWaiting(-1))
  }

  private show(mesh: PartMesh, shape: BufferGeometry | null): void {
    const part = mesh.userData['part'] as number
    const plain = this.plain.get(part) ?? mesh.geometry
    if (mesh.geometry !== plain) mesh.geometry.dispose()
    mesh.geometry = shape ?? plain
    mesh.userData['shaped'] = shape !== null
    if (shape) this.plain.set(part, plain)
    else this.plain.delete(part)
  }

  /** Other parts have come: all is asked for anew. */
  forget(): void {
    this.worn.clear()
    this.plain.clear()
  }
}
