// A region on a grid of square cells: whose middle is card, which are card through and through, and how much room is round each.
import { cellsOf, regionBox, type CellFrame, type Region } from '../../../base/geometry'
import type { Place } from './edges'

/** At most so many cells. */
const MOST_CELLS = 7000

/** Cells of a region's box, row by row. All lengths in mm. */
export class CardGrid implements CellFrame {
  /** From cell to cell. */
  readonly pitch: number
  readonly minX: number
  readonly minY: number
  readonly cols: number
  readonly rows: number
  /** By cell: its middle is card. */
  readonly inside: Uint8Array
  /** By cell: no outline passes through it, and it is card. */
  readonly whole: Uint8Array
  /** By cell: so many cells off, in rows, columns and diagonals, is the nearest that is not whole; 0 where it is that itself. */
  readonly room: Uint16Array

  constructor(region: Region, wishedPitch: number) {
    const { minX, minY, maxX, maxY } = regionBox(region)
    this.pitch = Math.max(wishedPitch, Math.sqrt(((maxX - minX) * (maxY - minY)) / MOST_CELLS))
    this.minX = minX
    this.minY = minY
    this.cols = Math.max(1, Math.ceil((maxX - minX) / this.pitch))
    this.rows = Math.max(1, Math.ceil((maxY - minY) / this.pitch))
    const { inside, whole } = cellsOf(region, this)
    this.inside = inside
    this.whole = whole
    this.room = roomRound(this.whole, this.cols, this.rows)
  }

  colAt(x: number): number {
    return Math.floor((x - this.minX) / this.pitch)
  }

  rowAt(y: number): number {
    return Math.floor((y - this.minY) / this.pitch)
  }

  /** Room round a place, in cells: 0 beside the grid. */
  roomAt(x: number, y: number): number {
    const c = this.colAt(x)
    const r = this.rowAt(y)
    return c < 0 || r < 0 || c >= this.cols || r >= this.rows ? 0 : this.room[r * this.cols + c]!
  }

  /** Whether nothing but whole cells lies between two places: seen at once, and never wrongly. */
  sees(from: Place, to: Place): boolean {
    const { cols, rows, pitch, room } = this
    const there = this.roomAt(to.x, to.y)
    if (there === 0) return false
    // From here on in cells.
    const fromX = (from.x - this.minX) / pitch
    const fromY = (from.y - this.minY) / pitch
    const dx = (to.x - from.x) / pitch
    const dy = (to.y - from.y) / pitch
    const cells = Math.max(Math.abs(dx), Math.abs(dy))
    const perCell = cells > 0 ? 1 / cells : 0
    for (let gone = 0; ;) {
      const c = Math.floor(fromX + dx * gone * perCell)
      const r = Math.floor(fromY + dy * gone * perCell)
      const here = c < 0 || r < 0 || c >= cols || r >= rows ? 0 : room[r * cols + c]!
      if (here === 0) return false
      // What lies within the room round here or round there need not be looked at.
      if (cells - gone <= here + there - 2) return true
      gone = Math.min(cells, gone + Math.max(0.5, here - 1))
    }
  }
}

/** How many cells off the nearest is that is not whole, or the rim, by two sweeps (chessboard distance transform: Rosenfeld and Pfaltz 1966). */
function roomRound(whole: Uint8Array, cols: number, rows: number): Uint16Array {
  const out = new Uint16Array(whole.length)
  const at = (c: number, r: number) => (c < 0 || r < 0 || c >= cols || r >= rows ? 0 : out[r * cols + c]!)
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < cols; c++)
      if (whole[r * cols + c])
        out[r * cols + c] = 1 + Math.min(at(c - 1, r), at(c - 1, r - 1), at(c, r - 1), at(c + 1, r - 1))
  for (let r = rows - 1; r >= 0; r--)
    for (let c = cols - 1; c >= 0; c--) {
      const k = r * cols + c
      if (whole[k])
        out[k] = Math.min(
          out[k]!,
          1 + Math.min(at(c + 1, r), at(c + 1, r + 1), at(c, r + 1), at(c - 1, r + 1)),
        )
    }
  return out
}
