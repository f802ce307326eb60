import {
  Box3,
  BufferGeometry,
  CircleGeometry,
  DoubleSide,
  Line,
  LineBasicMaterial,
  Mesh,
  MeshBasicMaterial,
  Object3D,
  Plane,
  PlaneGeometry,
  Scene,
  TorusGeometry,
  Vector2,
  Vector3,
  Matrix4,
  type PerspectiveCamera,
  type Ray,
  type WebGLRenderer,
} from 'three'

/** What a handle does: slides over what is below, turns about the upright, lifts, or scales about the foot. */
export type Way = 'slide' | 'turn' | 'lift' | 'scale'

const INK = '#6b2d5c'
const CASING = '#ffffff'
const SEGMENTS = 96
/** Half the width of the ring and half the size of a knob, as a share of the distance to the eye. */
/** The least reach of the ring, likewise. */
const LEAST = 0.04
const THIN = 0.0022
const KNOB = 0.009
/** How near to a handle the cursor takes it, in pixels. */
const NEAR = 11
/** How far a handle stands off the thing, as a share of its reach. */
const OFF = 0.18
const STEP = Math.PI / 12 // of a turn while Shift is held

/**
 * Handles around a thing that stands somewhere: a ring that turns it, a knob above that lifts it, a square on the ring that
 * scales it. Where the thing itself is taken, it slides.
 */
export class PlaceHandles {
  private readonly scene = new Scene()
  private readonly ring = new Object3D()
  private readonly lift = new Object3D()
  private readonly scale = new Object3D()
  private readonly stem = new Line(
    new BufferGeometry(),
    new LineBasicMaterial({ color: INK, depthTest: false, transparent: true, opacity: 0.7 }),
  )
  private readonly ink = new MeshBasicMaterial({
    color: INK,
    depthTest: false,
    toneMapped: false,
    side: DoubleSide,
  })
  private readonly casing = new MeshBasicMaterial({
    color: CASING,
    depthTest: false,
    toneMapped: false,
    side: DoubleSide,
  })
  private foot = new Vector3()
  private reach = 1
  private height = 1
  private times = 1
  /** Whether there is anything to place. */
  shown = false

  constructor() {
    for (const knob of [this.lift, this.scale]) {
      const round = knob === this.lift
      const outer = new Mesh(round ? new CircleGeometry(1.3, 32) : new PlaneGeometry(2.4, 2.4), this.casing)
      const inner = new Mesh(round ? new CircleGeometry(1, 32) : new PlaneGeometry(1.8, 1.8), this.ink)
      outer.renderOrder = 2
      inner.renderOrder = 3
      knob.add(outer, inner)
    }
    this.scene.add(this.stem, this.ring, this.lift, this.scale)
  }

  /**
   * @param reach  from the foot to the farthest of the thing seen from above
   * @param height above the foot
   * @returns the box that they take
   */
  show(foot: Vector3, reach: number, height: number): Box3 {
    this.foot = foot.clone()
    this.reach = reach * (1 + OFF)
    this.height = height + reach * OFF
    this.times = 1
    this.shown = true
    const around = new Vector3(this.reach, 0, this.reach)
    return new Box3(
      this.foot.clone().sub(around),
      this.foot
        .clone()
        .add(around)
        .setY(this.foot.y + this.height),
    )
  }

  /** Goes with what is pulled. */
  follow(foot: Vector3, times: number): void {
    this.foot = foot.clone()
    this.times = times
  }

  hide(): void {
    this.shown = false
  }

  /** How far the ring and the knob above are from the foot; around small things far enough to be told apart. */
  private lengths(camera: PerspectiveCamera): { reach: number; height: number } {
    const far = camera.position.distanceTo(this.foot)
    return {
      reach: Math.max(this.reach * this.times, LEAST * far),
      height: Math.max(this.height * this.times, 1.4 * LEAST * far),
    }
  }

  private liftPoint(camera: PerspectiveCamera): Vector3 {
    return this.foot.clone().setY(this.foot.y + this.lengths(camera).height)
  }

  private scalePoint(camera: PerspectiveCamera): Vector3 {
    const aside = new Vector3(1, 0, 0).applyQuaternion(camera.quaternion).setY(0).normalize()
    return this.foot.clone().addScaledVector(aside, this.lengths(camera).reach)
  }

  draw(renderer: WebGLRenderer, camera: PerspectiveCamera): void {
    if (!this.shown) return
    const far = camera.position.distanceTo(this.foot)
    this.layRing(THIN * far, this.lengths(camera).reach)
    this.stem.geometry.dispose()
    this.stem.geometry = new BufferGeometry().setFromPoints([this.foot, this.liftPoint(camera)])
    for (const [knob, at] of [
      [this.lift, this.liftPoint(camera)],
      [this.scale, this.scalePoint(camera)],
    ] as const) {
      knob.position.copy(at)
      knob.quaternion.copy(camera.quaternion)
      knob.scale.setScalar(KNOB * camera.position.distanceTo(at))
    }
    renderer.autoClear = false
    renderer.render(this.scene, camera)
    renderer.autoClear = true
  }

