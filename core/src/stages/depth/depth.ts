// The whole depth plan of a project: heights, pads, foam to buy, what is left to the glazing and what to shim it with.
import type { Region } from '../../base/geometry'
import { fresh, type Memo } from '../../base'
import { isOnPane, builtLayers, type Foam, type Layer, type Project } from '../../project'
import { builds, footprints } from './foam'
import { roomOf } from './gaps'
import { levelOf, liftOnto, lowered, standOn, type Level, type On, type PieceHeight } from './heights'
import { hidingRegion } from './pads/hiding'
import { hasRoom, padsForPiece, type Pad } from './pads/pads'

/** A layer’s height and what holds it. Lengths in mm. */
export interface LayerDepth {
  layerId: string
  bottomMm: number
  topMm: number
  tiltMm: number
  pads: number
  /** Pads of each foam, those stacked in one counted singly. */
  foams: { foamId: string; count: number }[]
  /** Farthest that any point is from a pad; null where the layer is not on foam. */
  farthestMm: number | null
  farthestAt: [number, number] | null
  /** Pieces on foam for which no pad is narrow enough: they go on with glue. */
  glued: string[]
  floating: string[]
  allowed: Region
}

/** Foam of one kind: needed, to buy, and what the needed part of its packs costs. */
export interface FoamUse {
  foam: Foam
  needed: number
  /** Packs to buy beyond what is at hand. */
  packs: number
  cost: number
}

/** Heights, pads and foam of the whole stack. Lengths in mm. */
export interface DepthPlan {
  pieces: PieceHeight[]
  pads: Pad[]
  layers: LayerDepth[]
  stackMm: number
  /** Depth for card, foam and glue; null where nothing limits it. */
  roomMm: number | null
  foamUse: FoamUse[]
  /** Foam build that fills what is left behind the backing sheet; null where less than the thinnest foam is left. */
  shim: { mm: number; partsMm: number[] } | null
}

/** Heights of every piece as it is built, back to front. Needs the geometry loaded. */
export const pieceHeights = (project: Project): PieceHeight[] => depthPlan(project).pieces

/** Computes heights and pads. Needs the geometry loaded. */
export function depthPlan(project: Project): DepthPlan {
  const held: HeldLayer[] = []
  let below: Level | null = null
  for (const layer of builtLayers(project)) {
    const on: On = { project, layer, below }
    const own = holdLayer(project, layer, standOn(on, liftOnto(on)))
    held.push(own)
    below = levelOf(layer, own.pieces, below)
  }
  return sumUpDepth(project, held)
}

/** A layer with what holds it. */
export interface HeldLayer {
  pieces: PieceHeight[]
  pads: Pad[]
  layer: LayerDepth
}

/**
 * Plans the pads of one layer whose pieces are lifted by its gap. A piece that no pad fits goes on with glue, and comes to lie
 * lower. Needs the geometry loaded.
 */
export function holdLayer(
  project: Project,
  layer: Layer,
  lifted: readonly PieceHeight[],
  memo: Memo = fresh,
): HeldLayer {
  const onFoam = isOnFoam(layer)
  const held: LayerDepth = {
    layerId: layer.id,
    bottomMm: Infinity,
    topMm: 0,
    tiltMm: 0,
    pads: 0,
    foams: [],
    farthestMm: onFoam ? 0 : null,
    farthestAt: null,
    glued: [],
    floating: lifted.filter((p) => p.floats).map((p) => p.pieceId),
    allowed: [],
  }
  const pads: Pad[] = []
  if (onFoam) {
    const hidden = hidingRegion(project, layer.id, memo)
    const allowed: Region[] = []
    for (const piece of lifted) {
      const planned = padsForPiece(project, piece, hidden, memo)
      for (const pad of planned.pads) pads.push(pad)
      allowed.push(planned.allowed)
      if (planned.noRoom) held.glued.push(piece.pieceId)
      else if (planned.farthestMm > held.farthestMm!) {
        held.farthestMm = planned.farthestMm
        held.farthestAt = planned.farthestAt
      }
    }
    held.allowed = allowed.flat()
    held.pads = pads.length
    held.foams = countFoams(pads, layer.copies)
  }
  const pieces = asBuilt(project, lifted, held.glued)
  for (const { bottomMm, topMm, tiltMm } of pieces) {
    held.bottomMm = Math.min(held.bottomMm, bottomMm)
    held.topMm = Math.max(held.topMm, topMm)
    held.tiltMm = Math.max(held.tiltMm, tiltMm)
  }
  return { pieces, pads, layer: held }
}

