// What is cut already. A cut sheet is kept as it was; its whole pieces need not be cut again for as long as their layer asks for the
// same shape of the same paper.
import { fresh, type Memo } from '../base'
import { servedCuts, stillToCut, type ServedCut } from './cut-serves'
import { cutLayers } from './guests'
import { takeOffCuts } from './edit'
import { builtLayers, findLayer } from './lookup'
import type { Paper, Project, Spoilt } from './schema'

/** Whether anything of what is cut here is cut already. */
export const isSomeCut = ({ cut, cutElsewhere, plan }: Project): boolean =>
  cut.length > 0 || cutElsewhere.length > 0 || plan.guests.some((guest) => guest.cut.length > 0)

/** Pieces that are cut and no longer fit what is asked for. */
export interface Outdated {
  layerId: string
  layerName: string
  pieces: number
  why: 'shape' | 'paper' | 'gone'
}

/** Whole pieces that are cut here, or of the project elsewhere; guests know what they brought themselves. */
const ownServed = (project: Project, memo: Memo): ServedCut[] =>
  servedCuts(project, memo).filter(({ brought }) => !brought)

/**
 * Cut pieces that are of no use any more, since their layer asks for another shape or paper, or is gone. Spoilt ones do not count, nor
 * those of a guest that has gone home: it has them with it.
 */
export function outdatedCuts(project: Project, memo: Memo = fresh): Outdated[] {
  const found = new Map<string, Outdated>()
  for (const { piece, why } of ownServed(project, memo)) {
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
  for (const { serves } of ownServed(project, memo))
    if (serves) good.set(serves.layer.id, (good.get(serves.layer.id) ?? 0) + 1)
  return good
}

/** Cut pieces that are of use for another layer or piece than they were cut for, by sheet and place in it. */
export function otherUses(project: Project, memo: Memo = fresh): ReadonlyMap<string, OtherUse> {
  const found = new Map<string, OtherUse>()
  for (const { at, piece, serves } of servedCuts(project, memo)) {
    if (!at || !serves || (serves.layer.id === piece.layerId && serves.piece.id === piece.pieceId)) continue
    found.set(cutPieceKey(at), { layerName: serves.layer.layer.name, pieceId: serves.piece.id })
  }
  return found
}

/** What a cut piece is now. */
export interface OtherUse {
  layerName: string
  pieceId: string
}

/** Names a piece of a cut sheet. */
export const cutPieceKey = ({ sheetId, index }: { sheetId: string; index: number }): string =>
  `${sheetId}#${index}`

/**
 * How many cut pieces an edit leaves of no use: those of layers that are left out or gone (idle), which are as good as they were, and
 * others (spoilt). The edit leaves the books as they are.
 */
export function lostCuts(
  before: Project,
  after: Project,
  memo: Memo = fresh,
): { spoilt: number; idle: number } {
  const built = new Set(builtLayers(after).map(({ id }) => id))
  const now = ownServed(after, memo)
  const lost = { spoilt: 0, idle: 0 }
  let gained = 0
  for (const [k, { serves: was }] of ownServed(before, memo).entries()) {
    const isOfUse = Boolean(now[k]?.serves)
    if (!was && isOfUse) gained++
    if (!was || isOfUse) continue
    const { id } = was.layer
    const isIdle = findLayer(before, id) !== undefined && !built.has(id)
    lost[isIdle ? 'idle' : 'spoilt']++
  }
  // Of pieces that are alike another may serve than did before.
  const spoilt = Math.max(0, lost.spoilt - gained)
  return { spoilt, idle: Math.max(0, lost.idle - Math.max(0, gained - lost.spoilt)) }
}

/** Papers of which something is still to be cut. */
export function papersToCut(project: Project, memo: Memo = fresh): ReadonlySet<string> {
  const left = stillToCut(project, memo)
  return new Set(
    cutLayers(project, memo).flatMap((layer) =>
      layer.paper && layer.layer.pieces.some((piece) => left(layer, piece) > 0) ? [layer.paper.id] : [],
    ),
  )
}

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

/** Papers of which some cut piece is spoilt that was not before: of its layer, or what it was cut of where that is gone. */
function papersSpoilt(before: Project, after: Project): string[] {
  const had = new Map(before.cut.map(({ id, pieces }) => [id, pieces]))
  const here = after.cut.flatMap(({ id, pieces, paper }) =>
    pieces
      .filter(({ spoilt }, k) => spoilt !== null && !had.get(id)?.[k]?.spoilt)
      .map(({ layerId }) => ({ layerId, paperId: paper.id })),
  )
  const known = new Set(before.cutElsewhere.flatMap(({ spoilt }) => spoilt))
  const elsewhere = after.cutElsewhere.flatMap(({ spoilt }) => spoilt.filter((one) => !known.has(one)))
  return [...here, ...elsewhere].map(({ layerId, paperId }) => findLayer(after, layerId)?.paperId ?? paperId)
}

/** What an edit has spoilt is cut again from off-cuts first: those that the shared drawer holds of its papers are planned with. */
export function fromOffCuts(before: Project, after: Project, stock: readonly Paper[]): Project {
  if (!after.plan.useOffCuts) return after
  const papers = papersSpoilt(before, after)
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
