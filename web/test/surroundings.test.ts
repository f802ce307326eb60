import { DataTexture, DataUtils, HalfFloatType, RGBAFormat } from 'three'
import { expect, it } from 'vitest'
import { dim } from '../src/stage/surroundings'

type Rgb = [number, number, number]

function dimmed(pixel: Rgb, limit: number): Rgb {
  const data = new Uint16Array([...pixel, 1].map(DataUtils.toHalfFloat))
  dim(new DataTexture(data, 1, 1, RGBAFormat, HalfFloatType), limit)
  const [r = 0, g = 0, b = 0] = [...data].map(DataUtils.fromHalfFloat)
  return [r, g, b]
}

it.each<Rgb>([
  [40, 20, 10],
  [0, 0, 300],
  [0.9, 0.6, 0.1],
])('dims what is brighter than a limit to it, in its own colour', (...pixel) => {
  const [r, g, b] = dimmed(pixel, 0.5)
  const brightest = Math.max(r, g, b)
  expect(0.2126 * r + 0.7152 * g + 0.0722 * b).toBeCloseTo(0.5, 2)
  ;[r, g, b].forEach((v, k) => expect(v / brightest).toBeCloseTo((pixel[k] ?? 0) / Math.max(...pixel), 2))
})

it('leaves what is not as it is', () => {
  expect(dimmed([0.25, 0.5, 0.125], 0.5)).toEqual([0.25, 0.5, 0.125])
})
