// What holds one layer: the pads of its pieces, and the glue of those that no pad fits.
import { convexHull, offset, regionCentroid, regionContains, type Region } from '../../base/geometry'
import { fresh, type Memo } from '../../base'
import { foamUnder, isGluedFlat, isOnPane, type Layer, type Project } from '../../project'
import { wholeOf } from './foam'
import { lowered, loweredTo, type Level, type Lifted, type PieceHeight } from './heights'
import { Lifts } from './lifts'
import { takesPadAtOnce } from './pads/at-once'
import { hidesItsOwn, hidingRegion } from './pads/hiding'
import { padOutline } from './pads/lie'
import { handPadsOf, hasRoom, padsForPiece } from './pads/pads'
import type { Pad } from './pads/poses'
import { whyNotHere, type WhyNot } from './pads/why-not'

/** A layer’s height and what holds it. Lengths in mm. */
export interface LayerDepth {
  layerId: string
  bottomMm: number
  topMm: number
  tiltMm: number
  pads: number
  /** Pads of each foam, those stacked in one counted singly; of those that are cut in two the whole ones it takes. */
  foams: { foamId: string; count: number }[]
  /** Pads that are cut in two for it. */
  cut: number
  /** Farthest that any point is from a pad; null where the layer is not on foam. */
  farthestMm: number | null
  farthestAt: [number, number] | null
  /** Pieces on foam for which no pad is narrow enough: they go on with glue. */
  glued: string[]
  /** Pieces of a layer on foam that the maker wants glued flat. */
  gluedFlat: string[]
  floating: string[]
  /** Padded pieces whose centre of mass lies far outside their pads, and where it lies: they tip. */
  tips: { pieceId: string; at: [number, number] }[]
  allowed: Region
  /** Pads of the maker's that do not hold as they should, and why. */
  misfits: { handId: string; why: WhyNot; at: [number, number] }[]
}

/** A layer with what holds it. */
export interface HeldLayer {
  pieces: PieceHeight[]
  pads: Pad[]
  layer: LayerDepth
}

/** A layer, and its pieces as they are lifted by its gap. */
export interface LiftedLayer {
  layer: Layer
  lifted: readonly PieceHeight[]
}

/**
 * Plans the pads of one layer whose pieces are lifted by its gap. A piece that no pad fits goes on with glue, and comes to lie
 * lower. Needs the geometry loaded.
 */
export function holdLayer(project: Project, { layer, lifted }: LiftedLayer, memo: Memo = fresh): HeldLayer {
  const onFoam = isOnFoam(layer)
  const held: LayerDepth = {
    layerId: layer.id,
    bottomMm: Infinity,
    topMm: 0,
    tiltMm: 0,
    pads: 0,
    foams: [],
    cut: 0,
    farthestMm: onFoam ? 0 : null,
    farthestAt: null,
    glued: [],
    gluedFlat: onFoam ? lifted.flatMap((p) => (isGluedFlat(layer, p.pieceId) ? [p.pieceId] : [])) : [],
    floating: lifted.filter((p) => p.floats).map((p) => p.pieceId),
    tips: [],
    allowed: [],
    misfits: [],
  }
  const pads: Pad[] = []
  if (onFoam) {
    const hidden = hidingRegion(project, layer.id, memo)
    const allowed: Region[] = []
    for (const piece of lifted) {
      if (foamUnder(layer, piece.pieceId) === 0 || held.gluedFlat.includes(piece.pieceId)) continue
      const planned = padsForPiece(project, { piece, hidden }, memo)
      for (const pad of planned.pads) pads.push(pad)
      allowed.push(planned.allowed)
      for (const pad of planned.pads) {
        const why =
          pad.handId === undefined ? null : whyNotHere(project, { piece, hidden, others: planned.pads }, pad)
        if (why) held.misfits.push({ handId: pad.handId!, why, at: [pad.x, pad.y] })
      }
      const tip = planned.noRoom ? null : tipOf(piece, planned.pads)
      if (tip) held.tips.push({ pieceId: piece.pieceId, at: tip })
      if (planned.noRoom) held.glued.push(piece.pieceId)
      else if (planned.farthestMm > held.farthestMm!) {
        held.farthestMm = planned.farthestMm
        held.farthestAt = planned.farthestAt
      }
    }
    if (isHeldUp(lifted, [...held.glued, ...held.gluedFlat])) held.glued = held.gluedFlat = []
    held.allowed = allowed.flat()
    held.pads = pads.length
    held.foams = countFoams(pads, layer.copies)
    held.cut =
      layer.copies *
      pads.reduce((n, { foamIds }) => n + foamIds.filter((id) => wholeOf(id).share < 1).length, 0)
  }
  const pieces = asBuilt(new Lifts(project, memo), lifted, [...held.glued, ...held.gluedFlat])
  for (const { bottomMm, topMm, tiltMm } of pieces) {
    held.bottomMm = Math.min(held.bottomMm, bottomMm)
    held.topMm = Math.max(held.topMm, topMm)
    held.tiltMm = Math.max(held.tiltMm, tiltMm)
  }
  return { pieces, pads, layer: held }
}

