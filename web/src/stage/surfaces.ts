import {
  Color,
  ClampToEdgeWrapping,
  CustomBlending,
  DoubleSide,
  LinearFilter,
  LinearMipmapLinearFilter,
  MeshPhysicalMaterial,
  MirroredRepeatWrapping,
  NoColorSpace,
  NormalBlending,
  OneFactor,
  RepeatWrapping,
  SRGBColorSpace,
  TextureSource,
  Texture,
  type Side,
  ZeroFactor,
} from 'three'
import type { Reflections } from './reflections'
import { setAge, setBeyond, setRelief, setTone } from './shading'
import type { FineRelief, Physical, Texture as TextureUse } from '../api/client'

const FAR = 1e9
const WRAPS = { repeat: RepeatWrapping, mirror: MirroredRepeatWrapping, once: ClampToEdgeWrapping }
/** How many materials are kept that nothing wears, and how much of the graphics card’s memory they may hold. */
const MOST_RESTING = 64
const MOST_RESTING_BYTES = 192e6
const SMOOTHEST = 0.012 // below this, point highlights vanish between pixels

/** Gives an image by its SHA-256. */
export type ImageLoader = (sha256: string) => Promise<ImageBitmap>

/** Tells what a picture of normals loses where it is seen from afar. */
export type ReliefLoader = (sha256: string) => Promise<FineRelief>

export function loadImage(address: string): Promise<ImageBitmap> {
  return fetch(address)
    .then((r) => r.blob())
    .then((b) => createImageBitmap(b, { colorSpaceConversion: 'none', premultiplyAlpha: 'none' }))
}

/**
 * Makes three.js materials of the numbers that core computed. Nothing is decided here: each number goes to the property
 * of the same meaning. Textures arrive later and call `onChange`, and tell whether a material has all of its own by then.
 */
export class Surfaces {
  private readonly materials = new Map<string, MeshPhysicalMaterial>()
  private readonly words = new WeakMap<Physical, string>()
  /** Materials that no look uses now, and may again soon: those of another scheme; longest unused first. */
  private readonly resting = new Set<string>()
  /** Materials of looks that were only tried. */
  private readonly tried = new Set<string>()
  /** Pictures by their digests: those that are there, and those that are on their way. */
  private readonly sources: Kept<TextureSource<ImageBitmap>> = new Map()
  private readonly reliefs: Kept<FineRelief> = new Map()
  /** How many pictures a material still waits for. */
  private readonly waiting = new Map<MeshPhysicalMaterial, number>()

  constructor(
    private readonly load: ImageLoader,
    private readonly onChange: (whole: boolean) => void,
    private readonly onProblem: (e: unknown) => void,
    private readonly reflections: Reflections | null = null,
    private readonly loadRelief: ReliefLoader | null = null,
  ) {}

  /** True while textures are still on their way. */
  get isLoading(): boolean {
    return this.waiting.size > 0
  }

  /** Whether all pictures of a material are there. */
  isWhole(m: MeshPhysicalMaterial): boolean {
    return !this.waiting.has(m)
  }

  /**
   * The shared material for a look; the same numbers give the same material.
   *
   * @param fields how readily the part that it is for ages; null to look new
   * @param side   which side of a surface it is for
   * @param tried  whether it is only tried, and let go of as soon as it is not
   */
  get(
    physical: Physical,
    mapping: string,
    painted = false,
    fields: Texture | null = null,
    side: Side = DoubleSide,
    tried = false,
  ): MeshPhysicalMaterial {
    const key = mapping + String(painted) + String(side) + (fields?.uuid ?? '') + this.inWords(physical)
    if (!tried) this.tried.delete(key)
    let material = this.materials.get(key)
    if (!material) {
      material = new MeshPhysicalMaterial()
      // where a picture cuts holes, alpha says what of a pixel is covered, and isn't drawn
      material.blendSrc = OneFactor
      material.blendDst = ZeroFactor
      material.blendSrcAlpha = ZeroFactor
      material.blendDstAlpha = OneFactor
      this.write(material, physical, mapping)
      material.side = side
      material.vertexColors = painted
      setAge(material, physical, fields)
      this.materials.set(key, material)
      if (tried) this.tried.add(key)
    }
    return material
  }

