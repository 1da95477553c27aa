// Sheets of one colour that a drawing shows on each other. By colour alone they are one shape, which shows nothing of what each of
// them is: they are told by what stands at the top of the drawing, and each is a layer.
import {
  boxHeight,
  boxWidth,
  fillRings,
  intersect,
  joinBoxes,
  regionArea,
  regionBox,
  regionRings,
  type Box,
  type Region,
} from '../../../base/geometry'
import { groupBy } from '../../../base'
import type { PaintedShape } from '../../../io/read'
import { MOST } from '../../../project'

/** All of one colour that stands in one top-level element. */
interface Part {
  number: number
  region: Region
  box: Box
  areaMm2: number
}

/** Sheets of one size agree on each side within this, mm or share of their size. */
const SAME_MM = 1
const SAME_SHARE = 0.005
/** So much of the smaller one's card lies over the other's at least, where two sheets of one size are stacked. */
const OVER = 0.3
/** Of two shapes that have more than this in common one is the other drawn again. */
const AGAIN = 0.98
/** A sheet is at least so much of the drawing, both ways… */
const LARGE = 0.5
/** …and all but this of it where there are other colours too. */
const WHOLE = 0.95
/** Openings of so much of a sheet's box, filled to this share by another's card, mean that it lies on it. */
const OPEN = 0.1
const FILLED = 0.9

/**
 * For shapes of one colour (and group), the number of the sheet that each belongs to; null where they are one. Sheets are told where two of
 * one size lie on each other and differ, or, `alone`, where nothing else is drawn, where one's openings are filled by another.
 */
export function stackedSheets(
  shapes: readonly PaintedShape[],
  { page, alone }: { page: Box; alone: boolean },
): number[] | null {
  const parts = partsIn(shapes)
  const least = alone ? LARGE : WHOLE
  const large = parts.filter(
    ({ box }) => boxWidth(box) >= least * boxWidth(page) && boxHeight(box) >= least * boxHeight(page),
  )
  if (large.length < 2 || large.length > MOST.layers) return null
  const sheets = large.filter((one) =>
    large.some(
      (other) =>
        one !== other && (areStacked(one, other) || (alone && (fills(one, other) || fills(other, one)))),
    ),
  )
  if (sheets.length < 2) return null
  return shapes.map(({ part }) =>
    Math.max(
      0,
      sheets.findLastIndex(({ number }) => number <= part!),
    ),
  )
}

/** What outlines hold of each top-level element; nothing where some shape stands in none. */
function partsIn(shapes: readonly PaintedShape[]): Part[] {
  if (shapes.some(({ part }) => part === null)) return []
  const groups = groupBy(
    shapes.filter(({ drawnBy }) => drawnBy !== 'pen'),
    ({ part }) => part!,
  )
  return [...groups].map(([number, own]): Part => {
    const region =
      own.length === 1
        ? own[0]!.region
        : fillRings(
            own.flatMap((shape) => regionRings(shape.region)),
            'nonzero',
          )
    return { number, region, box: joinBoxes(own.map(({ box }) => box)), areaMm2: regionArea(region) }
  })
}

/** Whether two are sheets of one size that lie on each other, and differ. */
function areStacked(a: Part, b: Part): boolean {
  if (!isSameBox(a.box, b.box)) return false
  const common = regionArea(intersect(a.region, b.region))
  return common >= OVER * Math.min(a.areaMm2, b.areaMm2) && common < AGAIN * Math.max(a.areaMm2, b.areaMm2)
}

function isSameBox(a: Box, b: Box): boolean {
  const most = Math.max(SAME_MM, SAME_SHARE * Math.max(boxWidth(a), boxHeight(a)))
  return (['minX', 'minY', 'maxX', 'maxY'] as const).every((side) => Math.abs(a[side] - b[side]) <= most)
}

/** Whether the openings of one are filled by the card of another. */
function fills(card: Part, { region, areaMm2 }: Part): boolean {
  const solid = region.map(({ outer }) => ({ outer, holes: [] }))
  const open = regionArea(solid) - areaMm2
  const box = regionBox(region)
  if (open < OPEN * boxWidth(box) * boxHeight(box)) return false
  const filled = regionArea(intersect(solid, card.region)) - regionArea(intersect(region, card.region))
  return filled >= FILLED * open
}
