// The whole depth plan of a project: heights, pads, foam to buy, what is left to the glazing and what to shim it with.
import {
  convexHull,
  intersect,
  offset,
  rectangle,
  regionBox,
  regionCentroid,
  regionContains,
  regionToPath,
  type Region,
} from '../../base/geometry'
import { fresh, type Memo } from '../../base'
import {
  builtLayers,
  depthAtHand,
  isGluedFlat,
  isOnPane,
  isStandOff,
  standsInFrame,
  paperOf,
  thicknessOf,
  type Foam,
  type Layer,
  type Project,
} from '../../project'
import { builds, footprints, wholeOf } from './foam'
import { roomOf } from './gaps'
import { levelOf, liftOnto, lowered, standOn, type Level, type On, type PieceHeight } from './heights'
import type { CardAt } from '../layers'
import { EdgeIndex } from './pads/edge-index'
import { hidingRegion } from './pads/hiding'
import { cornersOf, handPadsOf, hasRoom, padsForPiece, type Pad } from './pads/pads'
import { pinsOf, type Pins } from './pins'
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

/** Foam of one kind: needed, to buy, and what the needed part of its packs costs. */
export interface FoamUse {
  foam: Foam
  needed: number
  /** Taken by steps that are ticked. */
  taken: number
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
  /** The same while it is pressed: foam gives. */
  pressedMm: number
  /** Upper side of the ring that stands the work off the pane; null where there is none. */
  standOffMm: number | null
  /** Depth for card, foam and glue; null where nothing limits it. */
  roomMm: number | null
  foamUse: FoamUse[]
  /** What holds the backmost sheet on fabric; null where it is not pinned. */
  pins: Pins | null
  /** What fills what is left behind the backing sheet; null where less than the thinnest foam is left, or nothing limits the height. */
  shim: Shim | null
}

/** Pads of one build behind the backmost sheet. Lengths in mm. */
export interface Shim {
  mm: number
  partsMm: number[]
  /** Foams of one pad, thickest first. */
  foamIds: string[]
  /** Middles of the pads, in the project's frame. */
  at: [number, number][]
  widthMm: number
  heightMm: number
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
      if (held.gluedFlat.includes(piece.pieceId)) continue
      const planned = padsForPiece(project, piece, hidden, memo)
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
    held.allowed = allowed.flat()
    held.pads = pads.length
    held.foams = countFoams(pads, layer.copies)
    held.cut =
      layer.copies *
      pads.reduce((n, { foamIds }) => n + foamIds.filter((id) => wholeOf(id).share < 1).length, 0)
  }
  const pieces = asBuilt(project, lifted, [...held.glued, ...held.gluedFlat])
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
  const hull = convexHull(pads.flatMap(cornersOf))
  if (hull.length < 6) return null
  const { x, y } = regionCentroid(region)
  const near = offset([{ outer: Float64Array.from(hull), holes: [] }], TIPS_MM)
  return regionContains(near, x, y) ? null : [x, y]
}

/** Pieces as the steps build them, some of them glued. */
export const asBuilt = (
  project: Project,
  lifted: readonly PieceHeight[],
  glued: readonly string[],
): PieceHeight[] => lifted.map((piece) => (glued.includes(piece.pieceId) ? lowered(project, piece) : piece))

/** Pieces of a layer on foam that are glued, by choice or since no pad fits; pads are planned only where nothing else tells. Needs the geometry loaded. */
export function gluedPieces(
  project: Project,
  layer: Layer,
  lifted: readonly PieceHeight[],
  memo: Memo = fresh,
): string[] {
  if (!isOnFoam(layer)) return []
  const hidden = hidingRegion(project, layer.id, memo)
  // Where the maker keeps spots free only the plan can tell.
  const isFreed = project.plan.padFree.some(({ layerId }) => layerId === layer.id)
  const holds = (piece: PieceHeight) =>
    handPadsOf(project, piece).length > 0 ||
    ((isFreed ? null : hasRoom(project, piece, hidden, memo)) ??
      !padsForPiece(project, piece, hidden, memo).noRoom)
  return lifted
    .filter((piece) => isGluedFlat(layer, piece.pieceId) || !holds(piece))
    .map(({ pieceId }) => pieceId)
}

