// @ts-check
/**
 * A tree of bodies made of triangles, and its way into a binary glTF file. Shared by the browser's worker and the command
 * line, so that both import the same thing.
 *
 * @typedef {{ name: string, rgba: [number, number, number, number] }} Colour scene-linear, 0 … 1
 * @typedef {{ start: number, count: number, colour: number }} Group a run of triangles; colour −1 for none
 * @typedef {{ name: string, positions: Float32Array, normals: Float32Array, indices: Uint32Array, groups: Group[],
 *   faceStarts: number[] }} Body triangles of one face follow each other; faceStarts are their first triangles
 * @typedef {{ name: string, children: Branch[], bodies: Body[], matrix?: number[] }} Branch
 * @typedef {{ format: string, unit: string, unitReason: string, up: string, upReason: string, upCertain: boolean }} Source
 * @typedef {{ root: Branch, colours: Colour[], source: Source, notes: string[] }} Shapes
 */

/**
 * @param {Shapes} shapes
 * @returns {Uint8Array}
 */
export function toGlb({ root, colours, source, notes }) {
  /** @type {Uint8Array[]} */
  const pieces = []
  let length = 0
  /** @type {object[]} */ const views = []
  /** @type {object[]} */ const accessors = []
  /** @type {object[]} */ const meshes = []
  /** @type {object[]} */ const nodes = []

  /** @param {Float32Array | Uint32Array} values @param {number} target */
  function view(values, target) {
    const bytes = new Uint8Array(values.buffer, values.byteOffset, values.byteLength)
    views.push({ buffer: 0, byteOffset: length, byteLength: bytes.length, target })
    pieces.push(bytes)
    length += bytes.length
    return views.length - 1
  }
  /** @param {Float32Array} values @param {boolean} bounded */
  function vectors(values, bounded) {
    /** @type {Record<string, unknown>} */
    const a = { bufferView: view(values, 34962), componentType: 5126, count: values.length / 3, type: 'VEC3' }
    if (bounded) {
      const min = [Infinity, Infinity, Infinity]
      const max = [-Infinity, -Infinity, -Infinity]
      for (let i = 0; i < values.length; i++) {
        const v = /** @type {number} */ (values[i])
        min[i % 3] = Math.min(/** @type {number} */ (min[i % 3]), v)
        max[i % 3] = Math.max(/** @type {number} */ (max[i % 3]), v)
      }
      a['min'] = min
      a['max'] = max
    }
    accessors.push(a)
    return accessors.length - 1
  }
  /** @param {Body} body */
  function mesh(body) {
    const attributes = { POSITION: vectors(body.positions, true), NORMAL: vectors(body.normals, false) }
    const primitives = body.groups.map((g) => {
      const indices = body.indices.slice(3 * g.start, 3 * (g.start + g.count))
      accessors.push({
        bufferView: view(indices, 34963),
        componentType: 5125,
        count: indices.length,
        type: 'SCALAR',
      })
      return { attributes, indices: accessors.length - 1, ...(g.colour < 0 ? {} : { material: g.colour }) }
    })
    meshes.push({ name: body.name, primitives, extras: { zolvan: { face_starts: body.faceStarts } } })
    return meshes.length - 1
  }
  /** @param {Branch} b @returns {number} */
  function node(b) {
    const bodies = b.bodies.filter((body) => body.indices.length > 0)
    const single = b.children.length === 0 && bodies.length === 1
    /** @type {Record<string, unknown>} */
    const n = { name: b.name }
    if (b.matrix) n['matrix'] = b.matrix
    const index = nodes.push(n) - 1
    if (single && bodies[0]) n['mesh'] = mesh(bodies[0])
    else {
      const children = bodies.map((body) => nodes.push({ name: body.name, mesh: mesh(body) }) - 1)
      children.push(...b.children.map(node))
      if (children.length > 0) n['children'] = children
    }
    return index
  }

  const roots = root.name || root.bodies.length > 0 ? [node(root)] : root.children.map(node)
  const json = {
    asset: { version: '2.0', generator: 'Zolvan', extras: { zolvan: { source, notes } } },
    scene: 0,
    scenes: [{ nodes: roots }],
    nodes,
    meshes,
    materials: colours.map(({ name, rgba: [r, g, b, a] }) => ({
      name,
      ...(a < 1 ? { alphaMode: 'BLEND' } : {}),
      pbrMetallicRoughness: {
        baseColorFactor: [r, g, b, a],
        metallicFactor: 0,
        roughnessFactor: 0.5,
      },
    })),
    accessors,
    bufferViews: views,
    buffers: [{ byteLength: length }],
  }
  const text = new TextEncoder().encode(JSON.stringify(json))
  const padded = (text.length + 3) & ~3
  const out = new Uint8Array(28 + padded + length)
  const head = new DataView(out.buffer)
  head.setUint32(0, 0x46546c67, true)
  head.setUint32(4, 2, true)
  head.setUint32(8, out.length, true)
  head.setUint32(12, padded, true)
  head.setUint32(16, 0x4e4f534a, true)
  out.fill(0x20, 20, 20 + padded)
  out.set(text, 20)
  head.setUint32(20 + padded, length, true)
  head.setUint32(24 + padded, 0x004e4942, true)
  let at = 28 + padded
  for (const p of pieces) {
    out.set(p, at)
    at += p.length
  }
  return out
}

/** @param {Branch} b @returns {{ bodies: number, triangles: number }} */
export function counted(b) {
  let bodies = b.bodies.length
  let triangles = b.bodies.reduce((sum, body) => sum + body.indices.length / 3, 0)
  for (const child of b.children) {
    const inner = counted(child)
    bodies += inner.bodies
    triangles += inner.triangles
  }
  return { bodies, triangles }
}

/** Numbers colours in order of first use. */
export class Palette {
  constructor() {
    /** @type {Colour[]} */ this.colours = []
    /** @type {Map<string, number>} */ this.known = new Map()
  }
  /** @param {number[] | null | undefined} rgba @param {string} [word] what the name begins with */
  index(rgba, word = 'Colour') {
    if (!rgba) return -1
    const [r = 0, g = 0, b = 0, a = 1] = rgba
    const key = [word, r, g, b, a].join('/')
    let i = this.known.get(key)
    if (i === undefined) {
      const alike = this.colours.filter((c) => c.name.startsWith(word)).length
      i = this.colours.push({ name: `${word} ${alike + 1}`, rgba: [r, g, b, a] }) - 1
      this.known.set(key, i)
    }
    return i
  }
}
