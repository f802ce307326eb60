import { Vector3, type Box3, type PerspectiveCamera } from 'three'
import type { OrbitControls } from 'three/addons/controls/OrbitControls.js'

/** Where the stage is seen from: x, y, z in metres, and how many degrees of the height it takes in. */
export interface View {
  eye: number[]
  target: number[]
  degrees: number
}

/** Whoever stands turns about a point this far ahead, in metres: about themselves. */
export const AHEAD = 0.05
/** A step of someone who stands, in metres, and the share of the distance that a small move takes elsewhere. */
const STEP = 0.1
const SMALL = 0.02
/** The nearest thing that is drawn is at this share of the distance to what is looked at. */
const NEAREST = 0.02
const NEAREST_STANDING = 0.05
const UP = new Vector3(0, 1, 0)
/** From here on one looks straight down or up. */
const STEEP = 0.999
/** As near as the eye comes to the middle of what fills the view, in metres. */
const CLOSEST = 1e-4

/** Shares of the view's width and height. */
interface Free {
  side: number
  top: number
  bottom: number
}

/**
 * Where to look at a box from so that it just fills the view but for what stays free.
 *
 * @param direction from what is looked at to the eye, of length 1
 */
export function filling(
  box: Box3,
  direction: Vector3,
  { fov, aspect }: PerspectiveCamera,
  free: Free,
): { eye: Vector3; target: Vector3 } {
  const level = Math.abs(direction.y) > STEEP ? new Vector3(0, 0, -Math.sign(direction.y)) : UP
  const right = new Vector3().crossVectors(level, direction).normalize()
  const up = new Vector3().crossVectors(direction, right)
  const centre = box.getCenter(new Vector3())
  const half = Math.tan((fov * Math.PI) / 360)
  const across = new Bounds(half * aspect * (1 - 2 * free.side), half * aspect * (1 - 2 * free.side))
  const along = new Bounds(half * (1 - 2 * free.bottom), half * (1 - 2 * free.top))
  for (let i = 0; i < 8; i++) {
    const at = new Vector3(
      i & 1 ? box.max.x : box.min.x,
      i & 2 ? box.max.y : box.min.y,
      i & 4 ? box.max.z : box.min.z,
    ).sub(centre)
    across.take(at.dot(right), at.dot(direction))
    along.take(at.dot(up), at.dot(direction))
  }
  const distance = Math.max(across.distance, along.distance, CLOSEST)
  const target = centre
    .addScaledVector(right, across.middle(distance))
    .addScaledVector(up, along.middle(distance))
  return { eye: target.clone().addScaledVector(direction, distance), target }
}

/** How far away the eye has to be along one side of the view, and where, so that all points taken in are seen. */
class Bounds {
  private least = -Infinity
  private most = Infinity

  /** The tangents of the angles that are seen to either side. */
  constructor(
    private readonly low: number,
    private readonly high: number,
  ) {}

  /** A point so far along the side, and so far towards the eye. */
  take(along: number, near: number): void {
    this.least = Math.max(this.least, along + near * this.high)
    this.most = Math.min(this.most, along - near * this.low)
  }

  get distance(): number {
    return (this.least - this.most) / (this.low + this.high)
  }

  /** Where the eye is then: in the middle of where it may be. */
  middle(distance: number): number {
    return (this.least - distance * this.high + this.most + distance * this.low) / 2
  }
}

/** Moves the camera: to views, by small steps, and about a picked point. */
export class Viewpoint {
  /** Whether one stands and turns about oneself. */
  private standing = false

  constructor(
    private readonly camera: PerspectiveCamera,
    private readonly controls: OrbitControls,
    element: HTMLElement,
  ) {
    element.addEventListener(
      'wheel',
      (e) => {
        if (!this.standing) return
        e.preventDefault()
        e.stopPropagation()
        this.shift(0, 0, Math.sign(-e.deltaY) * 2)
      },
      { capture: true, passive: false },
    )
  }

  get view(): View {
    return {
      eye: this.camera.position.toArray(),
      target: this.controls.target.toArray(),
      degrees: this.camera.fov,
    }
  }

  go({ eye, target, degrees }: View): void {
    this.camera.position.fromArray(eye)
    this.controls.target.fromArray(target)
    this.camera.fov = degrees
    this.stand(this.distance < 2 * AHEAD)
  }

  /** Whoever stands turns about themselves; else one goes around what is looked at. */
  stand(on: boolean): void {
    this.standing = on
    this.controls.rotateSpeed = on ? -0.5 : 1
    this.controls.enableZoom = !on
    this.controls.enablePan = !on
    this.look()
  }

  /** Goes around a point from now on; the eye stays where it is. */
  circle(point: number[]): void {
    this.controls.target.fromArray(point)
    this.stand(false)
  }

  /** Goes around what is looked at, as high as one is: 0 radians is on the side of +z, a quarter turn on that of +x. */
  turnTo(angle: number): void {
    const from = new Vector3().subVectors(this.camera.position, this.controls.target)
    const far = Math.hypot(from.x, from.z)
    from.set(far * Math.sin(angle), from.y, far * Math.cos(angle))
    this.camera.position.copy(this.controls.target).add(from)
    this.look()
  }

  set degrees(degrees: number) {
    this.camera.fov = degrees
    this.look()
  }

  /** A small move, in steps: to the right, up, and ahead. Whoever stands stays at eye height. */
  shift(right: number, up: number, ahead: number): void {
    const step = this.standing ? STEP : SMALL * this.distance
    const way = new Vector3().subVectors(this.controls.target, this.camera.position)
    const side = new Vector3().crossVectors(way, this.camera.up).normalize()
    const move = side.multiplyScalar(right * step)
    if (this.standing) {
      way.y = 0
      move.addScaledVector(way.normalize(), (ahead + up) * step)
      this.controls.target.add(move)
    } else {
      const above = new Vector3().setFromMatrixColumn(this.camera.matrix, 1)
      move.addScaledVector(above, up * step)
      this.controls.target.add(move)
      move.addScaledVector(way, Math.min(ahead * SMALL, 0.5))
    }
    this.camera.position.add(move)
    this.look()
  }

  /** How near a thing can be and still be drawn follows how near one is to what is looked at. */
  tune(): void {
    const near = this.standing ? NEAREST_STANDING : Math.max(1e-4, this.distance * NEAREST)
    if (Math.abs(near - this.camera.near) < near / 10) return
    this.camera.near = near
    this.camera.updateProjectionMatrix()
  }

  private get distance(): number {
    return this.camera.position.distanceTo(this.controls.target)
  }

  private look(): void {
    this.camera.updateProjectionMatrix()
    this.controls.update()
    this.tune()
  }
}
