// Pieces that are cut and lie in another's book: a host's sheets hold pieces of its guests, and a guest may have cut some before it came.
import { groupBy } from '../base'
import type { CutPieces, CutSheet, Project } from './schema'

type CutPiece = CutSheet['pieces'][number]

/** Ids of other projects of which whole pieces are on a project's cut sheets. */
export const cutForOthers = ({ cut }: Pick<Project, 'cut'>): string[] => [
  ...new Set(
    cut.flatMap(({ pieces }) =>
      pieces.flatMap(({ guestId, spoilt }) => (spoilt === null ? (guestId ?? []) : [])),
    ),
  ),
]

/** Whole pieces of cut sheets, by their papers. @param owner the layer of a piece that is wanted; null of any other */
export function wholePieces(
  cut: readonly CutSheet[],
  owner: (piece: CutPiece) => { layerId: string; layerName: string } | null,
): CutPieces[] {
  const found = cut.flatMap(({ paper, pieces }) =>
    pieces.flatMap((piece) => {
      const layer = piece.spoilt === null ? owner(piece) : null
      return layer ? [{ paper, piece: { ...layer, pieceId: piece.pieceId, path: piece.path } }] : []
    }),
  )
  return [...groupBy(found, ({ paper }) => paper.id).values()].map((list) => ({
    paper: list[0]!.paper,
    pieces: list.map(({ piece }) => piece),
  }))
}

/** What of a project is cut, whoever's sheets it was on, but for what a host's own book tells. */
export const cutSoFar = ({ cut, cutElsewhere }: Project, hostId: string): CutPieces[] => [
  ...wholePieces(cut, ({ guestId, layerId, layerName }) =>
    guestId === null ? { layerId, layerName } : null,
  ),
  ...cutElsewhere.filter(({ projectId }) => projectId !== hostId).flatMap(({ sheets }) => sheets),
]

/** How many pieces of a project were cut on the sheets of another. */
export const piecesIn = (sheets: readonly CutPieces[]): number =>
  sheets.reduce((sum, { pieces }) => sum + pieces.length, 0)
