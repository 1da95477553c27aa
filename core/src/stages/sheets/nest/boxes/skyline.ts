// The skyline of boxes that are laid one upon the other.

/** Room is given this much, mm, so that sums of lengths that are equal on paper are equal here. */
export const HAIR = 1e-7

/** The upper edge of what is laid, as level stretches from left to right. */
export class Skyline {
  count = 0
  readonly xs: Float64Array
  readonly ys: Float64Array
  readonly ws: Float64Array

  constructor(boxes: number) {
    this.xs = new Float64Array(boxes + 2)
    this.ys = new Float64Array(boxes + 2)
    this.ws = new Float64Array(boxes + 2)
  }

  clear(width: number): void {
    this.count = 1
    this.xs[0] = 0
    this.ys[0] = 0
    this.ws[0] = width
  }

  copy(other: Skyline): void {
    const { count } = other
    this.count = count
    for (let i = 0; i < count; i++) {
      this.xs[i] = other.xs[i]!
      this.ys[i] = other.ys[i]!
      this.ws[i] = other.ws[i]!
    }
  }

  lowest(): number {
    const { ys, count } = this
    let segment = 0
    let least = ys[0]!
    for (let i = 1; i < count; i++)
      if (ys[i]! < least - HAIR) {
        segment = i
        least = ys[i]!
      }
    return segment
  }

  /** Gives a segment that nothing fits up, as high as its lower wall. False where it is the whole width. */
  fill(segment: number): boolean {
    const { ys, count } = this
    if (count === 1) return false
    ys[segment] = Math.min(
      segment > 0 ? ys[segment - 1]! : Infinity,
      segment + 1 < count ? ys[segment + 1]! : Infinity,
    )
    this.join(segment)
    return true
  }

  /** Lifts one end of a segment over a width to a height. */
  raise(segment: number, { w, top, atRight }: { w: number; top: number; atRight: boolean }): void {
    const { xs, ys, ws } = this
    const rest = ws[segment]! - w
    if (rest <= HAIR) {
      ys[segment] = top
      this.join(segment)
      return
    }
    for (let i = this.count++; i > segment; i--) {
      xs[i] = xs[i - 1]!
      ys[i] = ys[i - 1]!
      ws[i] = ws[i - 1]!
    }
    const high = atRight ? segment + 1 : segment
    const low = atRight ? segment : segment + 1
    xs[segment + 1] = xs[segment]! + (atRight ? rest : w)
    ws[low] = rest
    ws[high] = w
    ys[high] = top
    this.join(high)
  }

  /** A stretch and its neighbours of one height are one. */
  private join(at: number): void {
    const { xs, ys, ws } = this
    for (let m = at + 1; m >= at; m--) {
      if (m < 1 || m >= this.count || Math.abs(ys[m]! - ys[m - 1]!) >= HAIR) continue
      ws[m - 1] = ws[m - 1]! + ws[m]!
      this.count--
      for (let i = m; i < this.count; i++) {
        xs[i] = xs[i + 1]!
        ys[i] = ys[i + 1]!
        ws[i] = ws[i + 1]!
      }
    }
  }
}
