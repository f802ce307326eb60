import {
  DataTexture,
  LinearSRGBColorSpace,
  FloatType,
  PMREMGenerator,
  RGBAFormat,
  Texture,
  WebGLRenderer,
  EquirectangularReflectionMapping,
} from 'three'
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

/** Loads a picture of surroundings, prepared for reflections of every roughness. */
export async function loadSurroundings(renderer: WebGLRenderer, id: string): Promise<Texture> {
  const picture = await loader.loadAsync(`/environments/${id}.hdr`)
  picture.mapping = EquirectangularReflectionMapping
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
