// What whole pieces that are cut are of use for: the piece that they are, as long as it is the same shape of the same paper, else any
// other that is, since a piece that was moved into another layer is the same card.
import { fresh, groupBy, type Memo } from '../base'
import {
  boxHeight,
  boxWidth,
  isCongruent,
  pathToRings,
  perimeter,
  polygonBox,
  signedArea,
  type Ring,
} from '../base/geometry'
import { wholeElsewhere, withoutSpoilt } from './cut-elsewhere'
import { pieceRegion } from './faces'
import { cutLayers, guestPrefix, type CutLayer } from './guests'
import { isLaidAsOne, sameButSize } from './lookup'
import { setPlan } from './set-plan'
import type { CutPieces, Layer, Paper, Piece, Project } from './schema'

/** A piece is small, and spares of it are cut, up to so many mm across. */
const SMALL_MM = 20

type CutPiece = CutPieces['pieces'][number]

/** A whole piece of a cut sheet. */
interface Cut {
  piece: CutPiece
  paper: Paper
  /** Where it stands in the project's own book; null in another's. */
  at: { sheetId: string; index: number } | null
  /** It was printed on. */
  printed: boolean
  /** A guest had cut it before it came along. */
  brought: boolean
}

/** What a cut piece is of use for, or why it is of none. */
export interface ServedCut extends Cut {
  serves: { layer: CutLayer; piece: Piece } | null
  why: 'shape' | 'paper' | 'gone' | null
}

/** Whole pieces in a project's own book, of those that are cut with it still, and in others' books. */
function ownCuts({ cut, cutElsewhere, plan }: Project): Cut[] {
  const here = new Set(plan.guests.map(({ projectId }) => projectId))
  const own = cut.flatMap(({ id: sheetId, pieces, paper }) =>
    pieces.flatMap((piece, index) =>
      piece.spoilt === null && (piece.guestId === null || here.has(piece.guestId))
        ? [{ ...piece, piece, paper, paperId: paper.id, at: { sheetId, index } }]
        : [],
    ),
  )
  const spoilt = plan.guests.flatMap((guest) =>
    guest.spoilt.map((one) => ({ ...one, layerId: guestPrefix(guest) + one.layerId })),
  )
  return [
    ...withoutSpoilt(own, spoilt).map(({ piece, paper, at }) => ({
      piece,
      paper,
      at,
      printed: piece.printed,
      brought: false,
    })),
    ...cutElsewhere.flatMap((one) =>
      wholeElsewhere(one).flatMap(({ paper, pieces }) =>
        pieces.map((piece) => ({ piece, paper, at: null, printed: false, brought: false })),
      ),
    ),
  ]
}

/** What guests had cut before they came along. */
const broughtCuts = ({ plan }: Project): Cut[] =>
  plan.guests.flatMap((guest) =>
    guest.cut.flatMap(({ paper, pieces }) =>
      pieces.map((piece) => ({
        piece: { ...piece, layerId: guestPrefix(guest) + piece.layerId },
        paper,
        at: null,
        printed: false,
        brought: true,
      })),
    ),
  )

const keyOf = (layerId: string, pieceId: string): string => `${layerId}/${pieceId}`

/** Whether an outline is that of a cut piece, moved or turned. */
const isLike = ({ piece }: Cut, now: Piece, memo: Memo): boolean =>
  memo('is like', [piece, now], () => isCongruent(piece.path, now.path))

const isSamePaper = (cut: Cut, paper: Paper): boolean =>
  paper.id === cut.paper.id || sameButSize(paper, cut.paper)

/** How often a piece is asked for: its copies, and spares of small ones. */
export function askedFor({ copies, layer }: CutLayer, piece: Piece): number {
  if (layer.spares === 0) return copies
  const face = pieceRegion(piece)[0]
  const box = face && polygonBox(face)
  return box && Math.max(boxWidth(box), boxHeight(box)) <= SMALL_MM ? copies + layer.spares : copies
}

/**
 * All whole pieces that are cut, in the order of the books, with what they are of use for.
 * @param memo remembers which outlines are alike
 */
export function servedCuts(project: Project, memo: Memo = fresh): ServedCut[] {
  const cuts = [...ownCuts(project), ...broughtCuts(project)]
  if (cuts.length === 0) return []
  // A guest knows its own layers wherever they are cut.
  const atHome = project.plan.cutWith ? setPlan(project, { cutWith: null }) : project
  const layers = cutLayers(atHome, memo)
  const byId = new Map(layers.map((layer) => [layer.id, layer]))
  const served = cuts.map((cut) => asNamed(cut, byId, memo))
  const idle = served.filter(({ serves }) => serves === null)
  if (idle.length === 0) return served
  const guests = project.plan.guests.map(guestPrefix)
  const ownerOf = (layerId: string) => guests.findIndex((prefix) => layerId.startsWith(prefix))
  return withOtherUses(served, { idle, layers, byId, ownerOf }, memo)
}

