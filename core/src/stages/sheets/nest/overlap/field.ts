// A piece as a field of distances: how far any point lies from its card (negative inside). With points along its outline
// it tells at any place and turn, without trigonometry or polygon cutting, how deep two pieces run into each other.
import {
  convexHull,
  perimeter,
  polygonBox,
  polygonRings,
  simplify,
  type Polygon,
} from '../../../../base/geometry'

/** Signed distances round a piece on a grid (distance transform by two sweeps: Rosenfeld and Pfaltz 1966), mm, with discs that fill it. */
export interface Field {
  /** Middle of the piece's box in its own frame; everything else is about this point. */
  midX: number
  midY: number
  /** Points along the outline, and behind them some deep inside; the length of outline that each stands for (mm). */
  xs: Float64Array
  ys: Float64Array
  reach: Float64Array
  /** The points in runs that follow each other: run k is points runs[k] to runs[k + 1], within a circle. */
  runs: Int32Array
  runX: Float64Array
  runY: Float64Array
  runRadius: Float64Array
  hull: Float64Array
  /** Farthest that any point lies from the middle. */
  radius: number
  /** Distances at the nodes of a grid: node (c, r) lies at x0 + c / inv, y0 + r / inv. */
  cols: number
  rows: number
  x0: number
  y0: number
  inv: number
  distance: Float32Array
}

/** Most nodes along the longer side of a field, and the finest grid (mm). */
const NODES = 80
const FINEST_MM = 0.5
/** Points along an outline are this close (mm), unless that makes too many; between them it may bulge by so much. */
const SPACING_MM = 5
const BULGE_MM = 0.1
const MOST_POINTS = 400
const RUN = 9
/** Points deep inside, so that a piece right over one of its own kind counts: so many, down to this share of the deepest. */
const MOST_POLES = 4
const LEAST_POLE = 0.3
/** Length of outline that a point stands for, in parts of its distance from the edge. */
const POLE_REACH = 4
/** How many nodes beside an edge are measured exactly; the rest are filled in from them. */
const BAND = 2.5

/** The field of a shape, reaching `aroundMm` beyond it; `nodes` along its longer side. */
export function makeField(shape: Polygon, aroundMm: number, nodes = NODES): Field {
  const b = polygonBox(shape)
  const [midX, midY] = [(b.minX + b.maxX) / 2, (b.minY + b.maxY) / 2]
  const rings = polygonRings(shape).map((ring) => ring.map((v, i) => v - (i % 2 === 0 ? midX : midY)))
  const [halfW, halfH] = [(b.maxX - b.minX) / 2, (b.maxY - b.minY) / 2]
  const cell = Math.max(FINEST_MM, (2 * Math.max(halfW, halfH)) / nodes)
  const around = aroundMm + 2 * cell
  const cols = Math.ceil((2 * (halfW + around)) / cell) + 1
  const rows = Math.ceil((2 * (halfH + around)) / cell) + 1
  const [x0, y0] = [-halfW - around, -halfH - around]
  const distance = new Float32Array(cols * rows).fill(1e9)
  const grid: Grid = { distance, cols, rows, x0, y0, cell }
  for (const ring of rings) measureBand(ring, grid)
  spread(grid)
  signInside(rings, grid)
  const outline = outlinePoints(
    plainRings(shape).map((ring) => ring.map((v, i) => v - (i % 2 === 0 ? midX : midY))),
  )
  const deep = poles(grid)
  const points = {
    xs: Float64Array.of(...outline.xs, ...deep.map(({ x }) => x)),
    ys: Float64Array.of(...outline.ys, ...deep.map(({ y }) => y)),
    reach: Float64Array.of(...outline.reach, ...deep.map(({ r }) => POLE_REACH * r)),
  }
  const hull = convexHull(rings[0]!)
  let radius = 0
  for (let i = 0; i < hull.length; i += 2) radius = Math.max(radius, Math.hypot(hull[i]!, hull[i + 1]!))
  return {
    midX,
    midY,
    ...points,
    ...runsOf(outline),
    hull,
    radius,
    cols,
    rows,
    x0,
    y0,
    inv: 1 / cell,
    distance,
  }
}

