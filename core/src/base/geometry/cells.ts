// A region on square cells: what of it can be told without cutting outlines.
import { regionRings } from './region'
import type { Box, Region, Ring } from './types'

/** Cells in rows over a box; lengths in mm. */
export interface CellFrame {
  minX: number
  minY: number
  /** From cell to cell. */
  pitch: number
  cols: number
  rows: number
}

/** By cell, row by row. */
export interface Cells {
  /** Its middle lies in the region. */
  inside: Uint8Array
  /** All of it does: no outline passes through. */
  whole: Uint8Array
}

/** Square cells over a box, so many in number along its longer side. */
export function frameOver({ minX, minY, maxX, maxY }: Box, along: number): CellFrame {
  const pitch = Math.max(1e-6, Math.max(maxX - minX, maxY - minY) / along)
  const count = (mm: number) => Math.max(1, Math.ceil(mm / pitch - 1e-9))
  return { minX, minY, pitch, cols: count(maxX - minX), rows: count(maxY - minY) }
}

/** A region on cells; what lies beside the frame is left out. Middles by scan lines, so in time that grows with outlines and cells alike. */
export function cellsOf(region: Region, frame: CellFrame): Cells {
  const rings = regionRings(region)
  const inside = middlesIn(rings, frame)
  const whole = inside.slice()
  for (const ring of rings) clearTouched(ring, frame, whole)
  return { inside, whole }
}

/** What two regions have in common at the least, mm²: the cells of one frame that lie wholly in both. */
export function surelyCommonMm2(a: Cells, b: Cells, { pitch }: CellFrame): number {
  let count = 0
  for (let k = 0; k < a.whole.length; k++) count += a.whole[k]! & b.whole[k]!
  return count * pitch * pitch
}

function middlesIn(rings: readonly Ring[], { minX, minY, pitch, cols, rows }: CellFrame): Uint8Array {
  const inside = new Uint8Array(cols * rows)
  const crossings: number[][] = Array.from({ length: rows }, () => [])
  for (const ring of rings)
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!]
      const [low, high] = ay < by ? [ay, by] : [by, ay]
      for (let r = Math.max(0, Math.ceil((low - minY) / pitch - 0.5)); r < rows; r++) {
        const y = minY + (r + 0.5) * pitch
        if (y >= high) break
        if (y >= low) crossings[r]!.push(ax + ((y - ay) / (by - ay)) * (bx - ax))
      }
    }
  crossings.forEach((at, r) => {
    at.sort((a, b) => a - b)
    for (let n = 0; n + 1 < at.length; n += 2) {
      const from = Math.max(0, Math.ceil((at[n]! - minX) / pitch - 0.5))
      const to = Math.min(cols - 1, Math.floor((at[n + 1]! - minX) / pitch - 0.5))
      inside.fill(1, r * cols + from, Math.max(r * cols + from, r * cols + to + 1))
    }
  })
  return inside
}

/** Clears all cells that an edge of the ring passes through, row by row. */
function clearTouched(ring: Ring, { minX, minY, pitch, cols, rows }: CellFrame, whole: Uint8Array): void {
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const ax = (ring[j]! - minX) / pitch
    const ay = (ring[j + 1]! - minY) / pitch
    const bx = (ring[i]! - minX) / pitch
    const by = (ring[i + 1]! - minY) / pitch
    const first = Math.max(0, Math.floor(Math.min(ay, by)))
    const last = Math.min(rows - 1, Math.floor(Math.max(ay, by)))
    const perRow = ay === by ? 0 : (bx - ax) / (by - ay)
    for (let r = first; r <= last; r++) {
      // The part of the edge within this row.
      let from = ax
      let to = bx
      if (perRow !== 0) {
        const top = ax + (r - ay) * perRow
        const bottom = top + perRow
        const [low, high] = top < bottom ? [top, bottom] : [bottom, top]
        from = Math.max(Math.min(ax, bx), low)
        to = Math.min(Math.max(ax, bx), high)
      } else if (from > to) [from, to] = [to, from]
      const c0 = Math.max(0, Math.floor(from))
      const c1 = Math.min(cols - 1, Math.floor(to))
      for (let c = c0; c <= c1; c++) whole[r * cols + c] = 0
    }
  }
}
