import { Box3, PerspectiveCamera, Vector3 } from 'three'
import { describe, expect, it } from 'vitest'
import { filling } from '../src/stage/viewpoint'

/** Where the corners of a box are seen, from (0, 0) at the lower left of the view to (1, 1). */
function extent(box: Box3, camera: PerspectiveCamera, eye: Vector3, target: Vector3, up: Vector3) {
  camera.position.copy(eye)
  camera.up.copy(up)
  camera.lookAt(target)
  camera.updateMatrixWorld()
  const seen = [...Array(8).keys()].map((i) => {
    const { min, max } = box
    const p = new Vector3(i & 1 ? max.x : min.x, i & 2 ? max.y : min.y, i & 4 ? max.z : min.z)
    return p.project(camera).multiplyScalar(0.5).addScalar(0.5)
  })
  const [xs, ys] = [seen.map((p) => p.x), seen.map((p) => p.y)]
  return {
    left: Math.min(...xs),
    right: 1 - Math.max(...xs),
    bottom: Math.min(...ys),
    top: 1 - Math.max(...ys),
  }
}

const UP = new Vector3(0, 1, 0)
const FREE = { side: 0.05, top: 0.04, bottom: 0.1 }

describe('what fills the view', () => {
  const boxes = {
    tall: new Box3(new Vector3(-0.1, 0, -0.1), new Vector3(0.1, 0.5, 0.1)),
    long: new Box3(new Vector3(-4, 0, -1), new Vector3(4, 2, 1)),
    flat: new Box3(new Vector3(10, 1, 10), new Vector3(12, 1, 13)),
  }
  const directions = { askew: [1, 0.5, 2], level: [0, 0, 1], steep: [0.2, 3, 0.2], below: [1, -1, 0.3] }
  for (const [name, box] of Object.entries(boxes))
    for (const [from, d] of Object.entries(directions))
      it(`is all seen, and one way there is no room left: ${name}, ${from}`, () => {
        const camera = new PerspectiveCamera(32, 1.2, 0.01, 1000)
        const direction = new Vector3(...(d as [number, number, number])).normalize()
        const { eye, target } = filling(box, direction, camera, FREE)
        const { left, right, bottom, top } = extent(box, camera, eye, target, UP)
        expect(left).toBeGreaterThan(FREE.side - 1e-9)
        expect(right).toBeGreaterThan(FREE.side - 1e-9)
        expect(bottom).toBeGreaterThan(FREE.bottom - 1e-9)
        expect(top).toBeGreaterThan(FREE.top - 1e-9)
        const room = [left + right - 2 * FREE.side, bottom + top - FREE.bottom - FREE.top]
        expect(Math.min(...room)).toBeLessThan(1e-9)
        expect(eye.clone().sub(target).normalize().distanceTo(direction)).toBeLessThan(1e-9)
      })

  it('is seen from straight above, too', () => {
    const camera = new PerspectiveCamera(32, 1.2, 0.01, 1000)
    const { eye, target } = filling(boxes.long, UP, camera, FREE)
    const { left, right } = extent(boxes.long, camera, eye, target, new Vector3(0, 0, -1))
    expect(left).toBeCloseTo(FREE.side, 9)
    expect(right).toBeCloseTo(FREE.side, 9)
  })

  it('is a point without being within it', () => {
    const camera = new PerspectiveCamera(32, 1.2, 0.01, 1000)
    const p = new Vector3(1, 2, 3)
    const { eye, target } = filling(new Box3(p, p), UP, camera, FREE)
    expect(eye.distanceTo(target)).toBeGreaterThan(0)
  })
})
