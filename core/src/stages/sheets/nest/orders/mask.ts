// A piece on a grid of square cells, as runs of cells per row. Every cell that the shape touches, grown by half the gap, belongs to the
// mask, so masks that do not share a cell are shapes that do not come too near: legality needs no further proof, at the price of about
// one cell of card along each edge. Grown outlines are never made: what lies within a distance of a corner is a disc, of an edge a
// rectangle, and their cells row by row are soon told.
import { identity, type Affine, type Polygon } from '../../../../base/geometry'

/** The cells that a turned piece takes. */
export interface Mask {
  /** Rows of cells. */
  rows: number
  /** Runs of row r are runs[start[r] … start[r + 1]) as pairs first, last. */
  start: Int32Array
  runs: Int16Array
  /** Rows in an order that meets obstacles early: the row of the longest run, then coarse strides. */
  order: Int16Array
  /** Cells of the longest run. */
  longest: number
  /** Cells in all. */
  cells: number
}

/** How a shape is drawn on cells. */
export interface Drawing {
  /** Length of a cell, mm. */
  cell: number
  /** Where the shape goes first, mm; grown, its box must begin at 0,0 there. As it is where not given. */
  map?: Affine
  /** What lies so near to the shape counts as well, mm. */
  grow?: number
  /** Size of the box, mm. */
  widthMm: number
  heightMm: number
}

/** Discs along an edge may stand for what lies beside it where they need be larger for it by so much of a cell at most. */
const DISC_MORE = 1 / 40
/** As long as so many of them do, that is quicker than its rectangle. */
const MOST_DISCS = 3
const HAIR = 1e-9
/** A step's lower 20 bits count marks, the others crossings. */
const CROSSING = 1 << 20
const MARK_SHIFT = 12

/** Every cell that comes within `grow` of a shape's card. */
export function makeMask(
  shape: Polygon,
  { cell, map = identity, grow = 0, widthMm, heightMm }: Drawing,
): Mask {
  const cols = Math.max(1, Math.ceil(widthMm / cell + HAIR))
  const rows = Math.max(1, Math.ceil(heightMm / cell + HAIR))
  const raster = new Raster(cols, rows, grow / cell)
  for (const ring of [shape.outer, ...shape.holes]) raster.draw(inCells(ring, map, cell))
  return raster.mask()
}

/** Length of the edge from a corner on. */
function lengthFrom(ring: Float64Array, i: number): number {
  const k = (i + 2) % ring.length
  const [dx, dy] = [ring[k]! - ring[i]!, ring[k + 1]! - ring[i + 1]!]
  return Math.sqrt(dx * dx + dy * dy)
}

function inCells(ring: Float64Array, [a, b, c, d, e, f]: Affine, cell: number): Float64Array {
  const out = new Float64Array(ring.length)
  for (let i = 0; i < ring.length; i += 2) {
    out[i] = (a * ring[i]! + c * ring[i + 1]! + e) / cell
    out[i + 1] = (b * ring[i]! + d * ring[i + 1]! + f) / cell
  }
  return out
}

/** Cells being marked. All lengths are in cells. */
class Raster {
  /**
   * A row after the other: where runs of marked cells begin (+1 each) and have ended (−1 each), and where outlines cross the middle of the
   * row, so that inside and outside change (`CROSSING` each). Most are 0, where nothing changes.
   */
  private readonly steps: Int32Array
  private readonly width: number
  private readonly square: number
  /** The most way from one disc to the next. */
  private readonly pitch: number
  /** Corners of the rectangle round an edge. */
  private readonly quad = new Float64Array(8)

  constructor(
    private readonly cols: number,
    private readonly rows: number,
    private readonly radius: number,
  ) {
    this.width = cols + 1
    this.steps = new Int32Array(this.width * rows)
    this.square = radius * radius
    this.pitch = 2 * Math.sqrt(DISC_MORE * (2 * radius + DISC_MORE))
  }

  /** Marks what lies within the radius of an outline, and notes where it crosses the rows. */
  draw(ring: Float64Array): void {
    const n = ring.length
    let before = this.wayAlong(lengthFrom(ring, n - 2))
    for (let i = 0; i < n; i += 2) {
      const edge = { x1: ring[i]!, y1: ring[i + 1]!, x2: ring[(i + 2) % n]!, y2: ring[(i + 3) % n]! }
      const length = lengthFrom(ring, i)
      const way = this.wayAlong(length)
      this.markDisc(edge.x1, edge.y1, Math.max(before, way))
      if (way === 0) this.markEdge(edge, length)
      else for (let k = way; k < length - HAIR; k += way) this.markAlong(edge, k / length, way)
      this.crossRows(edge)
      before = way
    }
  }

  /** The way between discs that stand for an edge; 0 where its rectangle is marked. */
  private wayAlong(length: number): number {
    if (length <= this.pitch) return length
    return length > MOST_DISCS * this.pitch ? 0 : length / Math.ceil(length / this.pitch)
  }

  private markAlong({ x1, y1, x2, y2 }: Edge, share: number, way: number): void {
    this.markDisc(x1 + (x2 - x1) * share, y1 + (y2 - y1) * share, way)
  }

