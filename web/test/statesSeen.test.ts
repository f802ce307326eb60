import { describe, expect, it } from 'vitest'
import type { ProjectState } from '../src/api/client'
import { isSame, StatesSeen } from '../src/stores/statesSeen'

function state(scheme: string, version: number, name = 'Lantern'): ProjectState {
  return { id: 'p', scheme, version, name } as ProjectState
}

describe('what schemes were seen to show', () => {
  it('holds for each scheme while nothing changes', () => {
    const seen = new StatesSeen()
    const [a, b] = [state('a', 7), state('b', 7)]
    seen.keep(a)
    seen.keep(b)
    expect([seen.of('a'), seen.of('b'), seen.of('c')]).toEqual([a, b, undefined])
  })

  it('ends with a change, in whichever scheme that is read', () => {
    const seen = new StatesSeen()
    seen.keep(state('a', 7))
    seen.keep(state('b', 8))
    expect(seen.of('a')).toBeUndefined()
    seen.keep(state('a', 7)) // asked before the change, answered after it
    expect(seen.of('a')).toBeUndefined()
    expect(seen.of('b')?.version).toBe(8)
  })

  it('is of one project', () => {
    const seen = new StatesSeen()
    seen.keep(state('a', 7))
    seen.forget()
    seen.keep(state('x', 1))
    expect([seen.of('a'), seen.of('x')?.version]).toEqual([undefined, 1])
  })

  it('is the same only where every word is', () => {
    expect(isSame(state('a', 7), state('a', 7))).toBe(true)
    expect(isSame(state('a', 7), state('a', 7, 'Lamp'))).toBe(false)
    expect(isSame(state('a', 7), state('b', 7))).toBe(false)
  })
})
