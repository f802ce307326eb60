import { type DataTexture, DataUtils, Vector3 } from 'three'

/** A bright patch of a picture of surroundings, as seen from the middle. */
export interface Lamp {
  direction: Vector3
  /** Radiance times solid angle, red, green and blue. */
  light: number[]
  /** Variance of its directions along one axis, in radians². */
  spread: number
}

/** So many patches stand for all that is bright. */
export const MOST_LAMPS = 12
/** What is brighter than so many times the mean of all directions is a lamp's. */
const BRIGHT = 2
/** Patches that deviate less, in radians, are not cut further. */
const SMALL = 0.04

/**
 * Takes the lamps out of a picture of surroundings with half floats: of whatever is much brighter than the mean, what is
 * beyond. The picture keeps the rest, so that both together are what it was.
 */
export function takeLamps(picture: DataTexture): Lamp[] {
  const { data, width, height } = picture.image as { data: Uint16Array; width: number; height: number }
  const read = (i: number) => DataUtils.fromHalfFloat(data[i] ?? 0)
  const luminance = (i: number) => 0.2126 * read(i) + 0.7152 * read(i + 1) + 0.0722 * read(i + 2)
  const rings = Array.from({ length: height }, (_, y) => Math.sin((Math.PI * (y + 0.5)) / height))
  let sum = 0
  rings.forEach((ring, y) => {
    for (let x = 0; x < width; x++) sum += ring * luminance(4 * (y * width + x))
  })
  const limit = (BRIGHT * sum) / (width * rings.reduce((a, b) => a + b, 0))
  const bright: Beam[] = []
  rings.forEach((ring, y) => {
    const solid = ((ring * Math.PI) / height) * ((2 * Math.PI) / width)
    const up = Math.cos((Math.PI * (y + 0.5)) / height)
    for (let x = 0; x < width; x++) {
      const i = 4 * (y * width + x)
      const whole = luminance(i)
      if (whole <= limit) continue
      const around = 2 * Math.PI * ((x + 0.5) / width - 0.5)
      const light = [0, 1, 2].map((k) => {
        const had = read(i + k)
        data[i + k] = DataUtils.toHalfFloat((had * limit) / whole)
        return (had - read(i + k)) * solid
      })
      bright.push({ direction: new Vector3(Math.cos(around) * ring, up, Math.sin(around) * ring), light })
    }
  })
  picture.needsUpdate = true
  return patches(bright).map((p) => ({ direction: p.middle.normalize(), light: p.light, spread: p.spread }))
}

interface Beam {
  direction: Vector3
  light: number[]
}

interface Patch extends Beam {
  beams: Beam[]
  middle: Vector3
  spread: number
  /** Along which the directions deviate most, by how much squared. */
  longest: Vector3
  most: number
}

/** Cut in two again and again where most light deviates most from its middle. */
function patches(beams: Beam[]): Patch[] {
  const all = beams.length > 0 ? [patchOf(beams)] : []
  while (all.length < MOST_LAMPS) {
    const next = all
      .filter((p) => p.most > SMALL ** 2)
      .reduce<Patch | null>((worst, p) => (worst && cost(worst) >= cost(p) ? worst : p), null)
    if (!next) break
    const above = (b: Beam) => b.direction.clone().sub(next.middle).dot(next.longest) > 0
    const halves = [next.beams.filter(above), next.beams.filter((b) => !above(b))]
    all.splice(all.indexOf(next), 1, ...halves.map(patchOf))
  }
  return all
}

function cost(p: Patch): number {
  return strength(p) * p.most
}

function strength({ light }: { light: number[] }): number {
  return light.reduce((a, b) => a + b, 0)
}

function patchOf(beams: Beam[]): Patch {
  const light = [0, 0, 0]
  const middle = new Vector3()
  for (const b of beams) {
    middle.addScaledVector(b.direction, strength(b))
    b.light.forEach((v, k) => (light[k] = (light[k] ?? 0) + v))
  }
  const whole = strength({ light })
  middle.divideScalar(whole)
  const rows = [new Vector3(), new Vector3(), new Vector3()]
  for (const b of beams) {
    const off = b.direction.clone().sub(middle)
    const share = strength(b) / whole
    rows.forEach((row, k) => row.addScaledVector(off, share * off.getComponent(k)))
  }
  const spread = (rows as [Vector3, Vector3, Vector3]).reduce((sum, r, k) => sum + r.getComponent(k), 0) / 2
  let longest = new Vector3(0.6, 0.5, 0.4)
  let most = 0
  for (let i = 0; i < 20; i++) {
    const next = new Vector3(...rows.map((r) => r.dot(longest)))
    most = next.length()
    if (most === 0) break
    longest = next.divideScalar(most)
  }
  return { direction: middle, beams, light, middle, spread, longest, most }
}
