import {
  Color,
  HalfFloatType,
  Mesh,
  MeshBasicMaterial,
  NearestFilter,
  OrthographicCamera,
  PerspectiveCamera,
  PlaneGeometry,
  Scene,
  ShaderMaterial,
  Vector2,
  WebGLRenderTarget,
  WebGLRenderer,
  DoubleSide,
} from 'three'
import { copiesOf } from './copies'

const INSIDE = '#6b2d5c'
const CASING = '#ffffff'

/**
 * A thin two-tone line around the selected parts, drawn over the finished picture: the accent inside, a light casing
 * outside, so that it reads on black and on white. It never tints the surface.
 */
export class Outline {
  private readonly mask = new WebGLRenderTarget(1, 1, {
    minFilter: NearestFilter,
    magFilter: NearestFilter,
    type: HalfFloatType,
  })
  private readonly flat = new MeshBasicMaterial({ color: 0xffffff, side: DoubleSide, toneMapped: false })
  private readonly unseen = new MeshBasicMaterial({ visible: false })
  private readonly screen = new Scene()
  private readonly camera = new OrthographicCamera(-1, 1, 1, -1, 0, 1)
  private readonly shader = new ShaderMaterial({
    transparent: true,
    depthTest: false,
    depthWrite: false,
    toneMapped: false,
    uniforms: {
      mask: { value: this.mask.texture },
      pixel: { value: new Vector2() },
      inside: { value: new Color(INSIDE).convertLinearToSRGB() },
      casing: { value: new Color(CASING).convertLinearToSRGB() },
      width: { value: 2 },
    },
    vertexShader: 'varying vec2 at; void main() { at = uv; gl_Position = vec4(position.xy, 0.0, 1.0); }',
    fragmentShader: `
      varying vec2 at;
      uniform sampler2D mask;
      uniform vec2 pixel;
      uniform vec3 inside, casing;
      uniform float width;
      void main() {
        if (texture2D(mask, at).r > 0.5) discard;
        float near = 0.0, far = 0.0;
        for (int i = 0; i < 12; i++) {
          float a = 6.2831853 * float(i) / 12.0;
          vec2 d = vec2(cos(a), sin(a)) * pixel;
          near = max(near, texture2D(mask, at + d * width).r);
          far = max(far, texture2D(mask, at + d * (width + 1.5)).r);
        }
        if (far < 0.5) discard;
        gl_FragColor = vec4(near > 0.5 ? inside : casing, near > 0.5 ? 1.0 : 0.85);
      }`,
  })

  constructor() {
    this.screen.add(new Mesh(new PlaneGeometry(2, 2), this.shader))
  }

  resize(width: number, height: number, ratio: number): void {
    this.mask.setSize(width * ratio, height * ratio)
    this.shader.uniforms['pixel']?.value.set(1 / (width * ratio), 1 / (height * ratio))
    const lineWidth = this.shader.uniforms['width']
    if (lineWidth) lineWidth.value = 2 * ratio
  }

  /**
   * @param colour of the line's inner half, #rrggbb
   * @param spansOf which of a mesh's spans are meant; none for all
   */
  draw(
    renderer: WebGLRenderer,
    meshes: Mesh[],
    camera: PerspectiveCamera,
    colour = INSIDE,
    spansOf: (mesh: Mesh) => Set<number> | undefined = () => undefined,
  ): void {
    if (meshes.length === 0) return
    this.shader.uniforms['inside']?.value.set(colour).convertLinearToSRGB()
    const scene = copiesOf(meshes, (mesh) => {
      const spans = spansOf(mesh)
      return spans ? mesh.geometry.groups.map((_, s) => (spans.has(s) ? this.flat : this.unseen)) : this.flat
    })
    const clear = renderer.autoClear
    const alpha = renderer.getClearAlpha()
    renderer.setRenderTarget(this.mask)
    renderer.setClearAlpha(0)
    renderer.clear()
    renderer.render(scene, camera)
    renderer.setRenderTarget(null)
    renderer.setClearAlpha(alpha)
    renderer.autoClear = false
    renderer.render(this.screen, this.camera)
    renderer.autoClear = clear
  }

  dispose(): void {
    this.mask.dispose()
    this.flat.dispose()
    this.unseen.dispose()
    this.shader.dispose()
  }
}