/** Distances at the nodes of a grid: node (c, r) lies at x0 + c · cell, y0 + r · cell. */
interface Grid extends Pick<Field, 'distance' | 'cols' | 'rows' | 'x0' | 'y0'> {
  cell: number
}

/** Exact distances at the nodes near each edge. */
function measureBand(ring: Float64Array, { distance, cols, rows, x0, y0, cell }: Grid): void {
  const band = BAND * cell
  const n = ring.length
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
    const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!]
    const [dx, dy] = [bx - ax, by - ay]
    const square = dx * dx + dy * dy || 1
    const r0 = Math.max(0, Math.ceil((Math.min(ay, by) - band - y0) / cell))
    const r1 = Math.min(rows - 1, Math.floor((Math.max(ay, by) + band - y0) / cell))
    for (let r = r0; r <= r1; r++) {
      const y = y0 + r * cell
      // Of this row only the nodes beside the part of the edge that is near.
      let [xa, xb] = [Math.min(ax, bx), Math.max(ax, bx)]
      if (Math.abs(dy) > 1e-9) {
        const t0 = Math.max(0, Math.min(1, (y - band - ay) / dy))
        const t1 = Math.max(0, Math.min(1, (y + band - ay) / dy))
        xa = ax + dx * t0
        xb = ax + dx * t1
        if (xa > xb) [xa, xb] = [xb, xa]
      }
      const c0 = Math.max(0, Math.ceil((xa - band - x0) / cell))
      const c1 = Math.min(cols - 1, Math.floor((xb + band - x0) / cell))
      for (let c = c0; c <= c1; c++) {
        const x = x0 + c * cell
        const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / square))
        const away = Math.hypot(x - ax - t * dx, y - ay - t * dy)
        const k = r * cols + c
        if (away < distance[k]!) distance[k] = away
      }
    }
  }
}

/**
 * Fills in the nodes far from any edge, forth and back over the grid, by straight and slanted steps. The steps are taken a
 * little short, so that no distance comes out too long.
 */
function spread({ distance: d, cols, rows, cell: cellMm }: Grid): void {
  const cell = cellMm * 0.92
  const slant = cell * Math.SQRT2
  const at = (c: number, r: number) => (c < 0 || r < 0 || c >= cols || r >= rows ? 1e9 : d[r * cols + c]!)
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < cols; c++)
      d[r * cols + c] = Math.min(
        d[r * cols + c]!,
        at(c - 1, r) + cell,
        at(c, r - 1) + cell,
        at(c - 1, r - 1) + slant,
        at(c + 1, r - 1) + slant,
      )
  for (let r = rows - 1; r >= 0; r--)
    for (let c = cols - 1; c >= 0; c--)
      d[r * cols + c] = Math.min(
        d[r * cols + c]!,
        at(c + 1, r) + cell,
        at(c, r + 1) + cell,
        at(c + 1, r + 1) + slant,
        at(c - 1, r + 1) + slant,
      )
}

/** Makes the distances inside the shape negative (even-odd along each row). */
function signInside(rings: readonly Float64Array[], { distance: d, cols, rows, x0, y0, cell }: Grid): void {
  const crossings: number[][] = Array.from({ length: rows }, () => [])
  for (const ring of rings)
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ay, by] = [ring[j + 1]!, ring[i + 1]!]
      const first = Math.max(0, Math.ceil((Math.min(ay, by) - y0) / cell))
      const last = Math.min(rows - 1, Math.floor((Math.max(ay, by) - y0) / cell))
      for (let r = first; r <= last; r++) {
        const y = y0 + r * cell
        if (ay > y !== by > y) crossings[r]!.push(ring[j]! + ((ring[i]! - ring[j]!) * (y - ay)) / (by - ay))
      }
    }
  crossings.forEach((xs, r) => {
    xs.sort((a, b) => a - b)
    for (let k = 0; k + 1 < xs.length; k += 2) {
      const from = Math.max(0, Math.ceil((xs[k]! - x0) / cell))
      const to = Math.min(cols - 1, Math.floor((xs[k + 1]! - x0) / cell))
      for (let c = from; c <= to; c++) d[r * cols + c] = -d[r * cols + c]!
    }
  })
}

