// Where a layer is narrower than its paper survives. Shrinking by half the safe strip and growing back (an opening, as in
// image morphology) loses just what is too narrow; a lost part that touches card on two sides is a neck, on one a tip.
import {
  boxesMeet,
  clipToBox,
  growBox,
  intersect,
  interiorPoint,
  offset,
  polygonArea,
  polygonBox,
  regionArea,
  simplify,
  subtract,
  union,
  type Point,
  type Polygon,
  type Region,
} from '../../../base/geometry'

/** A place where card is narrower than its paper survives. Lengths in mm. */
export interface Neck {
  /** Where it is, mm. */
  at: Point
  /** Narrowest width, mm. */
  widthMm: number
  /** The narrow part itself. */
  region: Polygon
  /** Area that hangs on it and would go with it: the smaller of what it joins; for a tip, the tip's own. */
  hangingMm2: number
  kind: 'neck' | 'tip'
}

/** Parts smaller than this share of the safe strip's square are rounded corners, not strips. */
const CORNER_SHARE = 0.8

/** How much outlines are smoothed before, mm: far less than widths are told to. */
const SLACK_MM = 0.01

/** Narrow places of a region against a safe strip (mm), the narrowest first. Needs the geometry loaded. */
export function weakNecks(layer: Region, safeMm: number, most = 60): Neck[] {
  const region = simplify(layer, SLACK_MM)
  const half = safeMm / 2
  const opened = offset(offset(region, -half), half + 0.02)
  const narrow = subtract(region, opened).filter((face) => polygonArea(face) > safeMm * safeMm * CORNER_SHARE)
  const necks = narrow
    .toSorted((a, b) => polygonArea(b) - polygonArea(a))
    .slice(0, most)
    .flatMap((face): Neck[] => {
      const near = region.filter((body) => boxesMeet(polygonBox(body), growBox(polygonBox(face), 1)))
      const local = clipToBox(near, growBox(polygonBox(face), safeMm * 2))
      // What is one part close by is one part in all; only the rest is worth cutting the whole layer for.
      const parts = beside(local, face).length > 1 ? beside(near, face) : []
      const kind = parts.length > 1 ? 'neck' : 'tip'
      if (kind === 'tip' && polygonArea(face) < safeMm * safeMm * 2.5) return []
      const areas = parts.map((p) => polygonArea(p)).toSorted((a, b) => b - a)
      const hangingMm2 = kind === 'neck' ? areas.slice(1).reduce((sum, a) => sum + a, 0) : polygonArea(face)
      return [
        {
          at: interiorPoint(face.outer),
          widthMm: narrowest(local, face, safeMm),
          region: face,
          hangingMm2,
          kind,
        },
      ]
    })
  return necks.toSorted((a, b) => a.widthMm - b.widthMm)
}

/** The parts of a body that touch a narrow part of it once that is taken out. */
function beside(body: Region, face: Polygon): Polygon[] {
  const rest = subtract(body, offset([face], 0.05))
  const touching = rest.filter(
    (part) =>
      boxesMeet(polygonBox(part), growBox(polygonBox(face), 0.2)) &&
      regionArea(intersect(offset([part], 0.2), [face])) > 0.001,
  )
  return touching.length > 0 ? touching : rest
}

/** Width of the narrowest place in a narrow part: the most that can be taken from its edges before it breaks or vanishes. */
function narrowest(body: Region, face: Polygon, safeMm: number): number {
  const local = clipToBox(body, growBox(polygonBox(face), safeMm))
  const whole = local.length
  let [low, high] = [0, safeMm]
  for (let k = 0; k < 7; k++) {
    const mid = (low + high) / 2
    const shrunk = offset(local, -mid / 2)
    const broken = shrunk.length !== whole || regionArea(intersect(shrunk, [face])) < polygonArea(face) * 0.02
    if (broken) high = mid
    else low = mid
  }
  return (low + high) / 2
}

/** The region with its necks as wide as the safe strip; all else stays. Needs the geometry loaded. */
export const thickened = (region: Region, necks: readonly Neck[], safeMm: number): Polygon[] =>
  union(
    region,
    ...necks.map((neck) => offset([neck.region], Math.max(0.05, (safeMm - neck.widthMm) / 2 + 0.05))),
  )
