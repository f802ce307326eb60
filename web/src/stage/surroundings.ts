import {
  DataTexture,
  DataUtils,
  LinearSRGBColorSpace,
  FloatType,
  PMREMGenerator,
  RGBAFormat,
  type Material,
  type Texture,
  type WebGLCubeRenderTarget,
  type WebGLRenderer,
  EquirectangularReflectionMapping,
} from 'three'
import type { Parted } from '../api/client'
import { SHARP_LEVELS } from './lampLight'
import { HDRLoader } from 'three/examples/jsm/loaders/HDRLoader.js'

/** The supplied surroundings pictures, by the name of their file. */
export const SURROUNDINGS = [
  { id: 'studio', name: 'Studio, soft boxes' },
  { id: 'workshop', name: 'Workshop, window light' },
  { id: 'lobby', name: 'Lobby, warm lamps' },
  { id: 'park', name: 'Park, open shade' },
  { id: 'low-sun', name: 'Low sun' },
] as const

const loader = new HDRLoader()

/** Prepares pictures for reflections, some of the levels of roughness at a time; the renderer offers all at once only. */
class Levels extends PMREMGenerator {
  private first = 0
  private last = Infinity

  /** Prepares levels from the first up to, but not with, the last. */
  prepare(picture: DataTexture, first: number, last: number, target: WebGLCubeRenderTarget | null = null) {
    this.first = first
    this.last = last
    return this.fromEquirectangular(picture, target)
  }

  /** As the renderer calls it for each level, and for the picture itself, which is no level of what is prepared. */
  protected _renderCube(target: WebGLCubeRenderTarget, level: number, material: Material): void {
    const isLevel = target.texture.name === 'PMREM'
    if (isLevel && (level < this.first || level >= this.last)) return
    Reflect.apply(renderCube, this, [target, level, material])
  }
}
const renderCube = Reflect.get(PMREMGenerator.prototype, '_renderCube') as (...of: unknown[]) => void

/** Surroundings as they light a frame. */
export interface Prepared {
  reflections: WebGLCubeRenderTarget
  lamps: Parted['lamps']
}

/** A picture of surroundings, prepared for reflections of every roughness. */
export class Surroundings {
  private readonly whole: Prepared | null
  private withoutLamps: Prepared | null = null

  /**
   * @param parted   what core makes of the picture
   * @param coarsely whether frames will be asked for that are drawn without its lamps apart
   */
  constructor(
    private readonly renderer: WebGLRenderer,
    private readonly picture: DataTexture,
    private readonly parted: Parted,
    coarsely: boolean,
  ) {
    picture.mapping = EquirectangularReflectionMapping
    this.whole = coarsely
      ? { reflections: this.prepare((levels) => levels.prepare(picture, 0, Infinity)), lamps: [] }
      : null
  }

  /** The compass direction, in radians about the vertical, that light mostly comes from. */
  get lightFrom(): number {
    const [x = 0, , z = 0] = this.parted.mostly
    return Math.atan2(x, z)
  }

  /** Its rougher levels without its lamps, and these apart; or all in one, where that was asked for. */
  prepared(finely: boolean): Prepared {
    if (this.whole && !finely) return this.whole
    this.withoutLamps ??= {
      reflections: this.prepare((levels) => this.part(levels)),
      lamps: this.parted.lamps,
    }
    return this.withoutLamps
  }

  dispose(): void {
    this.whole?.reflections.dispose()
    this.withoutLamps?.reflections.dispose()
    this.picture.dispose()
  }

  private part(levels: Levels): WebGLCubeRenderTarget {
    const sharp = levels.prepare(this.picture, 0, SHARP_LEVELS)
    dim(this.picture, this.parted.limit)
    return levels.prepare(this.picture, SHARP_LEVELS, Infinity, sharp)
  }

  private prepare(levels: (all: Levels) => WebGLCubeRenderTarget): WebGLCubeRenderTarget {
    const generator = new Levels(this.renderer)
    const prepared = levels(generator)
    generator.dispose()
    return prepared
  }
}

/** Tells how the lamps and the rest of supplied surroundings lie. */
export type PartedLoader = (id: string) => Promise<Parted>

/** Loads a picture of surroundings. */
export async function loadSurroundings(
  renderer: WebGLRenderer,
  id: string,
  part: PartedLoader,
  coarsely: boolean,
): Promise<Surroundings> {
  const [picture, parted] = await Promise.all([loader.loadAsync(`/environments/${id}.hdr`), part(id)])
  return new Surroundings(renderer, picture, parted, coarsely)
}

/** Takes from a picture with half floats whatever is brighter than a limit. */
export function dim(picture: DataTexture, limit: number): void {
  const { data } = picture.image as { data: Uint16Array }
  for (let i = 0; i < data.length; i += 4) {
    const [r = 0, g = 0, b = 0] = [0, 1, 2].map((k) => DataUtils.fromHalfFloat(data[i + k] ?? 0))
    const whole = 0.2126 * r + 0.7152 * g + 0.0722 * b
    if (whole > limit) [r, g, b].forEach((v, k) => (data[i + k] = DataUtils.toHalfFloat((v * limit) / whole)))
  }
  picture.needsUpdate = true
}

/**
 * A viewing booth for judging samples: a bright diffuse ceiling that fades to grey walls, one brighter strip across it so
 * that polish shows as an edge. Exactly neutral.
 */
export function viewingBooth(renderer: WebGLRenderer): Texture {
  const width = 128
  const height = 64
  const data = new Float32Array(width * height * 4)
  for (let y = 0; y < height; y++) {
    const up = -Math.cos((Math.PI * (y + 0.5)) / height) // the picture's first row looks down
    for (let x = 0; x < width; x++) {
      const around = Math.cos((2 * Math.PI * (x + 0.5)) / width)
      const ceiling = up > 0 ? 0.27 + 0.9 * up ** 3 : 0.27 + 0.1 * up
      const strip = up > 0.78 && up < 0.86 ? 1.6 : 0
      const shade = 1 + 0.35 * around
      data.set(
        [ceiling * shade + strip, ceiling * shade + strip, ceiling * shade + strip, 1],
        4 * (y * width + x),
      )
    }
  }
  const picture = new DataTexture(data, width, height, RGBAFormat, FloatType)
  picture.mapping = EquirectangularReflectionMapping
  picture.needsUpdate = true
  const generator = new PMREMGenerator(renderer)
  const prepared = generator.fromEquirectangular(picture).texture
  generator.dispose()
  picture.dispose()
  return prepared
}

/** A quiet backdrop: neutral, a little darker towards the floor. Values are scene-linear. */
export function backdrop(top: number, bottom: number): DataTexture {
  const rows = 64
  const data = new Float32Array(rows * 4)
  for (let y = 0; y < rows; y++) {
    const t = y / (rows - 1)
    const v = bottom + (top - bottom) * t * t * (3 - 2 * t)
    data.set([v, v, v, 1], 4 * y)
  }
  const texture = new DataTexture(data, 1, rows, RGBAFormat, FloatType)
  texture.colorSpace = LinearSRGBColorSpace
  texture.needsUpdate = true
  return texture
}
