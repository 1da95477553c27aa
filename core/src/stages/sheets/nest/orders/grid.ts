// The cells of one sheet. Each cell knows how far its run of free or taken cells goes on to the right, so that a blocked
// place tells at once how far to jump.
import type { Mask } from './mask'

/** Cells of a sheet, free or taken. */
export class SheetGrid {
  readonly cols: number
  readonly rows: number
  /** Per cell: +n, n free cells from here on; −n, n taken cells from here on. */
  private readonly run: Int16Array

  constructor(cols: number, rows: number) {
    this.cols = cols
    this.rows = rows
    this.run = new Int16Array(cols * rows)
    for (let y = 0; y < rows; y++) for (let x = 0; x < cols; x++) this.run[y * cols + x] = cols - x
  }

  /** Whether nothing was taken yet. */
  isUntouched = true

  copy(): SheetGrid {
    const other = new SheetGrid(0, 0)
    return Object.assign(other, {
      cols: this.cols,
      rows: this.rows,
      run: this.run.slice(),
      isUntouched: this.isUntouched,
    })
  }

  /** The lowest, then leftmost place where the mask fits, with 0 ≤ x ≤ maxX and fromY ≤ y ≤ maxY; −1 for none. Packed as y · cols + x. */
  findPlace(mask: Mask, { maxX, maxY, fromY = 0 }: { maxX: number; maxY: number; fromY?: number }): number {
    const { cols, run } = this
    const { start, runs, order } = mask
    const count = order.length
    for (let y = fromY; y <= maxY; y++) {
      let x = 0
      search: while (x <= maxX) {
        for (let k = 0; k < count; k++) {
          const r = order[k]!
          const base = (y + r) * cols
          const end = start[r + 1]!
          for (let i = start[r]!; i < end; i += 2) {
            const from = x + runs[i]!
            const v = run[base + from]!
            if (v < 0) {
              x -= v
              continue search
            }
            if (v < runs[i + 1]! - runs[i]! + 1) {
              // Free for v cells, then taken: the run must start behind what is taken.
              x += v - run[base + from + v]!
              continue search
            }
          }
        }
        return y * cols + x
      }
    }
    return -1
  }

  /** Takes the mask's cells at a place. Cells outside the sheet are passed over. */
  take(mask: Mask, x: number, y: number): void {
    const { cols, rows, run } = this
    this.isUntouched = false
    for (let r = 0; r < mask.rows; r++) {
      if (y + r < 0 || y + r >= rows) continue
      const base = (y + r) * cols
      for (let i = mask.start[r]!; i < mask.start[r + 1]!; i += 2) {
        const from = Math.max(0, x + mask.runs[i]!)
        const to = Math.min(cols - 1, x + mask.runs[i + 1]!)
        for (let c = from; c <= to; c++) run[base + c] = -1
      }
      for (let c = cols - 2; c >= 0; c--) {
        const here = run[base + c]!
        const next = run[base + c + 1]!
        run[base + c] = here < 0 ? (next < 0 ? next - 1 : -1) : next > 0 ? next + 1 : 1
      }
      if (run[base + cols - 1]! < 0) run[base + cols - 1] = -1
    }
  }
}
