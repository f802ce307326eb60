import type { Job, ProofNews } from '../api/client'
import type { Looking } from './colleagues'

interface Events {
  job: Job
  project: { id: string; version: number }
  chip: { key: string }
  proof: ProofNews
  library: { library: string }
  presence: Looking
}

/** Listens to what happens on the server; the browser reconnects by itself. Returns how to stop. */
export function listen(
  handlers: { [K in keyof Events]?: (data: Events[K]) => void } & { open?: () => void },
): () => void {
  const source = new EventSource('/api/events')
  source.addEventListener('hello', () => handlers.open?.())
  source.addEventListener('job', (e) => handlers.job?.(JSON.parse(e.data) as Job))
  source.addEventListener('chip', (e) => handlers.chip?.(JSON.parse(e.data) as Events['chip']))
  source.addEventListener('proof', (e) => handlers.proof?.(JSON.parse(e.data) as ProofNews))
  source.addEventListener('library', (e) => handlers.library?.(JSON.parse(e.data) as Events['library']))
  source.addEventListener('presence', (e) => handlers.presence?.(JSON.parse(e.data) as Looking))
  source.addEventListener('project', (e) => handlers.project?.(JSON.parse(e.data) as Events['project']))
  return () => source.close()
}
