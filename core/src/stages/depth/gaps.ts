// Gaps chosen from the foam at hand so that the stack fills the depth and no more. What counts is how high each place comes to stand:
// layers that lie side by side share the depth, they do not add up.
import { boxesMeet, intersect, regionArea, regionBox, type Box, type Region } from '../../base/geometry'
import {
  builtLayers,
  depthAtHand,
  findLayer,
  isOnPane,
  layerRegion,
  pieceJoint,
  pieceRegion,
  setLayer,
  thicknessOf,
  type Layer,
  type Project,
  isStandOff,
} from '../../project'
import { gapChoices, madeGap } from './foam'

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
  /** Card, and the gap where that is fixed, mm. */
  ownMm: number
  /** Places below it, by their numbers. */
  on: number[]
}

/** Pieces and what each rests on, back to front. Needs the geometry loaded. */
function restings(project: Project, free: readonly Layer[]): Resting[] {
  // What the frame holds by tabs or the pane bears rests on nothing, and nothing on it.
  const layers = builtLayers(project).filter(
    (layer) => layer.joint.kind !== 'tab' && !isOnPane(layer) && !isStandOff(layer),
  )
  const many = layers.reduce((sum, layer) => sum + layer.pieces.length, 0) > MOST_PIECES
  const out: Resting[] = []
  const placed: { region: Region; box: Box }[] = []
  for (const layer of layers) {
    const { joint } = layer
    const at = free.indexOf(layer)
    const made = (gapMm: number) => (gapMm > 0 ? (madeGap(project.drawer.foams, gapMm) ?? gapMm) : 0)
    const fixed = joint.kind === 'foam' && at < 0 ? made(joint.gapMm) : 0
    const pieces = many
      ? [{ region: layerRegion(layer), own: undefined }]
      : layer.pieces.map((piece) => ({ region: pieceRegion(piece), own: pieceJoint(joint, piece.id) }))
    const before = placed.length
    for (const { region, own } of pieces) {
      const box = regionBox(region)
      const least = regionArea(region) * SLIVER
      const on: number[] = []
      for (let k = 0; k < before; k++)
        if (boxesMeet(box, placed[k]!.box) && regionArea(intersect(region, placed[k]!.region)) > least)
          on.push(k)
      // What is held otherwise than its layer keeps that, whatever gap the layer gets.
      const gap = own ? { free: -1, mm: made(own.gapMm ?? 0) } : { free: at, mm: fixed }
      out.push({ free: gap.free, ownMm: thicknessOf(project, layer) + gap.mm, on })
      placed.push({ region, box })
    }
  }
  return out
}

/** How high the highest place stands with gaps of the free layers. */
function heightOf(list: readonly Resting[], gaps: ArrayLike<number>): number {
  const tops = new Float64Array(list.length)
  let most = 0
  list.forEach(({ free, ownMm, on }, k) => {
    let under = 0
    for (const j of on) if (tops[j]! > under) under = tops[j]!
    tops[k] = under + ownMm + (free >= 0 ? gaps[free]! : 0)
    if (tops[k]! > most) most = tops[k]!
  })
  return most
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
  const list = restings(project, free)
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

/** What a gap costs: how far it misses its target, squared; far more where there is none. */
const gapCost = (gapMm: number, targetMm: number): number =>
  (gapMm - targetMm) ** 2 + (gapMm === 0 ? GLUE_COST : 0)

interface ToChoose {
  list: readonly Resting[]
  choices: readonly number[]
  targets: Float64Array
  roomMm: number
}

/** The choice of gaps that misses its targets least and is nowhere higher than the room: by branch and bound, the likeliest first. */
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
      // Those that are not chosen yet are glued for now: no choice of theirs makes it lower.
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

/** The room a mount leaves for the stack; null where nothing limits it. */
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
  const least = heightOf(restings(project, free), new Float64Array(free.length))
  const most = roomOf(project) ?? least + free.length * DEEP_MM
  const found = new Map<string, GapPlan>()
  for (let k = 0; k <= FITS; k++) {
    const plan = planGaps(project, least + ((most - least) * k) / FITS)
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
