import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, newKey, Refusal, type Seen } from '../src/api/client'
import { useConnection } from '../src/stores/connection'
import { deliver } from '../src/stores/delivery'
import { useSession } from '../src/stores/session'

beforeEach(() => {
  setActivePinia(createPinia())
  vi.useRealTimers()
})

const dropped = () => new Refusal(0, 'unreachable', 'Zolvan can’t be reached.')

describe('a command', () => {
  it('whose answer is lost is sent again under the same key, upon the same version', async () => {
    vi.useFakeTimers()
    const sent: Seen[] = []
    const command = (seen: Seen) => {
      sent.push(seen)
      return sent.length < 4 ? Promise.reject(dropped()) : Promise.resolve('done')
    }
    const delivered = deliver(7, 'scheme B', command)
    await vi.advanceTimersByTimeAsync(10_000)
    expect(await delivered).toBe('done')
    expect(sent).toHaveLength(4)
    expect(new Set(sent.map((s) => `${s.version} ${s.key}`)).size).toBe(1)
    expect(sent[0]?.version).toBe(7)
    expect(sent[3]?.scheme).toBe('scheme B')
  })

  it('that is refused is not sent again', async () => {
    const command = vi.fn().mockRejectedValue(new Refusal(409, 'met', 'Ada has just painted it.'))
    await expect(deliver(1, '', command)).rejects.toThrow('Ada')
    expect(command).toHaveBeenCalledOnce()
  })

  it('goes on as soon as somebody else is answered', async () => {
    vi.useFakeTimers()
    const command = vi.fn().mockRejectedValueOnce(dropped()).mockResolvedValue('done')
    const delivered = deliver(1, '', command)
    await vi.advanceTimersByTimeAsync(1)
    useConnection().hear(200, '')
    expect(await delivered).toBe('done')
  })

  it('waits for whoever is signed out to come back', async () => {
    const session = useSession()
    const ada = { id: 'a', login: 'ada', displayName: 'Ada', name: 'Ada' }
    vi.spyOn(api, 'signIn').mockResolvedValue(ada)
    await session.signIn('ada', 'secret')
    useConnection().listeners.forEach((hear) => hear(401, 'signed-out'))
    expect(session.ended).toBe(true)
    const command = vi
      .fn()
      .mockRejectedValueOnce(new Refusal(401, 'signed-out', 'You are signed out.'))
      .mockResolvedValue('done')
    const delivered = deliver(1, '', command)
    await Promise.resolve()
    expect(command).toHaveBeenCalledOnce()
    await session.signIn('ada', 'secret')
    expect(await delivered).toBe('done')
    expect(session.ended).toBe(false)
  })
})

describe('the connection', () => {
  it('says who is away, and that all are back', () => {
    const connection = useConnection()
    connection.hear(0, 'unreachable')
    expect([connection.away, connection.said]).toEqual(['server', 'Zolvan can’t be reached'])
    connection.hear(503, 'database-away')
    expect(connection.away).toBe('database')
    connection.hear(503, 'busy') // says nothing about who is there
    expect(connection.away).toBe('database')
    connection.hear(409, 'met')
    expect(connection.away).toBeNull()
  })
})

describe('keys', () => {
  it('are random UUIDs, also where the page came over plain HTTP', () => {
    const keys = Array.from({ length: 200 }, newKey)
    expect(new Set(keys).size).toBe(200)
    for (const k of keys)
      expect(k).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
  })
})
