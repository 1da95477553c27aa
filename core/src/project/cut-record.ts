// What is cut already. A cut sheet is kept as it was; its whole pieces need not be cut again for as long as their layer asks for the
// same shape of the same paper.
import { fresh, groupBy, type Memo } from '../base'
import { isCongruent, polygonBox, boxHeight, boxWidth } from '../base/geometry'
import { wholeElsewhere, withoutSpoilt } from './cut-elsewhere'
import { cutLayers, guestPrefix, type CutLayer } from './guests'
import { pieceRegion } from './faces'
import { takeOffCuts } from './edit'
import { findLayer, sameButSize } from './lookup'
import { setPlan } from './set-plan'
import type { CutPieces, Paper, Piece, Project, Spoilt } from './schema'

/** A piece is small, and spares of it are cut, up to so many mm across. */
const SMALL_MM = 20

type CutPiece = CutPieces['pieces'][number]

/** A piece of a cut sheet with the paper it is of. */
interface Cut {
  piece: CutPiece
  paper: Paper
}

const cutsOf = (sheets: readonly CutPieces[]): Cut[] =>
  sheets.flatMap(({ paper, pieces }) => pieces.map((piece) => ({ piece, paper })))

/** Whole pieces in a project's own book, of those that are cut with it still, and in others' books. */
function ownCuts({ cut, cutElsewhere, plan }: Project): Cut[] {
  const here = new Set(plan.guests.map(({ projectId }) => projectId))
  const own = cut.flatMap(({ pieces, paper }) =>
    pieces.flatMap((piece) =>
      piece.spoilt === null && (piece.guestId === null || here.has(piece.guestId))
        ? [{ ...piece, paper, paperId: paper.id }]
        : [],
    ),
  )
  const spoilt = plan.guests.flatMap((guest) =>
    guest.spoilt.map((one) => ({ ...one, layerId: guestPrefix(guest) + one.layerId })),
  )
  return [
    ...withoutSpoilt(own, spoilt).map((piece) => ({ piece, paper: piece.paper })),
    ...cutElsewhere.flatMap((one) => cutsOf(wholeElsewhere(one))),
  ]
}

/** What guests had cut before they came along. */
const broughtCuts = ({ plan }: Project): Cut[] =>
  plan.guests.flatMap((guest) =>
    cutsOf(guest.cut).map(({ piece, paper }) => ({
      piece: { ...piece, layerId: guestPrefix(guest) + piece.layerId },
      paper,
    })),
  )

const byPiece = (cuts: readonly Cut[]): ReadonlyMap<string, Cut[]> =>
  groupBy(cuts, ({ piece }) => `${piece.layerId}/${piece.pieceId}`)

/** Whole pieces that are cut, by layer and piece. */
const wholeOnes = (project: Project, memo: Memo): ReadonlyMap<string, Cut[]> =>
  memo('whole ones', [project.cut, project.cutElsewhere, project.plan.guests], () =>
    byPiece([...ownCuts(project), ...broughtCuts(project)]),
  )

/** Whether anything of what is cut here is cut already. */
export const isSomeCut = ({ cut, cutElsewhere, plan }: Project): boolean =>
  cut.length > 0 || cutElsewhere.length > 0 || plan.guests.some((guest) => guest.cut.length > 0)

/** Whether an outline is that of a cut piece, moved or turned. */
const isLike = ({ piece }: Cut, now: Piece, memo: Memo): boolean =>
  memo('is like', [piece, now], () => isCongruent(piece.path, now.path))

const fits = (cut: Cut, { layer: { paper }, now }: { layer: CutLayer; now: Piece }, memo: Memo): boolean =>
  (paper === undefined || paper.id === cut.paper.id || sameButSize(paper, cut.paper)) &&
  isLike(cut, now, memo)

/** How often a piece is asked for: its copies, and spares of small ones. */
export function askedFor({ copies, layer }: CutLayer, piece: Piece): number {
  if (layer.spares === 0) return copies
  const face = pieceRegion(piece)[0]
  const box = face && polygonBox(face)
  return box && Math.max(boxWidth(box), boxHeight(box)) <= SMALL_MM ? copies + layer.spares : copies
}

/** How often a piece of a layer is still to be cut. The memo of this and what follows remembers which outlines are alike. */
export function stillToCut(
  project: Project,
  { layer, piece }: { layer: CutLayer; piece: Piece },
  memo: Memo = fresh,
): number {
  const there = wholeOnes(project, memo).get(`${layer.id}/${piece.id}`) ?? []
  const good = there.filter((cut) => fits(cut, { layer, now: piece }, memo)).length
  return Math.max(0, askedFor(layer, piece) - good)
}

/** Pieces that are cut and no longer fit what is asked for. */
export interface Outdated {
  layerId: string
  layerName: string
  pieces: number
  why: 'shape' | 'paper' | 'gone'
}

/** All whole pieces that are cut, and why one is of no use any more; null where it is. */
function judged(project: Project, memo: Memo): { piece: CutPiece; why: Outdated['why'] | null }[] {
  // A guest knows its own layers wherever they are cut.
  const atHome = project.plan.cutWith ? setPlan(project, { cutWith: null }) : project
  const layers = new Map(cutLayers(atHome, memo).map((layer) => [layer.id, layer]))
  return ownCuts(project).map((cut) => {
    const { piece } = cut
    const layer = layers.get(piece.layerId)
    const now = layer?.layer.pieces.find(({ id }) => id === piece.pieceId)
    if (!layer || !now) return { piece, why: 'gone' }
    if (fits(cut, { layer, now }, memo)) return { piece, why: null }
    return { piece, why: isLike(cut, now, memo) ? 'paper' : 'shape' }
  })
}

