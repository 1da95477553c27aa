// The best-fit rule: of all boxes, both ways up, the one that fills the lowest niche of a skyline best goes into it. (Burke,
// Kendall and Whitwell 2004.)
import { HAIR, type Skyline } from './skyline'

/** What boxes measure, both ways up (2 · box + side), gap included, mm; a side that cannot be is larger than any sheet. */
export interface BoxSizes {
  widths: Float64Array
  heights: Float64Array
  areas: Float64Array
  /** A number of each side; sides of one number have the same width and height. */
  kinds: Int32Array
}

/** Lengths that differ by less than this count as a fit. */
const FLUSH_MM = 0.05
/** As well as a box can fit: its width fills the niche, its height meets a wall. */
const BEST_FIT = 3
/** What it takes to search for a niche, and for each box that is looked at, microseconds. */
const NICHE_COST = 0.7
const BOX_COST = 0.012

/** A level stretch of the skyline: where it is, what it holds, and how high the walls at its ends stand over it, mm. */
export class Niche {
  x = 0
  y = 0
  wide = 0
  high = 0
  wallLeft = 0
  wallRight = 0
  // The same as bounds, so that the rule below compares and does nothing else.
  private wideMost = 0
  private highMost = 0
  private flushWide = 0

  /** Reads a segment of the skyline on a sheet of a height. */
  read({ xs, ys, ws, count }: Skyline, segment: number, sheetHigh: number): void {
    this.x = xs[segment]!
    this.y = ys[segment]!
    this.wide = ws[segment]!
    this.high = sheetHigh - this.y
    this.wallLeft = (segment > 0 ? ys[segment - 1]! : sheetHigh) - this.y
    this.wallRight = (segment + 1 < count ? ys[segment + 1]! : sheetHigh) - this.y
    this.wideMost = this.wide + HAIR
    this.highMost = this.high + HAIR
    this.flushWide = this.wide - FLUSH_MM
  }

  /** Against the higher wall, so that the segment that stays is one. */
  get atRight(): boolean {
    return this.wallRight > this.wallLeft
  }

  /** How well a box fills it: 2 for its width, 1 for the height of a wall; −1 where it does not go in. */
  fit(w: number, h: number): number {
    if (w > this.wideMost || h > this.highMost) return -1
    const toLeft = h - this.wallLeft
    const toRight = h - this.wallRight
    const flush = (toLeft < FLUSH_MM && toLeft > -FLUSH_MM) || (toRight < FLUSH_MM && toRight > -FLUSH_MM)
    return (w > this.flushWide ? 2 : 0) + (flush ? 1 : 0)
  }
}

/** Finds the box that fits a niche best. One is made for many calls, so that a call makes nothing. */
export class BestFit {
  /** Place of the box in the list that was searched, and its side (2 · box + side); −1 where none fits. */
  index = -1
  side = 0
  private cost = 0

  constructor(private readonly sizes: BoxSizes) {}

  /** What was searched since it was asked last, in units of `Parts`. */
  takeCost(): number {
    const { cost } = this
    this.cost = 0
    return cost
  }

  /**
   * Looks through the first `left` boxes of a list; of equals the first is taken.
   * @param ups of each box which way up is tried first
   */
  find(
    niche: Niche,
    { rest, left, ups = null }: { rest: Int32Array; left: number; ups?: Uint8Array | null },
  ): void {
    const { widths, heights } = this.sizes
    this.index = -1
    let best = -1
    let i = 0
    for (; i < left && best < BEST_FIT; i++) {
      const box = rest[i]!
      const up = ups ? ups[box]! : 0
      for (let u = 0; u < 2; u++) {
        const side = box * 2 + (u ^ up)
        const fit = niche.fit(widths[side]!, heights[side]!)
        if (fit <= best) continue
        best = fit
        this.index = i
        this.side = side
      }
    }
    this.cost += NICHE_COST + i * BOX_COST
  }
}
