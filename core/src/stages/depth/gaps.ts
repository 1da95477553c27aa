// Gaps chosen from the foam at hand so that the stack fills the depth and no more. What counts is how high each place comes to stand:
// layers that lie side by side share the depth, they do not add up.
import { boxesMeet, intersect, regionArea, regionBox, type Box, type Region } from '../../base/geometry'
import {
  builtLayers,
  depthAtHand,
  findLayer,
  foamUnder,
  isOnPane,
  layerRegion,
  isGluedFlat,
  pieceJoint,
  pieceRegion,
  setLayer,
  thicknessOf,
  unitsOfStack,
  type Layer,
  type Project,
  isStandOff,
} from '../../project'
import { fresh } from '../../base'
import { folded } from '../layers'
import { bodyOf } from './bodies'
import { gapChoices } from './foam'
import { isFlat } from './heights'
import { Lifts } from './lifts'

/** Cost of giving up a gap altogether and gluing: far above any miss of a target. */
const GLUE_COST = 400
/** Heights that differ by less are equal, mm. */
const HAIR_MM = 1e-6
/** So many choices are looked at before the best so far is taken. */
const MOST_TRIED = 60_000
/** With more pieces whole layers are taken to lie on each other where their card does. */
const MOST_PIECES = 400
/** A contact of so little of a piece's area carries nothing. */
const SLIVER = 0.03

/** Gaps chosen for the free layers, mm. */
export interface GapPlan {
  gaps: { layerId: string; gapMm: number }[]
  /** How high the highest place comes to stand. */
  stackMm: number
  /** False where even glue everywhere is too deep. */
  fits: boolean
}

/** Layers whose gap may be chosen: on foam or glued only for want of room, not pinned, with something beneath. */
export const freeLayers = (project: Project): Layer[] =>
  builtLayers(project).filter(
    ({ joint, ...layer }, i) =>
      i > 0 &&
      (joint.kind === 'foam' || (joint.kind === 'glue' && joint.byFit === true)) &&
      !joint.pinned &&
      !isOnPane(layer),
  )

/** How a profile shares the room out over the free layers, back to front; adds up to 1. */
export function profileShares(project: Project, free: readonly Layer[]): number[] {
  const weights = weightsOf(project, free)
  const sum = weights.reduce((a, b) => a + b, 0)
  return weights.map((w) => w / sum)
}

function weightsOf({ plan: { profile, heroLayerId } }: Project, free: readonly Layer[]): number[] {
  return free.map((layer, i) => {
    if (profile === 'front') return 1 + i / Math.max(1, free.length - 1)
    if (profile === 'hero') return layer.id === (heroLayerId ?? free[Math.floor(free.length / 2)]!.id) ? 2 : 1
    return 1
  })
}

/** What rests on what: a place of the stack with what it adds to the height of those below it. */
interface Resting {
  /** Of the free layer whose gap is under it; −1 where its gap is fixed. */
  free: number
  /** Card, mm. */
  cardMm: number
  /** How far it rises over its flat card where it is folded up, curled or rolled, mm. */
  riseMm: number
  /** What is under it at the least, mm: the gap where that is fixed, else the glue that it is held by where it gets none. */
  liftMm: number
  /** Places below it, by their numbers; of a part that is built on the bench those that are none of its own. */
  on: number[]
  /** Null for what is laid by itself. */
  body: InBody | null
}

/** A place of a part that is built on the bench and laid on as one stiff body. */
interface InBody {
  /** Places of the part, from the first to before the last. */
  from: number
  to: number
  /** It is of the hindmost layer, by whose joint the part rests. */
  isBase: boolean
  /** Places of the part below it, by their numbers. */
  inside: number[]
}

