// What rests on what in a stack whose gaps are not chosen yet, and how high it stands with any choice of them.
import {
  boxesMeet,
  intersect,
  regionArea,
  regionBox,
  subtract,
  takesDisc,
  type Box,
  type Region,
} from '../../base/geometry'
import {
  foamUnder,
  hasBoardBehind,
  isGluedFlat,
  isOnPane,
  isStandOff,
  layerRegion,
  pieceJoint,
  pieceRegion,
  thicknessOf,
  unitsOfStack,
  type Layer,
  type Project,
} from '../../project'
import { fresh, groupBy } from '../../base'
import { folded } from '../layers'
import { bodyOf } from './bodies'
import { gluedPieces } from './held'
import { BENDS_MM, isFlat, leastContact, SLIVER, type PieceHeight } from './heights'
import { Lifts } from './lifts'
import { SLACK_MM } from './pads/places'

/** With more pieces whole layers are taken to lie on each other where their card does. */
const MOST_PIECES = 400

/** What rests on what: a place of the stack with what it adds to the height of those below it. */
export interface Resting {
  /** Of the free layer whose gap is under it; −1 where its gap is fixed. */
  free: number
  /** The highest gap at which foam finds room under it, hidden from the side, mm: with a higher one it is glued. */
  roomyMm: number
  /** Card, mm. */
  cardMm: number
  /** How far it rises over its flat card where it is folded up, curled or rolled, mm. */
  riseMm: number
  /** What is under it at the least, mm: the gap where that is fixed, else the glue that it is held by where it gets none. */
  liftMm: number
  /** What is below it; of a part that is built on the bench what is none of its own. */
  on: Under[]
  /** What it touches in slivers beside that: a gap bends over them, unless they stand far higher. */
  slivers: Under[]
  /** Null for what is laid by itself. */
  body: InBody | null
}

/** A place that something rests on: by its number, and how far over its flat card, mm, where that lies on what is folded up or curled. */
interface Under {
  at: number
  overMm: number
}

/** A place of a part that is built on the bench and laid on as one stiff body. */
interface InBody {
  /** Places of the part, from the first to before the last. */
  from: number
  to: number
  /** It is of the hindmost layer, by whose joint the part rests. */
  isBase: boolean
  /** What of the part is below it. */
  inside: Under[]
}

/**
 * Pieces and what each rests on, in the order in which they are laid. Needs the geometry loaded.
 * @param free layers whose gap may be chosen
 * @param gapsMm what may be chosen for them, the lowest first
 */
export function restings(project: Project, free: readonly Layer[], gapsMm: readonly number[]): Resting[] {
  // What the frame holds by tabs or the pane bears rests on nothing, and nothing on it.
  const rests = (layer: Layer) => layer.joint.kind !== 'tab' && !isOnPane(layer) && !isStandOff(layer)
  const units = unitsOfStack(project)
  const pieces = units.flatMap(({ layers }) => layers.filter(rests)).flatMap((layer) => layer.pieces)
  const many = pieces.length > MOST_PIECES
  const lifts = new Lifts(project)
  const roomyMm = roomFor(project, gapsMm)
  const hasBoard = hasBoardBehind(project.mount)
  const out: Resting[] = []
  const placed: Placed[] = []
  for (const unit of units) {
    const from = out.length
    const isBody = unit.part !== null && bodyOf(project, unit, fresh) !== null
    for (const layer of unit.layers.filter(rests)) {
      const before = out.length
      for (const { pieceId, body, parts, gap } of placesOf(layer, {
        lifts,
        free: free.indexOf(layer),
        many,
        isBackmost: before === 0,
      })) {
        const touched = touchedBy(body, placed.slice(0, before))
        const { on, slivers } = underOf(body, touched)
        const inside = isBody ? on.filter(({ at }) => at >= from) : []
        out.push({
          free: gap.free,
          roomyMm:
            gap.free < 0 || many || gapsMm.length === 0
              ? Infinity
              : roomyMm({ layer, pieceId, body, under: openUnder(body, on, hasBoard) }),
          cardMm: thicknessOf(project, layer),
          riseMm: parts[0]!.riseMm,
          liftMm: gap.mm,
          on: on.filter((under) => !inside.includes(under)),
          slivers,
          body: isBody ? { from, to: from, inside, isBase: layer === unit.layers[0] } : null,
        })
        placed.push({ layerId: layer.id, parts })
      }
    }
    for (const place of out.slice(from)) if (place.body) place.body.to = out.length
  }
  return out
}

