// Whether a placement is legal beside others: inside the rim, and the gap away from every other piece.
import { length, say, type Said } from '../../../../base/units'
import {
  intersect,
  mapPolygon,
  offset,
  polygonBox,
  regionArea,
  rotation,
  subtract,
  type Polygon,
} from '../../../../base/geometry'
import { nearest } from './clearance'
import type { NestInstance, Placement } from '../instance'

/** Areas and lengths under this count as rounding (mm, mm²). */
const ROUNDING = 0.01

/** The piece's shape where a placement puts it, mm from the sheet's corner. */
export function placedShape(
  instance: NestInstance,
  p: Pick<Placement, 'id' | 'x' | 'y' | 'rotation'>,
): Polygon | undefined {
  const piece = instance.pieces.find((candidate) => candidate.id === p.id)
  return piece && mapPolygon([1, 0, 0, 1, p.x, p.y], mapPolygon(rotation(p.rotation), piece.shape))
}

/** Why a placement may not be: words that go on from “the piece …”; null where it is legal. Needs the geometry loaded. */
export function whyIllegal(instance: NestInstance, p: Placement, others: readonly Placement[]): Said | null {
  const shape = placedShape(instance, p)
  if (!shape) return 'is not of this paper'
  const { gap } = instance
  const outside = p.sheet < 0 ? outsideOffCut(instance, p.sheet, shape) : outsideSheet(instance, shape)
  if (outside) return outside
  for (const other of others) {
    if (other.sheet !== p.sheet || (other.id === p.id && other.copy === p.copy)) continue
    const otherShape = placedShape(instance, other)
    const near = otherShape && nearest(shape, otherShape, Math.max(gap, ROUNDING))
    if (!near) continue
    if (near.mm === 0 && regionArea(intersect([shape], [otherShape])) > ROUNDING)
      return 'lies over another piece'
    if (near.mm < gap - ROUNDING) return say`is nearer than ${length(gap)} to another piece`
  }
  return null
}

function outsideSheet({ sheet }: NestInstance, shape: Polygon): Said | null {
  const b = polygonBox(shape)
  const { margin: rim } = sheet
  if (
    b.minX >= rim - ROUNDING &&
    b.minY >= rim - ROUNDING &&
    b.maxX <= sheet.w - rim + ROUNDING &&
    b.maxY <= sheet.h - rim + ROUNDING
  )
    return null
  return say`lies in the rim of ${length(rim, 1)} that the blade cannot reach`
}

function outsideOffCut({ offCuts = [] }: NestInstance, sheet: number, shape: Polygon): Said | null {
  const offCut = offCuts[-1 - sheet]
  if (!offCut) return 'lies on an off-cut that is not there'
  const inside = offset([offCut.outline], ROUNDING - offCut.margin)
  return regionArea(subtract([shape], inside)) > ROUNDING
    ? say`passes the edge of the off-cut, or comes nearer to it than ${length(offCut.margin)}`
    : null
}
