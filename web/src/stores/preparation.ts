import { AUTOMATIC, FINENESS } from '../tessellation/boundary.js'
import { kindOf, type Kind } from '../tessellation/kinds.js'
import type { Order, Prepared } from '../tessellation/worker'
import { bundle, type Dropped } from './bundle'

const HEAD = 1 << 20

export { AUTOMATIC, FINENESS }

/** What is turned into triangles here before it is sent. */
export const PREPARED_FORMATS = ['STEP', 'IGES', 'IFC']

/** What kind of preparation a file needs before it can be sent; null for none. */
export async function preparationFor(file: File): Promise<Kind | null> {
  return kindOf(new Uint8Array(await file.slice(0, HEAD).arrayBuffer()))
}

/** Turns one file into triangles in a worker of its own; ending the signal ends the worker. */
export function prepare(file: File, kind: Kind, fineness: number, signal: AbortSignal): Promise<Prepared> {
  const worker = new Worker(new URL('../tessellation/worker.ts', import.meta.url), { type: 'module' })
  return new Promise<Prepared>((resolve, reject) => {
    signal.addEventListener('abort', () => reject(new Error('It was called off.')))
    worker.onerror = () => reject(new Error('The file can’t be turned into triangles; it may be too large.'))
    worker.onmessage = (event: MessageEvent<{ prepared?: Prepared; problem?: string }>) => {
      if (event.data.prepared) resolve(event.data.prepared)
      else reject(new Error(event.data.problem))
    }
    void file.arrayBuffer().then((bytes) => {
      const order: Order = { kind, bytes, fineness }
      worker.postMessage(order, [bytes])
    })
  }).finally(() => worker.terminate())
}

/** The triangles with the file they came from and how finely it was cut, so that it can be cut again. */
export function withOriginal(file: File, kind: Kind, fineness: number, prepared: Prepared): Promise<Blob> {
  const files: Dropped[] = [
    { path: 'model.glb', file: new File([prepared.glb], 'model.glb') },
    { path: `original/${file.name}`, file },
    {
      path: 'preparation.txt',
      file: new File(
        [JSON.stringify({ kind, ...(kind === 'packed' ? {} : FINENESS[fineness]) })],
        'preparation.txt',
      ),
    },
  ]
  return bundle(files, () => undefined)
}
