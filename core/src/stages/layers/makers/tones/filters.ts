// Filters of a picture of one channel, values 0 to 255 row by row.
import { blur2 } from 'd3-array'

/** Surroundings against which contrast is raised, as a share of the shorter side. */
const SURROUNDINGS = 0.08
/** Steps in grey this high count as edges that a smoothing leaves be. */
const EDGE = 18

/** About a Gaussian blur of a radius in pixels. */
export const blurred = (
  values: Float64Array,
  { width, height }: { width: number; height: number },
  radius: number,
): Float64Array => blur2({ data: Float64Array.from(values), width, height }, radius).data as Float64Array

/** Each value moved away from the mean of its surroundings. */
export function raised(
  values: Float64Array,
  { width: w, height: h }: { width: number; height: number },
  by: number,
): Float64Array {
  const mean = blurred(values, { width: w, height: h }, Math.max(1, Math.min(w, h) * SURROUNDINGS))
  return values.map((v, i) => Math.min(255, Math.max(0, v + by * 2 * (v - mean[i]!))))
}

/** Smoothed within areas and not across edges: the guided filter, guided by the picture itself (He, Sun, Tang 2010). */
export function edgesKept(
  values: Float64Array,
  { width: w, height: h }: { width: number; height: number },
  radius: number,
): Float64Array {
  const r = Math.max(1, radius * 2)
  const mean = blurred(values, { width: w, height: h }, r)
  const square = blurred(
    values.map((v) => v * v),
    { width: w, height: h },
    r,
  )
  const slope = mean.map((m, i) => {
    const spread = Math.max(0, square[i]! - m * m)
    return spread / (spread + EDGE * EDGE)
  })
  const base = mean.map((m, i) => m * (1 - slope[i]!))
  const [a, b] = [blurred(slope, { width: w, height: h }, r), blurred(base, { width: w, height: h }, r)]
  return values.map((v, i) => a[i]! * v + b[i]!)
}
