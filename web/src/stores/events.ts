import { api, Refusal, type Job, type ProofNews } from '../api/client'
import type { Looking } from './colleagues'
import { useConnection } from './connection'
import { useSession } from './session'

interface Events {
  job: Job
  project: { id: string; version: number }
  chip: { key: string }
  proof: ProofNews
  library: { library: string }
  presence: Looking
}

/** The server says something every 15 s; silence of so many ms means that the stream is dead. */
const SILENCE = 40_000

/**
 * Listens to what happens on the server, and goes on listening: a stream that broke, was refused or fell silent is opened
 * anew, after signing in where the session has ended. `open` is called whenever something may have been missed. Returns how
 * to stop.
 */
export function listen(
  handlers: { [K in keyof Events]?: (data: Events[K]) => void } & { open?: () => void },
): () => void {
  const connection = useConnection()
  const session = useSession()
  let source: EventSource | null = null
  let stopped = false
  let tries = 0
  let silence = 0

  function alive() {
    tries = 0
    window.clearTimeout(silence)
    silence = window.setTimeout(again, SILENCE)
  }

  function on(stream: EventSource, name: keyof Events) {
    const handler = handlers[name] as ((data: unknown) => void) | undefined
    stream.addEventListener(name, (e: MessageEvent<string>) => {
      alive()
      handler?.(JSON.parse(e.data))
    })
  }

  function open() {
    const stream = new EventSource('/api/events')
    source = stream
    alive()
    stream.addEventListener('hello', () => {
      alive()
      handlers.open?.()
    })
    stream.addEventListener('beat', alive)
    for (const name of ['job', 'project', 'chip', 'proof', 'library', 'presence'] as const) on(stream, name)
    stream.onerror = () => {
      if (stream === source && !stopped) again()
    }
  }

  function again() {
    source?.close()
    source = null
    window.clearTimeout(silence)
    void connection.pause(tries++).then(reopen)
  }

  async function reopen() {
    if (stopped) return
    try {
      await api.currentAccount() // tells why a stream is refused, which the stream itself does not
    } catch (e) {
      if (!(e instanceof Refusal) || e.status !== 401) return again()
      await session.restored()
    }
    if (!stopped) open()
  }

  open()
  return () => {
    stopped = true
    window.clearTimeout(silence)
    source?.close()
  }
}
