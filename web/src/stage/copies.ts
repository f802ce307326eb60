import { Mesh, Scene, type Material } from 'three'

/** Some meshes where they stand, in a scene of their own and in other materials. */
export function copiesOf<M extends Mesh>(
  meshes: M[],
  dress: Material | ((mesh: M) => Material | Material[]),
): Scene {
  const scene = new Scene()
  for (const mesh of meshes) {
    const copy = new Mesh(mesh.geometry, typeof dress === 'function' ? dress(mesh) : dress)
    copy.matrixAutoUpdate = false
    copy.matrix.copy(mesh.matrixWorld)
    scene.add(copy)
  }
  return scene
}