/** Pieces and what each rests on, in the order in which they are laid. Needs the geometry loaded. */
function restings(project: Project, free: readonly Layer[]): Resting[] {
  // What the frame holds by tabs or the pane bears rests on nothing, and nothing on it.
  const rests = (layer: Layer) => layer.joint.kind !== 'tab' && !isOnPane(layer) && !isStandOff(layer)
  const units = unitsOfStack(project)
  const pieces = units.flatMap(({ layers }) => layers.filter(rests)).flatMap((layer) => layer.pieces)
  const many = pieces.length > MOST_PIECES
  const lifts = new Lifts(project)
  const out: Resting[] = []
  const placed: { region: Region; box: Box }[] = []
  for (const unit of units) {
    const from = out.length
    const isBody = unit.part !== null && bodyOf(project, unit, fresh) !== null
    for (const layer of unit.layers.filter(rests)) {
      const before = out.length
      for (const { region, body, riseMm, gap } of placesOf(layer, {
        lifts,
        free: free.indexOf(layer),
        many,
        isBackmost: before === 0,
      })) {
        const box = regionBox(body)
        const least = regionArea(body) * SLIVER
        const below = range(0, before).filter(
          (k) => boxesMeet(box, placed[k]!.box) && regionArea(intersect(body, placed[k]!.region)) > least,
        )
        const inside = isBody ? below.filter((k) => k >= from) : []
        out.push({
          free: gap.free,
          cardMm: thicknessOf(project, layer),
          riseMm,
          liftMm: gap.mm,
          on: below.filter((k) => !inside.includes(k)),
          body: isBody ? { from, to: from, inside, isBase: layer === unit.layers[0] } : null,
        })
        placed.push({ region, box: regionBox(region) })
      }
    }
    for (const place of out.slice(from)) if (place.body) place.body.to = out.length
  }
  return out
}

/** Card that lies at one height but for what is folded up: only its body rests on what is beneath. */
interface Place {
  region: Region
  body: Region
  riseMm: number
  gap: { free: number; mm: number }
}

function foldedUp(region: Region, layer: Layer): Omit<Place, 'gap'> {
  if (isFlat(layer)) return { region, body: region, riseMm: 0 }
  const { body, flaps } = folded(region, layer)
  return { region, body, riseMm: Math.max(0, ...flaps.map((flap) => flap.riseMm)) }
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
  if (many) return [{ ...foldedUp(layerRegion(layer), layer), gap: gapOf('') }]
  return layer.pieces.map((piece) => {
    // What is held otherwise than its layer keeps that, whatever gap the layer gets.
    const isApart = pieceJoint(layer.joint, piece.id) !== undefined
    return {
      ...foldedUp(pieceRegion(piece), layer),
      gap: isApart ? fixed(piece.id) : gapOf(piece.id),
    }
  })
}

const range = (from: number, to: number): number[] => Array.from({ length: to - from }, (_, k) => from + k)

