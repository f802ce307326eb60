import { readFileSync } from 'node:fs'
import { FloatType } from 'three'
import { HDRLoader } from 'three/examples/jsm/loaders/HDRLoader.js'
import { describe, expect, it } from 'vitest'
import { SURROUNDINGS } from '../src/stage/surroundings'

function pictureOf(id: string) {
  const file = readFileSync(new URL(`../public/environments/${id}.hdr`, import.meta.url))
  const bytes = file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength)
  const { data, width, height } = new HDRLoader().setDataType(FloatType).parse(bytes as ArrayBuffer)
  return { data: data as Float32Array, width: width as number, height: height as number }
}

describe.each(SURROUNDINGS.map((s) => s.id))('the picture of surroundings “%s”', (id) => {
  const { data, width, height } = pictureOf(id)

  it('has no pixel that has lost a channel', () => {
    let lost = 0
    for (let i = 0; i < data.length; i += 4) {
      const [r = 0, g = 0, b = 0] = data.subarray(i, i + 3)
      const most = Math.max(r, g, b)
      if (!Number.isFinite(most) || r + g + b - most < 0.02 * most) lost++
    }
    expect(lost).toBe(0)
  })

  it('lights white as bright as any other, and in a tone that an eye adapts to', () => {
    const sum = [0, 0, 0]
    let weights = 0
    for (let y = 0; y < height; y++) {
      const weight = Math.sin((Math.PI * (y + 0.5)) / height)
      for (let x = 0; x < width; x++) {
        for (let k = 0; k < 3; k++) sum[k] = (sum[k] ?? 0) + weight * (data[4 * (y * width + x) + k] ?? 0)
        weights += weight
      }
    }
    const [r = 0, g = 0, b = 0] = sum.map((s) => s / weights)
    expect(0.2126 * r + 0.7152 * g + 0.0722 * b).toBeCloseTo(0.72, 1)
    expect(Math.max(r, g, b) / Math.min(r, g, b)).toBeLessThan(id === 'studio' ? 1.02 : 1.15)
  })
})
