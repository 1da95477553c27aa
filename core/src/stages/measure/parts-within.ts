// What a cutter reaches of a sheet, against pieces that are larger.
import type { Size } from './measure'
import { TOLERANCE_MM } from './tolerance'

/** In how many parts across and down a piece is cut so that each is within reach: with a sheet as it is or turned, the fewer. */
export function partsWithin(size: Size, reach: Size): [number, number] {
  const within = (mm: number, mostMm: number) => Math.max(1, Math.ceil((mm - TOLERANCE_MM) / mostMm))
  const upright: [number, number] = [
    within(size.widthMm, reach.widthMm),
    within(size.heightMm, reach.heightMm),
  ]
  const turned: [number, number] = [
    within(size.widthMm, reach.heightMm),
    within(size.heightMm, reach.widthMm),
  ]
  return turned[0] * turned[1] < upright[0] * upright[1] ? turned : upright
}
