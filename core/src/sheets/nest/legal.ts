// Whether a placement is legal beside others: inside the rim, and the gap away from every other piece.
import { boxesMeet, growBox, intersect, mapPolygon, offset, polygonBox, regionArea, rotation, type Polygon } from '../../geometry'
import type { NestInstance, Placement } from './instance'

/** Areas and lengths under this count as rounding (mm, mm²). */
const ROUNDING = 0.01

/** The piece's shape where a placement puts it, mm from the sheet's corner. */
export function placedShape(instance: NestInstance, p: Pick<Placement, 'id' | 'x' | 'y' | 'rotation'>): Polygon | undefined {
  const piece = instance.pieces.find((candidate) => candidate.id === p.id)
  return piece && mapPolygon([1, 0, 0, 1, p.x, p.y], mapPolygon(rotation(p.rotation), piece.shape))
}

/** Why a placement may not be: words that go on from “the piece …”; null where it is legal. Needs the geometry loaded. */
export function whyIllegal(instance: NestInstance, p: Placement, others: readonly Placement[]): string | null {
  const shape = placedShape(instance, p)
  if (!shape) return 'is not of this paper'
  const { sheet, gap } = instance
  const b = polygonBox(shape)
  const { margin: rim } = sheet
  if (b.minX < rim - ROUNDING || b.minY < rim - ROUNDING || b.maxX > sheet.w - rim + ROUNDING || b.maxY > sheet.h - rim + ROUNDING)
    return `lies in the rim of ${rim.toFixed(1)} mm that the blade cannot reach`
  const near = growBox(b, gap)
  const grown = offset([shape], Math.max(0, gap - ROUNDING))
  for (const other of others) {
    if (other.sheet !== p.sheet || (other.id === p.id && other.copy === p.copy)) continue
    const otherShape = placedShape(instance, other)
    if (!otherShape || !boxesMeet(near, polygonBox(otherShape))) continue
    if (regionArea(intersect([shape], [otherShape])) > ROUNDING) return 'lies over another piece'
    if (regionArea(intersect(grown, [otherShape])) > ROUNDING) return `is nearer than ${gap} mm to another piece`
  }
  return null
}