/** The outline with no more corners than it needs. */
function plainRings(shape: Polygon): Float64Array[] {
  const plain = simplify([shape], BULGE_MM)
  return plain.length > 0 ? plain.flatMap(polygonRings) : polygonRings(shape)
}

/** The corners of an outline, and points between them where edges are long. */
function outlinePoints(rings: readonly Float64Array[]): Pick<Field, 'xs' | 'ys' | 'reach'> {
  const total = rings.reduce((sum, ring) => sum + perimeter(ring), 0)
  const spacing = Math.max(SPACING_MM, total / MOST_POINTS)
  const out: [number, number, number][] = []
  for (const ring of rings)
    for (let i = 0, n = ring.length; i < n; i += 2) {
      const [x, y] = [ring[i]!, ring[i + 1]!]
      const [dx, dy] = [ring[(i + 2) % n]! - x, ring[(i + 3) % n]! - y]
      const length = Math.hypot(dx, dy)
      const parts = Math.max(1, Math.ceil(length / spacing))
      for (let k = 0; k < parts; k++) out.push([x + (dx * k) / parts, y + (dy * k) / parts, length / parts])
    }
  return {
    xs: Float64Array.from(out, ([x]) => x),
    ys: Float64Array.from(out, ([, y]) => y),
    reach: Float64Array.from(out, ([, , reach]) => reach),
  }
}

interface Pole {
  x: number
  y: number
  /** Distance from the edge, mm. */
  r: number
}

/** Points of a shape that lie deepest, none within the circle round another that stays inside. */
function poles({ distance, cols, rows, x0, y0, cell }: Grid): Pole[] {
  const out: Pole[] = []
  while (out.length < MOST_POLES) {
    let deepest: Pole = { x: 0, y: 0, r: 0 }
    for (let r = 0; r < rows; r++)
      for (let c = 0; c < cols; c++) {
        const depth = -distance[r * cols + c]!
        if (depth <= deepest.r) continue
        const [x, y] = [x0 + c * cell, y0 + r * cell]
        if (out.every((pole) => Math.hypot(pole.x - x, pole.y - y) > pole.r)) deepest = { x, y, r: depth }
      }
    if (deepest.r < cell || deepest.r < LEAST_POLE * (out[0]?.r ?? 0)) break
    out.push(deepest)
  }
  return out
}

/** Points of the outline in runs of a few, each with a circle round it, so that whole runs that are clear can be passed over. */
function runsOf({
  xs,
  ys,
}: {
  xs: Float64Array
  ys: Float64Array
}): Pick<Field, 'runs' | 'runX' | 'runY' | 'runRadius'> {
  const count = Math.max(1, Math.round(xs.length / RUN))
  const runs = Int32Array.from({ length: count + 1 }, (_, k) => Math.round((k * xs.length) / count))
  const circles = Array.from({ length: count }, (_, k) => {
    const px = xs.subarray(runs[k]!, runs[k + 1]!)
    const py = ys.subarray(runs[k]!, runs[k + 1]!)
    const x = (Math.min(...px) + Math.max(...px)) / 2
    const y = (Math.min(...py) + Math.max(...py)) / 2
    return { x, y, r: Math.max(...px.map((v, i) => Math.hypot(v - x, py[i]! - y))) }
  })
  return {
    runs,
    runX: Float64Array.from(circles, (c) => c.x),
    runY: Float64Array.from(circles, (c) => c.y),
    runRadius: Float64Array.from(circles, (c) => c.r),
  }
}

