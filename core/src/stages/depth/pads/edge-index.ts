// Whether a turned rectangle lies wholly inside a region: its centre does, and no outline passes through it.
import Flatbush from 'flatbush'
import { regionContains, regionRings, type Region } from '../../../base/geometry'
import type { Lie } from './lie'

/** The edges of a region by cell, to ask quickly whether a rectangle lies inside. */
export class EdgeIndex {
  private readonly edges: Float64Array
  private readonly index: Flatbush | null

  constructor(private readonly region: Region) {
    const rings = regionRings(region)
    const count = rings.reduce((sum, ring) => sum + ring.length / 2, 0)
    this.edges = new Float64Array(count * 4)
    this.index = count > 0 ? new Flatbush(count) : null
    let k = 0
    for (const ring of rings)
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
        const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!]
        this.edges.set([ax, ay, bx, by], k)
        k += 4
        this.index!.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by))
      }
    this.index?.finish()
  }

  /** True where all of some straight pads lie inside the region. */
  holdsAll(lies: readonly Lie[]): boolean {
    return lies.every(({ x, y, widthMm, heightMm, rotation }) =>
      this.holds(x, y, widthMm, heightMm, rotation),
    )
  }

  /** True where the rectangle (centre, size, degrees) lies inside the region. */
  holds(x: number, y: number, width: number, height: number, deg: number): boolean {
    if (!this.index || !regionContains(this.region, x, y)) return false
    const cos = Math.cos((deg * Math.PI) / 180)
    const sin = Math.sin((deg * Math.PI) / 180)
    const reach = (Math.abs(cos) + Math.abs(sin)) * (Math.max(width, height) / 2)
    const hit = this.index.search(x - reach, y - reach, x + reach, y + reach)
    for (const id of hit) {
      const [ax, ay, bx, by] = this.edges.subarray(id * 4, id * 4 + 4) as unknown as [
        number,
        number,
        number,
        number,
      ]
      // The edge as the rectangle sees it.
      const ux = (ax - x) * cos + (ay - y) * sin
      const uy = (ay - y) * cos - (ax - x) * sin
      const vx = (bx - x) * cos + (by - y) * sin
      const vy = (by - y) * cos - (bx - x) * sin
      if (segmentMeetsBox(ux, uy, vx, vy, width / 2, height / 2)) return false
    }
    return true
  }
}

/** Liang–Barsky: whether a segment enters the open box [−w, w] × [−h, h]. */
function segmentMeetsBox(ax: number, ay: number, bx: number, by: number, w: number, h: number): boolean {
  let t0 = 0
  let t1 = 1
  const dx = bx - ax
  const dy = by - ay
  for (const [p, q] of [
    [-dx, ax + w],
    [dx, w - ax],
    [-dy, ay + h],
    [dy, h - ay],
  ] as const) {
    if (Math.abs(p) < 1e-12) {
      if (q <= 1e-9) return false
      continue
    }
    const t = q / p
    if (p < 0) t0 = Math.max(t0, t)
    else t1 = Math.min(t1, t)
    if (t0 >= t1) return false
  }
  return true
}
