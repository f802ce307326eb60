import { describe, expect, it } from 'vitest'
import {
  CustomBlending,
  type MeshPhysicalMaterial,
  NormalBlending,
  OneFactor,
  ShaderLib,
  type WebGLRenderer,
  ZeroFactor,
} from 'three'
import type { Physical } from '../src/api/client'
import { Surfaces } from '../src/stage/surfaces'

const PICTURE_SIDE = 4096
const PICTURE = { width: PICTURE_SIDE, height: PICTURE_SIDE } as ImageBitmap

/** A plain surface of some roughness, told apart by it, under a picture if one is named. */
function physical(roughness: number, picture?: string): Physical {
  const texture = picture && {
    image: picture,
    wrapU: 'repeat',
    wrapV: 'repeat',
    offset: [0, 0],
    scale: [1, 1],
    rotation: 0,
    strength: 1,
    tone: null,
  }
  return {
    baseColor: [0.5, 0.5, 0.5],
    alpha: 1,
    alphaMode: 'OPAQUE',
    metallic: 0,
    roughness,
    emissive: [0, 0, 0],
    specularColor: [1, 1, 1],
    attenuationColor: [1, 1, 1],
    attenuationDistance: 0,
    sheenColor: [0, 0, 0],
    baseColorTexture: texture || null,
    beyond: { diffuseRoughness: 0, flakeWeight: 0, coatIor: 1.5, coatColor: [1, 1, 1] },
  } as unknown as Physical
}

function stage() {
  const surfaces = new Surfaces(
    () => Promise.resolve(PICTURE),
    () => undefined,
    (e) => {
      throw e
    },
  )
  const gone = new Set<MeshPhysicalMaterial>()
  const get = (p: Physical, tried = false) => {
    const m = surfaces.get(p, 'metric', false, null, undefined, tried)
    m.addEventListener('dispose', () => gone.add(m))
    return m
  }
  return { surfaces, gone, get }
}

/** The shader that a material is drawn with, before the renderer puts its own chunks in. */
function shaderOf(m: MeshPhysicalMaterial) {
  const { vertexShader, fragmentShader } = ShaderLib.physical
  const shader = { vertexShader, fragmentShader, uniforms: {} as Record<string, { value: unknown }> }
  m.onBeforeCompile(shader as never, {} as WebGLRenderer)
  return shader
}

/** A cloth whose fibres send back the same in all directions. */
function cloth(cosines: number, sheen = [0, 0, 0]): Physical {
  const p = physical(0.4)
  const fuzz = { weight: 0.5, reflects: Array<number>(cosines).fill(0.3), letsInAll: 0.85 }
  return { ...p, sheenColor: sheen, beyond: { ...p.beyond, fuzz } }
}

describe('Surfaces', () => {
  it('gives the same material for the same numbers', () => {
    const { get } = stage()
    expect(get(physical(0.2))).toBe(get(physical(0.2)))
    expect(get(physical(0.2))).not.toBe(get(physical(0.3)))
  })

  it('keeps what nothing wears for a while', () => {
    const { surfaces, gone, get } = stage()
    const one = get(physical(0.2))
    surfaces.keepOnly(new Set())
    expect(gone).not.toContain(one)
    expect(get(physical(0.2))).toBe(one)
  })

  it('lets go at once of what was only tried, unless it was given then', () => {
    const { surfaces, gone, get } = stage()
    const left = get(physical(0.2), true)
    const given = get(physical(0.3), true)
    get(physical(0.3))
    surfaces.keepOnly(new Set())
    expect([...gone]).toEqual([left])
    expect(get(physical(0.3))).toBe(given)
  })

  it('lets go of what rested longest once too many rest', () => {
    const { surfaces, gone, get } = stage()
    const all: MeshPhysicalMaterial[] = []
    const wear = (i: number) => {
      const m = get(physical(0.1 + i / 100))
      all[i] ??= m
      surfaces.keepOnly(new Set([m]))
    }
    for (let i = 0; i < 60; i++) wear(i)
    wear(0) // again: it has rested least now
    for (let i = 60; i < 70; i++) wear(i)
    expect([...gone].map((m) => all.indexOf(m))).toEqual([1, 2, 3, 4, 5])
  })

  it('lets go of pictures before they fill the graphics card', async () => {
    const { surfaces, gone, get } = stage()
    const all = ['a', 'b', 'c'].map((picture, i) => get(physical(0.1 + i / 10, picture)))
    surfaces.keepOnly(new Set(all))
    await new Promise((done) => setTimeout(done))
    expect(surfaces.isLoading).toBe(false)
    for (let i = 1; i <= 3; i++) surfaces.keepOnly(new Set(all.slice(i)))
    expect([...gone].map((m) => all.indexOf(m))).toEqual([0]) // two of 89 MB each stay
  })

  it('gives fibres to a cloth by what core says of them, black ones too', () => {
    const { get } = stage()
    const black = get(cloth(17))
    expect(black.sheen).toBe(1)
    const { uniforms, fragmentShader } = shaderOf(black)
    expect(uniforms['fuzzWeight']?.value).toBe(0.5)
    expect(uniforms['fuzzLetsInAll']?.value).toBe(0.85)
    expect(fragmentShader).toMatch(/uniform float fuzzReflects\s*\[\s*17\s*\]/)
    const plain = get(physical(0.4))
    expect(plain.sheen).toBe(0)
    expect(shaderOf(plain).fragmentShader).not.toContain('fuzz')
  })

  it('says so where fibres are told otherwise than it draws them', () => {
    const { get } = stage()
    expect(() => get(cloth(16))).toThrow('16 cosines')
  })

  it('covers pixels by as much as holes leave, and draws no alpha', () => {
    const { get } = stage()
    const mesh = get({ ...physical(0.5, 'lace'), alphaMode: 'MASK' })
    expect(mesh).toMatchObject({ alphaToCoverage: true, transparent: false, depthWrite: true })
    expect([mesh.blendSrcAlpha, mesh.blendDstAlpha]).toEqual([ZeroFactor, OneFactor])
    expect(mesh.blending).toBe(CustomBlending)
    expect(shaderOf(mesh).fragmentShader).toContain('fwidth( diffuseColor.a )')
    const whole = get(physical(0.5))
    expect(whole).toMatchObject({ alphaToCoverage: false, blending: NormalBlending, alphaTest: 0 })
  })

  it('widens facets both ways by what core says of a brushing', () => {
    const { get } = stage()
    const p = physical(0.2)
    const brushed = get({
      ...p,
      beyond: { ...p.beyond, brushed: { roughness: 0.3, along: 1.2, across: 0.7 } },
    })
    expect(brushed.roughness).toBe(0.3)
    expect(shaderOf(brushed).uniforms['brushedWidths']?.value).toMatchObject({ x: 1.2, y: 0.7 })
  })
})