const isOnFoam = (layer: Layer): boolean =>
  layer.joint.kind === 'foam' && layer.joint.gapMm > 0 && !isOnPane(layer)

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

/** The whole stack of held layers: its height, the foam it takes, what is left to the glazing. */
export function sumUpDepth(project: Project, held: readonly HeldLayer[], memo: Memo = fresh): DepthPlan {
  // What is on the pane is no part of the stack's height.
  const inStack = held.filter(({ pieces }) => !pieces.some((p) => isOnPane(p.layer) || isStandOff(p.layer)))
  const stackMm = inStack.reduce((most, { layer }) => Math.max(most, layer.topMm), 0)
  const pressedMm = inStack
    .flatMap(({ pieces }) => pieces)
    .reduce((most, { topMm, givesMm }) => Math.max(most, topMm - givesMm), 0)
  const ring = held.filter(({ pieces }) => pieces.some((p) => isStandOff(p.layer)))
  const standOffMm = ring.length > 0 ? Math.max(...ring.map(({ layer }) => layer.topMm)) : null
  const roomMm = roomOf(project)
  const layers = held.map(({ layer }) => layer)
  const backmost = held[0]?.pieces.map(({ region }) => region).flat() ?? []
  // A ring reaches to the pane itself, and keeps the air in front of the work.
  const depthMm = depthAtHand(project.mount)?.depthMm ?? 0
  const leftMm =
    roomMm === null ? 0 : Math.min(roomMm - stackMm, standOffMm === null ? Infinity : depthMm - standOffMm)
  const pieces = held.flatMap((own) => own.pieces)
  const pins = pinsOf(project, pieces, memo)
  // Pins hold a sheet on the fabric itself: there is no foam behind it. Before what stands in the frame the stack stays where it is.
  const stands = held.some(({ pieces: own }) => own.some(({ layer }) => standsInFrame(layer)))
  const shim =
    roomMm === null || pins || stands
      ? null
      : shimFor(project, leftMm, {
          card: backmost,
          hidden: held[0] ? hidingRegion(project, held[0].layer.layerId, memo) : null,
        })
  return {
    pieces,
    pins,
    pads: held.flatMap(({ pads }) => pads),
    layers,
    stackMm,
    pressedMm,
    standOffMm,
    roomMm,
    foamUse: foamUse(project, layers, shim),
    shim,
  }
}

/** Foam for the whole batch. */
function foamUse(project: Project, layers: readonly LayerDepth[], shim: Shim | null): FoamUse[] {
  const counts = new Map<string, number>()
  for (const { foams } of layers)
    for (const { foamId, count } of foams)
      counts.set(foamId, (counts.get(foamId) ?? 0) + count * project.plan.batch)
  for (const id of shim?.foamIds ?? []) {
    const { foamId, share } = wholeOf(id)
    counts.set(foamId, (counts.get(foamId) ?? 0) + Math.ceil(shim!.at.length * share) * project.plan.batch)
  }
  const taken = new Map<string, number>()
  for (const { foams } of project.progress.took)
    for (const { foamId, count } of foams) taken.set(foamId, (taken.get(foamId) ?? 0) + count)
  return project.drawer.foams
    .filter((foam) => counts.has(foam.id))
    .map((foam) => {
      const needed = counts.get(foam.id)!
      // What ticked steps took is no longer at hand, nor wanted.
      const packs = Math.ceil(Math.max(0, needed - (taken.get(foam.id) ?? 0) - foam.count) / foam.perPack)
      return {
        foam,
        needed,
        taken: taken.get(foam.id) ?? 0,
        packs,
        cost: (needed / foam.perPack) * foam.pricePerPack,
      }
    })
}

/** From one pad of a shim to the next, at the most; and how far they keep from the edge, mm. */
const SHIM_EVERY_MM = 90
const SHIM_IN_MM = 4

/**
 * The thickest foam build that goes into what is left, as pads along the edge of the backmost sheet and over its middle; behind a sheet
 * that lets light through only where they stay hidden.
 */
