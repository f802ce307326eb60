import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, Refusal, type ProjectState, type Seen } from '../src/api/client'
import { counted, useWorkspace } from '../src/stores/workspace'
import { later, opened, stateOf } from './opened'

let workspace: ReturnType<typeof useWorkspace>
beforeEach(() => {
  workspace = opened()
})

describe('changes on their way', () => {
  it('go one after another, each on what the last one left', async () => {
    const first = later<ProjectState>()
    const versions: number[] = []
    const one = workspace.run(({ version }) => {
      versions.push(version)
      return first.answer
    })
    const two = workspace.run(({ version }) => {
      versions.push(version)
      return Promise.resolve(stateOf(version + 1, 'linen', 'linen'))
    })
    await Promise.resolve()
    expect([versions, workspace.pending]).toEqual([[1], 2])
    first.give(stateOf(5, 'glass', 'glass'))
    expect([await one, await two, versions, workspace.state?.version, workspace.pending]).toEqual([
      true,
      true,
      [1, 5],
      6,
      0,
    ])
  })

  it('that are refused say why, and the newest is read; the next one goes all the same', async () => {
    vi.spyOn(api, 'state').mockResolvedValue(stateOf(3, 'glass', 'glass'))
    const refused = workspace.run(() => Promise.reject(new Refusal(422, 'bad', 'Gloss is 0 … 100.')))
    const next = workspace.run(({ version }) => Promise.resolve(stateOf(version + 1, 'linen', 'linen')))
    expect([await refused, await next]).toEqual([false, true])
    expect([workspace.problem, workspace.failed]).toEqual(['Gloss is 0 … 100.', true])
    expect(workspace.state?.version).toBe(4)
  })

  it('that meet another’s are asked about, and done over it on yes', async () => {
    vi.spyOn(api, 'state').mockResolvedValue(stateOf(2, 'glass', 'glass'))
    const change = vi
      .fn<(seen: Seen) => Promise<ProjectState>>()
      .mockRejectedValueOnce(new Refusal(409, 'met', 'Ada has just painted it.'))
      .mockImplementation(({ version }) => Promise.resolve(stateOf(version + 1, 'linen', 'linen')))
    expect(await workspace.run(change)).toBe(false)
    expect(workspace.question?.text).toBe('Ada has just painted it.')
    workspace.question?.yes()
    await vi.waitFor(() => expect(workspace.state?.version).toBe(3))
    expect(change.mock.calls.map(([seen]) => seen.version)).toEqual([1, 2])
  })

  it('that end in a fault of the page’s own keep nothing from the next', async () => {
    vi.spyOn(console, 'error').mockReturnValue()
    const broken = workspace.run(() => Promise.reject(new TypeError('network error')))
    const next = workspace.run(({ version }) => Promise.resolve(stateOf(version + 1, 'linen', 'linen')))
    expect([await broken, await next, workspace.pending]).toEqual([false, true, 0])
    expect(workspace.state?.version).toBe(2)
  })

  it('are not undone by an answer that is older', () => {
    workspace.take(stateOf(9, 'linen', 'glass'))
    workspace.take(stateOf(8, 'brass', 'glass'))
    expect(workspace.materialOf({ part: 0, span: 0 })?.id).toBe('linen')
  })

  it('name how many parts show something else, and what hides it where it was put', async () => {
    workspace.select([{ part: 0, span: 0 }])
    vi.spyOn(api, 'assign').mockResolvedValueOnce(stateOf(2, 'linen', 'glass', 'linen'))
    await workspace.assign({ level: 'set', target: 0 }, 'linen')
    expect(workspace.notice).toBe('linen · 2 parts')
    vi.spyOn(api, 'assign').mockResolvedValueOnce(stateOf(3, 'linen', 'brass', 'linen'))
    await workspace.assign({ level: 'set', target: 0 }, 'glass')
    expect(workspace.notice).toBe('glass · 1 part · hidden here by the part’s own look')
  })
})

