import type { Polygon, Region, Ring } from './types'

/** x' = a·x + c·y + e, y' = b·x + d·y + f. */
export type Affine = readonly [a: number, b: number, c: number, d: number, e: number, f: number]

/** The map that leaves all as it is. */
export const identity: Affine = [1, 0, 0, 1, 0, 0]

/** The map that applies `second` after `first`. */
export function compose(second: Affine, first: Affine): Affine {
  const [a, b, c, d, e, f] = second
  const [A, B, C, D, E, F] = first
  return [a * A + c * B, b * A + d * B, a * C + c * D, b * C + d * D, a * E + c * F + e, b * E + d * F + f]
}

/** Moves by x, y (mm). */
export const translation = (x: number, y: number): Affine => [1, 0, 0, 1, x, y]

/** Scales about 0, 0; the same both ways where one factor is given. */
export const scaling = (sx: number, sy = sx): Affine => [sx, 0, 0, sy, 0, 0]

/** Turn about the origin, degrees clockwise on screen (y down). Quarter turns are exact. */
export function rotation(deg: number): Affine {
  const quarter = (((deg % 360) + 360) % 360) / 90
  if (Number.isInteger(quarter)) {
    const cos = [1, 0, -1, 0][quarter]!
    const sin = [0, 1, 0, -1][quarter]!
    return [cos, sin, -sin, cos, 0, 0]
  }
  const rad = (deg * Math.PI) / 180
  return [Math.cos(rad), Math.sin(rad), -Math.sin(rad), Math.cos(rad), 0, 0]
}

/** Where a point goes. */
export const mapPoint = ([a, b, c, d, e, f]: Affine, x: number, y: number): [number, number] => [
  a * x + c * y + e,
  b * x + d * y + f,
]

/** How many times longer the map makes lengths on average. */
export const meanScale = (m: Affine): number => Math.sqrt(Math.abs(m[0] * m[3] - m[1] * m[2]))

/** A ring mapped, in a new array; a mirror keeps its corners in order, and so turns its winding. */
export function mapRing([a, b, c, d, e, f]: Affine, ring: Ring): Ring {
  const out = new Float64Array(ring.length)
  const flip = a * d - b * c < 0
  for (let i = 0; i < ring.length; i += 2) {
    const k = flip ? ring.length - 2 - i : i
    out[k] = a * ring[i]! + c * ring[i + 1]! + e
    out[k + 1] = b * ring[i]! + d * ring[i + 1]! + f
  }
  return out
}

/** A face mapped with its holes. */
export const mapPolygon = (m: Affine, p: Polygon): Polygon => ({
  outer: mapRing(m, p.outer),
  holes: p.holes.map((hole) => mapRing(m, hole)),
})

/** All faces of a region mapped. */
export const mapRegion = (m: Affine, region: Region): Polygon[] => region.map((p) => mapPolygon(m, p))

/** A region so many times as large, scaled about the origin. */
export const scaleRegion = (region: Region, factor: number): Polygon[] => mapRegion(scaling(factor), region)
