import { describe, expect, it } from 'vitest'
import { fitting, type Entry } from '../src/stage/legend'
import { styleOf, WAYS } from '../src/stage/plainColours'

const entries = (n: number): Entry[] =>
  [...Array(n).keys()].map((i) => ({ colour: '#112233', hatch: i % WAYS.length, name: `Area ${i}` }))

describe('a legend', () => {
  it('says how many more there are where not all fit', () => {
    expect(fitting(entries(5), 10)).toEqual({ shown: entries(5), more: 0 })
    expect(fitting(entries(10), 10).more).toBe(0)
    const { shown, more } = fitting(entries(30), 10)
    expect([shown.length, more]).toEqual([9, 21])
    expect(fitting(entries(100), 1000).shown.length + fitting(entries(100), 1000).more).toBe(100)
  })

  it('hatches as the chips do: a set of lines for each way', () => {
    WAYS.forEach((ways, hatch) => {
      const { backgroundImage } = styleOf({ colour: '#112233', hatch })
      const drawn = [...(backgroundImage ?? '').matchAll(/gradient\((\d+)deg/g)].map((m) => Number(m[1]))
      expect(drawn).toEqual(ways)
    })
  })
})