/** Foam and card hold a centre of mass that lies no farther outside the pads, mm. */
const TIPS_MM = 6

/** The centre of mass of a piece where it lies far outside all its pads together; null where they hold it. */
function tipOf({ region }: PieceHeight, pads: readonly Pad[]): [number, number] | null {
  const hull = convexHull(pads.flatMap((pad) => [...padOutline(pad)]))
  if (hull.length < 6) return null
  const { x, y } = regionCentroid(region)
  const near = offset([{ outer: Float64Array.from(hull), holes: [] }], TIPS_MM)
  return regionContains(near, x, y) ? null : [x, y]
}

/** The same before it is known what carries them. */
export const asLaid = <P extends Lifted>(
  lifts: Lifts,
  { layer, lifted }: { layer: Layer; lifted: readonly P[] },
  glued: readonly string[],
): P[] => lifted.map((piece) => (glued.includes(piece.pieceId) ? loweredTo(lifts, layer, piece) : piece))

/** Pieces as the steps build them, some of them glued. */
export const asBuilt = (
  lifts: Lifts,
  lifted: readonly PieceHeight[],
  glued: readonly string[],
): PieceHeight[] => lifted.map((piece) => (glued.includes(piece.pieceId) ? lowered(lifts, piece) : piece))

/**
 * Pieces of a layer on foam that are glued, as `gluedPieces`, told from its pieces as they are lifted onto what is below, without knowing what
 * carries each part of them; null where that is not enough to tell.
 */
export function gluedAtOnce(
  project: Project,
  { layer, lifted }: { layer: Layer; lifted: readonly Lifted[] },
  below: Level | null,
): string[] | null {
  if (!isOnFoam(layer)) return []
  const isFreed = project.plan.padFree.some(({ layerId }) => layerId === layer.id)
  if (isFreed || !hidesItsOwn(project, layer.id)) return null
  const flat = (piece: Lifted) => isGluedFlat(layer, piece.pieceId)
  const isHeld = (piece: Lifted) =>
    foamUnder(layer, piece.pieceId) === 0 || flat(piece) || takesPadAtOnce(project, piece, below)
  return lifted.every(isHeld) ? lifted.filter(flat).map(({ pieceId }) => pieceId) : null
}

/** Pieces of a layer on foam that are glued, by choice or since no pad fits; pads are planned only where nothing else tells. Needs the geometry loaded. */
export function gluedPieces(project: Project, { layer, lifted }: LiftedLayer, memo: Memo = fresh): string[] {
  if (!isOnFoam(layer)) return []
  const hidden = hidingRegion(project, layer.id, memo)
  // Where the maker keeps spots free only the plan can tell.
  const isFreed = project.plan.padFree.some(({ layerId }) => layerId === layer.id)
  const holds = (piece: PieceHeight) =>
    handPadsOf(project, piece).length > 0 ||
    ((isFreed ? null : hasRoom(project, { piece, hidden }, memo)) ??
      !padsForPiece(project, { piece, hidden }, memo).noRoom)
  const glued = lifted
    .filter(
      (piece) => isGluedFlat(layer, piece.pieceId) || (foamUnder(layer, piece.pieceId) > 0 && !holds(piece)),
    )
    .map(({ pieceId }) => pieceId)
  return isHeldUp(lifted, glued) ? [] : glued
}

/** Whether some pieces cannot come down to be glued: others of their part are padded, and hold them up. */
const isHeldUp = (pieces: readonly PieceHeight[], glued: readonly string[]): boolean =>
  glued.length < pieces.length && pieces.some(({ stiff }) => stiff)

/** Whether any of a layer is on foam. */
const isOnFoam = (layer: Layer): boolean =>
  (layer.joint.kind === 'foam' || layer.joint.kind === 'glue') &&
  !isOnPane(layer) &&
  layer.pieces.some(({ id }) => foamUnder(layer, id) > 0)

/** Pads of each foam that stacked ones are made of, for every copy of the layer. */
function countFoams(pads: readonly Pad[], copies: number): LayerDepth['foams'] {
  const counts = new Map<string, number>()
  for (const pad of pads)
    for (const id of pad.foamIds) {
      const { foamId, share } = wholeOf(id)
      counts.set(foamId, (counts.get(foamId) ?? 0) + copies * share)
    }
  // Halves that are left over are no pads.
  return [...counts].map(([foamId, count]) => ({ foamId, count: Math.ceil(count) }))
}
