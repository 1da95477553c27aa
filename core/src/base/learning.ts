// What a row of observations says of an estimate: robust, and careful while they are few.

/** A time that was estimated and then measured, minutes. */
export interface Measured {
  oursMin: number
  minutes: number
  /** Whether it counts however far off it is: yes, no, or null where nobody said. */
  counts: boolean | null
}

/** What was learned of one kind of work. */
export interface Learned<T extends Measured = Measured> {
  /** Observations that count. */
  n: number
  /** Measured over estimated: the middle, and the middle half. */
  median: number
  low: number
  high: number
  /** What to multiply an estimate of ours with: the median, drawn towards what was believed before as if that had been seen SHRINK times. */
  factor: number
  /** Far from all others: left out until the maker says that they count. */
  odd: T[]
}

/** What was believed before counts as so many observations. */
export const SHRINK = 3
/** A time so many times longer or shorter than the estimate is odd by itself. */
const FAR = 5
/** Of this many or more, one that is so many (robust) deviations from the middle is odd too, if it is at least twice or half of it. */
const MANY = 5
const DEVIATIONS = 3
/** The median of absolute deviations times this estimates a standard deviation of normal errors. */
const TO_SIGMA = 1.4826

/**
 * The factor of some observations (median of logarithms of their ratios, shrunk), with how many it rests on and how wide they spread.
 * @param before the factor that was believed before: 1 for our own values
 */
export function learn<T extends Measured>(seen: readonly T[], before = 1): Learned<T> {
  const usable = seen.filter(({ oursMin, minutes }) => oursMin > 0 && minutes > 0)
  const said = usable.filter(({ counts }) => counts !== false)
  const logOf = ({ minutes, oursMin }: T) => Math.log(minutes / oursMin)
  const near = said.filter((one) => one.counts === true || Math.abs(logOf(one)) <= Math.log(FAR))
  const middle = quantile(near.map(logOf), 0.5)
  const sigma =
    TO_SIGMA *
    quantile(
      near.map((one) => Math.abs(logOf(one) - middle)),
      0.5,
    )
  const isOdd = (one: T) =>
    one.counts !== true &&
    near.length >= MANY &&
    Math.abs(logOf(one) - middle) > Math.max(Math.log(2), DEVIATIONS * sigma)
  const good = near.filter((one) => !isOdd(one))
  const logs = good.map(logOf)
  const n = logs.length
  const found = quantile(logs, 0.5)
  return {
    n,
    median: n === 0 ? before : Math.exp(found),
    low: n === 0 ? before : Math.exp(quantile(logs, 0.25)),
    high: n === 0 ? before : Math.exp(quantile(logs, 0.75)),
    factor: Math.exp((n * found + SHRINK * Math.log(before)) / (n + SHRINK)),
    odd: said.filter((one) => !good.includes(one)),
  }
}

/** A quantile (share 0 to 1) of numbers in their unit, between two of them in proportion; 0 of none. */
export function quantile(values: readonly number[], share: number): number {
  if (values.length === 0) return 0
  const sorted = values.toSorted((a, b) => a - b)
  const at = share * (sorted.length - 1)
  const below = Math.floor(at)
  const above = Math.min(sorted.length - 1, below + 1)
  return sorted[below]! + (at - below) * (sorted[above]! - sorted[below]!)
}

/**
 * How many times the first one's time a batch of n takes, where hands get quicker (Wright's law).
 * @param rate share of the time that one takes each time twice as many have been made
 */
export function batchTimes(n: number, rate: number): number {
  const exponent = Math.log2(rate)
  let sum = 0
  for (let k = 1; k <= n; k++) sum += k ** exponent
  return sum
}
