// What a cutter reaches of a sheet, against pieces that are larger.
import { boxHeight, boxWidth, type Box } from '../../base/geometry'
import type { Layer } from '../../project'
import type { Size } from './measure'
import { TOLERANCE_MM } from './tolerance'

/** A piece is put together of so many parts at the most. */
const MOST_PARTS = 24

/**
 * In how many parts across and down a piece is cut so that each is within reach: with a sheet as it is or turned, the fewer. Null where nothing is
 * within reach, or only in more parts than anyone would put together.
 */
export function partsWithin(size: Size, reach: Size): [number, number] | null {
  if (!(reach.widthMm > 0 && reach.heightMm > 0)) return null
  const within = (mm: number, mostMm: number) => Math.max(1, Math.ceil((mm - TOLERANCE_MM) / mostMm))
  const inAll = ({ widthMm, heightMm }: Size): [number, number] => [
    within(size.widthMm, widthMm),
    within(size.heightMm, heightMm),
  ]
  const upright = inAll(reach)
  const turned = inAll({ widthMm: reach.heightMm, heightMm: reach.widthMm })
  const fewer = turned[0] * turned[1] < upright[0] * upright[1] ? turned : upright
  return fewer[0] * fewer[1] <= MOST_PARTS ? fewer : null
}

/** The same of a piece of a layer, by its box; null also where it is rolled or folded: that is not cut apart. */
export const partedIn = (
  { blanks, folds }: Pick<Layer, 'blanks' | 'folds'>,
  box: Box,
  reach: Size,
): [number, number] | null =>
  blanks.length > 0 || folds.length > 0
    ? null
    : partsWithin({ widthMm: boxWidth(box), heightMm: boxHeight(box) }, reach)
