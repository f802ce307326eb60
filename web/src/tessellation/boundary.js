// @ts-check
import { Palette } from './shapes.js'

/**
 * STEP and IGES files (surfaces given by their equations) as triangles, by the OpenCASCADE kernel in WebAssembly. One
 * synchronous call: to be run where it can be ended.
 */

/** How far triangles may stray from the true surface, as a share of the model's mean size, and in radians at edges. */
export const FINENESS = [
  { linear: 0.004, angular: 0.8 },
  { linear: 0.001, angular: 0.5 },
  { linear: 0.00025, angular: 0.25 },
  { linear: 0.00006, angular: 0.12 },
]
export const AUTOMATIC = 1

/**
 * @param {any} kernel the loaded WebAssembly module
 * @param {'step' | 'iges'} kind
 * @param {Uint8Array} bytes
 * @param {number} fineness index into {@link FINENESS}
 * @returns {import('./shapes.js').Shapes}
 */
export function readBoundary(kernel, kind, bytes, fineness) {
  const f = FINENESS[fineness] ?? { linear: 0.001, angular: 0.5 }
  const read = kind === 'step' ? kernel.ReadStepFile : kernel.ReadIgesFile
  const result = read(bytes, {
    linearUnit: 'meter',
    linearDeflectionType: 'bounding_box_ratio',
    linearDeflection: f.linear,
    angularDeflection: f.angular,
  })
  const format = kind.toUpperCase()
  if (!result.success || result.meshes.length === 0) {
    throw new Error(
      `The ${format} file holds no solid or surface that can be shown, or is damaged. Export it again, as AP214 or AP242 with solids.`,
    )
  }
  const palette = new Palette()
  const bodies = result.meshes.map((/** @type {any} */ m) => body(m, palette))
  const text = new TextDecoder('latin1').decode(bytes.subarray(0, Math.min(bytes.length, 8 << 20)))
  const unit = kind === 'step' ? stepUnit(text) : igesUnit(text)
  return {
    root: branch(result.root, bodies),
    colours: palette.colours,
    notes: [],
    source: {
      format,
      unit,
      unitReason: `The ${format} file says that it is in ${unit}.`,
      up: 'Z',
      upReason: `${format} files do not say which way is up; most have Z up.`,
      upCertain: false,
    },
  }
}

/** @param {any} node @param {any[]} bodies @returns {import('./shapes.js').Branch} */
function branch(node, bodies) {
  return {
    name: node.name,
    children: node.children.map((/** @type {any} */ c) => branch(c, bodies)),
    bodies: node.meshes.map((/** @type {number} */ m) => bodies[m]),
  }
}

/**
 * Triangles of one colour side by side, faces kept whole.
 * @param {any} m @param {Palette} palette @returns {import('./shapes.js').Body}
 */
function body(m, palette) {
  const index = m.index.array
  const faces =
    m.brep_faces.length > 0 ? m.brep_faces : [{ first: 0, last: index.length / 3 - 1, color: null }]
  const dressed = faces.map((/** @type {any} */ f) => ({
    ...f,
    colour: palette.index(f.color ?? m.color),
  }))
  dressed.sort((/** @type {any} */ a, /** @type {any} */ b) => a.colour - b.colour || a.first - b.first)
  const indices = new Uint32Array(index.length)
  /** @type {import('./shapes.js').Group[]} */
  const groups = []
  /** @type {number[]} */
  const faceStarts = []
  let at = 0
  for (const f of dressed) {
    const count = f.last - f.first + 1
    faceStarts.push(at)
    for (let i = 0; i < 3 * count; i++) indices[3 * at + i] = index[3 * f.first + i]
    const group = groups.at(-1)
    if (group && group.colour === f.colour) group.count += count
    else groups.push({ start: at, count, colour: f.colour })
    at += count
  }
  const positions = Float32Array.from(m.attributes.position.array)
  const given = m.attributes.normal?.array
  const normals = given ? Float32Array.from(given) : new Float32Array(positions.length) // zero: made by the reader
  return { name: m.name, positions, normals, indices: indices.subarray(0, 3 * at), groups, faceStarts }
}

/** @param {string} text */
function stepUnit(text) {
  if (/CONVERSION_BASED_UNIT\s*\(\s*'INCH'/i.test(text)) return 'in'
  if (/CONVERSION_BASED_UNIT\s*\(\s*'FOOT'/i.test(text)) return 'ft'
  const si = /SI_UNIT\s*\(\s*(?:\.(MILLI|CENTI|MICRO)\.|\$)\s*,\s*\.METRE\.\s*\)/i.exec(text)
  return si?.[1] ? ({ MILLI: 'mm', CENTI: 'cm', MICRO: 'µm' }[si[1].toUpperCase()] ?? 'm') : si ? 'm' : 'mm'
}

const IGES_UNITS = ['', 'in', 'mm', '', 'ft', 'mi', 'm', 'km', 'mil', 'µm', 'cm', 'µin']

/** The fourteenth parameter of the global section, whose texts (12Hlike this) may hold commas. @param {string} text */
function igesUnit(text) {
  const global = text
    .split(/\r?\n/)
    .filter((l) => l[72] === 'G')
    .map((l) => l.slice(0, 72))
    .join('')
  const parameters = []
  for (let at = 0; at < global.length && parameters.length < 14;) {
    const hollerith = /^\s*(\d+)H/.exec(global.slice(at, at + 12))
    const from = hollerith ? at + hollerith[0].length + Number(hollerith[1]) : at
    const to = /[,;]/.exec(global.slice(from))
    const end = to ? from + to.index : global.length
    parameters.push(global.slice(at, end).trim())
    at = end + 1
  }
  return IGES_UNITS[Number(parameters[13])] || 'in' // 1, inches, where it is left out
}
