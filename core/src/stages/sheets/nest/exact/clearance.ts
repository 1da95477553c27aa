// The exact distance between two placed pieces, by their edges: what the search's quick measures are proved by.
import {
  boxesMeet,
  growBox,
  polygonBox,
  polygonRings,
  ringContains,
  type Box,
  type Polygon,
} from '../../../../base/geometry'

/** How near two shapes come, mm, and the way that parts them. */
export interface Nearest {
  /** Least distance between the cards, mm; 0 where they cross or one lies in the other. */
  mm: number
  /** From b to a, a unit vector; the way to part them. Zero where they cross. */
  nx: number
  ny: number
}

/** Distance between two shapes as far as it is under `within`; else null. */
export function nearest(a: Polygon, b: Polygon, within: number): Nearest | null {
  const [boxA, boxB] = [polygonBox(a), polygonBox(b)]
  if (!boxesMeet(growBox(boxA, within), boxB)) return null
  const [edgesA, edgesB] = [edgesNear(a, growBox(boxB, within)), edgesNear(b, growBox(boxA, within))]
  if (holdsPoint(a, b.outer) || holdsPoint(b, a.outer)) return { mm: 0, nx: 0, ny: 0 }
  const best = new Least(within * within)
  for (const a of edgesA)
    for (const b of edgesB) {
      const reach = Math.sqrt(best.square)
      if (
        Math.min(a.x1, a.x2) - reach > Math.max(b.x1, b.x2) ||
        Math.min(b.x1, b.x2) - reach > Math.max(a.x1, a.x2) ||
        Math.min(a.y1, a.y2) - reach > Math.max(b.y1, b.y2) ||
        Math.min(b.y1, b.y2) - reach > Math.max(a.y1, a.y2)
      )
        continue
      if (cross(a, b)) return { mm: 0, nx: 0, ny: 0 }
      best.take(a.x1, a.y1, b)
      best.take(a.x2, a.y2, b)
      // From b's corners the way leads from a to b.
      if (best.take(b.x1, b.y1, a)) best.turnRound()
      if (best.take(b.x2, b.y2, a)) best.turnRound()
    }
  if (best.square >= within * within) return null
  const mm = Math.sqrt(best.square)
  return { mm, nx: mm > 0 ? best.dx / mm : 0, ny: mm > 0 ? best.dy / mm : 0 }
}

/** A straight edge of an outline. */
interface Edge {
  x1: number
  y1: number
  x2: number
  y2: number
}

/** Edges that come into a box. */
function edgesNear(shape: Polygon, box: Box): Edge[] {
  const out: Edge[] = []
  for (const ring of polygonRings(shape))
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [x1, y1, x2, y2] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!]
      if (
        Math.max(x1, x2) >= box.minX &&
        Math.min(x1, x2) <= box.maxX &&
        Math.max(y1, y2) >= box.minY &&
        Math.min(y1, y2) <= box.maxY
      )
        out.push({ x1, y1, x2, y2 })
    }
  return out
}

/** Whether the first point of a ring lies on the card of a shape: with no edges crossing, then all of it does. */
const holdsPoint = (shape: Polygon, ring: Float64Array): boolean =>
  ringContains(shape.outer, ring[0]!, ring[1]!) &&
  !shape.holes.some((hole) => ringContains(hole, ring[0]!, ring[1]!))

/** Twice the area of the triangle of an edge and a point: on which side of the edge the point lies. */
const side = ({ x1, y1, x2, y2 }: Edge, x: number, y: number) => (x2 - x1) * (y - y1) - (y2 - y1) * (x - x1)

const cross = (a: Edge, b: Edge): boolean =>
  side(a, b.x1, b.y1) > 0 !== side(a, b.x2, b.y2) > 0 && side(b, a.x1, a.y1) > 0 !== side(b, a.x2, a.y2) > 0

/** The least distance of a corner from an edge so far: its square, and the way from the edge to the corner. */
class Least {
  dx = 0
  dy = 0

  constructor(public square: number) {}

  /** Whether a corner lies nearer to an edge than anything before. */
  take(x: number, y: number, { x1, y1, x2, y2 }: Edge): boolean {
    const ex = x2 - x1
    const ey = y2 - y1
    const t = Math.max(0, Math.min(1, ((x - x1) * ex + (y - y1) * ey) / (ex * ex + ey * ey || 1)))
    const dx = x - x1 - t * ex
    const dy = y - y1 - t * ey
    const square = dx * dx + dy * dy
    if (square >= this.square) return false
    this.square = square
    this.dx = dx
    this.dy = dy
    return true
  }

  turnRound(): void {
    this.dx = -this.dx
    this.dy = -this.dy
  }
}
