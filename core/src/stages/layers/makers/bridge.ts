// Strips that join islands to the rest of a layer: the shortest line between two faces, as wide as the paper needs.
import {
  boxesMeet,
  ellipse,
  fillRings,
  growBox,
  offset,
  polygonBox,
  polygonRings,
  regionContains,
  strokeRegion,
  union,
  type Point,
  type Polygon,
  type Region,
} from '../../../base/geometry'

/** A strip of card laid between two faces, mm. */
export interface Strip {
  from: Point
  to: Point
  lengthMm: number
  /** Share of the strip that a higher layer hides. */
  hidden: number
}

/** The closest pair of points of two faces (vertices against edges, both ways). */
export function closestPoints(a: Polygon, b: Polygon): { from: Point; to: Point; distance: number } {
  let best = { from: { x: 0, y: 0 }, to: { x: 0, y: 0 }, distance: Infinity }
  const oneWay = (p: Polygon, q: Polygon, swap: boolean) => {
    for (const ring of polygonRings(p))
      for (let i = 0; i < ring.length; i += 2) {
        const [x, y] = [ring[i]!, ring[i + 1]!]
        for (const other of polygonRings(q))
          for (let k = 0, j = other.length - 2; k < other.length; j = k, k += 2) {
            const [ax, ay, bx, by] = [other[j]!, other[j + 1]!, other[k]!, other[k + 1]!]
            const [dx, dy] = [bx - ax, by - ay]
            const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)))
            const [qx, qy] = [ax + dx * t, ay + dy * t]
            const distance = Math.hypot(qx - x, qy - y)
            if (distance < best.distance)
              best = swap
                ? { from: { x: qx, y: qy }, to: { x, y }, distance }
                : { from: { x, y }, to: { x: qx, y: qy }, distance }
          }
      }
  }
  oneWay(a, b, false)
  oneWay(b, a, true)
  return best
}

/** How a strip looks: a straight bar, wider at both ends, or bent into a bow. It is nowhere narrower than its width. */
export type StripShape = 'straight' | 'flared' | 'bowed'

/** A flared strip is so many times as wide at its ends as in its middle; a bow rises by this share of its length. */
const FLARE = 2.4
const BOW = 0.28
const CURVE_STEPS = 16

/** A strip of a width along a line, long enough at both ends to be one piece with what it joins. */
export function stripRegion(
  from: Point,
  to: Point,
  { widthMm, shape = 'straight' }: { widthMm: number; shape?: StripShape },
): Polygon[] {
  const length = Math.hypot(to.x - from.x, to.y - from.y)
  // Faces that touch in a point are joined by a round patch on it.
  if (length < 1e-3) return [ellipse([(from.x + to.x) / 2, (from.y + to.y) / 2], widthMm * 0.75)]
  const [ux, uy] = [(to.x - from.x) / length, (to.y - from.y) / length]
  const more = widthMm * 0.75
  const points = Float64Array.of(from.x - ux * more, from.y - uy * more, to.x + ux * more, to.y + uy * more)
  const straight = strokeRegion([{ points, closed: false }], { widthMm, cap: 'round', join: 'round' })
  if (shape === 'straight') return straight
  /** A place along the strip from −1 to 1, so far to its upper side. */
  const at = (t: number, off: number): [number, number] => {
    const along = ((t + 1) / 2) * length
    const up = ux >= 0 ? 1 : -1
    return [from.x + ux * along + uy * off * up, from.y + uy * along - ux * off * up]
  }
  const steps = Array.from({ length: CURVE_STEPS + 1 }, (_, k) => (2 * k) / CURVE_STEPS - 1)
  if (shape === 'flared') {
    const half = (t: number) => (widthMm / 2) * (1 + (FLARE - 1) * t * t)
    const sides = [...steps.map((t) => at(t, half(t))), ...steps.toReversed().map((t) => at(t, -half(t)))]
    return union(straight, fillRings([Float64Array.from(sides.flat())], 'nonzero'))
  }
  // Both ends reach into what they join as far as a straight strip does.
  const arc = steps.flatMap((t) => at(t, BOW * length * (1 - t * t)))
  const ends = (x: number, y: number, way: number) => [x + way * ux * more, y + way * uy * more]
  const line = Float64Array.of(...ends(from.x, from.y, -1), ...arc, ...ends(to.x, to.y, 1))
  return strokeRegion([{ points: line, closed: false }], { widthMm, cap: 'round', join: 'round' })
}

/**
 * Joins all faces to one by strips, nearest faces first, preferring lines that `cover` hides: a hidden strip may be three
 * times as long as an open one. Returns the joined region and the strips. Needs the geometry loaded.
 */
export function bridgeFaces(
  region: Region,
  widthMm: number,
  { cover = [], shape = 'straight' }: { cover?: Region; shape?: StripShape } = {},
): { region: Polygon[]; strips: Strip[] } {
  if (region.length < 2) return { region: [...region], strips: [] }
  const share = (from: Point, to: Point) => {
    if (cover.length === 0) return 0
    let inside = 0
    for (let k = 1; k < 20; k++)
      if (regionContains(cover, from.x + ((to.x - from.x) * k) / 20, from.y + ((to.y - from.y) * k) / 20))
        inside++
    return inside / 19
  }
  // Prim's tree over faces, largest first.
  const joined = new Set([0])
  const strips: Strip[] = []
  const near = region.map((face, i) => (i === 0 ? null : { ...closestPoints(region[0]!, face), with: 0 }))
  const cost = (i: number) => {
    const n = near[i]!
    return n.distance * (1 - 0.67 * share(n.from, n.to))
  }
  while (joined.size < region.length) {
    let pick = -1
    for (let i = 0; i < region.length; i++) if (!joined.has(i) && (pick < 0 || cost(i) < cost(pick))) pick = i
    const { from, to, distance } = near[pick]!
    strips.push({ from, to, lengthMm: distance, hidden: share(from, to) })
    joined.add(pick)
    for (let i = 0; i < region.length; i++) {
      if (joined.has(i)) continue
      const box = growBox(polygonBox(region[i]!), near[i]!.distance)
      if (!boxesMeet(box, polygonBox(region[pick]!))) continue
      const next = closestPoints(region[pick]!, region[i]!)
      if (next.distance < near[i]!.distance) near[i] = { ...next, with: pick }
    }
  }
  return {
    region: union(region, ...strips.map((s) => stripRegion(s.from, s.to, { widthMm, shape }))),
    strips,
  }
}

/** Fills gaps narrower than a width between parts of a region, and holes of that kind. */
export const closeGaps = (region: Region, mm: number): Polygon[] =>
  mm > 0 ? offset(offset(region, mm / 2), -mm / 2) : [...region]
