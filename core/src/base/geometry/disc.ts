// Whether a disc finds room in a region: told at a few places where that is enough, else by drawing the outlines in.
import { boxHeight, boxWidth } from './box'
import { offset } from './clip'
import { interiorPoint } from './ring'
import { polygonBox, polygonContains, polygonRings } from './region'
import type { Polygon, Region } from './types'

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

/** Whether it fits at one of a few places: in the middle, or on a grid over the box. */
function takesAtOnce(face: Polygon, radiusMm: number): boolean {
  const box = polygonBox(face)
  const middle = interiorPoint(face.outer)
  if (standsClear(face, middle.x, middle.y, radiusMm)) return true
  for (let r = 1; r <= TRIED; r++)
    for (let c = 1; c <= TRIED; c++) {
      const x = box.minX + (boxWidth(box) * c) / (TRIED + 1)
      const y = box.minY + (boxHeight(box) * r) / (TRIED + 1)
      if (standsClear(face, x, y, radiusMm)) return true
    }
  return false
}

/** Whether a place lies in a face, farther from all its outlines than a distance (mm). */
function standsClear(face: Polygon, x: number, y: number, mm: number): boolean {
  if (!polygonContains(face, x, y)) return false
  for (const ring of polygonRings(face))
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const ax = ring[j]!
      const ay = ring[j + 1]!
      const dx = ring[i]! - ax
      const dy = ring[i + 1]! - ay
      const length2 = dx * dx + dy * dy
      const t = length2 > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / length2)) : 0
      const offX = ax + t * dx - x
      const offY = ay + t * dy - y
      if (offX * offX + offY * offY <= mm * mm) return false
    }
  return true
}
