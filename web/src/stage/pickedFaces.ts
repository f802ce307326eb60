import {
  BufferAttribute,
  BufferGeometry,
  Color,
  DoubleSide,
  Mesh,
  Scene,
  ShaderMaterial,
  type PerspectiveCamera,
  type WebGLRenderer,
} from 'three'
import type { PartMesh } from './batches'

/** Marks some faces of a part by hatching over what they show. */
export class PickedFaces {
  private scene = new Scene()
  private geometry: BufferGeometry | null = null
  private readonly hatch = new ShaderMaterial({
    side: DoubleSide,
    transparent: true,
    depthTest: true,
    polygonOffset: true,
    polygonOffsetFactor: -2,
    polygonOffsetUnits: -2,
    uniforms: { colour: { value: new Color('#6b2d5c') }, pixels: { value: 1 } },
    vertexShader: /* glsl */ `
      void main() { gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0); }`,
    fragmentShader: /* glsl */ `
      uniform vec3 colour;
      uniform float pixels;
      void main() {
        float line = fract((gl_FragCoord.x + gl_FragCoord.y) / (8.0 * pixels));
        if (line > 0.5) discard;
        gl_FragColor = vec4(line < 0.3 ? colour : vec3(1.0), 0.9);
        #include <colorspace_fragment>
      }`,
  })

  mark(mesh: PartMesh | undefined, faces: Set<number>): void {
    this.geometry?.dispose()
    this.geometry = null
    this.scene = new Scene()
    const index = mesh?.geometry.index
    if (!mesh || !index || faces.size === 0) return
    const faceOf = mesh.geometry.userData['faces'] as Uint32Array
    const corners: number[] = []
    faceOf.forEach((face, t) => {
      if (faces.has(face)) corners.push(index.getX(3 * t), index.getX(3 * t + 1), index.getX(3 * t + 2))
    })
    this.geometry = new BufferGeometry()
    this.geometry.setAttribute('position', mesh.geometry.getAttribute('position'))
    this.geometry.setIndex(new BufferAttribute(new Uint32Array(corners), 1))
    const copy = new Mesh(this.geometry, this.hatch)
    copy.frustumCulled = false
    copy.matrixAutoUpdate = false
    copy.matrix.copy(mesh.matrixWorld)
    this.scene.add(copy)
  }

  draw(renderer: WebGLRenderer, camera: PerspectiveCamera): void {
    if (!this.geometry) return
    const pixels = this.hatch.uniforms['pixels']
    if (pixels) pixels.value = renderer.getPixelRatio()
    renderer.autoClear = false
    renderer.render(this.scene, camera)
    renderer.autoClear = true
  }

  dispose(): void {
    this.geometry?.dispose()
    this.hatch.dispose()
  }
}
