// @ts-check
import { WebIO } from '@gltf-transform/core'
import { ALL_EXTENSIONS } from '@gltf-transform/extensions'

const COMPRESSIONS = ['KHR_draco_mesh_compression', 'EXT_meshopt_compression', 'KHR_meshopt_compression']

/**
 * Takes Draco and meshopt compression out of a binary glTF file; everything else stays.
 *
 * @param {any} draco a loaded Draco decoder module
 * @param {any} meshopt the meshopt decoder
 * @param {Uint8Array} bytes
 * @returns {Promise<Uint8Array>}
 */
export async function unpack(draco, meshopt, bytes) {
  if (String.fromCharCode(...bytes.subarray(0, 4)) !== 'glTF')
    throw new Error(
      'A compressed glTF in several files can’t be unpacked. Export it as one binary file (.glb).',
    )
  await meshopt.ready
  const io = new WebIO()
    .registerExtensions(ALL_EXTENSIONS)
    .registerDependencies({ 'draco3d.decoder': draco, 'meshopt.decoder': meshopt })
  const document = await io.readBinary(bytes)
  for (const extension of document.getRoot().listExtensionsUsed()) {
    if (COMPRESSIONS.includes(extension.extensionName)) extension.dispose()
  }
  return io.writeBinary(document)
}
