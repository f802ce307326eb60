import { beforeEach, describe, expect, it, vi } from 'vitest'
import { computed, effectScope, nextTick, ref } from 'vue'
import { api, Refusal, type Preview, type ProjectState, type Values } from '../src/api/client'
import { useAdjustment } from '../src/panels/card/useAdjustment'
import type { Stage } from '../src/stage/Stage'
import { stageHandle } from '../src/stores/stageHandle'
import type { useWorkspace } from '../src/stores/workspace'
import { later, material, opened, stateOf } from './opened'

let workspace: ReturnType<typeof useWorkspace>
const tryOn = vi.fn<Stage['tryOn']>()
const endTrial = vi.fn()

function card(only: number[] | null = null) {
  const at = ref({ part: 0, span: 0 })
  const adjustment = effectScope().run(() =>
    useAdjustment(
      computed(() => at.value),
      ref(only),
      ref(false),
    ),
  )
  if (!adjustment) throw new Error('no scope')
  return { at, ...adjustment }
}

/** Previews that are answered when they are told to. */
function previews() {
  const asked: { values: Values; give: (gloss: number) => void }[] = []
  vi.spyOn(api, 'preview').mockImplementation((_, __, ___, ____, values) => {
    const { answer, give } = later<Preview>()
    const preview = (gloss: number) =>
      ({
        material: material(`tried ${gloss}`),
        physical: { gloss },
        limit: gloss > 90 ? '90 at most' : '',
      }) as unknown as Preview
    asked.push({ values, give: (gloss) => give(preview(gloss)) })
    return answer
  })
  return asked
}

beforeEach(() => {
  workspace = opened()
  tryOn.mockClear()
  endTrial.mockClear()
  stageHandle.value = { tryOn, endTrial } as unknown as Stage
})

describe('while a control is dragged', () => {
  it('at most one try is on its way, and only the newest of the others follows it', async () => {
    const asked = previews()
    const { attempt, material: shown } = card()
    for (const gloss of [10, 20, 30, 40]) attempt({ gloss })
    expect(asked.map((a) => a.values)).toEqual([{ gloss: 10 }])
    asked[0]?.give(10)
    await vi.waitFor(() => expect(asked).toHaveLength(2))
    expect(asked[1]?.values).toEqual({ gloss: 40 })
    expect(shown.value?.id).toBe('tried 10')
    asked[1]?.give(40)
    await vi.waitFor(() => expect(tryOn).toHaveBeenCalledTimes(2))
    expect(tryOn.mock.calls[1]?.[0].map((r) => r.part)).toEqual([0, 1])
    expect(tryOn.mock.calls[1]?.[1]).toEqual({ gloss: 40 })
  })

  it('a try for some parts shows on these alone, and its limit is said', async () => {
    const asked = previews()
    const { attempt, limit } = card([1])
    attempt({ gloss: 95 })
    asked[0]?.give(95)
    await vi.waitFor(() => expect(tryOn).toHaveBeenCalled())
    expect(tryOn.mock.calls[0]?.[0].map((r) => r.part)).toEqual([1])
    expect(limit.value).toBe('90 at most')
  })

  it('a try that comes back after the control was let go of is not shown', async () => {
    const asked = previews()
    vi.spyOn(api, 'adjust').mockResolvedValue(stateOf(2, 'linen', 'glass'))
    const { attempt, commit, material: shown } = card()
    attempt({ roughness: 0.1 })
    await commit({ roughness: 0.2 })
    asked[0]?.give(10)
    await nextTick()
    await nextTick()
    expect(tryOn).not.toHaveBeenCalled()
    expect([shown.value?.id, workspace.adjusting]).toEqual(['linen', false])
  })

  it('a try that is refused is said, and the one that waits goes', async () => {
    const asked = previews()
    const { attempt } = card()
    const refused = later<Preview>()
    vi.mocked(api.preview).mockReturnValueOnce(refused.answer)
    attempt({ gloss: 10 })
    attempt({ gloss: 20 })
    refused.fail(new Refusal(422, 'bad', 'Gloss is 0 … 100.'))
    await vi.waitFor(() => expect(asked.map((a) => a.values)).toEqual([{ gloss: 20 }]))
    expect(workspace.problem).toBe('Gloss is 0 … 100.')
  })

  it('a try of before does not let two of after be on their way', async () => {
    const asked = previews()
    vi.spyOn(api, 'adjust').mockResolvedValue(stateOf(2, 'linen', 'glass'))
    const { attempt, commit } = card()
    attempt({ roughness: 0.1 })
    await commit({ roughness: 0.2 })
    attempt({ roughness: 0.3 })
    asked[0]?.give(10)
    await new Promise((soon) => setTimeout(soon))
    attempt({ roughness: 0.4 })
    expect(asked.map((a) => a.values)).toEqual([{ roughness: 0.1 }, { roughness: 0.3 }])
  })
})

describe('what a material was when it came onto the card', () => {
  const polished = (version: number, gloss: number, id = 'brass', origin?: string): ProjectState => {
    const state = stateOf(version, id, 'glass')
    state.palette = [
      { material: material(id, { whole: { gloss }, origin }), parts: 2 },
    ] as ProjectState['palette']
    return state
  }

  it('can be shown for as long as a key is held, and put back in one step', async () => {
    workspace.take(polished(2, 40))
    const { hasChanged, showBefore, showsBefore, discard } = card()
    expect(hasChanged.value).toBe(false)
    workspace.take(polished(3, 80))
    await nextTick()
    expect(hasChanged.value).toBe(true)
    showBefore(true)
    expect([showsBefore.value, tryOn.mock.calls.length]).toEqual([true, 1])
    showBefore(false)
    expect([showsBefore.value, endTrial.mock.calls.length > 0]).toEqual([false, true])
    const adjust = vi.spyOn(api, 'adjust').mockResolvedValue(polished(4, 40))
    await discard()
    expect(adjust.mock.calls[0]?.[5]).toEqual({ kind: 'paint', whole: { gloss: 40 } })
    expect(hasChanged.value).toBe(false)
  })

  it('stays what it was where parts got a material of their own by the change', async () => {
    workspace.take(polished(2, 40))
    const { hasChanged } = card()
    workspace.take(polished(3, 80, 'brass 2', 'brass'))
    await nextTick()
    expect(hasChanged.value).toBe(true)
  })

  it('is begun anew with another part, or where what was done is kept', async () => {
    workspace.take(polished(2, 40))
    const { at, hasChanged, keep } = card()
    workspace.take(polished(3, 80))
    await nextTick()
    keep()
    expect(hasChanged.value).toBe(false)
    workspace.take(polished(4, 90))
    await nextTick()
    expect(hasChanged.value).toBe(true)
    at.value = { part: 2, span: 0 }
    await nextTick()
    expect(hasChanged.value).toBe(false)
  })
})
