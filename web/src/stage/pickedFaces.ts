import {
  BufferAttribute,
  BufferGeometry,
  Color,
  DoubleSide,
  Mesh,
  Scene,
  ShaderMaterial,
  type Matrix4,
  type PerspectiveCamera,
  type WebGLRenderer,
} from 'three'

/** Marks some triangles of a part by hatching over what they show. */
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

  /** @param isPicked whether a triangle is */
  mark(of: BufferGeometry | undefined, toWorld: Matrix4, isPicked: (triangle: number) => boolean): void {
    this.geometry?.dispose()
    this.geometry = null
    this.scene = new Scene()
    const index = of?.index
    if (!of || !index) return
    const corners: number[] = []
    for (let t = 0; 3 * t < index.count; t++)
      if (isPicked(t)) corners.push(index.getX(3 * t), index.getX(3 * t + 1), index.getX(3 * t + 2))
    if (corners.length === 0) return
    this.geometry = new BufferGeometry()
    this.geometry.setAttribute('position', of.getAttribute('position'))
    this.geometry.setIndex(new BufferAttribute(new Uint32Array(corners), 1))
    const copy = new Mesh(this.geometry, this.hatch)
    copy.frustumCulled = false
    copy.matrixAutoUpdate = false
    copy.matrix.copy(toWorld)
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
