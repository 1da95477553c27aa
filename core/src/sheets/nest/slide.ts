// How far a piece may go straight on until it is the gap away from another: by corners against edges, exactly.
import { boxesMeet, growBox, polygonRings, type Box, type Polygon } from '../../geometry'

/** A placed shape with its box. */
export interface Placed {
  shape: Polygon
  box: Box
}

const HAIR = 1e-9

/**
 * The way that a piece may go along (dx, dy), a unit vector along an axis, until it is `gap` away from one of the others, `most`
 * at most. What is nearer than the gap already holds it where it goes nearer still.
 */
export function wayTo(piece: Placed, others: readonly Placed[], dx: number, dy: number, gap: number, most: number): number {
  const swept = growBox(piece.box, gap)
  if (dx < 0) swept.minX -= most
  if (dx > 0) swept.maxX += most
  if (dy < 0) swept.minY -= most
  if (dy > 0) swept.maxY += most
  let way = most
  // The nearest boxes first: behind the first thing that stops it nothing need be measured.
  const inWay = others
    .filter((other) => boxesMeet(swept, other.box))
    .map((other) => ({ other, least: leastWay(piece.box, other.box, dx, dy) - gap }))
    .sort((a, b) => a.least - b.least)
  for (const { other, least } of inWay) {
    if (least >= way) break
    way = Math.min(way, cornersTo(piece, other, dx, dy, gap, way), cornersTo(other, piece, -dx, -dy, gap, way))
    if (way <= 0) return 0
  }
  return way
}

/** The way between two boxes along a direction; negative where they stand beside each other. */
const leastWay = (a: Box, b: Box, dx: number, dy: number): number =>
  dx < 0 ? a.minX - b.maxX : dx > 0 ? b.minX - a.maxX : dy < 0 ? a.minY - b.maxY : b.minY - a.maxY

/** The same for the corners of one piece against the edges of another. */
function cornersTo(a: Placed, b: Placed, dx: number, dy: number, gap: number, most: number): number {
  const upright = dx === 0
  const sign = upright ? dy : dx
  const lanes = edgesByLane(b, a, upright, gap)
  let way = most
  for (const ring of polygonRings(a.shape))
    for (let i = 0; i < ring.length; i += 2) {
      const x = ring[i]!
      const y = ring[i + 1]!
      const across = upright ? x : y
      const along = upright ? y : x
      for (const k of lanes.at(across)) {
        const { x1, y1, x2, y2 } = k
        const [p, q] = upright ? [y1, y2] : [x1, x2]
        // Behind what stops it already, or behind its back.
        const first = (sign < 0 ? along - Math.max(p, q) : Math.min(p, q) - along) - gap
        const last = (sign < 0 ? along - Math.min(p, q) : Math.max(p, q) - along) + gap
        if (first >= way || last < 0) continue
        const hit = rayToEdge(x, y, dx, dy, x1, y1, x2, y2, gap)
        if (hit < way) way = hit
      }
    }
  return way
}

interface Edge {
  x1: number
  y1: number
  x2: number
  y2: number
}

const NO_EDGES: readonly Edge[] = []
const LANE_MM = 1.5

/** Edges of `b` that may come in the way of `a`, by lanes along the way: those of a point's lane are all that it may meet. */
function edgesByLane(b: Placed, a: Placed, upright: boolean, gap: number): { at: (across: number) => readonly Edge[] } {
  const low = Math.max(upright ? a.box.minX : a.box.minY, (upright ? b.box.minX : b.box.minY) - gap)
  const high = Math.min(upright ? a.box.maxX : a.box.maxY, (upright ? b.box.maxX : b.box.maxY) + gap)
  const lanes: Edge[][] = Array.from({ length: Math.max(1, Math.ceil((high - low) / LANE_MM) + 1) }, () => [])
  const laneOf = (across: number) => Math.floor((across - low) / LANE_MM)
  for (const ring of polygonRings(b.shape))
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const edge = { x1: ring[j]!, y1: ring[j + 1]!, x2: ring[i]!, y2: ring[i + 1]! }
      const [p, q] = upright ? [edge.x1, edge.x2] : [edge.y1, edge.y2]
      const from = Math.max(0, laneOf(Math.min(p, q) - gap))
      const to = Math.min(lanes.length - 1, laneOf(Math.max(p, q) + gap))
      for (let k = from; k <= to; k++) lanes[k]!.push(edge)
    }
  return { at: (across) => (across < low || across > high ? NO_EDGES : lanes[laneOf(across)]!) }
}

/** Where a point that goes along (dx, dy) first comes within `gap` of an edge; Infinity where it never does, or goes away from it. */
function rayToEdge(x: number, y: number, dx: number, dy: number, x1: number, y1: number, x2: number, y2: number, gap: number): number {
  let way = Math.min(rayToCircle(x - x1, y - y1, dx, dy, gap), rayToCircle(x - x2, y - y2, dx, dy, gap))
  const [ex, ey] = [x2 - x1, y2 - y1]
  const length = Math.hypot(ex, ey)
  if (length < HAIR) return way
  const [nx, ny] = [-ey / length, ex / length]
  const towards = dx * nx + dy * ny
  if (Math.abs(towards) < HAIR) return way
  // The side of the edge that is met first.
  const side = towards > 0 ? -1 : 1
  const hit = (side * gap - ((x - x1) * nx + (y - y1) * ny)) / towards
  const along = ((x + dx * hit - x1) * ex + (y + dy * hit - y1) * ey) / length
  if (along < 0 || along > length) return way
  // What lies behind, by more than the gap, is not met.
  if (hit >= -HAIR) way = Math.min(way, hit)
  else if (hit > -gap / Math.abs(towards) - HAIR) way = 0
  return way
}

function rayToCircle(x: number, y: number, dx: number, dy: number, r: number): number {
  const b = x * dx + y * dy
  const c = x * x + y * y - r * r
  // Within the circle: held where it goes nearer to the middle.
  if (c < 0) return b < 0 ? 0 : Infinity
  if (b >= 0) return Infinity
  const root = b * b - c
  return root < 0 ? Infinity : Math.max(0, -b - Math.sqrt(root))
}