  private mark(row: number, x0: number, x1: number): void {
    const from = Math.max(0, Math.floor(x0 - HAIR))
    const to = Math.min(this.cols - 1, Math.floor(x1 + HAIR))
    if (from > to) return
    const base = row * this.width
    this.steps[base + from]!++
    this.steps[base + to + 1]!--
  }

  /** A disc, so large that it and the next on its way cover all that is near to what lies between. */
  private markDisc(x: number, y: number, way: number): void {
    const { steps, width, cols } = this
    const square = this.square + (way * way) / 4
    const radius = Math.sqrt(square)
    const last = Math.min(this.rows - 1, Math.floor(y + radius + HAIR))
    const from = x - HAIR
    const to = x + HAIR
    for (let r = Math.max(0, Math.floor(y - radius - HAIR)); r <= last; r++) {
      const dy = Math.max(0, r - y, y - r - 1)
      const half = Math.sqrt(Math.max(0, square - dy * dy))
      const a = Math.max(0, Math.floor(from - half))
      const b = Math.min(cols, Math.floor(to + half) + 1)
      if (a >= b) continue
      steps[r * width + a]!++
      steps[r * width + b]!--
    }
  }

  /** What lies beside an edge, within the radius. */
  private markEdge({ x1, y1, x2, y2 }: Edge, length: number): void {
    const { quad, radius } = this
    const nx = (-(y2 - y1) / length) * radius
    const ny = ((x2 - x1) / length) * radius
    quad.set([x1 + nx, y1 + ny, x2 + nx, y2 + ny, x2 - nx, y2 - ny, x1 - nx, y1 - ny])
    const low = Math.min(y1, y2) - Math.abs(ny)
    const high = Math.max(y1, y2) + Math.abs(ny)
    const last = Math.min(this.rows - 1, Math.floor(high + HAIR))
    for (let r = Math.max(0, Math.floor(low - HAIR)); r <= last; r++) {
      let left = Infinity
      let right = -Infinity
      for (let k = 0; k < 8; k += 2) {
        const [ax, ay, bx, by] = [quad[k]!, quad[k + 1]!, quad[(k + 2) & 7]!, quad[(k + 3) & 7]!]
        if (Math.max(ay, by) < r - HAIR || Math.min(ay, by) > r + 1 + HAIR) continue
        const slope = Math.abs(by - ay) < 1e-12 ? 0 : (bx - ax) / (by - ay)
        // The side's ends, or where it passes the row's edges.
        const xa = ay < r ? ax + (r - ay) * slope : ay > r + 1 ? ax + (r + 1 - ay) * slope : ax
        const xb = by < r ? ax + (r - ay) * slope : by > r + 1 ? ax + (r + 1 - ay) * slope : bx
        left = Math.min(left, xa, xb)
        right = Math.max(right, xa, xb)
      }
      if (left <= right) this.mark(r, left, right)
    }
  }

  private crossRows({ x1, y1, x2, y2 }: Edge): void {
    const last = Math.min(this.rows, Math.ceil(Math.max(y1, y2) - 0.5))
    for (let r = Math.max(0, Math.ceil(Math.min(y1, y2) - 0.5)); r < last; r++) {
      const x = Math.floor(x1 + ((r + 0.5 - y1) * (x2 - x1)) / (y2 - y1))
      this.steps[r * this.width + Math.max(0, Math.min(this.cols, x))]! += CROSSING
    }
  }

  mask(): Mask {
    const { cols, rows, width, steps } = this
    const start = new Int32Array(rows + 1)
    const runs: number[] = []
    let [cells, longest, widestRow] = [0, 0, 0]
    for (let r = 0; r < rows; r++) {
      start[r] = runs.length
      let [marks, crossed, first] = [0, 0, -1]
      for (let x = 0; x <= cols; x++) {
        const step = steps[r * width + x]!
        if (step === 0 && x < cols) continue
        const mark = (step << MARK_SHIFT) >> MARK_SHIFT
        marks += mark
        crossed += (step - mark) / CROSSING
        const taken = x < cols && (marks > 0 || (crossed & 1) === 1)
        if (taken && first < 0) first = x
        if (taken || first < 0) continue
        runs.push(first, x - 1)
        cells += x - first
        if (x - first > longest) [longest, widestRow] = [x - first, r]
        first = -1
      }
    }
    start[rows] = runs.length
    return { rows, start, runs: Int16Array.from(runs), order: rowOrder(rows, widestRow), longest, cells }
  }
}

interface Edge {
  x1: number
  y1: number
  x2: number
  y2: number
}

function rowOrder(rows: number, widest: number): Int16Array {
  const order = [widest]
  const seen = new Uint8Array(rows)
  const take = (r: number) => {
    if (seen[r]) return
    seen[r] = 1
    order.push(r)
  }
  seen[widest] = 1
  take(rows - 1)
  for (let stride = 64; stride >= 1; stride >>= 1) for (let r = 0; r < rows; r += stride) take(r)
  return Int16Array.from(order)
}
