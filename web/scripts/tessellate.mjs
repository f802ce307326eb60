// Turns STEP, IGES, IFC and packed glTF into plain binary glTF, as the browser does on a drop.
// Usage: node tessellate.mjs FILE OUT.glb [coarser|finer]; exit 3 when the file needs no preparation.
import { readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { AUTOMATIC, readBoundary } from '../src/tessellation/boundary.js'
import { readBuilding } from '../src/tessellation/building.js'
import { kindOf } from '../src/tessellation/kinds.js'
import { toGlb } from '../src/tessellation/shapes.js'

const require = createRequire(import.meta.url)
const [file, out, wish] = process.argv.slice(2)
const bytes = new Uint8Array(readFileSync(file))
const kind = kindOf(bytes.subarray(0, 1 << 20))
if (!kind) process.exit(3)

async function prepare() {
  if (kind === 'packed') {
    const { unpack } = await import('../src/tessellation/unpack.js')
    const { MeshoptDecoder } = await import('meshoptimizer')
    return unpack(await require('draco3d').createDecoderModule(), MeshoptDecoder, bytes)
  }
  if (kind === 'ifc') {
    const WebIfc = require('web-ifc')
    const api = new WebIfc.IfcAPI()
    await api.Init(undefined, true)
    return toGlb(readBuilding(WebIfc, api, bytes))
  }
  const kernel = await require('occt-import-js')()
  const fineness = AUTOMATIC + (wish === 'finer' ? 1 : wish === 'coarser' ? -1 : 0)
  return toGlb(readBoundary(kernel, kind, bytes, fineness))
}

try {
  writeFileSync(out, await prepare())
} catch (e) {
  console.error(e instanceof Error ? e.message : String(e))
  process.exit(2)
}