/** Card that a body lies over. */
interface Touched extends Under {
  layerId: string
  region: Region
}

/** All that a body lies over of the places before it. */
function touchedBy(body: Region, placed: readonly Placed[]): Touched[] {
  const box = regionBox(body)
  const slight = leastContact(body)
  return placed.flatMap(({ layerId, parts }, at) =>
    parts.flatMap((part) => {
      const region = boxesMeet(box, part.box) ? intersect(body, part.region) : []
      return regionArea(region) > slight ? [{ at, overMm: part.riseMm, layerId, region }] : []
    }),
  )
}

/** A piece of a layer whose gap may be chosen, over what it rests on. */
interface OverCard {
  layer: Layer
  pieceId: string
  body: Region
  /** The last that was laid first, each as far as nothing lies on it. */
  under: readonly Region[]
}

/** What a body rests on, layer by layer, the last first: each where no other of them lies over it, and the board beside them all. */
function openUnder(body: Region, on: readonly Touched[], hasBoard: boolean): Region[] {
  const layers = [...groupBy(on, ({ layerId }) => layerId).values()].toReversed()
  let rest = body
  const under: Region[] = []
  for (const touched of layers) {
    const own = touched.flatMap(({ region }) => region)
    under.push(intersect(rest, own))
    rest = subtract(rest, own)
  }
  return hasBoard ? [...under, rest] : under
}

/**
 * Tells up to which of some gaps, mm, pads find room under a piece, hidden from every side: 0 where they find none, Infinity where they do
 * under all. How high what lies farther down is under it is not known yet: layers between are taken to have the same gap.
 */
function roomFor(project: Project, gapsMm: readonly number[]): (piece: OverCard) => number {
  const { drawer, plan } = project
  const leastMm = Math.min(...drawer.foams.flatMap((foam) => [foam.widthMm, foam.heightMm])) / 2 - SLACK_MM
  return ({ layer, pieceId, body, under }) => {
    // Most that holds none is narrower than any pad: known without looking for places.
    const byHand = plan.handPads.some(({ layerId }) => layerId === layer.id)
    if (!byHand && !takesDisc(body, leastMm)) return 0
    const cardMm = thicknessOf(project, layer)
    const holds = (gapMm: number): boolean => {
      const padded: Layer = { ...layer, joint: { ...layer.joint, kind: 'foam', gapMm } }
      const supports = under.map((region, k) => ({ region, topMm: 0, needMm: gapMm + k * (gapMm + cardMm) }))
      const piece: PieceHeight = {
        ...{ layer: padded, pieceId, region: body, parts: [], supports },
        ...{ bottomMm: gapMm, topMm: gapMm + cardMm, givesMm: 0, tiltMm: 0, floats: false },
      }
      return gluedPieces(project, { layer: padded, lifted: [piece] }).length === 0
    }
    // The higher, the farther pads keep from the edge.
    const highest = gapsMm.findLastIndex(holds)
    return highest === gapsMm.length - 1 ? Infinity : (gapsMm[highest] ?? 0)
  }
}

/**
 * What a body rests on of what it lies over, and what it touches in slivers alone: those carry nothing, unless there is nothing else. Card
 * of one layer counts as one.
 */
function underOf(body: Region, touched: readonly Touched[]): { on: Touched[]; slivers: Touched[] } {
  const least = regionArea(body) * SLIVER
  const on: Touched[] = []
  const slivers: Touched[] = []
  for (const own of groupBy(touched, ({ layerId }) => layerId).values()) {
    let touching = 0
    // What is folded up is met first.
    const highestFirst = own.toSorted((a, b) => b.overMm - a.overMm)
    for (const alike of groupBy(highestFirst, ({ overMm }) => overMm).values()) {
      touching += alike.reduce((sum, { region }) => sum + regionArea(region), 0)
      if (touching > least) on.push(...alike)
      else slivers.push(...alike)
    }
  }
  return on.length > 0 ? { on, slivers } : { on: slivers, slivers: [] }
}

/** A place that lies, with its layer. */
interface Placed {
  layerId: string
  /** The highest first. */
  parts: Part[]
}

/** Card of a place that comes to stand so far over its flat card, mm: what is folded up, and what is not. */
interface Part {
  region: Region
  box: Box
  riseMm: number
}

