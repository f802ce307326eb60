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

/** What fronts and backs are shown in; backs are hatched as well, so that colour alone does not tell. */
export const FRONT = '#a9bac6'
export const BACK = '#d98e4a'

const VERTEX = /* glsl */ `
  varying vec3 place;
  void main() {
    vec4 seen = modelViewMatrix * vec4(position, 1.0);
    place = seen.xyz;
    gl_Position = projectionMatrix * seen;
  }`
const SHADE = /* glsl */ `
  varying vec3 place;
  float shade() {
    vec3 slope = normalize(cross(dFdx(place), dFdy(place)));
    return 0.55 + 0.45 * abs(dot(slope, normalize(place)));
  }`

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
      pixels: { value: 1 },
    },
    vertexShader: VERTEX,
    fragmentShader: /* glsl */ `
      uniform vec3 front;
      uniform vec3 back;
      uniform float pixels;
      ${SHADE}
      void main() {
        float line = fract((gl_FragCoord.x + gl_FragCoord.y) / (9.0 * pixels));
        vec3 colour = gl_FrontFacing ? front : back * (line < 0.3 ? 0.45 : 1.0);
        gl_FragColor = vec4(colour * shade(), 1.0);
        #include <colorspace_fragment>
      }`,
  })
  private readonly haze = new ShaderMaterial({
    side: DoubleSide,
    transparent: true,
    depthWrite: false,
    vertexShader: VERTEX,
    fragmentShader: /* glsl */ `
      ${SHADE}
      void main() {
        gl_FragColor = vec4(vec3(0.62 * shade()), 0.14);
        #include <colorspace_fragment>
      }`,
  })

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
