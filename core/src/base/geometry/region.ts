// Measures of regions, and the grouping of loose rings into faces with holes.
import Flatbush from 'flatbush'
import { joinBoxes, ringBox } from './box'
import { perimeter, quickInteriorPoint, reversed, ringContains, signedArea } from './ring'
import type { Box, Point, Polygon, Region, Ring } from './types'

/** Outline first, then holes. */
export const polygonRings = (p: Polygon): Ring[] => [p.outer, ...p.holes]

/** All rings of all faces. */
export const regionRings = (region: Region): Ring[] => region.flatMap(polygonRings)

/** Area in mm², holes taken off. */
export const polygonArea = (p: Polygon): number =>
  polygonRings(p).reduce((sum, ring) => sum + signedArea(ring), 0)

/** Area in mm², holes taken away. */
export const regionArea = (region: Region): number => region.reduce((sum, p) => sum + polygonArea(p), 0)

/** Length of all outlines in mm: the way a blade goes. */
export const regionPerimeter = (region: Region): number =>
  regionRings(region).reduce((sum, ring) => sum + perimeter(ring), 0)

/** Corners of all outlines of a face. */
export const cornersOf = (p: Polygon): number =>
  polygonRings(p).reduce((sum, ring) => sum + ring.length / 2, 0)

/** Box of a face, mm. */
export const polygonBox = (p: Polygon): Box => ringBox(p.outer)

/** Box of all faces; empty where there are none. */
export const regionBox = (region: Region): Box => joinBoxes(region.map(polygonBox))

/** Whether a point lies in a face and in none of its holes. */
export const polygonContains = (p: Polygon, x: number, y: number): boolean =>
  ringContains(p.outer, x, y) && !p.holes.some((hole) => ringContains(hole, x, y))

/** Whether a point lies in any face. */
export const regionContains = (region: Region, x: number, y: number): boolean =>
  region.some((p) => polygonContains(p, x, y))

/** Centre of mass of an evenly thick sheet cut to this region. */
export function regionCentroid(region: Region): Point {
  let area = 0
  let cx = 0
  let cy = 0
  for (const ring of regionRings(region))
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const cross = ring[j]! * ring[i + 1]! - ring[i]! * ring[j + 1]!
      area += cross / 2
      cx += ((ring[i]! + ring[j]!) * cross) / 6
      cy += ((ring[i + 1]! + ring[j + 1]!) * cross) / 6
    }
  return area === 0 ? { x: 0, y: 0 } : { x: cx / area, y: cy / area }
}

/**
 * Sorts rings that do not cross into faces: a ring inside an even number of others is an outline, inside an odd
 * number a hole of the smallest outline around it. Orientation of the input does not matter.
 */
export function facesOf(rings: readonly Ring[]): Polygon[] {
  const items = rings
    .map((ring) => ({ ring, area: signedArea(ring), bounds: ringBox(ring), depth: 0, parent: -1 }))
    .filter((item) => Math.abs(item.area) > 1e-9)
    .sort((a, b) => Math.abs(b.area) - Math.abs(a.area))
  if (items.length === 0) return []
  const index = new Flatbush(items.length)
  for (const { bounds: b } of items) index.add(b.minX, b.minY, b.maxX, b.maxY)
  index.finish()
  const outward = (ring: Ring, area: number, positive: boolean) =>
    area > 0 === positive ? ring : reversed(ring)
  const faces = new Map<number, { outer: Ring; holes: Ring[] }>()
  items.forEach((item, i) => {
    const { minX, minY, maxX, maxY } = item.bounds
    const holds = ({ bounds: b }: (typeof items)[number]) =>
      b.minX <= minX && b.minY <= minY && b.maxX >= maxX && b.maxY >= maxY
    // Larger rings come first, so the last that contains the ring is the smallest.
    const around = index
      .search(minX, minY, maxX, maxY, (k) => k < i && holds(items[k]!))
      .sort((a, b) => a - b)
    const inside = around.length > 0 ? quickInteriorPoint(item.ring) : null
    for (const k of around)
      if (inside && ringContains(items[k]!.ring, inside.x, inside.y)) {
        item.parent = k
        item.depth++
      }
    if (item.depth % 2 === 0) faces.set(i, { outer: outward(item.ring, item.area, true), holes: [] })
    else {
      let parent = item.parent
      while (parent >= 0 && !faces.has(parent)) parent = items[parent]!.parent
      faces.get(parent)?.holes.push(outward(item.ring, item.area, false))
    }
  })
  return [...faces.values()]
}

/** An axis-parallel rectangle. */
export const rectangle = ([x, y]: readonly [number, number], w: number, h: number): Polygon => ({
  outer: Float64Array.of(x, y, x + w, y, x + w, y + h, x, y + h),
  holes: [],
})

/** The stretches of a straight line that lie inside a polygon, each as x1, y1, x2, y2. */
export function lineInside(
  shape: Polygon,
  [x1, y1]: readonly [number, number],
  [x2, y2]: readonly [number, number],
): Float64Array[] {
  const [dx, dy] = [x2 - x1, y2 - y1]
  const cuts = [0, 1]
  for (const ring of polygonRings(shape))
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ex, ey] = [ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!]
      const cross = dx * ey - dy * ex
      if (Math.abs(cross) < 1e-12) continue
      const [ox, oy] = [ring[j]! - x1, ring[j + 1]! - y1]
      const along = (ox * ey - oy * ex) / cross
      const across = (ox * dy - oy * dx) / cross
      if (along > 0 && along < 1 && across >= 0 && across <= 1) cuts.push(along)
    }
  cuts.sort((a, b) => a - b)
  const out: Float64Array[] = []
  let from = -1
  for (let k = 0; k + 1 < cuts.length; k++) {
    const middle = (cuts[k]! + cuts[k + 1]!) / 2
    const inside = cuts[k + 1]! > cuts[k]! && polygonContains(shape, x1 + dx * middle, y1 + dy * middle)
    if (inside && from < 0) from = cuts[k]!
    const ends = from >= 0 && (!inside || k + 2 === cuts.length)
    if (!ends) continue
    const to = inside ? cuts[k + 1]! : cuts[k]!
    out.push(Float64Array.of(x1 + dx * from, y1 + dy * from, x1 + dx * to, y1 + dy * to))
    from = -1
  }
  return out
}
