// The edges of a region, to ask quickly whether a turned rectangle lies inside it or a straight line crosses its outlines.
import Flatbush from 'flatbush'
import { regionRings, type Region } from '../../../base/geometry'
import type { Lie } from './lie'

/** Ends of a sight line are drawn in by so much, so that it may start on an outline (mm). */
export const HAIR_MM = 1e-3

/** A place on the card, mm. */
export interface Place {
  x: number
  y: number
}

/** The edges of a region in a tree of boxes. */
export class Edges {
  /** x and y of where each edge begins and ends. */
  private readonly ends: Float64Array
  private readonly index: Flatbush | null

  constructor(region: Region) {
    const rings = regionRings(region)
    const count = rings.reduce((sum, ring) => sum + ring.length / 2, 0)
    const ends = (this.ends = new Float64Array(count * 4))
    this.index = count > 0 ? new Flatbush(count) : null
    let k = 0
    for (const ring of rings)
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
        const ax = (ends[k++] = ring[j]!)
        const ay = (ends[k++] = ring[j + 1]!)
        const bx = (ends[k++] = ring[i]!)
        const by = (ends[k++] = ring[i + 1]!)
        this.index!.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by))
      }
    this.index?.finish()
  }

  /** Whether a straight line between two places crosses no outline, but for a hair at its ends. */
  letsThrough(from: Place, to: Place): boolean {
    const mm = Math.hypot(to.x - from.x, to.y - from.y)
    if (!this.index || mm < HAIR_MM * 3) return true
    const { ends } = this
    const hairX = ((to.x - from.x) / mm) * HAIR_MM
    const hairY = ((to.y - from.y) / mm) * HAIR_MM
    const px = from.x + hairX
    const py = from.y + hairY
    const qx = to.x - hairX
    const qy = to.y - hairY
    const near = this.index.search(Math.min(px, qx), Math.min(py, qy), Math.max(px, qx), Math.max(py, qy))
    for (const id of near) {
      const ax = ends[id * 4]!
      const ay = ends[id * 4 + 1]!
      const bx = ends[id * 4 + 2]!
      const by = ends[id * 4 + 3]!
      const d1 = (qx - px) * (ay - py) - (qy - py) * (ax - px)
      const d2 = (qx - px) * (by - py) - (qy - py) * (bx - px)
      if (d1 * d2 >= 0) continue
      const d3 = (bx - ax) * (py - ay) - (by - ay) * (px - ax)
      const d4 = (bx - ax) * (qy - ay) - (by - ay) * (qx - ax)
      if (d3 * d4 < 0) return false
    }
    return true
  }

  /** Whether a place lies in the region: by how many of its edges lie across the line from there to the right. */
  contains({ x, y }: Place): boolean {
    const { ends } = this
    let isIn = false
    for (const id of this.index?.search(x, y, Infinity, y) ?? []) {
      const [ax, ay, bx, by] = [ends[id * 4]!, ends[id * 4 + 1]!, ends[id * 4 + 2]!, ends[id * 4 + 3]!]
      if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) isIn = !isIn
    }
    return isIn
  }

  /** Whether all of a straight line between two places lies in the region, where both may lie on an outline, or by a hair beside one. */
  joins(from: Place, to: Place): boolean {
    return this.letsThrough(from, to) && this.contains({ x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 })
  }

  /** True where all of some straight pads lie inside the region. */
  holdsAll(lies: readonly Lie[]): boolean {
    return lies.every((lie) => this.holds(lie))
  }

  /** True where a straight pad lies inside the region. */
  holds({ x, y, widthMm, heightMm, rotation }: Omit<Lie, 'bendMm'>): boolean {
    if (!this.index || !this.contains({ x, y })) return false
    const cos = Math.cos((rotation * Math.PI) / 180)
    const sin = Math.sin((rotation * Math.PI) / 180)
    const reach = (Math.abs(cos) + Math.abs(sin)) * (Math.max(widthMm, heightMm) / 2)
    const half = { w: widthMm / 2, h: heightMm / 2 }
    const hit = this.index.search(x - reach, y - reach, x + reach, y + reach)
    for (const id of hit) {
      const ax = this.ends[id * 4]!
      const ay = this.ends[id * 4 + 1]!
      const bx = this.ends[id * 4 + 2]!
      const by = this.ends[id * 4 + 3]!
      // The edge as the rectangle sees it.
      const from = { x: (ax - x) * cos + (ay - y) * sin, y: (ay - y) * cos - (ax - x) * sin }
      const to = { x: (bx - x) * cos + (by - y) * sin, y: (by - y) * cos - (bx - x) * sin }
      if (segmentMeetsBox(from, to, half)) return false
    }
    return true
  }
}

/** Liang–Barsky: whether a segment enters the open box [−w, w] × [−h, h]. */
function segmentMeetsBox(from: Place, to: Place, { w, h }: { w: number; h: number }): boolean {
  let t0 = 0
  let t1 = 1
  const dx = to.x - from.x
  const dy = to.y - from.y
  for (const [p, q] of [
    [-dx, from.x + w],
    [dx, w - from.x],
    [-dy, from.y + h],
    [dy, h - from.y],
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
