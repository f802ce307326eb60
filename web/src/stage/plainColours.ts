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

/** A colour (#rrggbb), and how it is hatched: 0 for not at all. */
export interface Mark {
  colour: string
  hatch: number
}

/** Which ways the lines of each hatch follow each other, in degrees clockwise from upwards. */
export const WAYS = [[], [45], [135], [90], [0], [90, 0]]

/** A mark as style of an element, as it is on the stage. */
export function styleOf({ colour, hatch }: Mark): Record<string, string> {
  const lines = (WAYS[hatch] ?? []).map(
    (way) => `repeating-linear-gradient(${way}deg, #0009 0 1.5px, transparent 1.5px 6px)`,
  )
  return { backgroundColor: colour, backgroundImage: lines.join(', ') || 'none', backgroundSize: 'auto' }
}

/** Shows each part in a plain colour of its own instead of its look, shaded by its slope towards the eye. */
export class PlainColours {
  private readonly materials = new Map<string, ShaderMaterial>()
  private scene = new Scene()

  /** @param coloursOf a part's colour as #rrggbb, or one for each of its spans, or a mark for each */
  lay(
    meshes: Mesh[],
    coloursOf: (mesh: Mesh) => string | (string | Mark)[],
    background: Scene['background'],
  ): void {
    this.scene = copiesOf(meshes, (mesh) => {
      const colours = coloursOf(mesh)
      return typeof colours === 'string' ? this.material(colours) : colours.map((c) => this.material(c))
    })
    this.scene.background = background
  }

  private material(of: string | Mark): ShaderMaterial {
    const { colour, hatch } = typeof of === 'string' ? { colour: of, hatch: 0 } : of
    const key = `${colour} ${hatch}`
    const known = this.materials.get(key)
    if (known) return known
    const made = new ShaderMaterial({
      side: DoubleSide,
      uniforms: { colour: { value: new Color(colour) }, hatch: { value: hatch } },
      vertexShader: VERTEX,
      fragmentShader: /* glsl */ `
        uniform vec3 colour;
        uniform int hatch;
        ${SHADE}
        bool line(float along) { return fract(along / 9.0) < 0.2; }
        bool isLine(vec2 p) {
          if (hatch == 1) return line(p.x + p.y);
          if (hatch == 2) return line(p.x - p.y);
          if (hatch == 3) return line(p.x);
          if (hatch == 4) return line(p.y);
          if (hatch == 5) return line(p.x) || line(p.y);
          return false;
        }
        void main() {
          vec3 seen = colour * (isLine(gl_FragCoord.xy) ? 0.45 : 1.0);
          gl_FragColor = vec4(seen * shade(), 1.0);
          #include <colorspace_fragment>
        }`,
    })
    this.materials.set(key, made)
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
