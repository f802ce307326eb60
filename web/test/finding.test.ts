import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { api } from '../src/api/client'
import { ABREAST, drawerName, placeOf, useFinding } from '../src/stores/finding'
import { later, material, opened } from './opened'

type Found = Awaited<ReturnType<typeof api.find>>

let finding: ReturnType<typeof useFinding>
beforeEach(() => {
  vi.useFakeTimers()
  opened()
  finding = useFinding()
})
afterEach(() => {
  vi.useRealTimers()
})

function answer(total: number, ...ids: string[]): Found {
  return { materials: ids.map((id) => material(id)), total, facets: [], told: null } as unknown as Found
}

async function pause() {
  await nextTick()
  await vi.advanceTimersByTimeAsync(200)
}

describe('what is sought', () => {
  it('is asked for once one stops typing, and the project’s own come first', async () => {
    const find = vi.spyOn(api, 'find').mockResolvedValue(answer(2, 'brass', 'brass-dark'))
    for (const words of ['b', 'br', 'bra']) {
      finding.words = words
      await nextTick()
      await vi.advanceTimersByTimeAsync(50)
    }
    expect(find).not.toHaveBeenCalled()
    await pause()
    expect(find.mock.calls.map((c) => c[1].words)).toEqual(['bra'])
    expect(finding.chips.map((m) => m.id)).toEqual(['brass', 'brass-dark'])
    finding.words = ''
    await pause()
    expect(finding.chips.map((m) => m.id)).toEqual(['brass', 'glass', 'linen'])
  })

  it('shows the newest answer, whichever comes last', async () => {
    const slow = later<Found>()
    vi.spyOn(api, 'find').mockReturnValueOnce(slow.answer).mockResolvedValueOnce(answer(1, 'oak'))
    finding.words = 'o'
    await pause()
    finding.words = 'oa'
    await pause()
    slow.give(answer(1, 'old'))
    await pause()
    expect(finding.chips.map((m) => m.id)).toEqual(['oak'])
  })

  it('goes on where the last page ended, to the end', async () => {
    const find = vi.spyOn(api, 'find').mockResolvedValueOnce(answer(3, 'one', 'two'))
    finding.drawer = 'all'
    await pause()
    find.mockResolvedValueOnce(answer(3, 'three'))
    finding.more()
    await pause()
    finding.more()
    expect(find.mock.calls.map((c) => c[1].from)).toEqual([0, 2])
    expect(finding.chips.map((m) => m.id)).toEqual(['one', 'two', 'three'])
  })

  it('keeps what it shows where the library cannot be asked', async () => {
    const find = vi.spyOn(api, 'find').mockResolvedValueOnce(answer(1, 'one'))
    finding.drawer = 'all'
    await pause()
    find.mockRejectedValueOnce(new Error('gone'))
    finding.again()
    await pause()
    expect([finding.chips.map((m) => m.id), finding.failed !== '']).toEqual([['one'], true])
  })

  it('is narrowed by drawer and by what is wanted, twice the same is off again', async () => {
    const find = vi.spyOn(api, 'find').mockResolvedValue(answer(0))
    finding.drawer = drawerName('mine', 'doors')
    finding.want('FINISH', 'matt')
    await pause()
    expect(find.mock.calls[0]?.[1]).toMatchObject({
      place: { library: 'mine', drawer: 'doors' },
      wanted: { FINISH: ['matt'] },
    })
    finding.drawer = 'wood'
    finding.want('FINISH', 'matt')
    await pause()
    expect(find.mock.calls[1]?.[1]).toMatchObject({ wanted: { FINISH: [], KIND: ['wood'] } })
    expect(placeOf(drawerName('mine', null))).toEqual(['mine', null])
    expect(placeOf('palette')).toEqual([null, null])
  })
})

describe('what is laid side by side', () => {
  it('is so many at most, and goes by a second choice', () => {
    for (let i = 0; i <= ABREAST; i++) finding.compare(`m${i}`)
    expect(finding.compared).toHaveLength(ABREAST)
    finding.comparing = true
    for (let i = ABREAST - 1; i > 0; i--) finding.compare(`m${i}`)
    expect([finding.compared, finding.comparing]).toEqual([['m0'], false])
  })
})
