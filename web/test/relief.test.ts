import { describe, expect, it } from 'vitest'
import { RELIEF_LEVELS, spreadsIn } from '../src/stage/relief'

/** A picture of ridges of so many pixels, whose sides slope by so much. */
function ridges(side: number, width: number, slope: number): Uint8ClampedArray {
  const rgba = new Uint8ClampedArray(4 * side * side)
  const length = Math.hypot(1, slope)
  for (let i = 0; i < side * side; i++) {
    const sign = Math.floor((i % side) / (width / 2)) % 2 === 0 ? 1 : -1
    rgba.set([127.5 * (1 + (sign * slope) / length), 127.5, 127.5 * (1 + 1 / length), 255], 4 * i)
  }
  return rgba
}

describe('Relief too fine to be seen', () => {
  it('spreads its slopes in the copies that are too coarse for it, and in no other', () => {
    const spreads = spreadsIn(ridges(64, 8, 0.5), 64, 64)
    expect(spreads).toHaveLength(RELIEF_LEVELS)
    for (const finer of [0, 1, 2]) expect(spreads[finer]).toBeLessThan(0.01)
    // ±0.5 along one axis, nothing along the other
    for (let l = 3; l < RELIEF_LEVELS; l++) expect(spreads[l]).toBeCloseTo(0.5 / Math.SQRT2, 2)
  })

  it('is none where nothing is raised', () => {
    expect(Math.max(...spreadsIn(ridges(16, 8, 0), 16, 16))).toBeLessThan(0.01)
  })
})
