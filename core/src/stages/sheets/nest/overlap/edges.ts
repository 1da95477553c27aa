// Straight edges of pieces: along them pieces come to lie against each other.
import { polygonRings, type Polygon } from '../../../../base/geometry'
import type { Field } from './field'

/** An edge counts as straight from this length on, in mm and in parts of the piece's radius. */
const EDGE_MM = 4
const EDGE_SHARE = 0.25
/** A straight edge about its piece's middle, its direction, and the way out of the card. */
export interface Edge {
  x1: number
  y1: number
  x2: number
  y2: number
  deg: number
  nx: number
  ny: number
}

/** The straight edges of a piece that are long enough to lie along, about its middle, mm. */
export function straightEdges(shape: Polygon, { midX, midY, radius }: Field): Edge[] {
  const least = Math.max(EDGE_MM, EDGE_SHARE * radius)
  return polygonRings(shape).flatMap((ring) => {
    const out: Edge[] = []
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [x1, y1, x2, y2] = [ring[j]! - midX, ring[j + 1]! - midY, ring[i]! - midX, ring[i + 1]! - midY]
      const [dx, dy] = [x2 - x1, y2 - y1]
      const length = Math.hypot(dx, dy)
      if (length >= least)
        out.push({
          x1,
          y1,
          x2,
          y2,
          deg: (Math.atan2(dy, dx) * 180) / Math.PI,
          nx: dy / length,
          ny: -dx / length,
        })
    }
    return out
  })
}
