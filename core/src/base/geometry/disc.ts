// Whether a disc finds room in a region: told at a few places where that is enough, else by drawing the outlines in.
import { boxHeight, boxWidth } from './box'
import { offset } from './clip'
import { quickInteriorPoint } from './ring'
import { polygonBox, polygonContains, polygonRings } from './region'
import type { Point, Polygon, Region, Ring } from './types'

/** So many places are tried across and down. */
const TRIED = 5

/** Whether a disc of a radius (mm) fits into a region somewhere. Needs the geometry loaded. */
export function takesDisc(region: Region, radiusMm: number): boolean {
  const roomy = region.filter((face) => {
    const box = polygonBox(face)
    return Math.min(boxWidth(box), boxHeight(box)) >= 2 * radiusMm
  })
  return roomy.some((face) => takesAtOnce(face, radiusMm)) || offset(roomy, -radiusMm).length > 0
}

/** Whether it fits at one of a few places. */
const takesAtOnce = (face: Polygon, radiusMm: number): boolean =>
  likelyPlaces(face).some(({ x, y }) => discLiesIn(face, [x, y], radiusMm))

/** Where a disc in a face is looked for first: in its middle, and on a grid over its box. */
export function likelyPlaces(face: Polygon): Point[] {
  const box = polygonBox(face)
  const across = Array.from({ length: TRIED }, (_, k) => (k + 1) / (TRIED + 1))
  const grid = across.flatMap((down) =>
    across.map((along) => ({
      x: box.minX + boxWidth(box) * along,
      y: box.minY + boxHeight(box) * down,
    })),
  )
  return [quickInteriorPoint(face.outer), ...grid]
}

/** Whether a disc about a place lies in a face, touching none of its outlines. */
export const discLiesIn = (face: Polygon, [x, y]: readonly [number, number], radiusMm: number): boolean =>
  polygonContains(face, x, y) && !discTouches(face, [x, y], radiusMm)

/** Whether a disc about a place is clear of a region. */
export const discMisses = (region: Region, [x, y]: readonly [number, number], radiusMm: number): boolean =>
  region.every((face) => !polygonContains(face, x, y) && !discTouches(face, [x, y], radiusMm))

const discTouches = (face: Polygon, at: readonly [number, number], mm: number): boolean =>
  polygonRings(face).some((ring) => discTouchesRing(ring, at, mm))

/** Whether a disc of a radius (mm) about a place touches an outline. */
export function discTouchesRing(ring: Ring, [x, y]: readonly [number, number], mm: number): boolean {
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const ax = ring[j]!
    const ay = ring[j + 1]!
    const dx = ring[i]! - ax
    const dy = ring[i + 1]! - ay
    const length2 = dx * dx + dy * dy
    const t = length2 > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / length2)) : 0
    const offX = ax + t * dx - x
    const offY = ay + t * dy - y
    if (offX * offX + offY * offY <= mm * mm) return true
  }
  return false
}
