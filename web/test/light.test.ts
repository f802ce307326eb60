import { createPinia, setActivePinia } from 'pinia'
import { nextTick } from 'vue'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, type LightSetup, type ProjectState } from '../src/api/client'
import { useLight } from '../src/stores/light'
import { useWorkspace } from '../src/stores/workspace'
import { standInPage, stateOf } from './opened'

function setup(id: string, name: string, strength = 1): LightSetup {
  return { id, name, surroundings: 'studio', strength, turn: 0, stops: 0 }
}
function stateWith(version: number, ...lights: LightSetup[]): ProjectState {
  return { ...stateOf(version, 'brass', 'glass'), lights }
}

let workspace: ReturnType<typeof useWorkspace>
let light: ReturnType<typeof useLight>

beforeEach(() => {
  vi.restoreAllMocks()
  standInPage()
  setActivePinia(createPinia())
  workspace = useWorkspace()
  light = useLight()
})

async function open(...lights: LightSetup[]) {
  workspace.state = stateWith(1, ...lights)
  await nextTick()
}

describe('light set-ups', () => {
  it('are shown while a control is moved, and sent when it is let go', async () => {
    await open(setup('day', 'Day'))
    const sent = vi.spyOn(api, 'setLight').mockResolvedValue(stateWith(2, setup('day', 'Day', 3)))
    light.tryOut({ strength: 2 })
    expect(light.shown.strength).toBe(2)
    expect(sent).not.toHaveBeenCalled()
    await light.set({ strength: 3 })
    expect(sent.mock.calls[0]?.[3]).toEqual({ surroundings: 'studio', strength: 3, turn: 0, stops: 0 })
    expect([light.shown.strength, light.tried]).toEqual([3, null])
  })

  it('that stay as they are send nothing', async () => {
    await open(setup('day', 'Day', 2))
    const sent = vi.spyOn(api, 'setLight')
    light.tryOut({ strength: 4 })
    await light.set({ strength: 2 })
    expect(sent).not.toHaveBeenCalled()
    expect(light.shown.strength).toBe(2)
  })

  it('are copied under a name that is free, and the copy is looked at', async () => {
    await open(setup('day', 'Day'), setup('two', 'Day 2'))
    const made = vi
      .spyOn(api, 'copyLight')
      .mockImplementation((_, __, ___, copy) =>
        Promise.resolve(stateWith(2, setup('day', 'Day'), setup(copy.id, copy.name))),
      )
    await light.copy()
    expect(made.mock.calls[0]?.[3].name).toBe('Day 3')
    expect(light.current?.name).toBe('Day 3')
  })

  it('one that is gone gives way to the first', async () => {
    await open(setup('day', 'Day'), setup('eve', 'Evening'))
    light.look('eve')
    expect(light.current?.name).toBe('Evening')
    workspace.state = stateWith(2, setup('day', 'Day'))
    expect(light.current?.name).toBe('Day')
  })

  it('take over what a browser kept before, once, where they are untouched', async () => {
    const sent = vi.spyOn(api, 'setLight').mockResolvedValue(stateWith(2, setup('day', 'Day', 2)))
    localStorage.setItem(
      'zolvan-light-p',
      JSON.stringify({ surroundings: 'park', strength: 2, turn: 10, exposure: 1 }),
    )
    await open(setup('day', 'Day'))
    await vi.waitFor(() => expect(sent).toHaveBeenCalled())
    expect(sent.mock.calls[0]?.[3]).toEqual({ surroundings: 'park', strength: 2, turn: 10, stops: 1 })
    expect(localStorage.getItem('zolvan-light-p')).toBeNull()
  })

  it('keep what the team has set, whatever a browser kept', async () => {
    const sent = vi.spyOn(api, 'setLight')
    localStorage.setItem('zolvan-light-p', 'no JSON')
    await open(setup('day', 'Day', 3))
    expect(sent).not.toHaveBeenCalled()
  })
})
