// The exact distance between two placed pieces, by their edges: what the search's quick measures are proved by.
import {
  boxesMeet,
  growBox,
  polygonBox,
  polygonRings,
  ringContains,
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
  const best = { square: within * within, dx: 0, dy: 0 }
  for (let i = 0; i < edgesA.length; i += 4)
    for (let j = 0; j < edgesB.length; j += 4) {
      const [ax, ay, bx, by] = [edgesA[i]!, edgesA[i + 1]!, edgesA[i + 2]!, edgesA[i + 3]!]
      const [cx, cy, dx, dy] = [edgesB[j]!, edgesB[j + 1]!, edgesB[j + 2]!, edgesB[j + 3]!]
      const reach = Math.sqrt(best.square)
      if (Math.min(ax, bx) - reach > Math.max(cx, dx) || Math.min(cx, dx) - reach > Math.max(ax, bx)) continue
      if (Math.min(ay, by) - reach > Math.max(cy, dy) || Math.min(cy, dy) - reach > Math.max(ay, by)) continue
      if (cross(ax, ay, bx, by, cx, cy, dx, dy)) return { mm: 0, nx: 0, ny: 0 }
      pointToEdge(ax, ay, cx, cy, dx, dy, 1, best)
      pointToEdge(bx, by, cx, cy, dx, dy, 1, best)
      pointToEdge(cx, cy, ax, ay, bx, by, -1, best)
      pointToEdge(dx, dy, ax, ay, bx, by, -1, best)
    }
  if (best.square >= within * within) return null
  const mm = Math.sqrt(best.square)
  return { mm, nx: mm > 0 ? best.dx / mm : 0, ny: mm > 0 ? best.dy / mm : 0 }
}

/** Edges that come into a box, as x1, y1, x2, y2 each. */
function edgesNear(shape: Polygon, b: { minX: number; minY: number; maxX: number; maxY: number }): number[] {
  const out: number[] = []
  for (const ring of polygonRings(shape))
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [x1, y1, x2, y2] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!]
      if (
        Math.max(x1, x2) >= b.minX &&
        Math.min(x1, x2) <= b.maxX &&
        Math.max(y1, y2) >= b.minY &&
        Math.min(y1, y2) <= b.maxY
      )
        out.push(x1, y1, x2, y2)
    }
  return out
}

/** Whether the first point of a ring lies on the card of a shape: with no edges crossing, then all of it does. */
const holdsPoint = (shape: Polygon, ring: Float64Array): boolean =>
  ringContains(shape.outer, ring[0]!, ring[1]!) &&
  !shape.holes.some((hole) => ringContains(hole, ring[0]!, ring[1]!))

const side = (ax: number, ay: number, bx: number, by: number, x: number, y: number) =>
  (bx - ax) * (y - ay) - (by - ay) * (x - ax)

function cross(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  cx: number,
  cy: number,
  dx: number,
  dy: number,
): boolean {
  const s1 = side(ax, ay, bx, by, cx, cy)
  const s2 = side(ax, ay, bx, by, dx, dy)
  if (s1 > 0 === s2 > 0) return false
  const s3 = side(cx, cy, dx, dy, ax, ay)
  const s4 = side(cx, cy, dx, dy, bx, by)
  return s3 > 0 !== s4 > 0
}

function pointToEdge(
  px: number,
  py: number,
  ax: number,
  ay: number,
  bx: number,
  by: number,
  sign: number,
  best: { square: number; dx: number; dy: number },
): void {
  const [ex, ey] = [bx - ax, by - ay]
  const t = Math.max(0, Math.min(1, ((px - ax) * ex + (py - ay) * ey) / (ex * ex + ey * ey || 1)))
  const [dx, dy] = [px - ax - t * ex, py - ay - t * ey]
  const square = dx * dx + dy * dy
  if (square >= best.square) return
  best.square = square
  best.dx = dx * sign
  best.dy = dy * sign
}
