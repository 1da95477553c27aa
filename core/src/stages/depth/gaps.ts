// Gaps chosen from the foam at hand so that the stack fills the depth and no more. What counts is how high each place comes to stand:
// layers that lie side by side share the depth, they do not add up.
import {
  builtLayers,
  depthAtHand,
  findLayer,
  isOnPane,
  setLayer,
  type Layer,
  type Project,
} from '../../project'
import { gapChoices } from './foam'
import { heightOf, restings, type Resting } from './resting'

/** Cost of giving up a gap altogether and gluing: far above any miss of a target. */
const GLUE_COST = 400
/** Heights that differ by less are equal, mm. */
const HAIR_MM = 1e-6
/** So many choices are looked at before the best so far is taken. */
const MOST_TRIED = 60_000

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

/** What gaps are fitted to. */
interface Room {
  list: readonly Resting[]
  /** Highest gaps of the layers at which foam finds room. */
  mostMm: readonly number[]
  roomMm: number
}

/**
 * Gaps that fill the room everywhere: all grow together, each by its weight, until what it lies in or under is as high as the room, or foam
 * would not be hidden any more; the others grow on.
 */
function targetsOf({ list, mostMm, roomMm }: Room, weights: readonly number[]): Float64Array {
  const gaps = new Float64Array(weights.length)
  const growing = new Set([...weights.keys()].filter((k) => mostMm[k]! > 0))
  while (growing.size > 0) {
    const by = new Float64Array(weights.length)
    for (const k of growing) by[k] = weights[k]!
    // The height grows with the gaps, bent upwards: halve the step until it fits.
    const farthest = Math.min(roomMm, ...[...growing].map((k) => (mostMm[k]! - gaps[k]!) / weights[k]!))
    let [low, high] = [0, farthest]
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
      if (more[k]! > mostMm[k]! || heightOf(list, more) > roomMm + 1e-3) growing.delete(k)
    }
    // What is in nobody's way grows no further than the room.
    if (growing.size === before) break
  }
  return gaps
}

/** The best gaps for a room (mm of card, foam and glue), by how high each place comes to stand. Needs the geometry loaded. */
export const planGaps = (project: Project, roomMm: number): GapPlan => gapPlanner(project)(roomMm)

/** The same for one room after the other. */
export function gapPlanner(project: Project): (roomMm: number) => GapPlan {
  const of = choosable(project)
  return (roomMm) => gapsFor(project, roomMm, of)
}

/** What gaps are chosen of. */
interface Choosable {
  free: readonly Layer[]
  list: readonly Resting[]
  /** What foam at hand makes, the lowest first, mm. */
  gapsMm: readonly number[]
}

function choosable(project: Project): Choosable {
  const free = freeLayers(project)
  const gapsMm = gapChoices(project.drawer.foams).map((choice) => choice.gapMm)
  return { free, list: restings(project, free, gapsMm), gapsMm }
}

/** The highest gap of each layer at which foam finds room under any of it, mm. */
const roomiest = ({ free, list }: Choosable): number[] =>
  free.map((_, k) => Math.max(0, ...list.filter((place) => place.free === k).map(({ roomyMm }) => roomyMm)))

function gapsFor(project: Project, roomMm: number, of: Choosable): GapPlan {
  const { free, list, gapsMm } = of
  const mostMm = roomiest(of)
  const least = heightOf(list, new Float64Array(free.length))
  const room = Math.max(roomMm, least)
  const targets = targetsOf({ list, mostMm, roomMm: room }, weightsOf(project, free))
  const gaps = nearestGaps({ list, mostMm, choices: [0, ...gapsMm], targets, roomMm: room + HAIR_MM })
  return {
    gaps: free.map(({ id }, k) => ({ layerId: id, gapMm: gaps[k]! })),
    stackMm: heightOf(list, gaps),
    fits: least <= roomMm + HAIR_MM,
  }
}

/** How high the stack is with every gap glued that is free to be, mm. Needs the geometry loaded. */
export function leastStackMm(project: Project): number {
  const free = freeLayers(project)
  return heightOf(restings(project, free, []), new Float64Array(free.length))
}

/** What a gap costs: how far it misses its target, squared; far more where there is none. */
const gapCost = (gapMm: number, targetMm: number): number =>
  (gapMm - targetMm) ** 2 + (gapMm === 0 ? GLUE_COST : 0)

interface ToChoose extends Room {
  choices: readonly number[]
  targets: Float64Array
}

/** The choice of gaps that misses its targets least and is nowhere higher than the room: by branch and bound (Land and Doig 1960), the likeliest first. */
function nearestGaps({ list, mostMm, choices, targets, roomMm }: ToChoose): Float64Array {
  const n = targets.length
  const costs = Array.from(targets, (target, k) =>
    choices.map((gap) => (gap > mostMm[k]! ? Infinity : gapCost(gap, target))),
  )
  /** Choices of each layer, the nearest first; and what the layers from k on cost at the least. */
  const order = costs.map((own) =>
    [...choices.keys()].filter((c) => own[c]! < Infinity).toSorted((a, b) => own[a]! - own[b]!),
  )
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
  const start = improved({ list, choices, roomMm }, costs)
  if (start.cost < bestCost) {
    best = start.gaps
    bestCost = start.cost
  }
  descend(0, 0)
  return best
}

/** A good choice to begin with: from glue everywhere, the change of one gap or of two that gains the most, until none gains. */
function improved(
  { list, choices, roomMm }: Pick<ToChoose, 'list' | 'choices' | 'roomMm'>,
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
  const of = choosable(project)
  const { free, list } = of
  if (free.length === 0) return []
  const least = heightOf(list, new Float64Array(free.length))
  const most = roomOf(project) ?? least + free.length * DEEP_MM
  const found = new Map<string, GapPlan>()
  for (let k = 0; k <= FITS; k++) {
    const plan = gapsFor(project, least + ((most - least) * k) / FITS, of)
    if (plan.stackMm > most + HAIR_MM && k > 0) continue
    found.set(plan.gaps.map(({ gapMm }) => gapMm).join(' '), plan)
  }
  return [...found.values()].toSorted((a, b) => a.stackMm - b.stackMm)
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
