import {
  Box3,
  CircleGeometry,
  DoubleSide,
  Group,
  LatheGeometry,
  Mesh,
  MeshBasicMaterial,
  MeshStandardMaterial,
  Object3D,
  Shape,
  ShapeGeometry,
  TorusGeometry,
  Vector2,
  Vector3,
  type PerspectiveCamera,
} from 'three'

/** Larger models stand beside a person, smaller ones beside a mug; the diagonal in metres. */
const LARGE = 1.2
const PERSON = 1.75
const MUG = 0.095
/** The right half of somebody standing, from the neck down, in metres. */
const OUTLINE = [
  [0, 1.5],
  [0.06, 1.49],
  [0.19, 1.44],
  [0.24, 1.36],
  [0.27, 1.05],
  [0.265, 0.8],
  [0.215, 0.8],
  [0.21, 1.05],
  [0.185, 1.26],
  [0.165, 1.08],
  [0.18, 0.92],
  [0.165, 0.5],
  [0.13, 0.07],
  [0.19, 0],
  [0.06, 0],
  [0.05, 0.07],
  [0.035, 0.5],
  [0.012, 0.84],
] as const

/** Something of a size that everybody knows, standing beside the model. */
export class ScaleFigure {
  readonly root = new Group()
  private flat: Object3D | null = null
  private readonly grey = new MeshBasicMaterial({ color: '#6f6b65', side: DoubleSide })
  private readonly glazed = new MeshStandardMaterial({ color: '#e4e0d8', roughness: 0.35, side: DoubleSide })

  /** Puts the figure that suits a model to its right; what it is, in words. */
  place(model: Box3): string {
    this.clear()
    const size = model.getSize(new Vector3())
    const large = size.length() > LARGE
    const figure = large ? this.person() : this.mug()
    const aside = large ? 0.6 : 0.09
    figure.position.set(
      model.max.x + aside,
      model.min.y,
      (model.min.z + model.max.z) / 2 + (large ? 0 : size.z / 4),
    )
    this.flat = large ? figure : null
    this.root.add(figure)
    this.root.updateMatrixWorld(true)
    return large ? `somebody ${PERSON.toFixed(2)} m tall` : `a mug ${Math.round(1000 * MUG)} mm high`
  }

  private person(): Object3D {
    const half = OUTLINE.map(([x, y]) => new Vector2(x, y))
    const other = half.map((p) => new Vector2(-p.x, p.y)).reverse()
    const body = new Mesh(new ShapeGeometry(new Shape([...half, ...other])), this.grey)
    const head = new Mesh(new CircleGeometry(0.115, 40), this.grey)
    head.scale.y = 1.15
    head.position.y = PERSON - 0.115 * 1.15
    return new Group().add(body, head)
  }

  private mug(): Object3D {
    const wall = [
      [0, 0.004],
      [0.036, 0.004],
      [0.0375, MUG],
      [0.041, MUG],
      [0.04, 0.004],
      [0.037, 0],
      [0, 0],
    ] as const
    const cup = new Mesh(
      new LatheGeometry(
        wall.map(([r, y]) => new Vector2(r, y)),
        48,
      ),
      this.glazed,
    )
    const handle = new Mesh(new TorusGeometry(0.026, 0.005, 12, 40, Math.PI), this.glazed)
    handle.rotation.z = -Math.PI / 2
    handle.position.set(0.039, 0.05, 0)
    return new Group().add(cup, handle)
  }

  /** A flat figure turns to whoever looks. */
  turnTo(camera: PerspectiveCamera): void {
    if (!this.flat) return
    const { x, z } = camera.position.clone().sub(this.flat.position)
    this.flat.rotation.y = Math.atan2(x, z)
    this.flat.updateMatrixWorld(true)
  }

  clear(): void {
    this.root.traverse((o) => {
      if (o instanceof Mesh) o.geometry.dispose()
    })
    this.root.clear()
    this.flat = null
  }

  dispose(): void {
    this.clear()
    this.grey.dispose()
    this.glazed.dispose()
  }
}
