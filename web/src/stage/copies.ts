import { Mesh, Scene, type Material } from 'three'

/** Some meshes where they stand, in a scene of their own and in one material. */
export function copiesOf(meshes: Mesh[], material: Material): Scene {
  const scene = new Scene()
  for (const mesh of meshes) {
    const copy = new Mesh(mesh.geometry, material)
    copy.matrixAutoUpdate = false
    copy.matrix.copy(mesh.matrixWorld)
    scene.add(copy)
  }
  return scene
}
