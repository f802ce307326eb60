import type { Scene, ScenePart } from '../../api/client'

/** A face of one's own that can't be laid on the shape that its part comes back in. */
export interface LostFace {
  part: ScenePart
  name: string
}

/**
 * Faces of one's own that a newer file takes away: those of parts that come back in another shape, or not at all.
 *
 * @param kept parts of the model that come back in the very same shape, as the server says
 */
export function facesLost(scene: Scene, kept: Set<number | null>): LostFace[] {
  return scene.parts
    .filter((p) => !kept.has(p.index))
    .flatMap((part) =>
      [...new Set(part.ownFaces.filter((f) => f >= 0))].map((f) => ({
        part,
        name: scene.ownFaces[f]?.name ?? 'a face',
      })),
    )
}
