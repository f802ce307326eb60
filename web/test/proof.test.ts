import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { api, type ProofNews } from '../src/api/client'
import * as client from '../src/api/client'
import type { Stage } from '../src/stage/Stage'
import { useLight } from '../src/stores/light'
import { useProof } from '../src/stores/proof'
import { stageHandle } from '../src/stores/stageHandle'
import type { useWorkspace } from '../src/stores/workspace'
import { later, opened } from './opened'

let workspace: ReturnType<typeof useWorkspace>
let proof: ReturnType<typeof useProof>
const begun = vi.fn<typeof api.beginProof>()
const ended = vi.fn(() => Promise.resolve(undefined))

beforeEach(() => {
  vi.useFakeTimers()
  workspace = opened()
  begun.mockReset().mockResolvedValue({ proof: 'one' } as Awaited<ReturnType<typeof api.beginProof>>)
  ended.mockClear()
  vi.spyOn(api, 'beginProof').mockImplementation(begun)
  vi.spyOn(api, 'endProof').mockImplementation(ended)
  vi.spyOn(client, 'bytesAt').mockResolvedValue(new ArrayBuffer(8))
  vi.spyOn(URL, 'createObjectURL').mockImplementation(() => 'blob:picture')
  vi.spyOn(URL, 'revokeObjectURL').mockImplementation(() => undefined)
  stageHandle.value = {
    size: { width: 4000, height: 2500 },
    view: { eye: [], target: [], degrees: 32 },
  } as unknown as Stage
  proof = useProof()
})
afterEach(() => {
  vi.useRealTimers()
})

function rest() {
  return vi.advanceTimersByTimeAsync(1000)
}

describe('a proof', () => {
  it('begins once the stage rests, of as many pixels as it may have', async () => {
    proof.toggle()
    expect(begun).not.toHaveBeenCalled()
    await rest()
    const { width, height } = begun.mock.calls[0]?.[2] ?? { width: 0, height: 0 }
    expect(width * height).toBeLessThanOrEqual(2_500_000)
    expect(width / height).toBeCloseTo(1.6, 2)
  })

  it('waits while something is adjusted or sent', async () => {
    workspace.adjusting = true
    proof.toggle()
    await rest()
    expect(begun).not.toHaveBeenCalled()
    workspace.adjusting = false
    await rest()
    expect(begun).toHaveBeenCalledTimes(1)
  })

  it('is of before when something changes: it ends and another begins', async () => {
    proof.toggle()
    await rest()
    const light = useLight()
    light.tryOut({ turn: 40 })
    await nextTick()
    expect(ended).toHaveBeenCalledTimes(1)
    expect(proof.picture).toBe('')
    await rest()
    expect(begun).toHaveBeenCalledTimes(1) // not while a control is moved
    light.tried = null
    await rest()
    expect(begun).toHaveBeenCalledTimes(2)
  })

  it('that is switched off keeps its picture and goes on from where it was', async () => {
    const news = (share: number, of = 'one'): ProofNews => ({
      ...({ proof: of, pictures: 2, share, secondsLeft: 9, done: false, failed: false } as ProofNews),
    })
    proof.toggle()
    await rest()
    proof.hear(news(0.4))
    await rest()
    proof.toggle()
    expect([ended.mock.calls.length, proof.isShown, proof.picture, proof.share]).toEqual([
      1,
      false,
      'blob:picture',
      0.4,
    ])
    begun.mockResolvedValue({ proof: 'two' } as Awaited<ReturnType<typeof api.beginProof>>)
    proof.toggle()
    expect(proof.isShown).toBe(true)
    await rest()
    expect(begun).toHaveBeenCalledTimes(2)
    const shown = vi.mocked(URL.createObjectURL).mock.calls.length
    proof.hear(news(0.1, 'two'))
    await rest()
    expect([proof.share, vi.mocked(URL.createObjectURL).mock.calls.length]).toEqual([0.4, shown])
    proof.hear(news(0.6, 'two'))
    await rest()
    expect([proof.share, vi.mocked(URL.createObjectURL).mock.calls.length]).toEqual([0.6, shown + 1])
  })

  it('that is begun after nobody wants it any more is ended', async () => {
    const slow = later<Awaited<ReturnType<typeof api.beginProof>>>()
    begun.mockReturnValueOnce(slow.answer)
    proof.toggle()
    await rest()
    proof.close()
    slow.give({ proof: 'late' } as Awaited<ReturnType<typeof api.beginProof>>)
    await rest()
    expect([ended.mock.calls.length, proof.isShown]).toEqual([1, false])
  })

  it('hears of itself alone, and is not shown while something else is tried', async () => {
    proof.toggle()
    await rest()
    const news = {
      proof: 'one',
      pictures: 2,
      share: 0.5,
      secondsLeft: 9,
      done: false,
      failed: false,
    } as ProofNews
    proof.hear({ ...news, proof: 'other', share: 0.9 })
    expect(proof.share).toBe(0)
    proof.hear(news)
    await rest()
    expect([proof.share, proof.secondsLeft, proof.isShown]).toEqual([0.5, 9, true])
    workspace.adjusting = true
    expect(proof.isShown).toBe(false)
  })

  it('is of looks, not of diagrams', async () => {
    workspace.aid = 'plain'
    proof.toggle()
    await rest()
    expect([proof.on, workspace.notice, begun.mock.calls.length]).toEqual([
      false,
      'A proof is of looks: show these first.',
      0,
    ])
  })
})
