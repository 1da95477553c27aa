// Whether an outline is simple: it neither crosses nor touches itself. Then it is the very face that it bounds.
import { ringBox } from './box'
import type { Ring } from './types'

/** Cells of the grid, and cells that edges lie in at the most, for each edge. */
const CELLS = 4
const MOST_ENTRIES = 64

/**
 * Whether an outline neither crosses nor touches itself, as far as exact numbers tell; false also where edges are so long that telling would take too
 * long. Edges are compared with those that come into the same cells of a grid.
 */
export function isSimple(ring: Ring): boolean {
  const n = ring.length / 2
  const { minX, minY, maxX, maxY } = ringBox(ring)
  // As long as edges are in the middle, by their longer sides, but no more cells than that.
  let way = 0
  for (let i = 2; i < ring.length; i += 2)
    way += Math.max(Math.abs(ring[i]! - ring[i - 2]!), Math.abs(ring[i + 1]! - ring[i - 1]!))
  const cell = Math.max(way / n, Math.sqrt(((maxX - minX) * (maxY - minY)) / (CELLS * n)))
  if (!(cell > 0)) return false
  const cols = Math.floor((maxX - minX) / cell) + 1
  const rows = Math.floor((maxY - minY) / cell) + 1
  // Of each cell its last entry; of each entry its edge, and the one before it.
  const last = new Int32Array(cols * rows).fill(-1)
  const edges: number[] = []
  const before: number[] = []
  for (let i = 0; i < n; i++) {
    const k = (i + 1) % n
    const ax = ring[2 * i]!
    const ay = ring[2 * i + 1]!
    const bx = ring[2 * k]!
    const by = ring[2 * k + 1]!
    const toCol = Math.floor((Math.max(ax, bx) - minX) / cell)
    const toRow = Math.floor((Math.max(ay, by) - minY) / cell)
    for (let row = Math.floor((Math.min(ay, by) - minY) / cell); row <= toRow; row++)
      for (let col = Math.floor((Math.min(ax, bx) - minX) / cell); col <= toCol; col++) {
        const at = row * cols + col
        for (let entry = last[at]!; entry >= 0; entry = before[entry]!)
          if (meet(ring, edges[entry]!, i)) return false
        if (edges.length >= MOST_ENTRIES * n) return false
        before.push(last[at]!)
        last[at] = edges.push(i) - 1
      }
  }
  return true
}

/** Whether two edges of a ring cross or touch, beyond the corner that neighbours share. */
function meet(ring: Ring, i: number, k: number): boolean {
  const n = ring.length
  const a = 2 * i
  const b = (a + 2) % n
  const c = 2 * k
  const d = (c + 2) % n
  if (i === k) return false
  if (b === c) return foldsBack(ring, a, c)
  if (d === a) return foldsBack(ring, c, a)
  if (areApart(ring, a, c) || areApart(ring, a + 1, c + 1)) return false
  return side(ring, a, c) * side(ring, a, d) <= 0 && side(ring, c, a) * side(ring, c, b) <= 0
}

/** Whether two edges, by one coordinate of their first corners, have no stretch of it in common. */
function areApart(ring: Ring, i: number, k: number): boolean {
  const a = ring[i]!
  const b = ring[(i + 2) % ring.length]!
  const c = ring[k]!
  const d = ring[(k + 2) % ring.length]!
  return (a < c && a < d && b < c && b < d) || (a > c && a > d && b > c && b > d)
}

/** On which side of the edge from one corner on another corner lies: −1, 0 or 1. */
function side(ring: Ring, a: number, p: number): number {
  const b = (a + 2) % ring.length
  const x = ring[a]!
  const y = ring[a + 1]!
  return Math.sign((ring[b]! - x) * (ring[p + 1]! - y) - (ring[b + 1]! - y) * (ring[p]! - x))
}

/** Whether the edge from the second corner on runs back along the edge from the first, which ends there. */
function foldsBack(ring: Ring, a: number, b: number): boolean {
  const c = (b + 2) % ring.length
  const along =
    (ring[b]! - ring[a]!) * (ring[c]! - ring[b]!) +
    (ring[b + 1]! - ring[a + 1]!) * (ring[c + 1]! - ring[b + 1]!)
  return along <= 0 && side(ring, a, c) === 0
}
