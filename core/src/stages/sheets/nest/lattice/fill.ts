// What fits into a rectangle of copies that lie in rows.
import type { Box } from '../../../../base/geometry'
import type { Parts } from '../parts'
import type { Rows } from './rows'

/** A place for a copy: where its origin comes to lie, its turn (degrees), and the box that it takes there. mm. */
export interface Spot {
  x: number
  y: number
  turn: number
  box: Box
}

/** Rounding, mm. */
const HAIR = 1e-7
/** Rows whose first copies are tried at the left edge. */
const FLUSH_ROWS = 8

/**
 * All copies of endless rows that lie within a box, moved so that as many as may be do: in some row one is at
 * the left edge, and in the first one at the upper edge.
 */
export function filled(rows: Rows, within: Box): Spot[] {
  const { members, period, pitch, shift } = rows
  if (!(within.maxX > within.minX && within.maxY > within.minY)) return []
  /** First and last of the rows in which a member lies within, the row numbered 0 being at `top`. */
  const rowsOfMember = (k: number, top: number): [number, number] => {
    const { y, box } = members[k]!
    return [
      Math.ceil((within.minY - HAIR - (top + y + box.minY)) / pitch),
      Math.floor((within.maxY + HAIR - (top + y + box.maxY)) / pitch),
    ]
  }
  /** First and last copy of a member that lie within in a row, where the row numbered 0 begins at `left`. */
  const inRow = (k: number, row: number, left: number): [number, number] => {
    const { x, box } = members[k]!
    const start = left + row * shift + x
    return [
      Math.ceil((within.minX - HAIR - (start + box.minX)) / period),
      Math.floor((within.maxX + HAIR - (start + box.maxX)) / period),
    ]
  }
  const countAt = (left: number, top: number) => {
    let sum = 0
    for (let k = 0; k < members.length; k++) {
      const [first, last] = rowsOfMember(k, top)
      for (let row = first; row <= last; row++) {
        const [from, to] = inRow(k, row, left)
        sum += Math.max(0, to - from + 1)
      }
    }
    return sum
  }
  let best = { left: 0, top: 0, sum: -1 }
  for (const { y, box } of members) {
    const top = within.minY - y - box.minY
    for (let row = 0; row < FLUSH_ROWS && row * pitch < within.maxY - within.minY; row++)
      for (const { x, box } of members) {
        const left = within.minX - row * shift - x - box.minX
        const sum = countAt(left, top)
        if (sum > best.sum) best = { left, top, sum }
      }
  }
  const spots: Spot[] = []
  members.forEach(({ x, y, turn, box }, k) => {
    const [first, last] = rowsOfMember(k, best.top)
    for (let row = first; row <= last; row++) {
      const [from, to] = inRow(k, row, best.left)
      for (let n = from; n <= to; n++) {
        const [dx, dy] = [best.left + row * shift + x + n * period, best.top + row * pitch + y]
        spots.push({
          x: dx,
          y: dy,
          turn,
          box: { minX: box.minX + dx, maxX: box.maxX + dx, minY: box.minY + dy, maxY: box.maxY + dy },
        })
      }
    }
  })
  return spots
}

/** What looking at one kind of rows beside others, and a spot, come to in parts of work. */
const WORK_KIND = 5
const WORK_SPOT = 1

/** Copies left out at the right of rows, so that others find room beside them: none, half a period and so on. */
const DROPS = 4

/** As many copies as fit within a box, `gap` mm apart: rows of one kind, and beside and below them, where there is room, rows of another. */
export function* packed(kinds: readonly Rows[], within: Box, gap: number): Parts<Spot[]> {
  let best: Spot[] = []
  for (const rows of kinds)
    for (let drop = 0; drop < DROPS; drop++) {
      yield WORK_KIND * kinds.length + WORK_SPOT * best.length
      const main = filled(rows, { ...within, maxX: within.maxX - (drop * rows.period) / 2 })
      if (main.length === 0) break
      const right = Math.max(...main.map(({ box }) => box.maxX))
      const low = Math.max(...main.map(({ box }) => box.maxY))
      const beside = mostOf(kinds, { ...within, minX: right + gap })
      const below = mostOf(kinds, {
        ...within,
        minY: low + gap,
        maxX: beside.length > 0 ? right : within.maxX,
      })
      if (main.length + beside.length + below.length > best.length) best = [...main, ...beside, ...below]
    }
  return best
}

/** Of rows of several kinds those of which most copies fit within a box. */
function mostOf(kinds: readonly Rows[], within: Box): Spot[] {
  let best: Spot[] = []
  for (const rows of kinds) {
    const spots = filled(rows, within)
    if (spots.length > best.length) best = spots
  }
  return best
}

/** Into how little of a box so many of the spots go, cut straight across: the share of its height or width, the lesser if both will do, and which. */
export function leastOf(
  spots: readonly Spot[],
  { many, within, ways }: { many: number; within: Box; ways: 'height' | 'both' },
): { share: number; spots: Spot[] } {
  const byRow = spots.toSorted((a, b) => a.box.maxY - b.box.maxY).slice(0, many)
  const height = (byRow.at(-1)!.box.maxY - within.minY) / (within.maxY - within.minY)
  const rows = { share: height, spots: byRow }
  if (ways === 'height') return rows
  const byColumn = spots.toSorted((a, b) => a.box.maxX - b.box.maxX).slice(0, many)
  const width = (byColumn.at(-1)!.box.maxX - within.minX) / (within.maxX - within.minX)
  return width < height ? { share: width, spots: byColumn } : rows
}
