import {
  Color,
  DoubleSide,
  ShaderMaterial,
  type Mesh,
  type PerspectiveCamera,
  type Scene,
  type WebGLRenderer,
} from 'three'
import { copiesOf } from './copies'
import { haze, SHADE, VERTEX } from './haze'

/** Fronts are neutral; backs are hatched in the accent over a lighter neutral, so that colour alone does not tell. */
export const FRONT = '#b4b2ad'
export const BACK = '#e9e4e8'
export const HATCH = '#6b2d5c'

/**
 * Shows which side of each surface is its front, shaded by its slope towards the eye. Where parts are selected, the others
 * turn into a haze around them.
 */
export class Sides {
  private readonly plain = new ShaderMaterial({
    side: DoubleSide,
    uniforms: {
      front: { value: new Color(FRONT) },
      back: { value: new Color(BACK) },
      hatch: { value: new Color(HATCH) },
      pixels: { value: 1 },
    },
    vertexShader: VERTEX,
    fragmentShader: /* glsl */ `
      uniform vec3 front;
      uniform vec3 back;
      uniform vec3 hatch;
      uniform float pixels;
      ${SHADE}
      void main() {
        float line = fract((gl_FragCoord.x + gl_FragCoord.y) / (9.0 * pixels));
        vec3 colour = gl_FrontFacing ? front : line < 0.36 ? hatch : back;
        gl_FragColor = vec4(colour * shade(), 1.0);
        #include <colorspace_fragment>
      }`,
  })
  private readonly haze = haze()

  draw(renderer: WebGLRenderer, scene: Scene, camera: PerspectiveCamera, selected: Mesh[]): void {
    const pixels = this.plain.uniforms['pixels']
    if (pixels) pixels.value = renderer.getPixelRatio()
    scene.overrideMaterial = selected.length > 0 ? this.haze : this.plain
    renderer.render(scene, camera)
    scene.overrideMaterial = null
    if (selected.length === 0) return
    renderer.autoClear = false
    renderer.render(copiesOf(selected, this.plain), camera)
    renderer.autoClear = true
  }

  dispose(): void {
    this.plain.dispose()
    this.haze.dispose()
  }
}
