import {
  BufferGeometry,
  Color,
  Float32BufferAttribute,
  Mesh,
  MeshPhysicalMaterial,
  NeutralToneMapping,
  PerspectiveCamera,
  Scene,
  WebGLRenderer,
} from 'three'
import type { Physical } from '../api/client'
import { lightBy } from './lampLight'
import { Surfaces, type ImageLoader } from './surfaces'
import { viewingBooth } from './surroundings'

const WIDTH = 92
const HEIGHT = 78
const SCALE = 2

/**
 * Paints sample chips: a tile that lies flat, then rolls over an edge and shows its cut side, so that flat, curved and
 * edge looks are visible at once. One chip is painted at a time, between other work, and kept.
 */
export class ChipPainter {
  private readonly renderer = new WebGLRenderer({ antialias: true, preserveDrawingBuffer: true })
  private readonly scene = new Scene()
  private readonly camera = new PerspectiveCamera(25, WIDTH / HEIGHT, 0.01, 10)
  private readonly tile = new Mesh<BufferGeometry, MeshPhysicalMaterial>(tileForm())
  private readonly surfaces: Surfaces
  private readonly painted = new Map<string, Promise<string>>()
  private queue: Promise<unknown> = Promise.resolve()

  constructor(images: ImageLoader) {
    this.renderer.setPixelRatio(1)
    this.renderer.setSize(WIDTH * SCALE, HEIGHT * SCALE, false)
    this.renderer.toneMapping = NeutralToneMapping
    this.surfaces = new Surfaces(
      images,
      () => undefined,
      () => undefined,
    )
    this.scene.background = new Color(0.62, 0.61, 0.59)
    this.scene.add(this.tile, ground())
    this.camera.position.set(0.118, 0.182, 0.255)
    this.camera.lookAt(0.01, -0.02, 0)
    this.scene.environment = viewingBooth(this.renderer)
  }

  /** An address of a picture of the chip. */
  paint(physical: Physical): Promise<string> {
    const key = JSON.stringify(physical)
    let picture = this.painted.get(key)
    if (!picture) {
      picture = this.queue.then(() => this.paintNow(physical))
      this.queue = picture.catch(() => undefined)
      this.painted.set(key, picture)
    }
    return picture
  }

  private async paintNow(physical: Physical): Promise<string> {
    await pause()
    const material = this.surfaces.get(physical, 'metric')
    while (this.surfaces.isLoading) await pause()
    this.tile.material = material
    lightBy([], 0) // the booth has none
    this.renderer.render(this.scene, this.camera)
    const blob = await new Promise<Blob | null>((done) => this.renderer.domElement.toBlob(done, 'image/png'))
    return blob ? URL.createObjectURL(blob) : ''
  }
}

function pause(): Promise<void> {
  return new Promise((done) => {
    if ('requestIdleCallback' in window) requestIdleCallback(() => done(), { timeout: 200 })
    else setTimeout(done, 10)
  })
}

/** The form of core's Chip: 124 mm wide, flat, then a quarter roll of 20 mm radius, then a cut side. */
function tileForm(): BufferGeometry {
  const profile: [number, number][] = [[-0.14, 0]]
  const radius = 0.02
  const edge = 0.026
  for (let i = 0; i <= 24; i++) {
    const a = (Math.PI / 2) * (i / 24)
    profile.push([edge + radius * Math.sin(a), -radius + radius * Math.cos(a)])
  }
  const positions: number[] = []
  const normals: number[] = []
  const uvs: number[] = []
  const indices: number[] = []
  const half = 0.062
  let along = 0
  const strip = (points: [number, number][], normal: (i: number) => [number, number]) => {
    const first = positions.length / 3
    points.forEach(([z, y], i) => {
      const before = points[i - 1]
      if (before) along += Math.hypot(z - before[0], y - before[1])
      const [nz, ny] = normal(i)
      for (const x of [-half, half]) {
        positions.push(x, y, z)
        normals.push(0, ny, nz)
        uvs.push(x, along)
      }
      if (i > 0) {
        const k = first + 2 * i
        indices.push(k - 2, k, k - 1, k - 1, k, k + 1)
      }
    })
  }
  strip(profile, (i) => {
    const a = (Math.PI / 2) * Math.max(0, (i - 1) / 24)
    return [Math.sin(a), Math.cos(a)]
  })
  const front = edge + radius
  strip(
    [
      [front, -radius],
      [front, -0.05],
    ],
    () => [1, 0],
  )
  const geometry = new BufferGeometry()
  geometry.setAttribute('position', new Float32BufferAttribute(positions, 3))
  geometry.setAttribute('normal', new Float32BufferAttribute(normals, 3))
  geometry.setAttribute('uv', new Float32BufferAttribute(uvs, 2))
  geometry.setAttribute('uv1', new Float32BufferAttribute(uvs, 2))
  geometry.setIndex(indices)
  return geometry
}

/** Dark and light bars under the tile: what is seen through a clear sample, and how much it bends. */
function ground(): Mesh {
  const positions: number[] = []
  const indices: number[] = []
  const wide = 0.012
  const y = -0.0505
  for (let i = -40; i < 40; i += 2) {
    const x = i * wide
    const k = positions.length / 3
    positions.push(x, y, -1.5, x + wide, y, -1.5, x + wide, y, 1, x, y, 1)
    indices.push(k, k + 2, k + 1, k, k + 3, k + 2)
  }
  const geometry = new BufferGeometry()
  geometry.setAttribute('position', new Float32BufferAttribute(positions, 3))
  geometry.setAttribute(
    'normal',
    new Float32BufferAttribute(
      positions.map((_, i) => (i % 3 === 1 ? 1 : 0)),
      3,
    ),
  )
  geometry.setIndex(indices)
  return new Mesh(geometry, new MeshPhysicalMaterial({ color: 0x2a2927, roughness: 0.9 }))
}