/**
 * Cut pieces that are of no use any more, since their layer asks for another shape or paper, or is gone. Spoilt ones do not count, nor
 * those of a guest that has gone home: it has them with it.
 */
export function outdatedCuts(project: Project, memo: Memo = fresh): Outdated[] {
  const found = new Map<string, Outdated>()
  for (const { piece, why } of judged(project, memo)) {
    if (why === null) continue
    const { layerId, layerName } = piece
    const key = `${layerId} ${why}`
    const one = found.get(key) ?? { layerId, layerName, pieces: 0, why }
    found.set(key, { ...one, pieces: one.pieces + 1 })
  }
  return [...found.values()]
}

/** How many whole pieces that are cut are of use still, of each layer that has any: another shape, size or paper would spoil them. */
export function goodCuts(project: Project, memo: Memo = fresh): ReadonlyMap<string, number> {
  const good = new Map<string, number>()
  for (const { piece, why } of judged(project, memo))
    if (why === null) good.set(piece.layerId, (good.get(piece.layerId) ?? 0) + 1)
  return good
}

/** Papers of which something is still to be cut. */
export const papersToCut = (project: Project, memo: Memo = fresh): ReadonlySet<string> =>
  new Set(
    cutLayers(project, memo).flatMap((layer) =>
      layer.paper && layer.layer.pieces.some((piece) => stillToCut(project, { layer, piece }, memo) > 0)
        ? [layer.paper.id]
        : [],
    ),
  )

/** Says of a piece of a cut sheet what became of it; null that it is whole after all. */
export const markSpoilt = (
  project: Project,
  { sheetId, index }: { sheetId: string; index: number },
  spoilt: Spoilt | null,
): Project => ({
  ...project,
  cut: project.cut.map((sheet) =>
    sheet.id === sheetId
      ? { ...sheet, pieces: sheet.pieces.map((piece, k) => (k === index ? { ...piece, spoilt } : piece)) }
      : sheet,
  ),
})

/** Layers of which some cut piece is spoilt that was not before. */
function newlySpoilt(before: Project, after: Project): string[] {
  const had = new Map(before.cut.map(({ id, pieces }) => [id, pieces]))
  const here = after.cut.flatMap(({ id, pieces }) =>
    pieces
      .filter(({ spoilt }, k) => spoilt !== null && !had.get(id)?.[k]?.spoilt)
      .map(({ layerId }) => layerId),
  )
  const known = new Set(before.cutElsewhere.flatMap(({ spoilt }) => spoilt))
  const elsewhere = after.cutElsewhere.flatMap(({ spoilt }) => spoilt.filter((one) => !known.has(one)))
  return [...here, ...elsewhere.map(({ layerId }) => layerId)]
}

/** What an edit has spoilt is cut again from off-cuts first: those that the shared drawer holds of its papers are planned with. */
export function fromOffCuts(before: Project, after: Project, stock: readonly Paper[]): Project {
  if (!after.plan.useOffCuts) return after
  const papers = newlySpoilt(before, after).flatMap((id) => findLayer(after, id)?.paperId ?? [])
  return papers.length > 0 ? takeOffCuts(after, stock, papers) : after
}

/** Steps that are about one sheet. */
const stepsOf = (sheetId: string): string[] =>
  ['print', 'ink', 'cut', 'weed'].map((kind) => `${kind}-${sheetId}`)

/**
 * Takes a sheet back that is not cut after all: its pieces are laid again, its sheet or off-cut goes back into the drawer, what was
 * kept of it comes out.
 */
export function uncut(
  { project, stock }: { project: Project; stock: readonly Paper[] },
  sheetId: string,
): { project: Project; stock: readonly Paper[] } {
  const sheet = project.cut.find(({ id }) => id === sheetId)
  if (!sheet) return { project, stock }
  const { sheets, offCut, keptIds } = sheet.took
  const given = (list: readonly Paper[]): Paper[] =>
    list.map((paper) =>
      paper.id === sheet.paper.id
        ? {
            ...paper,
            count: paper.count + sheets,
            offCuts: [
              ...paper.offCuts.filter(({ id }) => !keptIds.includes(id)),
              ...(offCut ? [offCut] : []),
            ],
          }
        : paper,
    )
  const { journal, progress, drawer } = project
  const used = journal.sheetsUsed.findLastIndex(
    (use) => use.paperId === sheet.paper.id && use.at === sheet.at,
  )
  return {
    project: {
      ...project,
      cut: project.cut.filter(({ id }) => id !== sheetId),
      drawer: { ...drawer, papers: given(drawer.papers) },
      journal: {
        ...journal,
        sheetsUsed: used < 0 ? journal.sheetsUsed : journal.sheetsUsed.toSpliced(used, 1),
      },
      progress: { ...progress, done: progress.done.filter((id) => !stepsOf(sheetId).includes(id)) },
    },
    stock: given(stock),
  }
}