  private inWords(physical: Physical): string {
    let words = this.words.get(physical)
    if (words === undefined) {
      words = JSON.stringify(physical)
      this.words.set(physical, words)
    }
    return words
  }

  /** Lets go of materials that no look uses any more, but for some that may be wanted again: that saves their making. */
  keepOnly(used: Set<MeshPhysicalMaterial>): void {
    for (const [key, material] of this.materials) {
      if (used.has(material)) this.resting.delete(key)
      else if (this.tried.has(key)) this.forget(key, material)
      else this.resting.add(key)
    }
    let count = 0
    let bytes = 0
    for (const key of [...this.resting].reverse()) {
      const material = this.materials.get(key)
      if (!material) continue
      bytes += bytesOf(material)
      if (++count > MOST_RESTING || bytes > MOST_RESTING_BYTES) this.forget(key, material)
    }
  }

  /** Lets go of everything. */
  dispose(): void {
    for (const [key, material] of this.materials) this.forget(key, material)
  }

  private forget(key: string, material: MeshPhysicalMaterial): void {
    for (const slot of TEXTURE_SLOTS) material[slot]?.dispose()
    this.reflections?.dispose(material)
    material.dispose()
    this.materials.delete(key)
    this.resting.delete(key)
    this.tried.delete(key)
  }

  write(m: MeshPhysicalMaterial, p: Physical, mapping: string): void {
    linear(m.color, p.baseColor)
    m.opacity = p.alpha
    m.transparent = p.alphaMode === 'BLEND'
    const cut = p.alphaMode === 'MASK'
    m.alphaTest = cut ? 0.5 : 0
    m.alphaToCoverage = cut
    m.blending = cut ? CustomBlending : NormalBlending
    m.depthWrite = p.alphaMode !== 'BLEND'
    m.metalness = p.metallic
    m.roughness = Math.max(SMOOTHEST, p.beyond.brushed?.roughness ?? p.roughness)
    linear(m.emissive, p.emissive)
    m.emissiveIntensity = p.emissiveStrength
    m.ior = p.ior
    m.specularIntensity = p.specular
    linear(m.specularColor, p.specularColor)
    m.transmission = p.transmission
    m.thickness = p.thickness
    linear(m.attenuationColor, p.attenuationColor)
    m.attenuationDistance = p.attenuationDistance > 0 ? p.attenuationDistance : FAR
    m.dispersion = p.dispersion
    m.clearcoat = p.clearcoat
    m.clearcoatRoughness = p.clearcoatRoughness
    linear(m.sheenColor, p.sheenColor)
    m.sheen = p.beyond.fuzz ? 1 : 0 // black fibres darken what is below
    m.sheenRoughness = p.sheenRoughness
    m.iridescence = p.iridescence
    m.iridescenceIOR = p.iridescenceIor
    m.iridescenceThicknessMinimum = p.iridescenceThickness
    m.iridescenceThicknessMaximum = p.iridescenceThickness
    m.anisotropy = p.anisotropy
    m.diffuseRoughness = p.beyond.diffuseRoughness
    setBeyond(m, p)
    this.reflections?.wear(m, p.beyond.reflected ?? null)
    const channel = mapping === 'metric' ? 1 : 0
    this.put(m, 'map', p.baseColorTexture, channel)
    this.put(m, 'roughnessMap', p.beyond.roughness?.picture ?? null, channel)
    this.put(m, 'metalnessMap', p.beyond.metalness?.picture ?? null, channel)
    this.put(m, 'normalMap', p.normalTexture, channel)
    this.putRelief(m, p.normalTexture?.image)
    this.put(m, 'emissiveMap', p.emissiveTexture, channel)
    this.put(m, 'alphaMap', p.beyond.cutOut?.picture ?? null, channel)
    const slope = p.normalTexture?.strength ?? 1
    m.normalScale.set(slope, -slope) // v runs downwards, and tangents come from the coordinates
    setTone(m, 'map', p.baseColorTexture?.tone ?? null)
    setTone(m, 'emissiveMap', p.emissiveTexture?.tone ?? null)
    m.needsUpdate = true
  }

