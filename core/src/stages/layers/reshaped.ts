import type { Region } from '../../base/geometry'
import { setLayer, type Layer, type Piece, type Project } from '../../project'
import { makeLayer } from './intake/intake'
import { keptPieces } from './kept-pieces'

/**
 * A layer with another shape, and what else of it changes with that. Pieces that are as they were stay what they are, on the sheets
 * too; where others were pinned no longer counts.
 * @param others pieces of other layers that come in with its shape
 */
export function reshaped(
  project: Project,
  { id, name, pieces }: Pick<Layer, 'id' | 'name' | 'pieces'>,
  { region, others, ...more }: { region: Region; others?: readonly Piece[] } & Partial<Pick<Layer, 'ties'>>,
): Project {
  const now = keptPieces(pieces, makeLayer({ id, name }, region).pieces, others)
  const same = new Set(now.filter((piece) => pieces.includes(piece)).map((piece) => piece.id))
  const next = setLayer(project, id, { pieces: now, ...more })
  const pins = next.plan.pins.filter(({ layerId, pieceId }) => layerId !== id || same.has(pieceId))
  return { ...next, plan: { ...next.plan, pins } }
}
