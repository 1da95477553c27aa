// Measures of single rings. Plain loops over typed arrays: these run millions of times.
import type { Point, Ring } from './types'

/** Signed area in mm² (shoelace); positive for rings that run clockwise on screen (y down). */
export function signedArea(ring: Ring): number {
  const n = ring.length
  let twice = 0
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) twice += ring[j]! * ring[i + 1]! - ring[i]! * ring[j + 1]!
  return twice / 2
}

/** Length of the closed outline in mm. */
export function perimeter(ring: Ring): number {
  const n = ring.length
  let sum = 0
  for (let i = 0, j = n - 2; i < n; j = i, i += 2)
    sum += Math.hypot(ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!)
  return sum
}

/** A ring the other way round, in a new array. */
export function reversed(ring: Ring): Ring {
  const out = new Float64Array(ring.length)
  for (let i = 0; i < ring.length; i += 2) {
    out[i] = ring[ring.length - 2 - i]!
    out[i + 1] = ring[ring.length - 1 - i]!
  }
  return out
}

/** Whether the point lies inside, by the crossing number; points on the outline may fall either way. */
export function ringContains(ring: Ring, x: number, y: number): boolean {
  let inside = false
  const n = ring.length
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
    const yi = ring[i + 1]!
    const yj = ring[j + 1]!
    if (yi > y !== yj > y && x < ((ring[j]! - ring[i]!) * (y - yi)) / (yj - yi) + ring[i]!) inside = !inside
  }
  return inside
}

/** The middle of the widest stretch of a scan line inside a ring, and how wide it is (mm); −1 where the line misses it. */
function widestAt(ring: Ring, y: number): Point & { width: number } {
  const xs: number[] = []
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const yi = ring[i + 1]!
    const yj = ring[j + 1]!
    if (yi > y !== yj > y) xs.push(((ring[j]! - ring[i]!) * (y - yi)) / (yj - yi) + ring[i]!)
  }
  xs.sort((a, b) => a - b)
  let widest = { x: ring[0]!, y, width: -1 }
  for (let k = 0; k + 1 < xs.length; k += 2) {
    const width = xs[k + 1]! - xs[k]!
    if (width > widest.width) widest = { x: (xs[k]! + xs[k + 1]!) / 2, y, width }
  }
  return widest
}

/** A point well inside the ring: the middle of the widest stretch on a scan line between two vertex heights. */
export function interiorPoint(ring: Ring): Point {
  const ys = Array.from(new Set(Array.from({ length: ring.length / 2 }, (_, i) => ring[i * 2 + 1]!))).sort(
    (a, b) => a - b,
  )
  let best = { x: ring[0]!, y: ring[1]!, width: -1 }
  // A few scan lines suffice; the widest gaps between vertex heights first.
  const gaps = ys.slice(1).map((y, i) => ({ mid: (y + ys[i]!) / 2, size: y - ys[i]! }))
  gaps.sort((a, b) => b.size - a.size)
  for (const { mid } of gaps.slice(0, 4)) {
    const widest = widestAt(ring, mid)
    if (widest.width > best.width) best = widest
  }
  return { x: best.x, y: best.y }
}

/** Scan lines at these shares of a ring's height: where corners seldom lie. */
const SCANNED = [0.4877, 0.2913, 0.7129]

/** A point inside the ring, as `interiorPoint` but on lines at set heights: in one pass each, for rings of thousands of corners. */
export function quickInteriorPoint(ring: Ring): Point {
  let [minY, maxY] = [Infinity, -Infinity]
  for (let i = 1; i < ring.length; i += 2) {
    if (ring[i]! < minY) minY = ring[i]!
    if (ring[i]! > maxY) maxY = ring[i]!
  }
  let best = { x: ring[0]!, y: ring[1]!, width: -1 }
  for (const share of SCANNED) {
    const widest = widestAt(ring, minY + (maxY - minY) * share)
    if (widest.width > best.width) best = widest
  }
  return { x: best.x, y: best.y }
}

/** Points farther out than this (a kilometre) are damage; the clipper's whole numbers would not hold them either. */
const FARTHEST_MM = 1e6

/** Drops points that are not finite, lie absurdly far out, or repeat the one before. */
export function cleanLine(line: ArrayLike<number>): number[] {
  const out: number[] = []
  for (let i = 0; i + 1 < line.length; i += 2) {
    const x = line[i]!
    const y = line[i + 1]!
    if (!(Math.abs(x) < FARTHEST_MM && Math.abs(y) < FARTHEST_MM)) continue
    const n = out.length
    if (n >= 2 && Math.abs(out[n - 2]! - x) < 1e-7 && Math.abs(out[n - 1]! - y) < 1e-7) continue
    out.push(x, y)
  }
  return out
}

/** A ring of sound points, the first not repeated; null where fewer than three remain. */
export function cleanRing(ring: ArrayLike<number>): Ring | null {
  const out = cleanLine(ring)
  while (
    out.length >= 4 &&
    Math.abs(out[0]! - out[out.length - 2]!) < 1e-7 &&
    Math.abs(out[1]! - out[out.length - 1]!) < 1e-7
  )
    out.length -= 2
  return out.length >= 6 ? Float64Array.from(out) : null
}