/** Pieces as the steps build them: those that no pad fits are glued. */
export const asBuilt = (
  project: Project,
  lifted: readonly PieceHeight[],
  glued: readonly string[],
): PieceHeight[] => lifted.map((piece) => (glued.includes(piece.pieceId) ? lowered(project, piece) : piece))

/** Pieces of a layer on foam that no pad fits; pads are planned only where nothing else tells. Needs the geometry loaded. */
export function gluedPieces(
  project: Project,
  layer: Layer,
  lifted: readonly PieceHeight[],
  memo: Memo = fresh,
): string[] {
  if (!isOnFoam(layer)) return []
  const hidden = hidingRegion(project, layer.id, memo)
  return lifted
    .filter(
      (piece) =>
        !(hasRoom(project, piece, hidden, memo) ?? !padsForPiece(project, piece, hidden, memo).noRoom),
    )
    .map(({ pieceId }) => pieceId)
}

const isOnFoam = (layer: Layer): boolean =>
  layer.joint.kind === 'foam' && layer.joint.gapMm > 0 && !isOnPane(layer)

/** Pads of each foam that stacked ones are made of, for every copy of the layer. */
function countFoams(pads: readonly Pad[], copies: number): LayerDepth['foams'] {
  const counts = new Map<string, number>()
  for (const pad of pads) for (const id of pad.foamIds) counts.set(id, (counts.get(id) ?? 0) + copies)
  return [...counts].map(([foamId, count]) => ({ foamId, count }))
}

/** The whole stack of held layers: its height, the foam it takes, what is left to the glazing. */
export function sumUpDepth(project: Project, held: readonly HeldLayer[]): DepthPlan {
  // What is on the pane is no part of the stack's height.
  const stackMm = held.reduce(
    (most, { layer, pieces }) => (pieces.some((p) => isOnPane(p.layer)) ? most : Math.max(most, layer.topMm)),
    0,
  )
  const roomMm = roomOf(project)
  const layers = held.map(({ layer }) => layer)
  return {
    pieces: held.flatMap(({ pieces }) => pieces),
    pads: held.flatMap(({ pads }) => pads),
    layers,
    stackMm,
    roomMm,
    foamUse: foamUse(project, layers),
    shim: roomMm === null ? null : shimFor(project, roomMm - stackMm),
  }
}

/** Foam for the whole batch. */
function foamUse(project: Project, layers: readonly LayerDepth[]): FoamUse[] {
  const counts = new Map<string, number>()
  for (const { foams } of layers)
    for (const { foamId, count } of foams)
      counts.set(foamId, (counts.get(foamId) ?? 0) + count * project.plan.batch)
  return project.drawer.foams
    .filter((foam) => counts.has(foam.id))
    .map((foam) => {
      const needed = counts.get(foam.id)!
      const packs = Math.ceil(Math.max(0, needed - foam.count) / foam.perPack)
      return { foam, needed, packs, cost: (needed / foam.perPack) * foam.pricePerPack }
    })
}

/** The thickest foam build that goes into what is left. */
function shimFor(project: Project, leftMm: number): DepthPlan['shim'] {
  const all = footprints(project.drawer.foams).flatMap((size) => builds(size))
  const best = all
    .filter((b) => b.totalMm <= leftMm + 1e-9)
    .toSorted((a, b) => b.totalMm - a.totalMm || a.foams.length - b.foams.length)[0]
  return best ? { mm: best.totalMm, partsMm: best.foams.map((foam) => foam.thicknessMm) } : null
}
