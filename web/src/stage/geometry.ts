import { BufferAttribute, BufferGeometry } from 'three'
import { MeshBVH } from 'three-mesh-bvh'

const MAGIC = 0x48534d5a
const HEADER_WORDS = 6

/**
 * Reads a stored mesh (see MeshCodec in core) into a geometry with one group a span. The file's own coordinates become
 * `uv`, metric coordinates `uv1`. The arrays are views of the buffer; nothing is copied.
 *
 * @param second what its second set of coordinates becomes; left out where it is only kept for export
 */
export function readGeometry(buffer: ArrayBuffer, second?: string): BufferGeometry {
  const head = new Uint32Array(buffer, 0, HEADER_WORDS)
  const [magic, version, vertices = 0, triangles = 0, spans = 0, flags = 0] = head
  if (magic !== MAGIC || version !== 1) throw new Error('not a stored mesh')
  let at = HEADER_WORDS * 4
  const floats = (count: number) => {
    const view = new Float32Array(buffer, at, count)
    at += count * 4
    return view
  }
  const ints = (count: number) => {
    const view = new Uint32Array(buffer, at, count)
    at += count * 4
    return view
  }
  const geometry = new BufferGeometry()
  geometry.setAttribute('position', new BufferAttribute(floats(3 * vertices), 3))
  geometry.setAttribute('normal', new BufferAttribute(floats(3 * vertices), 3))
  if (flags & 1) geometry.setAttribute('uv', new BufferAttribute(floats(2 * vertices), 2))
  if (flags & 2) geometry.setAttribute('uv1', new BufferAttribute(floats(2 * vertices), 2))
  if (flags & 4) {
    const values = floats(2 * vertices)
    if (second) geometry.setAttribute(second, new BufferAttribute(values, 2))
  }
  if (flags & 8) {
    geometry.setAttribute('color', new BufferAttribute(new Uint16Array(buffer, at, 4 * vertices), 4, true))
    at += vertices * 8
  }
  geometry.setIndex(new BufferAttribute(ints(3 * triangles), 1))
  const starts = ints(spans + 1)
  for (let s = 0; s < spans; s++) {
    const from = starts[s] ?? 0
    geometry.addGroup(3 * from, 3 * ((starts[s + 1] ?? 0) - from), s)
  }
  geometry.userData['faces'] = ints(triangles)
  geometry.computeBoundingSphere()
  geometry.boundsTree = new MeshBVH(geometry, { indirect: true })
  return geometry
}
