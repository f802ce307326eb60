import { BufferAttribute, BufferGeometry } from 'three'
import { describe, expect, it } from 'vitest'
import { PartAges, type AgeingNews } from '../src/stage/ageing'
import type { PartMesh } from '../src/stage/batches'

const MAGIC = 0x4547415a

/** Resistances of one triangle in one texel. */
function fields(): ArrayBuffer {
  const buffer = new ArrayBuffer(16 + 12 + 4)
  new Uint32Array(buffer, 0, 4).set([MAGIC, 1, 1, 1])
  return buffer
}

function part(index: number): PartMesh {
  const geometry = new BufferGeometry()
  geometry.setAttribute('position', new BufferAttribute(new Float32Array(9), 3))
  geometry.setIndex([0, 1, 2])
  return { userData: { part: index }, geometry } as unknown as PartMesh
}

/** Answers when it is told to. */
function stage(wanted: Set<number>) {
  const loads: { part: number; answer: () => Promise<void> }[] = []
  const news: AgeingNews[] = []
  const ages = new PartAges(
    (index) =>
      new Promise((give) =>
        loads.push({
          part: index,
          answer: async () => {
            give(fields())
            await new Promise((r) => setTimeout(r))
          },
        }),
      ),
    (index) => wanted.has(index),
    () => undefined,
    (n) => news.push(n),
    (e) => {
      throw e
    },
  )
  return { ages, loads, news, last: () => news[news.length - 1] }
}

describe('how parts age', () => {
  it('comes one after another, and what nobody wears any more is left out', async () => {
    const wanted = new Set([1, 2, 3])
    const { ages, loads, last } = stage(wanted)
    const parts = [1, 2, 3].map(part)
    for (const p of parts) expect(ages.of(p, false)).toBeNull()
    expect(last()).toEqual({ left: 3, seconds: null, stopped: false })
    wanted.delete(2)
    await loads[0]?.answer()
    expect(loads.map((l) => l.part)).toEqual([1, 3])
    await loads[1]?.answer()
    expect(last()?.left).toBe(0)
    wanted.add(2)
    expect(parts.map((p) => ages.of(p, false) !== null)).toEqual([true, false, true])
    expect(loads.map((l) => l.part)).toEqual([1, 3, 2]) // asked for anew
  })

  it('is put off, and goes on where it was', async () => {
    const wanted = new Set([1, 2, 3])
    const { ages, loads, last } = stage(wanted)
    for (const i of [1, 2, 3]) ages.of(part(i), false)
    ages.stop()
    await loads[0]?.answer()
    expect(loads).toHaveLength(1)
    expect(last()).toEqual({ left: 2, seconds: null, stopped: true })
    wanted.delete(3)
    ages.review()
    expect(last()?.left).toBe(1)
    ages.goOn()
    await loads[1]?.answer()
    expect(loads.map((l) => l.part)).toEqual([1, 2])
    expect(last()).toEqual({ left: 0, seconds: null, stopped: false })
  })
})
