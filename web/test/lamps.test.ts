import { DataTexture, DataUtils, HalfFloatType, RGBAFormat, Vector3 } from 'three'
import { describe, expect, it } from 'vitest'
import { MOST_LAMPS, takeLamps } from '../src/stage/lamps'

const WIDTH = 128
const HEIGHT = 64

function directionOf(x: number, y: number): Vector3 {
  const polar = (Math.PI * (y + 0.5)) / HEIGHT
  const around = 2 * Math.PI * ((x + 0.5) / WIDTH - 0.5)
  return new Vector3(Math.sin(polar) * Math.cos(around), Math.cos(polar), Math.sin(polar) * Math.sin(around))
}

/** A picture of a sky by direction. */
function picture(sky: (d: Vector3) => number[]): DataTexture {
  const data = new Uint16Array(4 * WIDTH * HEIGHT)
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++)
      data.set([...sky(directionOf(x, y)), 1].map(DataUtils.toHalfFloat), 4 * (y * WIDTH + x))
  return new DataTexture(data, WIDTH, HEIGHT, RGBAFormat, HalfFloatType)
}

/** What falls on a surface, from a picture and from lamps. */
function irradiance(p: DataTexture, lamps: ReturnType<typeof takeLamps>, normal: Vector3, channel: number) {
  const data = p.image.data as unknown as Uint16Array
  let sum = 0
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const solid = Math.sin((Math.PI * (y + 0.5)) / HEIGHT) * (Math.PI / HEIGHT) * ((2 * Math.PI) / WIDTH)
      const cosine = Math.max(0, directionOf(x, y).dot(normal))
      sum += solid * cosine * DataUtils.fromHalfFloat(data[4 * (y * WIDTH + x) + channel] ?? 0)
    }
  return lamps.reduce((s, l) => s + Math.max(0, l.direction.dot(normal)) * (l.light[channel] ?? 0), sum)
}

const KEY = new Vector3(0.3, 0.8, 0.5).normalize()
const STRIP = new Vector3(-0.9, 0.3, 0.2).normalize()
const studio = (d: Vector3) => {
  if (d.dot(KEY) > 0.97) return [40, 38, 36]
  if (d.distanceTo(STRIP) < 0.7 && Math.abs(d.y - 0.3) < 0.1) return [9, 10, 12]
  return [0.3, 0.3, 0.35]
}

describe('the lamps of surroundings', () => {
  it('are taken out of the picture, and both together light as it did', () => {
    const whole = picture(studio)
    const rest = picture(studio)
    const lamps = takeLamps(rest)
    expect(lamps.length).toBeGreaterThan(2)
    expect(lamps.length).toBeLessThanOrEqual(MOST_LAMPS)
    for (const normal of [KEY, STRIP, new Vector3(0, 1, 0), new Vector3(1, 0, 0), new Vector3(0, -1, 0)])
      for (const channel of [0, 1, 2]) {
        const before = irradiance(whole, [], normal, channel)
        expect(Math.abs(irradiance(rest, lamps, normal, channel) - before)).toBeLessThan(0.02 * before)
      }
  })

  it('are small, however long a light is, and where it is', () => {
    const lamps = takeLamps(picture(studio))
    for (const { direction, spread } of lamps) {
      expect(direction.length()).toBeCloseTo(1)
      expect(direction.dot(KEY) > 0.9 || direction.distanceTo(STRIP) < 0.75).toBe(true)
      expect(Math.sqrt(spread)).toBeLessThan(0.1)
    }
  })

  it('are none where the light is even', () => {
    const even = picture(() => [0.5, 0.6, 0.7])
    expect(takeLamps(even)).toEqual([])
  })
})
