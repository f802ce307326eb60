// @ts-check
import { Palette } from './shapes.js'

/**
 * IFC files as triangles, openings cut, by a WebAssembly library: storeys as groups, within them types (wall, window, …),
 * within these the elements by name. Materials are the colours of the file's surface styles, named by type.
 *
 * @param {any} WebIfc the library's module
 * @param {any} api an initialised IfcAPI
 * @param {Uint8Array} bytes
 * @returns {import('./shapes.js').Shapes}
 */
export function readBuilding(WebIfc, api, bytes) {
  const model = api.OpenModel(bytes, { COORDINATE_TO_ORIGIN: true })
  if (model < 0)
    throw new Error('The IFC file can’t be read; it may be damaged. Export it again as IFC2x3 or IFC4.')
  try {
    const palette = new Palette()
    const storeyOf = storeys(WebIfc, api, model)
    /** @type {Map<string, Map<string, import('./shapes.js').Branch>>} */
    const tree = new Map()
    api.StreamAllMeshes(model, (/** @type {any} */ flat) => {
      const line = api.GetLine(model, flat.expressID)
      const type = kind(api.GetNameFromTypeCode(line.type))
      if (type === 'Opening' || type === 'Space') return
      const name = line.Name?.value || `${type} ${flat.expressID}`
      const storey = storeyOf.get(flat.expressID) ?? 'Outside any storey'
      const types = tree.get(storey) ?? new Map()
      tree.set(storey, types)
      const group = types.get(type) ?? { name: type, children: [], bodies: [] }
      types.set(type, group)
      group.bodies.push(element(api, model, flat, name, type, palette))
    })
    const children = [...tree].map(([name, types]) => ({ name, children: [...types.values()], bodies: [] }))
    if (children.length === 0) throw new Error('The IFC file holds no shapes. Export it with geometry.')
    return {
      root: { name: '', children, bodies: [] },
      colours: palette.colours,
      notes: ['Layers within walls are shown as one body. Properties are kept in the original file.'],
      source: {
        format: 'IFC',
        unit: 'm',
        unitReason: 'IFC files say their unit; it was turned into metres.',
        up: 'Y',
        upReason: 'IFC always has Z up; it was turned.',
        upCertain: true,
      },
    }
  } finally {
    api.CloseModel(model)
  }
}

/** IFCWALLSTANDARDCASE → Wall. @param {string} code */
function kind(code) {
  const word = String(code)
    .replace(/^IFC/i, '')
    .replace(/(STANDARDCASE|ELEMENT)$/i, '')
    .toLowerCase()
  return word.charAt(0).toUpperCase() + word.slice(1)
}

/** Which storey each element stands on, also through what holds it. @param {any} WebIfc @param {any} api @param {number} model */
function storeys(WebIfc, api, model) {
  /** @type {Map<number, string>} */
  const out = new Map()
  each(api, model, WebIfc.IFCRELCONTAINEDINSPATIALSTRUCTURE, (r) => {
    const place = api.GetLine(model, r.RelatingStructure.value)
    const name = place.Name?.value || place.LongName?.value || 'Storey'
    for (const e of r.RelatedElements) out.set(e.value, name)
  })
  each(api, model, WebIfc.IFCRELAGGREGATES, (r) => {
    const name = out.get(r.RelatingObject.value)
    if (name !== undefined) for (const e of r.RelatedObjects) if (!out.has(e.value)) out.set(e.value, name)
  })
  return out
}

/** @param {any} api @param {number} model @param {number} type @param {(line: any) => void} take */
function each(api, model, type, take) {
  const ids = api.GetLineIDsWithType(model, type)
  for (let i = 0; i < ids.size(); i++) take(api.GetLine(model, ids.get(i)))
}

/**
 * @param {any} api @param {number} model @param {any} flat @param {string} name @param {string} type
 * @param {Palette} palette @returns {import('./shapes.js').Body}
 */
function element(api, model, flat, name, type, palette) {
  const pieces = []
  for (let i = 0; i < flat.geometries.size(); i++) {
    const placed = flat.geometries.get(i)
    const g = api.GetGeometry(model, placed.geometryExpressID)
    const { x, y, z, w } = placed.color
    pieces.push({
      colour: palette.index([...[x, y, z].map(linear), w], type),
      vertices: api.GetVertexArray(g.GetVertexData(), g.GetVertexDataSize()).slice(),
      indices: api.GetIndexArray(g.GetIndexData(), g.GetIndexDataSize()).slice(),
      matrix: placed.flatTransformation,
    })
    g.delete?.()
  }
  pieces.sort((a, b) => a.colour - b.colour)
  const vertices = pieces.reduce((n, p) => n + p.vertices.length / 6, 0)
  const positions = new Float32Array(3 * vertices)
  const normals = new Float32Array(3 * vertices)
  const indices = new Uint32Array(pieces.reduce((n, p) => n + p.indices.length, 0))
  /** @type {import('./shapes.js').Group[]} */
  const groups = []
  let v = 0
  let t = 0
  for (const p of pieces) {
    const m = p.matrix
    const base = v
    for (let i = 0; i < p.vertices.length; i += 6, v++) {
      const [x, y, z, a, b, c] = p.vertices.subarray(i, i + 6)
      for (let k = 0; k < 3; k++) {
        positions[3 * v + k] = m[k] * x + m[4 + k] * y + m[8 + k] * z + m[12 + k]
        normals[3 * v + k] = m[k] * a + m[4 + k] * b + m[8 + k] * c
      }
    }
    const group = groups.at(-1)
    const count = p.indices.length / 3
    if (group && group.colour === p.colour) group.count += count
    else groups.push({ start: t / 3, count, colour: p.colour })
    for (const i of p.indices) indices[t++] = base + i
  }
  return { name, positions, normals, indices, groups, faceStarts: [] }
}

/** Surface styles give colours as screens show them; glTF wants scene-linear ones. @param {number} v */
function linear(v) {
  return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4
}
