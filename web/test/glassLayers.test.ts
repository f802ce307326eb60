import { Box3, PerspectiveCamera, ShaderChunk, Vector2, Vector3 } from 'three'
import { describe, expect, it } from 'vitest'
import { cutAround, holds } from '../src/stage/glassLayers'

const box = (...n: [number, number, number, number, number, number]) =>
  new Box3(new Vector3(n[0], n[1], n[2]), new Vector3(n[3], n[4], n[5]))

describe('which clear body holds which', () => {
  const vessel = box(-0.05, 0, -0.05, 0.05, 0.2, 0.05)
  it('is what lies within its walls, up to the brim', () => {
    expect(holds(vessel, box(-0.048, 0.002, -0.048, 0.048, 0.12, 0.048))).toBe(true)
    expect(holds(vessel, box(-0.048, 0.002, -0.048, 0.048, 0.2, 0.048))).toBe(true)
    expect(holds(box(-0.048, 0.002, -0.048, 0.048, 0.2, 0.048), vessel)).toBe(false)
  })
  it('is no pane in the same place as another, nor one beside it', () => {
    const pane = box(0, 0, 0, 1.1, 2.18, 0.012)
    expect(holds(pane, pane.clone())).toBe(false)
    expect(holds(pane, box(0.2, 0.2, 0, 0.9, 2, 0.012))).toBe(false)
    expect(holds(box(0, 0, 0, 2.2, 2.18, 0.012), pane)).toBe(false)
  })
  it('is nothing that sticks out', () => {
    expect(holds(vessel, box(-0.048, 0.002, -0.048, 0.048, 0.25, 0.048))).toBe(false)
  })
})

describe('what is drawn behind glass', () => {
  const camera = new PerspectiveCamera(40, 1.5, 0.01, 100)
  camera.position.set(0, 0, 2)
  camera.updateMatrixWorld()
  const size = new Vector2(900, 600)

  it('is all that a body covers on the screen, and some of what is around it', () => {
    const body = box(0.1, -0.3, -0.05, 0.2, -0.1, 0.05)
    const { x, y, width, height } = cutAround([body], camera, size)
    for (const at of [body.min, body.max]) {
      const p = at.clone().project(camera)
      const [sx, sy] = [(0.5 + 0.5 * p.x) * size.x, (0.5 - 0.5 * p.y) * size.y]
      expect(sx).toBeGreaterThan(x + 10)
      expect(sx).toBeLessThan(x + width - 10)
      expect(sy).toBeGreaterThan(y + 10)
      expect(sy).toBeLessThan(y + height - 10)
    }
    expect(width).toBeLessThan(300)
    expect([width % 128, height % 128]).toEqual([0, 0])
  })

  it('is never more than the picture', () => {
    const all = { x: 0, y: 0, width: 900, height: 600 }
    expect(cutAround([box(-1, -1, -1, 1, 1, 1)], camera, size)).toEqual(all)
    expect(cutAround([box(-0.1, -0.1, 0, 0.1, 0.1, 3)], camera, size)).toEqual(all)
    const corner = cutAround([box(-1.2, -0.9, -0.1, -0.9, -0.6, 0)], camera, size)
    expect([corner.x, corner.y + corner.height]).toEqual([0, 600])
  })

  it('is read where the renderer reads', () => {
    expect(ShaderChunk.transmission_pars_fragment).toContain('fragCoord.xy, lod')
    expect(ShaderChunk.transmission_pars_fragment).toContain('uniform vec2')
  })
})
