import { Box3, Vector3, type Intersection, type Raycaster } from 'three'
import type { PartMesh } from './batches'

interface Candidate {
  mesh: PartMesh
  entry: number
}

/** The box of a part where it stands. */
export function boxOf(mesh: PartMesh): Box3 {
  if (!mesh.geometry.boundingBox) mesh.geometry.computeBoundingBox()
  return new Box3().copy(mesh.geometry.boundingBox ?? new Box3()).applyMatrix4(mesh.matrixWorld)
}

/**
 * The first thing on a ray. Parts are looked into in the order in which the ray enters their boxes, and none beyond what was
 * hit, so that of thousands only a few are.
 *
 * @param takes which parts can be hit
 * @param isThere whether a hit counts; null where every one does
 */
export function firstHit(
  raycaster: Raycaster,
  parts: PartMesh[],
  boxes: Box3[],
  takes: (part: number) => boolean = () => true,
  isThere: ((hit: Intersection<PartMesh>) => boolean) | null = null,
): Intersection<PartMesh> | undefined {
  const { ray } = raycaster
  const at = new Vector3()
  const candidates: Candidate[] = []
  parts.forEach((mesh, i) => {
    const box = boxes[i]
    if (!mesh?.visible || !box || !takes(mesh.userData['part'] as number)) return
    if (box.containsPoint(ray.origin)) candidates.push({ mesh, entry: 0 })
    else if (ray.intersectBox(box, at)) candidates.push({ mesh, entry: at.distanceTo(ray.origin) })
  })
  candidates.sort((a, b) => a.entry - b.entry)
  let best: Intersection<PartMesh> | undefined
  for (const { mesh, entry } of candidates) {
    if (best && entry > best.distance) break
    const hit = isThere
      ? firstThere(raycaster, mesh, isThere)
      : raycaster.intersectObject<PartMesh>(mesh, false)[0]
    if (hit && (!best || hit.distance < best.distance)) best = hit
  }
  return best
}

/** The first of a mesh's hits that counts. */
function firstThere(
  raycaster: Raycaster,
  mesh: PartMesh,
  isThere: (hit: Intersection<PartMesh>) => boolean,
): Intersection<PartMesh> | undefined {
  const first = raycaster.intersectObject<PartMesh>(mesh, false)[0]
  if (!first || isThere(first)) return first
  raycaster.firstHitOnly = false
  const all = raycaster.intersectObject<PartMesh>(mesh, false)
  raycaster.firstHitOnly = true
  return all.find(isThere)
}

/** Whether a hit is of the back of its triangle. */
export function isBehind(hit: Intersection<PartMesh>, direction: Vector3): boolean {
  if (!hit.face) return false
  const normal = hit.face.normal
  const way = direction.clone().transformDirection(hit.object.matrixWorld.clone().invert())
  return normal.dot(way) > 0
}
