import { polygonRings } from './region'
import type { Polygon } from './types'

const round = (value: number): number => Math.round(value * 1000) / 1000

/**
 * Path data of a shape for drawing: points nearer than `nearMm` to the last one drawn are passed over, so that no line
 * strays farther. A sheet drawn small needs a tenth of its points.
 */
export function plainPath(shape: Polygon, nearMm: number): string {
  const near = nearMm * nearMm
  let d = ''
  for (const ring of polygonRings(shape)) {
    let [x, y] = [ring[0]!, ring[1]!]
    d += `M${round(x)} ${round(y)}`
    for (let i = 2; i < ring.length; i += 2) {
      const [dx, dy] = [ring[i]! - x, ring[i + 1]! - y]
      if (dx * dx + dy * dy < near) continue
      x += dx
      y += dy
      d += `L${round(x)} ${round(y)}`
    }
    d += 'Z'
  }
  return d
}
