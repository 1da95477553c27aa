// The cells of one sheet. Each cell knows how far its run of free or taken cells goes on to the right, so that a blocked
// place tells at once how far to jump.
import type { Mask } from './mask'

/** Looks at runs of cells, counted. */
export interface Tally {
  looks: number
}

/** Cells of a sheet, free or taken. */
export class SheetGrid {
  readonly cols: number
  readonly rows: number
  /** Per cell: +n, n free cells from here on; −n, n taken cells from here on. */
  private readonly run: Int16Array
  /** Per row: the most free cells side by side. */
  private readonly widest: Int16Array
  /** Cells that are free. */
  free: number

  constructor(
    cols: number,
    rows: number,
    private readonly tally: Tally = { looks: 0 },
  ) {
    this.cols = cols
    this.rows = rows
    this.free = cols * rows
    this.run = new Int16Array(cols * rows)
    this.widest = new Int16Array(rows).fill(cols)
    for (let x = 0; x < cols; x++) this.run[x] = cols - x
    for (let y = 1; y < rows; y++) this.run.copyWithin(y * cols, 0, cols)
  }

  /** Whether nothing was taken yet. */
  get isUntouched(): boolean {
    return this.free === this.cols * this.rows
  }

  copy(): SheetGrid {
    const { cols, rows, free } = this
    return Object.assign(new SheetGrid(0, 0, this.tally), {
      cols,
      rows,
      free,
      run: this.run.slice(),
      widest: this.widest.slice(),
    })
  }

  /** The lowest, then leftmost place where the mask fits, with 0 ≤ x ≤ maxX and fromY ≤ y ≤ maxY; −1 for none. Packed as y · cols + x. */
  findPlace(mask: Mask, { maxX, maxY, fromY = 0 }: { maxX: number; maxY: number; fromY?: number }): number {
    const { cols, run, widest } = this
    const { start, runs, order, longest } = mask
    const count = order.length
    const longestRow = order[0]!
    let looks = 0
    for (let y = fromY; y <= maxY; y++) {
      if (widest[y + longestRow]! < longest) continue
      let x = 0
      search: while (x <= maxX) {
        for (let k = 0; k < count; k++) {
          const r = order[k]!
          const base = (y + r) * cols
          const end = start[r + 1]!
          for (let i = start[r]!; i < end; i += 2) {
            looks++
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
        this.tally.looks += looks
        return y * cols + x
      }
    }
    this.tally.looks += looks + maxY
    return -1
  }

  /** Takes the mask's cells at a place. Cells outside the sheet are passed over. */
  take(mask: Mask, x: number, y: number): void {
    const { cols, rows } = this
    for (let r = 0; r < mask.rows; r++) {
      if (y + r < 0 || y + r >= rows) continue
      for (let i = mask.start[r]!; i < mask.start[r + 1]!; i += 2)
        this.takeRun(y + r, Math.max(0, x + mask.runs[i]!), Math.min(cols - 1, x + mask.runs[i + 1]!))
      this.measureRow(y + r)
    }
  }

  /** Takes cells of a row; what lies left of them goes on less far, or farther. */
  private takeRun(y: number, from: number, to: number): void {
    if (from > to) return
    const { cols, run } = this
    const base = y * cols
    let taken = to + 1 < cols ? Math.min(run[base + to + 1]!, 0) : 0
    let k = base + to
    for (; k >= base + from; k--) {
      if (run[k]! > 0) this.free--
      run[k] = --taken
    }
    for (; k >= base && run[k]! < 0; k--) run[k] = --taken
    // Beyond cells that were taken before nothing changes.
    if (k !== base + from - 1) return
    for (let free = 0; k >= base && run[k]! > 0; k--) run[k] = ++free
  }

  /** Measures anew how far the widest run of a row goes, from run to run. */
  private measureRow(y: number): void {
    const { cols, run } = this
    let widest = 0
    for (let k = y * cols; k < (y + 1) * cols;) {
      const v = run[k]!
      if (v > widest) widest = v
      k += Math.abs(v)
    }
    this.widest[y] = widest
  }
}