/** A cut piece as the piece of its name. */
function asNamed(cut: Cut, layers: ReadonlyMap<string, CutLayer>, memo: Memo): ServedCut {
  const layer = layers.get(cut.piece.layerId)
  const piece = layer?.layer.pieces.find(({ id }) => id === cut.piece.pieceId)
  if (!layer || !piece) return { ...cut, serves: null, why: 'gone' }
  if (!isLike(cut, piece, memo)) return { ...cut, serves: null, why: 'shape' }
  if (layer.paper && !isSamePaper(cut, layer.paper)) return { ...cut, serves: null, why: 'paper' }
  return { ...cut, serves: { layer, piece }, why: null }
}

/** Pieces that nothing of their name asks for, given to what lacks the like of them. */
function withOtherUses(
  served: readonly ServedCut[],
  {
    idle,
    layers,
    byId,
    ownerOf,
  }: {
    idle: readonly ServedCut[]
    layers: readonly CutLayer[]
    byId: ReadonlyMap<string, CutLayer>
    /** Which guest a layer is of; −1 of none. */
    ownerOf: (layerId: string) => number
  },
  memo: Memo,
): ServedCut[] {
  const there = goodByPiece(served)
  const bySides = groupBy(idle, ({ piece }) => figureOf(piece, memo).sides)
  const given = new Map<ServedCut, ServedCut>()
  for (const layer of layers) {
    const { paper } = layer
    // What is laid as one has its parts a way apart: none of them can come from elsewhere.
    if (!paper || isLaidAsOne(layer.layer)) continue
    for (const piece of layer.layer.pieces) {
      let lacking = askedFor(layer, piece) - (there.get(keyOf(layer.id, piece.id)) ?? 0)
      if (lacking <= 0) continue
      const figure = figureOf(piece, memo)
      for (const cut of bySides.get(figure.sides) ?? []) {
        const from = byId.get(cut.piece.layerId)
        const isOne =
          !given.has(cut) &&
          Math.abs(figureOf(cut.piece, memo).mm2 - figure.mm2) <= STRAY_MM * figure.mm &&
          ownerOf(cut.piece.layerId) === ownerOf(layer.id) &&
          isSamePaper(cut, paper) &&
          isMarkedAlike(cut, { from: from?.layer, to: layer.layer, piece }) &&
          isLike(cut, piece, memo)
        if (!isOne) continue
        given.set(cut, { ...cut, serves: { layer, piece }, why: null })
        if (--lacking === 0) break
      }
    }
  }
  return served.map((cut) => given.get(cut) ?? cut)
}

/** Outlines that are alike stray by no more. */
const STRAY_MM = 0.05

/** What tells most outlines that are not alike at a glance. */
interface Figure {
  /** How many corners its rings have. */
  sides: number
  mm2: number
  /** All the way round, mm. */
  mm: number
}

const figureOf = ({ path }: Pick<Piece, 'path'>, memo: Memo): Figure =>
  memo('figure of an outline', [path], () => {
    const rings = pathToRings(path)
    const sum = (of: (ring: Ring) => number) => rings.reduce((all, ring) => all + of(ring), 0)
    return { sides: sum((ring) => ring.length / 2), mm2: sum(signedArea), mm: sum(perimeter) }
  })

/** Whether what is printed, folded and slit on a piece is that of the layer that it would go into. */
function isMarkedAlike(
  cut: Cut,
  { from, to, piece }: { from: Layer | undefined; to: Layer; piece: Piece },
): boolean {
  const marks = ({ print, folds, slits }: Layer) => JSON.stringify([print, folds, slits])
  const isPlain = (layer: Layer) =>
    layer.print === null && layer.folds.length === 0 && layer.slits.length === 0
  if (isPlain(to)) return !cut.printed && (!from || isPlain(from))
  return from !== undefined && cut.piece.path === piece.path && marks(from) === marks(to)
}

function goodByPiece(served: readonly ServedCut[]): Map<string, number> {
  const good = new Map<string, number>()
  for (const { serves } of served) {
    if (!serves) continue
    const key = keyOf(serves.layer.id, serves.piece.id)
    good.set(key, (good.get(key) ?? 0) + 1)
  }
  return good
}

/** Tells how often a piece of a layer is still to be cut. */
export function stillToCut(project: Project, memo: Memo = fresh): (layer: CutLayer, piece: Piece) => number {
  const good = goodByPiece(servedCuts(project, memo))
  return (layer, piece) => Math.max(0, askedFor(layer, piece) - (good.get(keyOf(layer.id, piece.id)) ?? 0))
}
