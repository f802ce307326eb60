import {
  Color,
  DoubleSide,
  Scene,
  ShaderMaterial,
  type Mesh,
  type PerspectiveCamera,
  type WebGLRenderer,
} from 'three'
import { copiesOf } from './copies'
import { SHADE, VERTEX } from './haze'

/** Shows each part in a plain colour of its own instead of its look, shaded by its slope towards the eye. */
export class PlainColours {
  private readonly materials = new Map<string, ShaderMaterial>()
  private scene = new Scene()

  /** @param coloursOf a part's colour as #rrggbb, or one for each of its spans */
  lay(meshes: Mesh[], coloursOf: (mesh: Mesh) => string | string[], background: Scene['background']): void {
    this.scene = copiesOf(meshes, (mesh) => {
      const colours = coloursOf(mesh)
      return typeof colours === 'string' ? this.material(colours) : colours.map((c) => this.material(c))
    })
    this.scene.background = background
  }

  private material(colour: string): ShaderMaterial {
    const known = this.materials.get(colour)
    if (known) return known
    const made = new ShaderMaterial({
      side: DoubleSide,
      uniforms: { colour: { value: new Color(colour) } },
      vertexShader: VERTEX,
      fragmentShader: /* glsl */ `
        uniform vec3 colour;
        ${SHADE}
        void main() {
          gl_FragColor = vec4(colour * shade(), 1.0);
          #include <colorspace_fragment>
        }`,
    })
    this.materials.set(colour, made)
    return made
  }

  draw(renderer: WebGLRenderer, camera: PerspectiveCamera): void {
    renderer.render(this.scene, camera)
  }

  dispose(): void {
    this.materials.forEach((m) => m.dispose())
    this.materials.clear()
  }
}
