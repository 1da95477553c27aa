// Convex hulls of any number of points.
import type { Point, Ring } from './types'

/** The convex hull of points x0, y0, … (A. M. Andrew's monotone chain, 1979), clockwise on screen. */
export function convexHull(points: ArrayLike<number>): Ring {
  const list = outerPoints(points).sort((a, b) => a.x - b.x || a.y - b.y)
  const lower = halfHull(list)
  const upper = halfHull(list.reverse())
  const hull = new Float64Array(2 * (lower.length + upper.length))
  let n = 0
  for (const half of [lower, upper])
    for (const { x, y } of half) {
      hull[n++] = x
      hull[n++] = y
    }
  return hull
}

/** The half of a hull over points in their order along x, but for its last corner: with that the other half begins. */
function halfHull(list: readonly Point[]): Point[] {
  const chain: Point[] = []
  for (const p of list) {
    for (; chain.length > 1; chain.pop()) {
      const a = chain[chain.length - 2]!
      const b = chain[chain.length - 1]!
      if ((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x) > 0) break
    }
    chain.push(p)
  }
  chain.pop()
  return chain
}

/** Of more points than this, those that surely lie inside are left out first. */
const MANY_POINTS = 200
/** What lies no deeper in is on the hull, as far as rounding can tell. */
const HAIR_MM = 1e-7
/** Ways towards points that lie far out. */
const OUTWARDS = 32

/** Of many points those that the polygon of some far out does not hold (Akl and Toussaint 1978): few are left to sort. */
function outerPoints(points: ArrayLike<number>): Point[] {
  const xy = points instanceof Float64Array ? points : Float64Array.from(points)
  const held = holds(farOut(xy, xy.length > 2 * MANY_POINTS ? OUTWARDS : 0))
  const out: Point[] = []
  for (let i = 0; i + 1 < xy.length; i += 2) {
    const x = xy[i]!
    const y = xy[i + 1]!
    if (!held(x, y)) out.push({ x, y })
  }
  return out
}

/** Tells points that lie within a convex ring, mostly by a circle in it. */
function holds(ring: Float64Array): (x: number, y: number) => boolean {
  const n = ring.length
  if (n === 0) return () => false
  let [midX, midY] = [0, 0]
  for (let i = 0; i < n; i += 2) {
    midX += (2 * ring[i]!) / n
    midY += (2 * ring[i + 1]!) / n
  }
  // Each side as a · x + b · y > c for what lies inside.
  const sides: number[] = []
  let radius = Infinity
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
    const [dx, dy] = [ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!]
    const length = Math.hypot(dx, dy)
    if (length === 0) continue
    const c = (dx * ring[j + 1]! - dy * ring[j]!) / length
    sides.push(-dy / length, dx / length, c)
    radius = Math.min(radius, (dx * midY - dy * midX) / length - c)
  }
  const square = sides.length > 0 && radius > 0 ? radius * radius : 0
  const lines = Float64Array.from(sides)
  // Along an outline the side that one point lies beyond is mostly that of the next.
  let last = 0
  const isBeyond = (k: number, x: number, y: number) =>
    lines[k]! * x + lines[k + 1]! * y <= lines[k + 2]! + HAIR_MM
  return (x, y) => {
    if (lines.length === 0) return false
    if ((x - midX) ** 2 + (y - midY) ** 2 < square) return true
    if (isBeyond(last, x, y)) return false
    for (let k = 0; k < lines.length; k += 3)
      if (isBeyond(k, x, y)) {
        last = k
        return false
      }
    return true
  }
}

/** Points that lie far out towards so many ways round, one after the other; of many points only some are looked at. */
function farOut(xy: Float64Array, ways: number): Float64Array {
  const stride = 2 * Math.ceil(xy.length / 2 / MANY_POINTS)
  const out = new Float64Array(2 * ways)
  for (let k = 0; k < ways; k++) {
    const dx = Math.cos((2 * Math.PI * k) / ways)
    const dy = Math.sin((2 * Math.PI * k) / ways)
    let most = -Infinity
    for (let i = 0; i + 1 < xy.length; i += stride) {
      const along = dx * xy[i]! + dy * xy[i + 1]!
      if (along <= most) continue
      most = along
      out[2 * k] = xy[i]!
      out[2 * k + 1] = xy[i + 1]!
    }
  }
  return out
}
