import {
  Box3,
  Color,
  DoubleSide,
  HalfFloatType,
  Mesh,
  MultiplyBlending,
  Object3D,
  OrthographicCamera,
  PlaneGeometry,
  Scene,
  ShaderMaterial,
  Vector3,
  WebGLRenderTarget,
  WebGLRenderer,
} from 'three'

const PIXELS = 512
const FULL_SCREEN = 'varying vec2 at; void main() { at = uv; gl_Position = vec4(position.xy, 0.0, 1.0); }'

/**
 * A soft shadow where the model meets the ground, so that it stands instead of floating: the model seen from below, the
 * nearer the darker, blurred. Made anew only when the model changes.
 */
export class GroundShadow {
  readonly plane: Mesh<PlaneGeometry, ShaderMaterial>
  private readonly near = new WebGLRenderTarget(PIXELS, PIXELS, { type: HalfFloatType })
  private readonly blurred = new WebGLRenderTarget(PIXELS, PIXELS, { type: HalfFloatType })
  private readonly depth = new ShaderMaterial({
    side: DoubleSide,
    uniforms: { reach: { value: 1 } },
    vertexShader:
      'varying float h; void main() { vec4 p = modelViewMatrix * vec4(position, 1.0); h = -p.z; gl_Position = projectionMatrix * p; }',
    fragmentShader:
      'varying float h; uniform float reach; void main() { float s = 1.0 - clamp(h / reach, 0.0, 1.0); gl_FragColor = vec4(vec3(s * s), 1.0); }',
  })
  private readonly blur = new ShaderMaterial({
    depthTest: false,
    depthWrite: false,
    uniforms: { picture: { value: null }, step: { value: [0, 0] } },
    vertexShader: FULL_SCREEN,
    fragmentShader: `
      varying vec2 at; uniform sampler2D picture; uniform vec2 step;
      void main() {
        float sum = 0.0, weights = 0.0;
        for (int i = -12; i <= 12; i++) {
          float w = exp(-float(i * i) / 60.0);
          sum += w * texture2D(picture, at + step * float(i)).r;
          weights += w;
        }
        gl_FragColor = vec4(vec3(sum / weights), 1.0);
      }`,
  })

  constructor() {
    const material = new ShaderMaterial({
      transparent: false,
      depthWrite: false,
      polygonOffset: true, // onto a ground that lies just below
      polygonOffsetFactor: -1,
      polygonOffsetUnits: -4,
      toneMapped: false,
      blending: MultiplyBlending,
      premultipliedAlpha: true,
      uniforms: { picture: { value: this.near.texture } },
      vertexShader:
        'varying vec2 at; void main() { at = uv; gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0); }',
      fragmentShader: `
        varying vec2 at; uniform sampler2D picture;
        void main() {
          float edge = 1.0 - smoothstep(0.35, 0.5, length(at - 0.5));
          gl_FragColor = vec4(vec3(1.0 - 0.62 * edge * texture2D(picture, at).r), 1.0);
        }`,
    })
    this.plane = new Mesh(new PlaneGeometry(1, 1), material)
    this.plane.rotation.x = -Math.PI / 2
    this.plane.renderOrder = -1
    this.plane.visible = false
  }

  /** @param model what stands on the ground */
  update(renderer: WebGLRenderer, model: Object3D, bounds: Box3): void {
    const size = bounds.getSize(new Vector3())
    const centre = bounds.getCenter(new Vector3())
    const side = Math.max(size.x, size.z) * 2.2
    const reach = Math.max(size.y * 0.35, side * 0.05)
    const camera = new OrthographicCamera(-side / 2, side / 2, side / 2, -side / 2, 0, reach)
    camera.position.set(centre.x, bounds.min.y - 1e-4 * side, centre.z)
    camera.up.set(0, 0, -1)
    camera.lookAt(centre.x, bounds.min.y + 1, centre.z)
    const scene = new Scene()
    const parent = model.parent
    scene.add(model)
    scene.overrideMaterial = this.depth
    set(this.depth, 'reach', reach)
    const colour = renderer.getClearColor(new Color())
    const alpha = renderer.getClearAlpha()
    renderer.setClearColor(0x000000, 1)
    renderer.setRenderTarget(this.near)
    renderer.clear()
    renderer.render(scene, camera)
    parent?.add(model)
    const screen = new Scene()
    screen.add(new Mesh(new PlaneGeometry(2, 2), this.blur))
    for (const step of [1.5 / PIXELS, 0.75 / PIXELS]) {
      this.blurPass(renderer, screen, camera, this.near, this.blurred, [step, 0])
      this.blurPass(renderer, screen, camera, this.blurred, this.near, [0, step])
    }
    renderer.setRenderTarget(null)
    renderer.setClearColor(colour, alpha)
    this.plane.position.set(centre.x, bounds.min.y - 1e-5 * side, centre.z)
    this.plane.scale.set(-side, side, 1) // seen from below, x runs the other way
    this.plane.material.side = DoubleSide
    this.plane.visible = true
  }

  private blurPass(
    renderer: WebGLRenderer,
    screen: Scene,
    camera: OrthographicCamera,
    from: WebGLRenderTarget,
    to: WebGLRenderTarget,
    step: [number, number],
  ): void {
    set(this.blur, 'picture', from.texture)
    set(this.blur, 'step', step)
    renderer.setRenderTarget(to)
    renderer.render(screen, camera)
  }

  dispose(): void {
    this.near.dispose()
    this.blurred.dispose()
    this.depth.dispose()
    this.blur.dispose()
    this.plane.material.dispose()
  }
}

function set(material: ShaderMaterial, name: string, value: unknown): void {
  const uniform = material.uniforms[name]
  if (uniform) uniform.value = value
}
