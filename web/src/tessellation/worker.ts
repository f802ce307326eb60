import occtWasm from 'occt-import-js/dist/occt-import-js.wasm?url'
import dracoWasm from 'draco3d/draco_decoder.wasm?url'
import ifcWasm from 'web-ifc/web-ifc.wasm?url'
import { readBoundary } from './boundary.js'
import { readBuilding } from './building.js'
import { counted, toGlb, type Shapes } from './shapes.js'
import { unpack } from './unpack.js'
import type { Kind } from './kinds.js'

export interface Order {
  kind: Kind
  bytes: ArrayBuffer
  fineness: number
}

export interface Prepared {
  glb: Uint8Array<ArrayBuffer>
  bodies: number
  triangles: number
}

/** Everything slow and synchronous happens here, so that it can be ended and the page stays alive. */
self.onmessage = async (event: MessageEvent<Order>) => {
  try {
    const prepared = await prepare(event.data)
    self.postMessage({ prepared }, { transfer: [prepared.glb.buffer] })
  } catch (e) {
    self.postMessage({ problem: sentence(e) })
  }
}

function sentence(e: unknown): string {
  const text = e instanceof Error ? e.message : ''
  return text.endsWith('.') && /^[A-Z]/.test(text) && text.includes(' ')
    ? text
    : 'The file can’t be turned into triangles; it may be damaged. Export it again, or in another format.'
}

async function prepare({ kind, bytes, fineness }: Order): Promise<Prepared> {
  const content = new Uint8Array(bytes)
  if (kind === 'packed') {
    const [{ default: draco3d }, { MeshoptDecoder }] = await Promise.all([
      import('draco3d'),
      import('meshoptimizer'),
    ])
    const draco = await draco3d.createDecoderModule({ locateFile: () => dracoWasm })
    const glb = await unpack(draco, MeshoptDecoder, content)
    return { glb: new Uint8Array(glb), bodies: 0, triangles: 0 }
  }
  const shapes = kind === 'ifc' ? await building(content) : await boundary(kind, content, fineness)
  return { glb: new Uint8Array(toGlb(shapes)), ...counted(shapes.root) }
}

async function boundary(kind: 'step' | 'iges', bytes: Uint8Array, fineness: number): Promise<Shapes> {
  const { default: load } = await import('occt-import-js')
  const kernel = await load({ locateFile: () => occtWasm })
  return readBoundary(kernel, kind, bytes, fineness)
}

async function building(bytes: Uint8Array): Promise<Shapes> {
  const WebIfc = await import('web-ifc')
  const api = new WebIfc.IfcAPI()
  await api.Init(() => ifcWasm, true)
  return readBuilding(WebIfc, api, bytes)
}
