// The thresholds that part a histogram into classes of least spread (multi-level Otsu), exactly: dynamic programming
// over class ends with running sums, after N. Otsu (1979) and P.-S. Liao, T.-S. Chen, P.-C. Chung (2001).

/** Histogram of 256 greys. */
export function histogramOf(greys: ArrayLike<number>): Float64Array {
  const bins = new Float64Array(256)
  for (let i = 0; i < greys.length; i++) bins[greys[i]!]!++
  return bins
}

/**
 * The `classes` − 1 greys, rising, at which classes begin: a grey belongs to the class after a threshold where it is not
 * below it. Empty classes are allowed where there are fewer greys than classes.
 */
export function bestThresholds(histogram: ArrayLike<number>, classes: number): number[] {
  const n = 256
  const count = new Float64Array(n + 1)
  const sum = new Float64Array(n + 1)
  const squares = new Float64Array(n + 1)
  for (let i = 0; i < n; i++) {
    const h = histogram[i]!
    count[i + 1] = count[i]! + h
    sum[i + 1] = sum[i]! + h * i
    squares[i + 1] = squares[i]! + h * i * i
  }
  /** Spread within the greys from a to below b. */
  const spread = (a: number, b: number): number => {
    const c = count[b]! - count[a]!
    if (c === 0) return 0
    const s = sum[b]! - sum[a]!
    return squares[b]! - squares[a]! - (s * s) / c
  }
  let best = Float64Array.from({ length: n + 1 }, (_, b) => spread(0, b))
  const cuts: Int16Array[] = []
  for (let k = 1; k < classes; k++) {
    const next = new Float64Array(n + 1)
    const cut = new Int16Array(n + 1)
    for (let b = 0; b <= n; b++) {
      next[b] = Infinity
      for (let a = 0; a <= b; a++) {
        const cost = best[a]! + spread(a, b)
        if (cost < next[b]! - 1e-9) {
          next[b] = cost
          cut[b] = a
        }
      }
    }
    cuts.push(cut)
    best = next
  }
  const out: number[] = []
  let b = n
  for (let k = classes - 2; k >= 0; k--) {
    b = cuts[k]![b]!
    out.unshift(b)
  }
  return out.map((t) => middleOfGap(histogram, t))
}

/** Any grey between two occupied ones parts them equally well: the middle keeps outlines where they are after a blur. */
function middleOfGap(histogram: ArrayLike<number>, threshold: number): number {
  let below = threshold - 1
  while (below >= 0 && histogram[below]! === 0) below--
  let above = threshold
  while (above < 256 && histogram[above]! === 0) above++
  return below < 0 || above > 255 ? threshold : Math.ceil((below + above) / 2)
}
