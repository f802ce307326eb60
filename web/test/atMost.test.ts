import { expect, it } from 'vitest'
import { atMost } from '../src/stage/atMost'

it('has no more under way than it may, and does all of it, after failures, too', async () => {
  let running = 0
  let most = 0
  const work = atMost(3, async (i: number) => {
    most = Math.max(most, ++running)
    await new Promise((done) => setTimeout(done, i % 4))
    running--
    if (i === 5) throw new Error('five')
    return 2 * i
  })
  const done = await Promise.allSettled([...Array(20).keys()].map(work))
  expect(most).toBe(3)
  expect(done.filter((d) => d.status === 'rejected')).toHaveLength(1)
  expect(done[19]).toEqual({ status: 'fulfilled', value: 38 })
})
