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
  /** Points along the outline, of which there are so many, and behind them some deep inside; the length of outline that each stands for (mm). */
  xs: Float64Array
  ys: Float64Array
  reach: Float64Array
  outline: number
  /** The convex hull, clockwise on screen, and its farthest corner towards each of `DIRECTIONS` ways round (of the first: to the right). */
  hull: Float64Array
  farthest: Uint16Array
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
/** Points deep inside, so that a piece right over one of its own kind counts: so many, down to this share of the deepest. */
const MOST_POLES = 4
const LEAST_POLE = 0.3
/** Length of outline that a point stands for, in parts of its distance from the edge. */
const POLE_REACH = 4
/** Ways round for which the farthest corner of a hull is kept. */
export const DIRECTIONS = 256
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
    outline: outline.xs.length,
    hull,
    farthest: farthestOf(hull),
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

/** The corner of a hull that lies farthest towards each of `DIRECTIONS` ways round. */
function farthestOf(hull: Float64Array): Uint16Array {
  return Uint16Array.from({ length: DIRECTIONS }, (_, k) => {
    const angle = (k / DIRECTIONS) * 2 * Math.PI
    const [ux, uy] = [Math.cos(angle), Math.sin(angle)]
    let best = 0
    for (let i = 0; i < hull.length; i += 2)
      if (ux * hull[i]! + uy * hull[i + 1]! > ux * hull[best]! + uy * hull[best + 1]!) best = i
    return best
  })
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
        const [ox, oy] = [x - ax - t * dx, y - ay - t * dy]
        const away = Math.sqrt(ox * ox + oy * oy)
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

/** Where a field lies: its middle on the sheet, and its turn. */
export interface Spot {
  x: number
  y: number
  cos: number
  sin: number
}
