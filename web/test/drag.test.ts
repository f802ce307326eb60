import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Colour } from '../src/api/client'
import { useDrag } from '../src/stores/drag'
import { material, opened } from './opened'

let drag: ReturnType<typeof useDrag>
let below = ''
const dropped = vi.fn<() => void>()
const kept = vi.fn<(m: { id: string }, drawer: string) => void>()

beforeEach(() => {
  opened()
  below = ''
  vi.stubGlobal('document', {
    elementFromPoint: () => ({ closest: () => (below ? { getAttribute: () => below } : null) }),
  })
  drag = useDrag()
  dropped.mockClear()
  kept.mockClear()
  drag.setDrop(() => dropped())
  drag.setKeep((m, drawer) => kept(m, drawer))
})

function send(type: string, more: object = {}) {
  const event = Object.assign(new Event(type, { cancelable: true }), more)
  window.dispatchEvent(event)
  return event
}
const move = (clientX: number, clientY: number) => send('pointermove', { clientX, clientY, shiftKey: false })
const at = (clientX: number, clientY: number) => ({ clientX, clientY }) as PointerEvent

describe('a chip that is pressed', () => {
  it('is carried once the pointer has moved a little, and let go of on the stage', () => {
    drag.press(at(100, 100), material('brass'), 'brass.png')
    move(103, 102)
    expect(drag.carries).toBe(false)
    move(104, 104)
    expect([drag.carries, drag.picture, drag.x, drag.y]).toEqual([true, 'brass.png', 104, 104])
    send('pointerup')
    expect([dropped.mock.calls.length, drag.carries]).toEqual([1, false])
  })

  it('that is only clicked is not carried', () => {
    drag.press(at(100, 100), material('brass'), '')
    send('pointerup')
    move(300, 300)
    expect([dropped.mock.calls.length, drag.carries]).toEqual([0, false])
  })

  it('goes to the drawer that it is over; a colour goes to none', () => {
    drag.press(at(0, 0), material('brass'), '')
    below = 'in:mine:doors'
    move(9, 9)
    send('pointerup')
    expect(kept.mock.calls.map(([m, d]) => [m.id, d])).toEqual([['brass', 'in:mine:doors']])
    drag.pressColour(at(0, 0), { hex: '#808080' } as Colour)
    move(9, 9)
    send('pointerup')
    expect([kept.mock.calls.length, dropped.mock.calls.length]).toEqual([1, 1])
  })

  it('changes its level by wheel and arrows, its sides by S, and none of it once let go', () => {
    drag.press(at(0, 0), material('brass'), '')
    move(9, 9)
    expect(send('wheel', { deltaY: 120 }).defaultPrevented).toBe(true)
    send('keydown', { key: 'ArrowDown' })
    send('keydown', { key: 'ArrowUp' })
    send('keydown', { key: 's', code: 'KeyS', repeat: false })
    expect([drag.steps, drag.oneSide]).toEqual([1, true])
    for (let i = 0; i < 100; i++) send('wheel', { deltaY: -120 })
    expect(drag.steps).toBe(-20)
    send('keydown', { key: 'Escape' })
    expect([drag.carries, drag.steps, drag.oneSide, dropped.mock.calls.length]).toEqual([false, 0, false, 0])
    expect(send('wheel', { deltaY: 120 }).defaultPrevented).toBe(false)
  })
})