describe('what is looked at', () => {
  it('has a front and a back, each with what shares its look', () => {
    const shade = { part: 2, span: 0 }
    expect([workspace.materialOf(shade)?.id, workspace.materialOf(shade, true)?.id]).toEqual([
      'glass',
      'linen',
    ])
    expect(workspace.sharing(shade, true)).toEqual([{ part: 2, span: 0, front: false, back: true }])
    expect(workspace.sharing({ part: 0, span: 0 }).map((r) => [r.part, r.front, r.back])).toEqual([
      [0, true, true],
      [1, true, true],
    ])
  })

  it('grows by the groups that hold it, innermost first, and goes back the same way', () => {
    const parts = () => workspace.selection.map((r) => r.part)
    workspace.selectParts([1])
    workspace.climb()
    expect([parts(), workspace.notice]).toEqual([[0, 1], 'Frame · 2 parts'])
    workspace.climb()
    expect(parts()).toEqual([0, 1, 2])
    workspace.climb()
    expect([parts(), workspace.notice]).toEqual([[0, 1, 2], 'No group holds more than this.'])
    workspace.descend()
    workspace.descend()
    workspace.descend()
    expect(parts()).toEqual([1])
  })

  it('is met by set, part, group and model', () => {
    const met = (level: string, target: number) => {
      workspace.selectSpot({ level, target })
      return workspace.selection.map((r) => r.part)
    }
    expect([met('set', 0), met('part', 2), met('group', 1), met('model', 0)]).toEqual([
      [0, 1],
      [2],
      [0, 1],
      [0, 1, 2],
    ])
  })

  it('can be copied as a shared look or as one of its own', async () => {
    const assign = vi.spyOn(api, 'assign').mockResolvedValue(stateOf(2, 'glass', 'glass'))
    const copy = vi.spyOn(api, 'copyMaterial').mockResolvedValue(stateOf(3, 'brass', 'glass'))
    await workspace.pasteLook(true)
    expect(workspace.notice).toBe('Copy a look first: select a part, then Ctrl C.')
    workspace.select([{ part: 2, span: 0 }])
    workspace.copyLook()
    workspace.select([{ part: 0, span: 0 }])
    await workspace.pasteLook(true)
    expect(assign.mock.calls[0]?.[2]).toMatchObject({ material: 'glass', regions: [{ part: 0, span: 0 }] })
    await workspace.pasteLook(false)
    expect(copy.mock.calls[0]?.slice(2)).toEqual([
      'glass',
      { name: 'glass 2', variation: false, parts: [0], colour: null },
    ])
  })

  it('is counted in words', () => {
    expect([counted(1, 'part'), counted(1200, 'part'), counted(2, 'body', 'bodies')]).toEqual([
      '1 part',
      '1,200 parts',
      '2 bodies',
    ])
  })
})

describe('schemes', () => {
  it('that were seen since the last change are there at once', async () => {
    const both = (s: ProjectState, scheme: string) =>
      ({ ...s, scheme, schemes: [{ id: 'a' }, { id: 'b' }] }) as ProjectState
    workspace.take(both(stateOf(4, 'brass', 'glass'), 'a'))
    const newest = later<ProjectState>()
    vi.spyOn(api, 'state')
      .mockResolvedValueOnce(both(stateOf(4, 'linen', 'glass'), 'b'))
      .mockReturnValueOnce(newest.answer)
    await workspace.stateOf('b')
    const switched = workspace.switchTo('b')
    await vi.waitFor(() => expect(workspace.state?.scheme).toBe('b'))
    expect(workspace.materialOf({ part: 0, span: 0 })?.id).toBe('linen')
    newest.give(both(stateOf(5, 'glass', 'glass'), 'b'))
    await switched
    expect(workspace.state?.version).toBe(5)
    workspace.take(both(stateOf(6, 'brass', 'glass'), 'a')) // answered late, of the one that is no longer looked at
    expect(workspace.state?.scheme).toBe('b')
  })
})
