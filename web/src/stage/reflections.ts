import {
  DataTexture,
  EquirectangularReflectionMapping,
  FloatType,
  LinearFilter,
  Matrix3,
  Matrix4,
  PMREMGenerator,
  RGBAFormat,
  type MeshPhysicalMaterial,
  type Texture,
  type WebGLRenderer,
} from 'three'
import type { Physical } from '../api/client'
import { setOwnReflection } from './shading'
import type { ImageLoader } from './surfaces'

type Reflected = NonNullable<Physical['beyond']['reflected']>

/** What lies around everything. */
export interface Around {
  map: Texture | null
  strength: number
  /** In degrees about the vertical. */
  turn: number
}

const WIDTH = 512 // as the surroundings are
const HEIGHT = 256

/** Pictures of surroundings that single materials mirror in the place of what is around; these light them still. */
export class Reflections {
  private readonly ready = new Map<string, Texture>()
  private readonly asked = new Set<string>()
  private readonly worn = new Map<MeshPhysicalMaterial, Reflected>()
  private around: Around = { map: null, strength: 1, turn: 0 }

  constructor(
    private readonly renderer: WebGLRenderer,
    private readonly load: ImageLoader,
    private readonly onWaiting: (change: number) => void,
    private readonly onProblem: (e: unknown) => void,
  ) {}

  /** Has a material mirror what its look says. */
  wear(m: MeshPhysicalMaterial, reflected: Reflected | null): void {
    if (reflected) this.worn.set(m, reflected)
    else this.worn.delete(m)
    this.lay(m, reflected)
    if (reflected) this.ask(reflected)
  }

  take(around: Around): void {
    this.around = around
    for (const [m, reflected] of this.worn) this.lay(m, reflected)
  }

  dispose(m: MeshPhysicalMaterial): void {
    this.worn.delete(m)
  }

  private lay(m: MeshPhysicalMaterial, reflected: Reflected | null): void {
    const map = (reflected && this.ready.get(keyOf(reflected))) ?? null
    const had = m.envMap
    m.envMap = map
    if (had !== map) m.needsUpdate = true
    if (!map || !reflected) {
      setOwnReflection(m, null)
      return
    }
    const turn = new Matrix4().makeRotationY((this.around.turn * Math.PI) / 180)
    setOwnReflection(m, {
      aroundMap: this.around.map,
      aroundStrength: this.around.strength,
      aroundTurn: new Matrix3().setFromMatrix4(turn).transpose(),
      reflectedColour: reflected.colour,
    })
  }

  private ask(reflected: Reflected): void {
    const key = keyOf(reflected)
    if (this.asked.has(key)) return
    this.asked.add(key)
    this.onWaiting(1)
    this.load(reflected.image)
      .then((image) => {
        this.ready.set(key, this.prepare(image, reflected.tone))
        for (const [m, r] of this.worn) if (keyOf(r) === key) this.lay(m, r)
      })
      .catch((e: unknown) => {
        this.asked.delete(key)
        this.onProblem(e)
      })
      .finally(() => this.onWaiting(-1))
  }

  private prepare(image: ImageBitmap, tone: number[] | null): Texture {
    const canvas = new OffscreenCanvas(WIDTH, HEIGHT)
    const context = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D
    context.drawImage(image, 0, 0, WIDTH, HEIGHT)
    const codes = context.getImageData(0, 0, WIDTH, HEIGHT).data
    const data = new Float32Array(codes.length)
    for (let y = 0; y < HEIGHT; y++) {
      for (let x = 0; x < WIDTH; x++) {
        const from = 4 * (y * WIDTH + x)
        const rgb = [0, 1, 2].map((c) => decoded(codes[from + c] ?? 0))
        const to = 4 * ((HEIGHT - 1 - y) * WIDTH + x) // the first row looks down
        data.set([...(tone ? toned(tone, rgb) : rgb), 1], to)
      }
    }
    const picture = new DataTexture(data, WIDTH, HEIGHT, RGBAFormat, FloatType)
    picture.mapping = EquirectangularReflectionMapping
    picture.magFilter = picture.minFilter = LinearFilter
    picture.needsUpdate = true
    const generator = new PMREMGenerator(this.renderer)
    const prepared = generator.fromEquirectangular(picture).texture
    generator.dispose()
    picture.dispose()
    return prepared
  }
}

function keyOf(r: Reflected): string {
  return r.image + JSON.stringify(r.tone)
}

function decoded(code: number): number {
  const v = code / 255
  return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4
}

function toned(tone: number[], rgb: number[]): number[] {
  return [0, 4, 8].map((row) => {
    const at = (i: number) => (tone[row + i] ?? 0) * (rgb[i] ?? 1)
    return Math.max(0, Math.min(1, at(0) + at(1) + at(2) + at(3)))
  })
}
