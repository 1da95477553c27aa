// Where pieces may lie while overlaps are parted: whole sheets and off-cuts, those with walls round and in them.
import {
  boxHeight,
  boxWidth,
  offset,
  rectangle,
  regionArea,
  regionBox,
  subtract,
  type Polygon,
} from '../../../../base/geometry'
import type { OffCutSheet } from '../instance'
import { makeField, type Field, type Spot } from './field'

/** What a room may hold, mm from its sheet's corner. */
export interface Room {
  sheet: number
  minX: number
  minY: number
  maxX: number
  maxY: number
  /** What lies round and in an off-cut and may not be touched. */
  walls: readonly Wall[]
}

/** What may not be touched, as a shape that stays. */
export interface Wall extends Spot {
  field: Field
  shape: Polygon
}

/** Beyond an off-cut this much counts as wall, mm. */
const WALL_MM = 40
const WALL_NODES = 260

/** The k-th off-cut (from 0) as a room. Null where its rim leaves nothing. */
export function offCutRoom({ outline, margin }: OffCutSheet, k: number): Room | null {
  const inside = offset([outline], -margin)
  if (inside.length === 0) return null
  const b = regionBox(inside)
  const outside = subtract(
    [rectangle([b.minX - WALL_MM, b.minY - WALL_MM], boxWidth(b) + 2 * WALL_MM, boxHeight(b) + 2 * WALL_MM)],
    inside,
  )
  const plain = regionArea(inside) > boxWidth(b) * boxHeight(b) - 1
  const walls = plain
    ? []
    : outside.map((shape): Wall => {
        const field = makeField(shape, 0, WALL_NODES)
        return { field, shape, x: field.midX, y: field.midY, cos: 1, sin: 0 }
      })
  return { sheet: -1 - k, ...b, walls }
}