/** How high the highest place stands with gaps of the free layers. */
function heightOf(list: readonly Resting[], gaps: ArrayLike<number>): number {
  const tops = new Float64Array(list.length)
  const gapOf = ({ free, liftMm }: Resting) => (free >= 0 ? Math.max(liftMm, gaps[free]!) : liftMm)
  const topOf = (places: readonly number[]) => {
    let top = 0
    for (const j of places) if (tops[j]! > top) top = tops[j]!
    return top
  }
  let most = 0
  for (let k = 0; k < list.length; k++) {
    const place = list[k]!
    if (place.body) {
      if (place.body.from === k) lay(list, place.body, { tops, gapOf, topOf })
    } else tops[k] = topOf(place.on) + gapOf(place) + place.cardMm
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
  }: { tops: Float64Array; gapOf: (place: Resting) => number; topOf: (places: readonly number[]) => number },
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

/**
 * Gaps that fill the room everywhere: all grow together, each by its weight, until what it lies in or under is as high as the room; the
 * others grow on.
 */
function targetsOf(list: readonly Resting[], weights: readonly number[], roomMm: number): Float64Array {
  const gaps = new Float64Array(weights.length)
  const growing = new Set(weights.keys())
  while (growing.size > 0) {
    const by = new Float64Array(weights.length)
    for (const k of growing) by[k] = weights[k]!
    // The height grows with the gaps, bent upwards: halve the step until it fits.
    let [low, high] = [0, roomMm]
    for (let n = 0; n < 40; n++) {
      const mid = (low + high) / 2
      if (
        heightOf(
          list,
          gaps.map((g, k) => g + by[k]! * mid),
        ) <= roomMm
      )
        low = mid
      else high = mid
    }
    for (const k of growing) gaps[k]! += by[k]! * low
    const before = growing.size
    for (const k of [...growing]) {
      const more = gaps.slice()
      more[k]! += 0.01
      if (heightOf(list, more) > roomMm + 1e-3) growing.delete(k)
    }
    // What is in nobody's way grows no further than the room.
    if (growing.size === before) break
  }
  return gaps
}

/** The best gaps for a room (mm of card, foam and glue), by how high each place comes to stand. Needs the geometry loaded. */
export function planGaps(project: Project, roomMm: number): GapPlan {
  const free = freeLayers(project)
  return gapsFor(project, roomMm, { free, list: restings(project, free) })
}

/** What gaps are chosen of. */
interface Choosable {
  free: readonly Layer[]
  list: readonly Resting[]
}

function gapsFor(project: Project, roomMm: number, { free, list }: Choosable): GapPlan {
  const least = heightOf(list, new Float64Array(free.length))
  const choices = [0, ...gapChoices(project.drawer.foams).map((choice) => choice.gapMm)]
  const targets = targetsOf(list, weightsOf(project, free), Math.max(roomMm, least))
  const gaps = nearestGaps({ list, choices, targets, roomMm: Math.max(roomMm, least) + HAIR_MM })
  return {
    gaps: free.map(({ id }, k) => ({ layerId: id, gapMm: gaps[k]! })),
    stackMm: heightOf(list, gaps),
    fits: least <= roomMm + HAIR_MM,
  }
}

/** How high the stack is with every gap glued that is free to be, mm. Needs the geometry loaded. */
export function leastStackMm(project: Project): number {
  const free = freeLayers(project)
  return heightOf(restings(project, free), new Float64Array(free.length))
}

/** What a gap costs: how far it misses its target, squared; far more where there is none. */
const gapCost = (gapMm: number, targetMm: number): number =>
  (gapMm - targetMm) ** 2 + (gapMm === 0 ? GLUE_COST : 0)

interface ToChoose {
  list: readonly Resting[]
  choices: readonly number[]
  targets: Float64Array
  roomMm: number
}

/** The choice of gaps that misses its targets least and is nowhere higher than the room: by branch and bound (Land and Doig 1960), the likeliest first. */
function nearestGaps({ list, choices, targets, roomMm }: ToChoose): Float64Array {
  const n = targets.length
  const costs = Array.from(targets, (target) => choices.map((gap) => gapCost(gap, target)))
  /** Choices of each layer, the nearest first; and what the layers from k on cost at the least. */
  const order = costs.map((own) => [...choices.keys()].toSorted((a, b) => own[a]! - own[b]!))
  const rest = new Float64Array(n + 1)
  for (let k = n - 1; k >= 0; k--) rest[k] = rest[k + 1]! + Math.min(...costs[k]!)
  const gaps = new Float64Array(n)
  let best: Float64Array = new Float64Array(n)
  let bestCost = costs.reduce((sum, own) => sum + own[0]!, 0)
  let tried = 0
  const descend = (k: number, cost: number): void => {
    if (cost + rest[k]! >= bestCost - 1e-9 || tried++ > MOST_TRIED) return
    if (k === n) {
      best = gaps.slice()
      bestCost = cost
      return
    }
    for (const c of order[k]!) {
      gaps[k] = choices[c]!
      // Those that are not chosen yet are glued for now: no choice of theirs makes it lower. (Within a part it may, where the part hangs on
      // card beside it; a fit may then be passed over, and none is taken that is too high.)
      if (heightOf(list, gaps) <= roomMm) descend(k + 1, cost + costs[k]![c]!)
      gaps[k] = 0
    }
  }
  const start = improved({ list, choices, targets, roomMm }, costs)
  if (start.cost < bestCost) {
    best = start.gaps
    bestCost = start.cost
  }
  descend(0, 0)
  return best
}

/** A good choice to begin with: from glue everywhere, the change of one gap or of two that gains the most, until none gains. */
function improved(
  { list, choices, roomMm }: ToChoose,
  costs: readonly number[][],
): { gaps: Float64Array; cost: number } {
  const n = costs.length
  const at = new Int32Array(n)
  const gapsOf = (picks: Int32Array) => Float64Array.from(picks, (c) => choices[c]!)
  const fits = (picks: Int32Array) => heightOf(list, gapsOf(picks)) <= roomMm
  for (;;) {
    let [gain, next]: [number, Int32Array | null] = [1e-9, null]
    const offer = (picks: Int32Array, by: number) => {
      if (by > gain && fits(picks)) [gain, next] = [by, picks]
    }
    for (let k = 0; k < n; k++)
      for (let c = 0; c < choices.length; c++) {
        if (c === at[k]) continue
        const by = costs[k]![at[k]!]! - costs[k]![c]!
        const one = at.slice()
        one[k] = c
        offer(one, by)
        if (n > 12) continue
        // One up and another down.
        for (let j = 0; j < n; j++)
          for (const d of [at[j]! - 1, at[j]! + 1]) {
            if (j === k || d < 0 || d >= choices.length) continue
            const more = by + costs[j]![at[j]!]! - costs[j]![d]!
            if (more <= gain) continue
            const two = one.slice()
            two[j] = d
            offer(two, more)
          }
      }
    if (!next) break
    at.set(next)
  }
  return { gaps: gapsOf(at), cost: costs.reduce((sum, own, k) => sum + own[at[k]!]!, 0) }
}

/** The room a mount leaves for the stack, mm; null where nothing limits it. */
export function roomOf(project: Project): number | null {
  const limit = depthAtHand(project.mount)
  return limit && Math.max(0, limit.depthMm - limit.clearanceMm)
}

/** Fits are looked for at so many heights, and without a limit up to so much foam under each layer (mm). */
const FITS = 14
const DEEP_MM = 5

/**
 * Every fit from the shallowest to the deepest that is told apart: the best gaps for heights between glue everywhere and the room that
 * there is. Needs the geometry loaded.
 */
export function fitsOf(project: Project): GapPlan[] {
  const free = freeLayers(project)
  if (free.length === 0) return []
  const list = restings(project, free)
  const least = heightOf(list, new Float64Array(free.length))
  const most = roomOf(project) ?? least + free.length * DEEP_MM
  const found = new Map<string, GapPlan>()
  for (let k = 0; k <= FITS; k++) {
    const plan = gapsFor(project, least + ((most - least) * k) / FITS, { free, list })
    if (plan.stackMm > most + HAIR_MM && k > 0) continue
    found.set(plan.gaps.map(({ gapMm }) => gapMm).join(' '), plan)
  }
  return [...found.values()].toSorted((a, b) => a.stackMm - b.stackMm)
}

/** Sets the planned gaps; a gap of nothing becomes a glued joint, to which a gap may come back. Needs the geometry loaded. */
export function fitGaps(project: Project): Project {
  const room = roomOf(project)
  return room === null ? project : withGaps(project, planGaps(project, room).gaps)
}

/** Sets gaps; one of nothing becomes a glued joint, to which a gap may come back. */
export const withGaps = (project: Project, gaps: GapPlan['gaps']): Project =>
  gaps.reduce((p, { layerId, gapMm }) => {
    const layer = findLayer(p, layerId)
    if (!layer) return p
    const { byFit, ...joint } = layer.joint
    void byFit
    return setLayer(p, layerId, {
      joint:
        gapMm > 0
          ? { ...joint, kind: 'foam', gapMm, pinned: false }
          : { ...joint, kind: 'glue', gapMm: 0, pinned: false, byFit: true },
    })
  }, project)
