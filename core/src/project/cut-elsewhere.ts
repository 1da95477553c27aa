// Pieces that are cut and lie in another's book: a host's sheets hold pieces of its guests, and a guest may have cut some before it came.
import { groupBy } from '../base'
import type { CutElsewhere, CutPieces, CutSheet, Project, SpoiltElsewhere } from './schema'

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
  ...cutElsewhere.filter(({ projectId }) => projectId !== hostId).flatMap(wholeElsewhere),
]

/** A piece that was cut, and what tells it from others of its name. */
type Named = Omit<SpoiltElsewhere, 'why'>

const nameOf = ({ layerId, pieceId, paperId, path }: Named): string =>
  `${layerId}/${pieceId} ${paperId} ${path}`

/** Takes out one of those that are alike for each that is spoilt. */
export function withoutSpoilt<T extends Named>(pieces: readonly T[], spoilt: readonly Named[]): T[] {
  const gone = new Map<string, number>()
  for (const one of spoilt) gone.set(nameOf(one), (gone.get(nameOf(one)) ?? 0) + 1)
  return pieces.filter((piece) => {
    const left = gone.get(nameOf(piece)) ?? 0
    if (left > 0) gone.set(nameOf(piece), left - 1)
    return left === 0
  })
}

/** What was cut elsewhere and is whole still. */
export function wholeElsewhere({ sheets, spoilt }: CutElsewhere): CutPieces[] {
  if (spoilt.length === 0) return sheets
  return sheets.map(({ paper, pieces }) => {
    const named = pieces.map((piece) => ({ piece, ...piece, paperId: paper.id }))
    return { paper, pieces: withoutSpoilt(named, spoilt).map(({ piece }) => piece) }
  })
}

/** A project of which one piece that was cut elsewhere is spoilt; null where none of them is whole. */
export function spoilElsewhere(
  project: Project,
  { layerId, pieceId, why }: Pick<SpoiltElsewhere, 'layerId' | 'pieceId' | 'why'>,
): Project | null {
  for (const [at, one] of project.cutElsewhere.entries())
    for (const { paper, pieces } of wholeElsewhere(one)) {
      const piece = pieces.find((whole) => whole.layerId === layerId && whole.pieceId === pieceId)
      if (!piece) continue
      const spoilt = { layerId, pieceId, paperId: paper.id, path: piece.path, why }
      const noted = { ...one, spoilt: [...one.spoilt, spoilt] }
      return { ...project, cutElsewhere: project.cutElsewhere.with(at, noted) }
    }
  return null
}

/** How many pieces there are on sheets. */
export const piecesIn = (sheets: readonly CutPieces[]): number =>
  sheets.reduce((sum, { pieces }) => sum + pieces.length, 0)
