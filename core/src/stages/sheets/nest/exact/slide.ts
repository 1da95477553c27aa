// How far a piece may go straight on until it is the gap away from another: by corners against edges, exactly.
import { boxesMeet, growBox, polygonRings, type Box, type Polygon } from '../../../../base/geometry'

/** A placed shape with its box. */
export interface Placed {
  shape: Polygon
  box: Box
}

const HAIR = 1e-9

/** Which way a piece goes, how far it must keep from others, and how far it may go at the most, mm. */
export interface Course {
  /** A unit vector along an axis. */
  dx: number
  dy: number
  gap: number
  most: number
}

/**
 * The way, mm, that a piece may go on a course until it is the gap away from one of the others. What is nearer than the gap already holds it
 * where it goes nearer still.
 */
export function wayTo(piece: Placed, others: readonly Placed[], course: Course): number {
  const { dx, dy, gap, most } = course
  const swept = growBox(piece.box, gap)
  if (dx < 0) swept.minX -= most
  if (dx > 0) swept.maxX += most
  if (dy < 0) swept.minY -= most
  if (dy > 0) swept.maxY += most
  let way = most
  // The nearest boxes first: behind the first thing that stops it nothing need be measured.
  const inWay = others
    .filter((other) => boxesMeet(swept, other.box))
    .map((other) => ({ other, least: leastWay(piece.box, other.box, { dx, dy }) - gap }))
    .sort((a, b) => a.least - b.least)
  for (const { other, least } of inWay) {
    if (least >= way) break
    way = Math.min(
      way,
      cornersTo(piece, other, { ...course, most: way }),
      cornersTo(other, piece, { dx: -dx, dy: -dy, gap, most: way }),
    )
    if (way <= 0) return 0
  }
  return way
}

/** The way between two boxes along a direction; negative where they stand beside each other. */
const leastWay = (a: Box, b: Box, { dx, dy }: { dx: number; dy: number }): number =>
  dx < 0 ? a.minX - b.maxX : dx > 0 ? b.minX - a.maxX : dy < 0 ? a.minY - b.maxY : b.minY - a.maxY

/** The same for the corners of one piece against the edges of another. */
function cornersTo(a: Placed, b: Placed, course: Course): number {
  const { dx, dy, gap, most } = course
  const upright = dx === 0
  const sign = upright ? dy : dx
  const { lanes, low, high } = edgesByLane({ b, a }, upright, gap)
  let way = most
  for (const ring of polygonRings(a.shape))
    for (let i = 0; i < ring.length; i += 2) {
      const corner = { x: ring[i]!, y: ring[i + 1]! }
      const across = upright ? corner.x : corner.y
      if (across < low || across > high) continue
      const along = (upright ? corner.y : corner.x) * sign
      const lane = lanes[Math.floor((across - low) / LANE_MM)]!
      // Behind what stops it already, or behind its back: most corners are, and then no edge need be looked at.
      if (lane.first * sign - along - gap >= way && lane.last * sign - along - gap >= way) continue
      if (lane.first * sign - along + gap < 0 && lane.last * sign - along + gap < 0) continue
      for (const edge of lane.edges) {
        const p = (upright ? edge.y1 : edge.x1) * sign - along
        const q = (upright ? edge.y2 : edge.x2) * sign - along
        if (Math.min(p, q) - gap >= way || Math.max(p, q) + gap < 0) continue
        const hit = rayToEdge(corner, edge, course)
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

interface Lane {
  /** The edges that come into the lane. */
  edges: Edge[]
  /** From where to where along the way they reach. */
  first: number
  last: number
}

const LANE_MM = 1.5

/** Edges of `b` that may come in the way of `a`, by lanes along the way: those of a point's lane are all that it may meet. */
function edgesByLane({ b, a }: { b: Placed; a: Placed }, upright: boolean, gap: number) {
  const low = Math.max(upright ? a.box.minX : a.box.minY, (upright ? b.box.minX : b.box.minY) - gap)
  const high = Math.min(upright ? a.box.maxX : a.box.maxY, (upright ? b.box.maxX : b.box.maxY) + gap)
  const lanes: Lane[] = Array.from({ length: Math.max(1, Math.ceil((high - low) / LANE_MM) + 1) }, () => ({
    edges: [],
    first: Infinity,
    last: -Infinity,
  }))
  for (const ring of polygonRings(b.shape))
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [p, q] = upright ? [ring[j]!, ring[i]!] : [ring[j + 1]!, ring[i + 1]!]
      const from = Math.max(0, Math.floor((Math.min(p, q) - gap - low) / LANE_MM))
      const to = Math.min(lanes.length - 1, Math.floor((Math.max(p, q) + gap - low) / LANE_MM))
      if (from > to) continue
      const edge = { x1: ring[j]!, y1: ring[j + 1]!, x2: ring[i]!, y2: ring[i + 1]! }
      const [u, v] = upright ? [edge.y1, edge.y2] : [edge.x1, edge.x2]
      for (let k = from; k <= to; k++) {
        const lane = lanes[k]!
        lane.edges.push(edge)
        lane.first = Math.min(lane.first, u, v)
        lane.last = Math.max(lane.last, u, v)
      }
    }
  return { lanes, low, high }
}

/** Where a point on its course first comes within the gap of an edge; Infinity where it never does, or goes away from it. */
function rayToEdge({ x, y }: { x: number; y: number }, { x1, y1, x2, y2 }: Edge, course: Course): number {
  const { dx, dy, gap } = course
  let way = Math.min(rayToCircle(x - x1, y - y1, course), rayToCircle(x - x2, y - y2, course))
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

/** Where a point on its course first comes within the gap of 0,0. */
function rayToCircle(x: number, y: number, { dx, dy, gap }: Course): number {
  const b = x * dx + y * dy
  const c = x * x + y * y - gap * gap
  // Within the circle: held where it goes nearer to the middle.
  if (c < 0) return b < 0 ? 0 : Infinity
  if (b >= 0) return Infinity
  const root = b * b - c
  return root < 0 ? Infinity : Math.max(0, -b - Math.sqrt(root))
}