/** Where a field lies: its middle on the sheet, and its turn. */
export interface Spot {
  x: number
  y: number
  cos: number
  sin: number
}

/**
 * How much the outline of `a` runs into card of `b`, or nearer to it than `gap`: depth times length of outline, mm².
 * Stops counting once it is over `limit`.
 */
function runsInto(a: Field, sa: Spot, b: Field, sb: Spot, gap: number, limit: number): number {
  // From the frame of a straight to grid steps of b.
  const { cols, rows, distance: d, inv } = b
  const cos = (sa.cos * sb.cos + sa.sin * sb.sin) * inv
  const sin = (sa.sin * sb.cos - sa.cos * sb.sin) * inv
  const [tx, ty] = [sa.x - sb.x, sa.y - sb.y]
  const ox = (tx * sb.cos + ty * sb.sin - b.x0) * inv
  const oy = (ty * sb.cos - tx * sb.sin - b.y0) * inv
  const { xs, ys, reach, runs, runX, runY, runRadius } = a
  const [maxX, maxY] = [cols - 1, rows - 1]
  const slackMm = 0.75 / inv
  const sure = gap + 1.5 / inv
  let sum = 0
  for (let k = 0; k < runX.length; k++) {
    const x = runX[k]!
    const y = runY[k]!
    const gx = cos * x - sin * y + ox
    const gy = sin * x + cos * y + oy
    const radius = runRadius[k]!
    const steps = radius * inv
    if (gx < -steps || gy < -steps || gx > maxX + steps || gy > maxY + steps) continue
    if (
      gx >= 0 &&
      gy >= 0 &&
      gx <= maxX &&
      gy <= maxY &&
      d[((gy + 0.5) | 0) * cols + ((gx + 0.5) | 0)]! > gap + radius + slackMm
    )
      continue
    const end = runs[k + 1]!
    for (let i = runs[k]!; i < end; i++) {
      const px = xs[i]!
      const py = ys[i]!
      const hx = cos * px - sin * py + ox
      const hy = sin * px + cos * py + oy
      if (hx < 0 || hy < 0 || hx >= maxX || hy >= maxY) continue
      const c = hx | 0
      const r = hy | 0
      const at = r * cols + c
      const fx = hx - c
      const corner = d[at]!
      if (corner > sure) continue
      const upper = corner + (d[at + 1]! - corner) * fx
      const below = d[at + cols]!
      const lower = below + (d[at + cols + 1]! - below) * fx
      const depth = gap - upper - (lower - upper) * (hy - r)
      if (depth > 0) sum += depth * reach[i]!
    }
    if (sum > limit) return sum
  }
  // Where the outline is clear, all of it is.
  if (sum > 0)
    for (let i = runs[runX.length]!; i < xs.length; i++) {
      const gx = cos * xs[i]! - sin * ys[i]! + ox
      const gy = sin * xs[i]! + cos * ys[i]! + oy
      if (gx < 0 || gy < 0 || gx >= maxX || gy >= maxY) continue
      const depth = gap - d[((gy + 0.5) | 0) * cols + ((gx + 0.5) | 0)]!
      if (depth > 0) sum += depth * reach[i]!
    }
  return sum
}

/** How much two pieces overlap or lie nearer than `gap`, as a length (the root of depth × outline, mm); 0 where they are clear. */
export function overlapOf(a: Field, sa: Spot, b: Field, sb: Spot, gap: number, limit = Infinity): number {
  const far = a.radius + b.radius + gap
  const [dx, dy] = [sa.x - sb.x, sa.y - sb.y]
  if (dx * dx + dy * dy >= far * far) return 0
  const most = limit * limit
  const one = runsInto(a, sa, b, sb, gap, most)
  return Math.sqrt(one > most ? one : one + runsInto(b, sb, a, sa, gap, most - one))
}