  private put(m: MeshPhysicalMaterial, slot: TextureSlot, use: TextureUse | null, channel: number): void {
    if (!use) {
      m[slot] = null
      return
    }
    const key = JSON.stringify({ ...use, tone: null }) + channel
    if (m[slot]?.userData['key'] === key) return
    const image = kept(this.sources, use.image, (sha256) =>
      this.load(sha256).then((image) => new TextureSource(image)),
    )
    this.whenThere(m, image, (source) => {
      const texture = new Texture()
      texture.source = source
      texture.userData['key'] = key
      texture.colorSpace = slot === 'map' || slot === 'emissiveMap' ? SRGBColorSpace : NoColorSpace
      texture.flipY = false
      texture.channel = channel
      texture.wrapS = WRAPS[use.wrapU as keyof typeof WRAPS]
      texture.wrapT = WRAPS[use.wrapV as keyof typeof WRAPS]
      texture.offset.fromArray(use.offset)
      texture.repeat.fromArray(use.scale)
      texture.rotation = use.rotation
      texture.minFilter = LinearMipmapLinearFilter
      texture.magFilter = LinearFilter
      texture.anisotropy = 8
      texture.needsUpdate = true
      m[slot] = texture
      m.needsUpdate = true
    })
  }

  private putRelief(m: MeshPhysicalMaterial, image: string | undefined): void {
    if (!image || !this.loadRelief) {
      setRelief(m, null)
      return
    }
    this.whenThere(m, kept(this.reliefs, image, this.loadRelief), (relief) => {
      setRelief(m, relief)
      m.needsUpdate = true
    })
  }

  /** Uses what is there, or what comes once it has come; till then the material is not whole. */
  private whenThere<T>(m: MeshPhysicalMaterial, it: T | Promise<T>, use: (it: T) => void): void {
    if (!(it instanceof Promise)) {
      use(it)
      return
    }
    this.waiting.set(m, (this.waiting.get(m) ?? 0) + 1)
    void it.then(use, this.onProblem).finally(() => {
      const left = (this.waiting.get(m) ?? 1) - 1
      if (left > 0) this.waiting.set(m, left)
      else this.waiting.delete(m)
      this.onChange(left <= 0)
    })
  }
}

/** What has come by its digest, or is on its way. */
type Kept<T> = Map<string, T | Promise<T>>

function kept<T>(all: Kept<T>, sha256: string, load: (sha256: string) => Promise<T>): T | Promise<T> {
  const known = all.get(sha256)
  if (known) return known
  const coming = load(sha256).then((made) => {
    all.set(sha256, made)
    return made
  })
  coming.catch(() => all.delete(sha256)) // asked for anew next time
  all.set(sha256, coming)
  return coming
}

/** About what its pictures take on the graphics card, with their smaller copies. */
function bytesOf(material: MeshPhysicalMaterial): number {
  const sources = new Set(TEXTURE_SLOTS.map((slot) => material[slot]?.source.data as ImageBitmap | undefined))
  let bytes = 0
  for (const image of sources) if (image) bytes += (image.width * image.height * 4 * 4) / 3
  return bytes
}

const TEXTURE_SLOTS = ['map', 'roughnessMap', 'metalnessMap', 'normalMap', 'emissiveMap', 'alphaMap'] as const
type TextureSlot = (typeof TEXTURE_SLOTS)[number]

function linear(colour: Color, rgb: number[]): void {
  colour.setRGB(rgb[0] ?? 0, rgb[1] ?? 0, rgb[2] ?? 0)
}