function shimFor(
  project: Project,
  leftMm: number,
  { card, hidden }: { card: Region; hidden: Region | null },
): Shim | null {
  const all = footprints(project.drawer.foams).flatMap((size) =>
    builds(size).map((build) => ({ size, build })),
  )
  const best = all
    .filter(({ build }) => build.totalMm <= leftMm + 1e-9)
    // Of equals few pads on each other, and large ones.
    .toSorted(
      (a, b) =>
        b.build.totalMm - a.build.totalMm ||
        a.build.foams.length - b.build.foams.length ||
        b.size.widthMm * b.size.heightMm - a.size.widthMm * a.size.heightMm,
    )[0]
  if (!best || card.length === 0) return null
  const { widthMm, heightMm } = best.size
  const at = shimPlaces(card, hidden, { widthMm, heightMm })
  // Pads that would all be seen are none.
  if (at.length === 0) return null
  return {
    mm: best.build.totalMm,
    partsMm: best.build.foams.map((foam) => foam.thicknessMm),
    foamIds: best.build.foams.map((foam) => foam.id),
    at,
    widthMm,
    heightMm,
  }
}

/** Places on an even grid from edge to edge, where card is over all of the pad. */
function shimPlaces(
  card: Region,
  hidden: Region | null,
  { widthMm, heightMm }: { widthMm: number; heightMm: number },
): [number, number][] {
  const { minX, minY, maxX, maxY } = regionBox(card)
  const along = (from: number, to: number, size: number): number[] => {
    const [first, last] = [from + SHIM_IN_MM + size / 2, to - SHIM_IN_MM - size / 2]
    if (last <= first) return [(from + to) / 2]
    const steps = Math.max(1, Math.ceil((last - first) / SHIM_EVERY_MM))
    return Array.from({ length: steps + 1 }, (_, k) => first + ((last - first) * k) / steps)
  }
  const room = hidden ? intersect(card, hidden) : card
  if (room.length === 0) return []
  const index = new EdgeIndex(room)
  return along(minY, maxY, heightMm).flatMap((y) =>
    along(minX, maxX, widthMm).flatMap((x): [number, number][] =>
      index.holds(x, y, widthMm, heightMm, 0) ? [[x, y]] : [],
    ),
  )
}

/** All card at the heights where it comes to lie, for eyes that look from aside. */
export const cardsAt = ({ pieces }: Pick<DepthPlan, 'pieces'>): CardAt[] =>
  pieces.flatMap(({ layer, parts }) =>
    parts.map(({ region, topMm }) => ({ layerId: layer.id, region, topMm })),
  )

/** What fills the depth that is left. */
export interface Filled {
  where: 'behind' | 'front'
  /** Outlines of the pads or of the sheet, path data in the project's frame. */
  path: string
  thicknessMm: number
  /** The foam's or paper's name. */
  material: string
}

/** Shims behind the work, one a foam of the build, and the sheets of the ring before it. */
export function shimsOf(project: Project, { shim, pieces }: DepthPlan): Filled[] {
  const foams = new Map(project.drawer.foams.map((foam) => [foam.id, foam]))
  const behind = (shim?.foamIds ?? []).map((id, k): Filled => ({
    where: 'behind',
    path: regionToPath(
      shim!.at.map(([x, y]) =>
        rectangle(x - shim!.widthMm / 2, y - shim!.heightMm / 2, shim!.widthMm, shim!.heightMm),
      ),
    ),
    thicknessMm: shim!.partsMm[k]!,
    material: foams.get(wholeOf(id).foamId)?.name ?? id,
  }))
  const rings = builtLayers(project).filter(isStandOff)
  return [
    ...behind,
    ...rings.map((layer): Filled => ({
      where: 'front',
      path: regionToPath(
        pieces.filter((piece) => piece.layer.id === layer.id).flatMap(({ region }) => region),
      ),
      thicknessMm: thicknessOf(project, layer),
      material: paperOf(project, layer)?.name ?? layer.name,
    })),
  ]
}
