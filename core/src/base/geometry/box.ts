import type { Box, Ring } from './types'

/** A box that holds nothing: joining anything to it gives that. */
export const emptyBox = (): Box => ({ minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity })

/** Whether a box holds nothing, or is not a number. */
export const isEmptyBox = (b: Box): boolean => !(b.minX <= b.maxX && b.minY <= b.maxY)

/** Width, mm; 0 of an empty box. */
export const boxWidth = (b: Box): number => (isEmptyBox(b) ? 0 : b.maxX - b.minX)

/** Height, mm; 0 of an empty box. */
export const boxHeight = (b: Box): number => (isEmptyBox(b) ? 0 : b.maxY - b.minY)

/** A box grown on all sides by so many mm. */
export function growBox(b: Box, mm: number): Box {
  return { minX: b.minX - mm, minY: b.minY - mm, maxX: b.maxX + mm, maxY: b.maxY + mm }
}

/** The smallest box that holds all of several. */
export function joinBoxes(boxes: Iterable<Box>): Box {
  const all = emptyBox()
  for (const b of boxes) {
    if (b.minX < all.minX) all.minX = b.minX
    if (b.minY < all.minY) all.minY = b.minY
    if (b.maxX > all.maxX) all.maxX = b.maxX
    if (b.maxY > all.maxY) all.maxY = b.maxY
  }
  return all
}

/** Whether two boxes share more than an edge. */
export const boxesMeet = (a: Box, b: Box): boolean =>
  a.minX < b.maxX && b.minX < a.maxX && a.minY < b.maxY && b.minY < a.maxY

/** The box of a ring, mm. */
export function ringBox(ring: Ring): Box {
  const b = emptyBox()
  for (let i = 0; i < ring.length; i += 2) {
    const x = ring[i]!
    const y = ring[i + 1]!
    if (x < b.minX) b.minX = x
    if (x > b.maxX) b.maxX = x
    if (y < b.minY) b.minY = y
    if (y > b.maxY) b.maxY = y
  }
  return b
}