  private layRing(thin: number, reach: number): void {
    for (const child of [...this.ring.children]) {
      ;(child as Mesh).geometry.dispose()
      this.ring.remove(child)
    }
    const casing = new Mesh(new TorusGeometry(reach, 2 * thin, 6, SEGMENTS), this.casing)
    const ink = new Mesh(new TorusGeometry(reach, thin, 6, SEGMENTS), this.ink)
    const middle = new Mesh(new CircleGeometry(4 * thin, 24), this.ink)
    ink.renderOrder = 1
    middle.renderOrder = 1
    this.ring.add(casing, ink, middle)
    this.ring.rotation.x = -Math.PI / 2
    this.ring.position.copy(this.foot)
  }

  /** Where the knob that lifts is seen, as "x y" in pixels from the view's corner; empty where nothing is placed. */
  liftAt(size: Vector2, camera: PerspectiveCamera): string {
    if (!this.shown) return ''
    const { x, y } = seenAt(this.liftPoint(camera), size, camera)
    return `${x.toFixed(0)} ${y.toFixed(0)}`
  }

  /** The handle under a point of the view, in pixels from its corner; null for none. */
  at(point: Vector2, size: Vector2, camera: PerspectiveCamera): Way | null {
    if (!this.shown) return null
    const seen = (p: Vector3) => seenAt(p, size, camera)
    if (seen(this.liftPoint(camera)).distanceTo(point) < NEAR) return 'lift'
    if (seen(this.scalePoint(camera)).distanceTo(point) < NEAR) return 'scale'
    const { reach } = this.lengths(camera)
    for (let i = 0; i < SEGMENTS; i++) {
      const a = (2 * Math.PI * i) / SEGMENTS
      const p = this.foot.clone().add(new Vector3(Math.cos(a), 0, Math.sin(a)).multiplyScalar(reach))
      if (seen(p).distanceTo(point) < NEAR) return 'turn'
    }
    return seen(this.foot).distanceTo(point) < NEAR ? 'slide' : null
  }

  dispose(): void {
    this.ink.dispose()
    this.casing.dispose()
    this.stem.geometry.dispose()
    this.stem.material.dispose()
    this.scene.traverse((o) => {
      if (o instanceof Mesh) o.geometry.dispose()
    })
  }
}

function seenAt(point: Vector3, size: Vector2, camera: PerspectiveCamera): Vector2 {
  const q = point.clone().project(camera)
  return new Vector2(((q.x + 1) / 2) * size.x, ((1 - q.y) / 2) * size.y)
}

/** What a pull has done so far: where the foot is, by how many degrees it was turned about the upright, how many times larger. */
export interface Pulled {
  at: Vector3
  degrees: number
  times: number
}

/** A handle that is being pulled. */
export class Pull {
  private readonly start: Vector3 | null
  pulled: Pulled

  /**
   * @param support gives the point of the stage that a thing would stand on, for sliding
   */
  constructor(
    readonly way: Way,
    private readonly foot: Vector3,
    ray: Ray,
    private readonly support: (ray: Ray) => Vector3 | null,
  ) {
    this.pulled = { at: foot.clone(), degrees: 0, times: 1 }
    this.start = this.reached(ray)
  }

  /** The point that the cursor points at, as far as the handle is concerned. */
  private reached(ray: Ray): Vector3 | null {
    if (this.way === 'slide') return this.support(ray) ?? this.onLevel(ray)
    if (this.way !== 'lift') return this.onLevel(ray)
    const point = new Vector3()
    const far = 1e6
    ray.distanceSqToSegment(
      this.foot.clone().setY(this.foot.y - far),
      this.foot.clone().setY(this.foot.y + far),
      undefined,
      point,
    )
    return point
  }

  private onLevel(ray: Ray): Vector3 | null {
    return ray.intersectPlane(new Plane(new Vector3(0, 1, 0), -this.foot.y), new Vector3())
  }

  /** @param stepped whether turns go in steps of 15° */
  to(ray: Ray, stepped: boolean): Pulled {
    const now = this.reached(ray)
    if (!now || !this.start) return this.pulled
    const { start, foot } = this
    const pulled = { at: foot.clone(), degrees: 0, times: 1 }
    if (this.way === 'slide') {
      pulled.at.set(foot.x + now.x - start.x, now.y, foot.z + now.z - start.z)
    } else if (this.way === 'lift') {
      pulled.at.y += now.y - start.y
    } else if (this.way === 'turn') {
      const angle =
        Math.atan2(foot.z - now.z, now.x - foot.x) - Math.atan2(foot.z - start.z, start.x - foot.x)
      pulled.degrees = ((stepped ? Math.round(angle / STEP) * STEP : angle) * 180) / Math.PI
    } else {
      pulled.times = Math.max(0.02, now.distanceTo(foot) / Math.max(1e-9, start.distanceTo(foot)))
    }
    this.pulled = pulled
    return pulled
  }

  /** From where things stood to where they are pulled. */
  matrix(): Matrix4 {
    const { at, degrees, times } = this.pulled
    return new Matrix4()
      .makeTranslation(at)
      .multiply(new Matrix4().makeRotationY((degrees * Math.PI) / 180))
      .multiply(new Matrix4().makeScale(times, times, times))
      .multiply(new Matrix4().makeTranslation(this.foot.clone().negate()))
  }
}
