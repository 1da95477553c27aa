// The outlines of a region as edges with card on their left, and the places where two of them face each other across card.
import Flatbush from 'flatbush'
import type { Point, Region, Ring } from '../../../base/geometry'
import { regionRings } from '../../../base/geometry'

/** Two points of the outlines between which card is as narrow as anywhere near: from each, the other is the nearest across. */
export interface Facing {
  from: Point
  to: Point
  widthMm: number
  /** The outlines they lie on, the lower number first. */
  rings: readonly [number, number]
}

/** A cosine under which two directions count as square to each other: what is left of the arithmetic. */
const SQUARE = 1e-6
const SAME_MM = 1e-7
/** So near, in parts of half the width, and so far aside (the square of a cosine) another outline makes a junction of a strip. */
const ASIDE_NEAR = 1.05
const ASIDE_COS2 = 0.5

/** Edges of a region's outlines, indexed by where they lie. Lengths in mm. */
export class Walls {
  readonly count: number
  /** Of edge k: from (4k, 4k + 1) to (4k + 2, 4k + 3). */
  private readonly edges: Float64Array
  private readonly ringOf: Int32Array
  /** The edge before each along its outline. */
  private readonly before: Int32Array
  private readonly index: Flatbush | null

  constructor(region: Region) {
    const rings = regionRings(region).map(withoutRepeats)
    this.count = rings.reduce((sum, ring) => sum + ring.length / 2, 0)
    this.edges = new Float64Array(this.count * 4)
    this.ringOf = new Int32Array(this.count)
    this.before = new Int32Array(this.count)
    this.index = this.count > 0 ? new Flatbush(this.count) : null
    let first = 0
    rings.forEach((ring, r) => {
      const n = ring.length / 2
      for (let i = 0; i < n; i++) {
        const j = (i + 1) % n
        const k = first + i
        const [ax, ay, bx, by] = [ring[2 * i]!, ring[2 * i + 1]!, ring[2 * j]!, ring[2 * j + 1]!]
        this.edges.set([ax, ay, bx, by], 4 * k)
        this.ringOf[k] = r
        this.before[k] = first + ((i + n - 1) % n)
        this.index!.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by))
      }
      first += n
    })
    this.index?.finish()
  }

  /** Distance from a point to the nearest edge within a reach, and the outline that it is of; null where none is as near. */
  nearest(x: number, y: number, reach: number): { mm: number; ring: number } | null {
    let best = reach
    let ring = -1
    for (const k of this.near(x, y, reach)) {
      const mm = Math.sqrt(this.foot(k, x, y).d2)
      if (mm < best) [best, ring] = [mm, this.ringOf[k]!]
    }
    return ring < 0 ? null : { mm: best, ring }
  }

  /** Every place where card is locally narrowest and narrower than a limit. */
  facing(limitMm: number): Facing[] {
    const out: Facing[] = []
    for (let v = 0; v < this.count; v++) if (this.isReflex(v)) this.facingFrom(v, limitMm, out)
    return out
  }

  private facingFrom(v: number, limitMm: number, out: Facing[]): void {
    const [x, y] = [this.edges[4 * v]!, this.edges[4 * v + 1]!]
    const prior = this.before[v]!
    for (const k of this.near(x, y, limitMm)) {
      if (k === v || k === prior) continue
      const { t, px, py, d2 } = this.foot(k, x, y)
      // The end of an edge is the beginning of the next, where it is looked at.
      if (t === 1 || d2 >= limitMm * limitMm || d2 < SAME_MM) continue
      const [dx, dy] = [px - x, py - y]
      if (t === 0 ? k < v || !this.isReflex(k) || !this.recedes(k, -dx, -dy) : !this.isInward(k, -dx, -dy))
        continue
      if (!this.recedes(v, dx, dy)) continue
      const [from, to] = [
        { x, y },
        { x: px, y: py },
      ]
      if (this.isCrossed(from, to) || this.isJunction(from, to)) continue
      const [a, b] = [this.ringOf[v]!, this.ringOf[k]!]
      out.push({
        from,
        to,
        widthMm: Math.sqrt(d2),
        rings: a < b ? [a, b] : [b, a],
      })
    }
  }

  private near(x: number, y: number, reach: number): number[] {
    return this.index?.search(x - reach, y - reach, x + reach, y + reach) ?? []
  }

  /** The point of an edge that is nearest to another, where on the edge it is (0 to 1), and the square of the distance. */
  private foot(k: number, x: number, y: number): { t: number; px: number; py: number; d2: number } {
    const e = 4 * k
    const [ax, ay] = [this.edges[e]!, this.edges[e + 1]!]
    const [ux, uy] = [this.edges[e + 2]! - ax, this.edges[e + 3]! - ay]
    const t = Math.max(0, Math.min(1, ((x - ax) * ux + (y - ay) * uy) / (ux * ux + uy * uy)))
    const [px, py] = t === 1 ? [this.edges[e + 2]!, this.edges[e + 3]!] : [ax + t * ux, ay + t * uy]
    return { t, px, py, d2: (px - x) ** 2 + (py - y) ** 2 }
  }

  /** Whether the outline bends into the card where an edge begins, or runs straight on. */
  private isReflex(k: number): boolean {
    const [e, p] = [4 * k, 4 * this.before[k]!]
    const [ax, ay] = [this.edges[p + 2]! - this.edges[p]!, this.edges[p + 3]! - this.edges[p + 1]!]
    const [bx, by] = [this.edges[e + 2]! - this.edges[e]!, this.edges[e + 3]! - this.edges[e + 1]!]
    return ax * by - ay * bx <= SQUARE * Math.hypot(ax, ay) * Math.hypot(bx, by)
  }

  /** Whether both edges at the beginning of an edge lead away from a direction, which goes into the card. */
  private recedes(k: number, dx: number, dy: number): boolean {
    const [e, p] = [4 * k, 4 * this.before[k]!]
    const [ax, ay] = [this.edges[p]! - this.edges[p + 2]!, this.edges[p + 1]! - this.edges[p + 3]!]
    const [bx, by] = [this.edges[e + 2]! - this.edges[e]!, this.edges[e + 3]! - this.edges[e + 1]!]
    const d = SQUARE * Math.hypot(dx, dy)
    return (
      ax * dx + ay * dy <= d * Math.hypot(ax, ay) &&
      bx * dx + by * dy <= d * Math.hypot(bx, by) &&
      // Card lies to the left of both edges.
      (this.isInward(k, dx, dy) || this.isInward(this.before[k]!, dx, dy))
    )
  }

  private isInward(k: number, dx: number, dy: number): boolean {
    const e = 4 * k
    return (this.edges[e + 2]! - this.edges[e]!) * dy - (this.edges[e + 3]! - this.edges[e + 1]!) * dx > 0
  }

  /** Whether outlines come as near from aside: there strips meet, and card is wider than in each of them. */
  private isJunction(from: Point, to: Point): boolean {
    const [x, y] = [(from.x + to.x) / 2, (from.y + to.y) / 2]
    const [dx, dy] = [to.x - x, to.y - y]
    const r2 = dx * dx + dy * dy
    const reach = Math.sqrt(r2) * ASIDE_NEAR
    return this.near(x, y, reach).some((k) => {
      const { px, py, d2 } = this.foot(k, x, y)
      const along = (px - x) * dx + (py - y) * dy
      return d2 < reach * reach && along * along < ASIDE_COS2 * d2 * r2
    })
  }

  /** Whether an edge crosses the way between two points of the outlines. */
  private isCrossed(from: Point, to: Point): boolean {
    const [dx, dy] = [to.x - from.x, to.y - from.y]
    const inner = 1e-3
    return this.index!.search(
      Math.min(from.x, to.x),
      Math.min(from.y, to.y),
      Math.max(from.x, to.x),
      Math.max(from.y, to.y),
    ).some((k) => {
      const e = 4 * k
      const [ex, ey] = [this.edges[e + 2]! - this.edges[e]!, this.edges[e + 3]! - this.edges[e + 1]!]
      const cross = dx * ey - dy * ex
      if (cross === 0) return false
      const [ox, oy] = [this.edges[e]! - from.x, this.edges[e + 1]! - from.y]
      const along = (ox * ey - oy * ex) / cross
      const across = (ox * dy - oy * dx) / cross
      return along > inner && along < 1 - inner && across >= 0 && across <= 1
    })
  }
}

function withoutRepeats(ring: Ring): number[] {
  const out: number[] = []
  for (let i = 0; i < ring.length; i += 2) {
    const n = out.length
    if (n > 0 && Math.hypot(ring[i]! - out[n - 2]!, ring[i + 1]! - out[n - 1]!) < SAME_MM) continue
    out.push(ring[i]!, ring[i + 1]!)
  }
  if (out.length > 2 && Math.hypot(out[0]! - out.at(-2)!, out[1]! - out.at(-1)!) < SAME_MM) out.length -= 2
  return out
}