/** Card that lies at one height but for what is folded up: only its body rests on what is beneath. */
interface Place {
  pieceId: string
  body: Region
  /** The highest first. */
  parts: Part[]
  gap: { free: number; mm: number }
}

function foldedUp(region: Region, layer: Layer): Pick<Place, 'body' | 'parts'> {
  const { body, flaps } = isFlat(layer) ? { body: region, flaps: [] } : folded(region, layer)
  const rising = flaps.map((flap) => ({ region: flap.region, riseMm: Math.max(0, flap.riseMm) }))
  const flat = body === region && rising.length > 0 ? [] : [{ region: body, riseMm: 0 }]
  const parts = [...rising, ...flat].map((part) => ({ ...part, box: regionBox(part.region) }))
  return { body, parts: parts.toSorted((a, b) => b.riseMm - a.riseMm) }
}

/** Places of a layer: its pieces each with the gap under it, or all of it as one. */
function placesOf(
  layer: Layer,
  { lifts, free, many, isBackmost }: { lifts: Lifts; free: number; many: boolean; isBackmost: boolean },
): Place[] {
  const fixedMm = (pieceId: string): number => {
    if (isGluedFlat(layer, pieceId)) return lifts.ofGlue(layer, pieceId)
    // What the backmost layer is glued to is none of the stack.
    return isBackmost && foamUnder(layer, pieceId) === 0 ? 0 : lifts.between(layer, pieceId)
  }
  const fixed = (pieceId: string) => ({ free: -1, mm: fixedMm(pieceId) })
  const gapOf = (pieceId: string) => (free < 0 ? fixed(pieceId) : { free, mm: lifts.ofGlue(layer, pieceId) })
  if (many) return [{ pieceId: '', ...foldedUp(layerRegion(layer), layer), gap: gapOf('') }]
  return layer.pieces.map((piece) => {
    // What is held otherwise than its layer keeps that, whatever gap the layer gets.
    const isApart = pieceJoint(layer.joint, piece.id) !== undefined
    return {
      pieceId: piece.id,
      ...foldedUp(pieceRegion(piece), layer),
      gap: isApart ? fixed(piece.id) : gapOf(piece.id),
    }
  })
}

/** How high the highest place stands with gaps of the free layers. */
export function heightOf(list: readonly Resting[], gaps: ArrayLike<number>): number {
  const tops = new Float64Array(list.length)
  const gapOf = ({ free, liftMm, roomyMm }: Resting) =>
    free >= 0 && gaps[free]! <= roomyMm ? Math.max(liftMm, gaps[free]!) : liftMm
  const topOf = (places: readonly Under[]) => {
    let top = 0
    for (const { at, overMm } of places) if (tops[at]! + overMm > top) top = tops[at]! + overMm
    return top
  }
  let most = 0
  for (let k = 0; k < list.length; k++) {
    const place = list[k]!
    if (place.body) {
      if (place.body.from === k) lay(list, place.body, { tops, gapOf, topOf })
    } else {
      const gapMm = gapOf(place)
      const restsMm = topOf(place.on) + gapMm
      const bumpMm = gapMm > 0 ? topOf(place.slivers) : 0
      tops[k] = (bumpMm > restsMm + BENDS_MM ? bumpMm : restsMm) + place.cardMm
    }
  }
  // A part that is built on the bench is laid with its first place: heights count once all lie.
  for (let k = 0; k < list.length; k++) most = Math.max(most, tops[k]! + list[k]!.riseMm)
  return most
}

/**
 * Lays a part that is built on the bench: within it heights are those of the bench; it rests by the joint of its hindmost layer, and no lower
 * than all else of it can go without running into what is there.
 */
function lay(
  list: readonly Resting[],
  { from, to }: InBody,
  {
    tops,
    gapOf,
    topOf,
  }: { tops: Float64Array; gapOf: (place: Resting) => number; topOf: (places: readonly Under[]) => number },
): void {
  let seatMm = 0
  for (let k = from; k < to; k++) {
    const place = list[k]!
    const { isBase, inside } = place.body!
    // Over the bench, until it is known where the part lies: what it rests on outside is laid already.
    const bottomMm = isBase ? 0 : topOf(inside) + gapOf(place)
    const under = topOf(place.on)
    seatMm = Math.max(seatMm, isBase ? under + gapOf(place) : under - bottomMm)
    tops[k] = bottomMm + place.cardMm
  }
  for (let k = from; k < to; k++) tops[k]! += seatMm
}
