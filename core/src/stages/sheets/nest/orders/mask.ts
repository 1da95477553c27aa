// A piece on a grid of square cells, as runs of cells per row. Every cell that the shape touches belongs to the mask, so
// masks that do not share a cell are shapes that do not overlap: legality needs no further proof, at the price of about
// one cell of card along each edge.
import type { Polygon } from '../../../../base/geometry'

/** The cells that a turned piece takes. */
export interface Mask {
  /** Rows of cells. */
  rows: number
  /** Runs of row r are runs[start[r] … start[r + 1]) as pairs first, last. */
  start: Int32Array
  runs: Int16Array
  /** Rows in an order that meets obstacles early: coarse strides first. */
  order: Int16Array
}

/** Rasterises rings whose box starts at 0,0; `cell` in mm. Every cell touched by the fill or its edges is in. */
export function makeMask(
  shape: Polygon,
  cell: number,
  { widthMm, heightMm }: { widthMm: number; heightMm: number },
): Mask {
  const cols = Math.max(1, Math.ceil(widthMm / cell + 1e-9))
  const rows = Math.max(1, Math.ceil(heightMm / cell + 1e-9))
  const bits = new Uint8Array(cols * rows)
  const crossings: number[][] = Array.from({ length: rows }, () => [])
  const cells: Cells = { bits, crossings, cols, rows }
  for (const ring of [shape.outer, ...shape.holes]) {
    const n = ring.length
    for (let i = 0, j = n - 2; i < n; j = i, i += 2)
      markEdge(cells, {
        x1: ring[j]! / cell,
        y1: ring[j + 1]! / cell,
        x2: ring[i]! / cell,
        y2: ring[i + 1]! / cell,
      })
  }
  // Inside: even-odd along the middle of each row of cells.
  for (let r = 0; r < rows; r++) {
    const xs = crossings[r]!.sort((a, b) => a - b)
    for (let k = 0; k + 1 < xs.length; k += 2) {
      const from = Math.max(0, Math.floor(xs[k]!))
      const to = Math.min(cols - 1, Math.floor(xs[k + 1]!))
      bits.fill(1, r * cols + from, r * cols + to + 1)
    }
  }
  const start = new Int32Array(rows + 1)
  const runs: number[] = []
  for (let r = 0; r < rows; r++) {
    start[r] = runs.length
    for (let x = 0; x < cols; x++) {
      if (!bits[r * cols + x]) continue
      const first = x
      while (x + 1 < cols && bits[r * cols + x + 1]) x++
      runs.push(first, x)
    }
  }
  start[rows] = runs.length
  return { rows, start, runs: Int16Array.from(runs), order: strideOrder(rows) }
}

/** Cells that are marked row by row, and where outlines cross the middle of each row. */
interface Cells {
  bits: Uint8Array
  crossings: number[][]
  cols: number
  rows: number
}

interface Edge {
  x1: number
  y1: number
  x2: number
  y2: number
}

/** Marks the cells an edge passes (in cell units), and where it crosses the middle of rows. */
function markEdge({ bits, crossings, cols, rows }: Cells, edge: Edge): void {
  const isDown = edge.y1 <= edge.y2
  const [x0, y0] = isDown ? [edge.x1, edge.y1] : [edge.x2, edge.y2]
  const [x1, y1] = isDown ? [edge.x2, edge.y2] : [edge.x1, edge.y1]
  const first = Math.max(0, Math.floor(y0 - 1e-9))
  const last = Math.min(rows - 1, Math.floor(y1 + 1e-9))
  const slope = y1 > y0 ? (x1 - x0) / (y1 - y0) : 0
  for (let r = first; r <= last; r++) {
    let xa: number
    let xb: number
    if (y1 - y0 < 1e-12) {
      xa = Math.min(x0, x1)
      xb = Math.max(x0, x1)
    } else {
      const ya = Math.max(y0, r)
      const yb = Math.min(y1, r + 1)
      const a = x0 + (ya - y0) * slope
      const b = x0 + (yb - y0) * slope
      xa = Math.min(a, b)
      xb = Math.max(a, b)
      const middle = r + 0.5
      if (middle >= y0 && middle < y1) crossings[r]!.push(x0 + (middle - y0) * slope)
    }
    const from = Math.max(0, Math.floor(xa - 1e-9))
    const to = Math.min(cols - 1, Math.floor(xb + 1e-9))
    bits.fill(1, r * cols + from, r * cols + to + 1)
  }
}

function strideOrder(rows: number): Int16Array {
  const order: number[] = []
  const seen = new Uint8Array(rows)
  for (let stride = 64; stride >= 1; stride >>= 1)
    for (let r = 0; r < rows; r += stride)
      if (!seen[r]) {
        seen[r] = 1
        order.push(r)
      }
  if (rows > 0 && order[1] !== rows - 1) order.splice(1, 0, ...order.splice(order.indexOf(rows - 1), 1))
  return Int16Array.from(order)
}
