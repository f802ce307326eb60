import { BufferAttribute, BufferGeometry, MeshPhysicalMaterial, Vector3, type Mesh } from 'three'
import { Mesh as ThreeMesh } from 'three'
import { describe, expect, it } from 'vitest'
import { Batches, type PartMesh } from '../src/stage/batches'

/** Triangles in a row from x on, so many in each span. */
function part(x: number, spans: number[]): PartMesh {
  const triangles = spans.reduce((a, b) => a + b)
  const position: number[] = []
  for (let t = 0; t < triangles; t++) position.push(x + t, 0, 0, x + t + 1, 0, 0, x + t, 1, 0)
  const g = new BufferGeometry()
  g.setAttribute('position', new BufferAttribute(new Float32Array(position), 3))
  g.setAttribute(
    'normal',
    new BufferAttribute(new Float32Array(position.map((_, i) => (i % 3 === 2 ? 1 : 0))), 3),
  )
  g.setIndex([...position.keys()].slice(0, 3 * triangles))
  let start = 0
  spans.forEach((count, span) => {
    g.addGroup(start, 3 * count, span)
    start += 3 * count
  })
  return new ThreeMesh(g, []) as unknown as PartMesh
}

/** The x of the first corner of every triangle that a material's batch draws. */
function drawn(batches: Batches, m: MeshPhysicalMaterial): number[] {
  const mesh = batches.root.children.find((c) => (c as Mesh).material === m) as Mesh | undefined
  const index = [...(mesh?.geometry.index?.array ?? [])]
  const position = mesh?.geometry.getAttribute('position')
  return index.filter((_, i) => i % 3 === 0).map((v) => position?.getX(v) ?? NaN)
}

describe('Batches', () => {
  const [red, blue] = [new MeshPhysicalMaterial(), new MeshPhysicalMaterial()]
  const laid = () => {
    const batches = new Batches()
    batches.lay([part(0, [2, 1]), part(10, [1])], new Vector3(), 20)
    return batches
  }

  it('draws what wears one material in one call', () => {
    const batches = laid()
    batches.wear((p, span) => (p === 0 && span === 0 ? red : blue))
    expect(drawn(batches, red)).toEqual([0, 1])
    expect(drawn(batches, blue)).toEqual([2, 10])
  })

  it('moves a span to another batch and leaves the rest as it is', () => {
    const batches = laid()
    batches.wear(() => red)
    batches.wear((p) => (p === 1 ? blue : red))
    expect(drawn(batches, red)).toEqual([0, 1, 2])
    expect(drawn(batches, blue)).toEqual([10])
    batches.wear((p) => (p === 1 ? null : red))
    expect(drawn(batches, blue)).toEqual([])
  })

  it('shares one set of vertices', () => {
    const batches = laid()
    batches.wear((p) => (p === 1 ? blue : red))
    const used = new Set(batches.root.children.map((c) => (c as Mesh).geometry.getAttribute('position')))
    expect(used.size).toBe(1)
  })
})
