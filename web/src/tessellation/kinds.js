// @ts-check
/**
 * What has to be prepared here before it can be imported: surfaces given by equations, buildings, packed glTF.
 *
 * @typedef {'step' | 'iges' | 'ifc' | 'packed'} Kind
 */

/**
 * Tells by content, not by name.
 * @param {Uint8Array} head the first bytes, a megabyte if there are as many
 * @returns {Kind | null}
 */
export function kindOf(head) {
  const view = new DataView(head.buffer, head.byteOffset, head.byteLength)
  if (head.length > 20 && view.getUint32(0, true) === 0x46546c67) {
    const length = Math.min(view.getUint32(12, true), head.length - 20)
    return isPacked(new TextDecoder().decode(head.subarray(20, 20 + length))) ? 'packed' : null
  }
  const text = new TextDecoder('latin1').decode(head)
  if (/^\s*ISO-10303-21/.test(text)) return /FILE_SCHEMA\s*\(\s*\(\s*'IFC/i.test(text) ? 'ifc' : 'step'
  if (/^.{72}S\s*\d+\s*$/m.test(text.slice(0, 400)) && /^.{72}G\s*\d+\s*$/m.test(text)) return 'iges'
  if (/^\s*\{/.test(text) && text.includes('"asset"')) return isPacked(text) ? 'packed' : null
  return null
}

/** @param {string} json */
function isPacked(json) {
  return /"(KHR_draco_mesh_compression|EXT_meshopt_compression|KHR_meshopt_compression)"/.test(json)
}
