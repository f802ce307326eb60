import { shallowRef } from 'vue'
import { ChipPainter } from '../stage/ChipPainter'
import { loadImage } from '../stage/surfaces'
import type { Stage } from '../stage/Stage'
import { api } from '../api/client'
import { useWorkspace } from './workspace'

/** The stage that stands on the page now; there is at most one. */
export const stageHandle = shallowRef<Stage | null>(null)

let painter: ChipPainter | null = null

/** The one painter of chips; pictures of the open project's textures are its to read, too. */
export function chipPainter(): ChipPainter {
  painter ??= new ChipPainter((sha256) => loadImage(api.assetAddress(useWorkspace().id, sha256)))
  return painter
}
