import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { api, Refusal, type Why } from '../src/api/client'
import type { Stage } from '../src/stage/Stage'
import { useCandidates } from '../src/stores/candidates'
import { stageHandle } from '../src/stores/stageHandle'
import type { useWorkspace } from '../src/stores/workspace'
import { later, opened, stateOf } from './opened'

type Trial = Awaited<ReturnType<typeof api.trial>>

let workspace: ReturnType<typeof useWorkspace>
let candidates: ReturnType<typeof useCandidates>
const tryOn = vi.fn<Stage['tryOn']>()
const endTrial = vi.fn()

function trial(material: string): Trial {
  return {
    reached: [{ part: 0, span: 0 }],
    look: { physical: { of: material }, mapping: 'metric' },
  } as unknown as Trial
}
/** A state with candidates kept on the first set. */
function keeping(version: number, ...materials: string[]) {
  const state = stateOf(version, 'brass', 'glass')
  state.candidates = [{ about: '', level: 'set', target: 0, materials }]
  return state
}

beforeEach(() => {
  workspace = opened()
  workspace.take(keeping(2, 'brass', 'glass', 'linen'))
  vi.spyOn(api, 'trial').mockImplementation((_, __, ___, ____, material) =>
    Promise.resolve(trial(material ?? '')),
  )
  tryOn.mockClear()
  endTrial.mockClear()
  stageHandle.value = { tryOn, endTrial } as unknown as Stage
  workspace.selection = [{ part: 0, span: 0 }]
  workspace.why = { levels: [{ level: 'set', target: 0, wins: true }] } as unknown as Why
  candidates = useCandidates()
})

function seen() {
  return tryOn.mock.calls.map((c) => (c[1] as unknown as { of: string }).of)
}

describe('candidates', () => {
  it('are stepped through in a ring, either way', async () => {
    for (const by of [1, 1, 1, 1, -1]) {
      candidates.step(by)
      await vi.waitFor(() => expect(tryOn.mock.calls.length).toBeGreaterThan(0))
    }
    await nextTick()
    expect(vi.mocked(api.trial).mock.calls.map((c) => c[4])).toEqual([
      'brass',
      'glass',
      'linen',
      'brass',
      'linen',
    ])
    expect([candidates.shown, candidates.current]).toEqual([2, 'linen'])
    candidates.leave()
    candidates.step(-1)
    expect(candidates.shown).toBe(2)
  })

  it('show the newest, whichever answer comes last', async () => {
    const slow = later<Trial>()
    vi.mocked(api.trial).mockReturnValueOnce(slow.answer)
    candidates.step(1)
    candidates.step(1)
    await vi.waitFor(() => expect(seen()).toEqual(['glass']))
    slow.give(trial('brass'))
    await nextTick()
    expect(seen()).toEqual(['glass'])
  })

  it('are put on where they were kept, and then no longer only tried', async () => {
    const assign = vi.spyOn(api, 'assign').mockResolvedValue(keeping(3, 'brass', 'glass', 'linen'))
    candidates.step(1)
    await candidates.putOn()
    expect(assign.mock.calls[0]?.[2]).toMatchObject({ level: 'set', targets: [0], material: 'brass' })
    expect([candidates.shown, endTrial.mock.calls.length]).toEqual([null, 1])
  })

  it('are left when another thing is selected or the one that shows is dropped', async () => {
    candidates.step(-1)
    workspace.take(keeping(3, 'brass'))
    await nextTick()
    expect(candidates.shown).toBeNull()
    candidates.step(1)
    workspace.why = { levels: [{ level: 'set', target: 1, wins: true }] } as unknown as Why
    await nextTick()
    expect([candidates.shown, candidates.kept]).toEqual([null, []])
  })

  it('that are none, or cannot be tried, say so', async () => {
    workspace.take(keeping(3))
    candidates.step(1)
    expect(workspace.notice).toContain('No candidates are kept on this')
    workspace.take(keeping(4, 'brass'))
    vi.mocked(api.trial).mockRejectedValueOnce(new Refusal(404, 'gone', 'It is no longer there.'))
    candidates.step(1)
    await vi.waitFor(() => expect(workspace.problem).toBe('It is no longer there.'))
  })
})
