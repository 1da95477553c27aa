// What holds words up: where sticks go, and how far what is not held sinks.
import {
  boxWidth,
  regionBox,
  regionCentroid,
  regionContains,
  regionRings,
  type Box,
  type Region,
  type Point,
} from '../../base/geometry'

/** Where so many sticks are wished for: shares of the width from the centre of mass. */
const WISHED: Record<number, readonly number[]> = {
  1: [0],
  2: [-0.22, 0.22],
  3: [-0.3, 0, 0.3],
  4: [-0.36, -0.12, 0.12, 0.36],
}

/**
 * Where sticks go: evenly about the centre of mass (that of the card itself where none is given), where card reaches the lower edge
 * (mm from the left).
 */
export function stickPlaces(
  region: Region,
  recipe: { sticks: number; stickMm: number },
  centre: Point = regionCentroid(region),
): { at: number[]; remarks: string[] } {
  const remarks: string[] = []
  if (recipe.sticks === 0) return { at: [], remarks }
  const b = regionBox(region)
  const wide = boxWidth(b)
  const at: number[] = []
  for (const share of WISHED[recipe.sticks] ?? []) {
    const x = centre.x + share * wide
    // The nearest place at which card as wide as the stick, and twice as high, reaches down past the centre of mass; apart from others.
    const solid = (px: number) =>
      at.every((other) => Math.abs(other - px) > recipe.stickMm * 2) &&
      holds(region, px, { belowY: centre.y, box: b, stickMm: recipe.stickMm })
    const shifts = Array.from({ length: 120 }, (_, k) => ((k % 2 ? 1 : -1) * Math.ceil(k / 2) * wide) / 240)
    const found = shifts.map((s) => x + s).find(solid)
    if (found !== undefined) at.push(found)
  }
  if (at.length < recipe.sticks)
    remarks.push(
      at.length === 0
        ? 'No column of card below the centre of mass is wide enough for a stick: widen the backing.'
        : `Only ${at.length} of ${recipe.sticks} sticks find card that is wide enough: widen the backing, or take thinner sticks.`,
    )
  return { at: at.toSorted((p, q) => p - q), remarks }
}

/** Columns at which a stick's width is looked at. */
const COLUMNS = [-0.5, -0.25, 0, 0.25, 0.5]
/** A stick holds on card twice as high as it is wide. */
const HELD = 2

/** Whether card as wide as a stick, and twice as high, stands at the lower edge and reaches below a height. */
function holds(
  region: Region,
  x: number,
  { belowY, box, stickMm }: { belowY: number; box: Box; stickMm: number },
): boolean {
  let [foot, head] = [Infinity, -Infinity]
  for (const k of COLUMNS) {
    const column = lowestRun(region, x + k * stickMm, box)
    if (!column || column.foot <= belowY) return false
    foot = Math.min(foot, column.foot)
    head = Math.max(head, column.head)
  }
  // What all columns have in common is what the stick lies on.
  return foot - head >= HELD * stickMm
}

/** The lowest stretch of card in a column. */
export function lowestRun(region: Region, x: number, box: Box): { foot: number; head: number } | null {
  const step = 0.5
  let y = box.maxY
  while (y > box.minY && !regionContains(region, x, y)) y -= step
  if (y <= box.minY) return null
  const foot = y
  while (y > box.minY && regionContains(region, x, y)) y -= step
  return { foot, head: y }
}

/** Longest way from what holds the words (sticks by x, mm) to their farthest end, mm. */
export function droop(words: Region, sticks: readonly number[]): number {
  const b = regionBox(words)
  const holds = sticks.length > 0 ? sticks : [regionCentroid(words).x]
  return Math.max(...[b.minX, b.maxX].map((end) => Math.min(...holds.map((x) => Math.abs(x - end)))))
}

/** Of card: kg/m³ and Pa. The stiffness is a middle value; damp card is softer. */
const DENSITY = 745
const STIFFNESS = 2.5e9

/** How far the end of a level strip of card sinks under its own weight: 3/2 · ρ g L⁴ / (E t²), mm. */
export function sagMm(reachMm: number, thicknessMm: number): number {
  const [l, t] = [reachMm / 1000, thicknessMm / 1000]
  return (1000 * 1.5 * DENSITY * 9.81 * l ** 4) / (STIFFNESS * t ** 2)
}

/** Steps along a beam at which its width counts, mm. */
const STEP_MM = 0.5

/** What a beam is at a place: newton a metre along it, and its bending stiffness, N m². */
export interface BeamAt {
  loadNPerM: number
  stiffness: number
}

/**
 * How far the farther end of a level beam sinks that is held at places and bent by its own weight, mm: w'' = M / (E I) with the moment
 * M of all that lies farther out. Between two places that hold it, it is taken not to bend.
 */
export function sinkOf(b: Box, holds: readonly number[], at: (x: number) => BeamAt): number {
  const n = Math.max(2, Math.ceil(boxWidth(b) / STEP_MM))
  const step = boxWidth(b) / n
  const beam = Array.from({ length: n }, (_, i) => at(b.minX + (i + 0.5) * step))
  const end = (from: number, towards: 1 | -1): number => {
    const reach = towards > 0 ? b.maxX - from : from - b.minX
    const m = Math.max(0, Math.floor(reach / step))
    const ds = step / 1000
    let [force, moment] = [0, 0]
    const bend = new Float64Array(m)
    for (let k = m - 1; k >= 0; k--) {
      const own = beam[Math.floor((from + towards * (k + 0.5) * step - b.minX) / step)]
      const load = (own?.loadNPerM ?? 0) * ds
      moment += force * ds + (load * ds) / 2
      force += load
      bend[k] = own && own.stiffness > 0 ? moment / own.stiffness : 0
    }
    let [slope, sink] = [0, 0]
    for (let k = 0; k < m; k++) {
      sink += slope * ds + (bend[k]! * ds * ds) / 2
      slope += bend[k]! * ds
    }
    return sink * 1000
  }
  return Math.max(end(Math.min(...holds), -1), end(Math.max(...holds), 1))
}

/** Card is never taken to be narrower than this, mm: a beam of no width would bend without end. */
const LEAST_MM = 0.2

/** How far the ends of words sink that are held level at their sticks (or at the centre of mass), of one sheet of a thickness; mm. */
export function sagOf(region: Region, sticks: readonly number[], thicknessMm: number): number {
  const hold = sticks.length > 0 ? sticks : [regionCentroid(region).x]
  const t = thicknessMm / 1000
  return sinkOf(regionBox(region), hold, (x) => {
    const w = Math.max(LEAST_MM, cardAt(region, x)) / 1000
    return { loadNPerM: DENSITY * 9.81 * t * w, stiffness: (STIFFNESS * w * t ** 3) / 12 }
  })
}

/** Height of card in a column, all stretches of it, mm. */
export function cardAt(region: Region, x: number): number {
  const ys: number[] = []
  for (const ring of regionRings(region))
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!]
      if (ax > x !== bx > x) ys.push(ay + ((x - ax) / (bx - ax)) * (by - ay))
    }
  ys.sort((p, q) => p - q)
  let sum = 0
  for (let k = 0; k + 1 < ys.length; k += 2) sum += ys[k + 1]! - ys[k]!
  return sum
}
