import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { api, type Material, type Scene } from '../src/api/client'
import { facesLost } from '../src/panels/arrival/facesLost'
import { numberTyped } from '../src/panels/shared/facts'
import { useCloser } from '../src/stores/closer'
import type { useWorkspace } from '../src/stores/workspace'
import { material, opened, SCENE } from './opened'

let workspace: ReturnType<typeof useWorkspace>
beforeEach(() => {
  workspace = opened()
})

/** The shade has come with two materials, and a face of its own was cut into it. */
const SEVERAL = {
  ...SCENE,
  ownFaces: [{ name: 'Label' }],
  parts: SCENE.parts.map((p) => (p.index === 2 ? { ...p, sets: [1, 0, 1], ownFaces: [-1, -1, 0] } : p)),
} as unknown as Scene

describe('a selection of parts', () => {
  it('means all their surfaces, the first one last', () => {
    workspace.scene = SEVERAL
    workspace.selectParts([0, 2])
    expect(workspace.selection.map(({ part, span }) => [part, span])).toEqual([
      [0, 0],
      [2, 2],
      [2, 1],
      [2, 0],
    ])
    expect(workspace.current).toEqual({ part: 2, span: 0 })
  })

  it('of a group means all surfaces of what it holds', () => {
    workspace.scene = SEVERAL
    workspace.selectSpot({ level: 'group', target: 0 })
    expect(workspace.selection).toHaveLength(5)
  })
})

describe('a material of the palette', () => {
  it('comes onto the card without a part, until something is selected', () => {
    workspace.edit('linen')
    expect([workspace.edited, workspace.selection]).toEqual(['linen', []])
    workspace.selectParts([0])
    expect(workspace.edited).toBeNull()
  })

  it('has its users found on either side', () => {
    expect(workspace.usersOf('linen')).toEqual([{ part: 2, span: 0, front: false, back: true }])
  })
})

it('names faces of one’s own that a newer file takes away', () => {
  expect(facesLost(SEVERAL, new Set([0, 1, 2]))).toEqual([])
  expect(facesLost(SEVERAL, new Set([0, 1])).map((f) => [f.name, f.part.name])).toEqual([['Label', 'Shade']])
})

it.each([
  ['7,85', 7.85],
  [' 12 ', 12],
  ['', null],
  ['about 5', undefined],
])('reads the number “%s” as it is typed', (text, read) => {
  expect(numberTyped(text)).toBe(read)
})

describe('a closer look', () => {
  it('says why there is no picture, and asks again', async () => {
    vi.spyOn(api, 'closerAddress').mockReturnValue('/closer')
    const answers = [
      new Response('', { status: 500 }),
      new Response('png', { headers: { 'X-Final': 'true' } }),
    ]
    vi.stubGlobal('fetch', () => Promise.resolve(answers.shift()))
    vi.spyOn(URL, 'createObjectURL').mockReturnValue('blob:closer')
    const closer = useCloser()
    closer.look(material('brass', { chip: 'one' } as Partial<Material>))
    await nextTick()
    await vi.waitFor(() => expect(closer.problem).toContain('could not be traced'))
    await closer.again()
    expect([closer.problem, closer.picture]).toEqual(['', 'blob:closer'])
  })
})
