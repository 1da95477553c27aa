// How long a tool takes over its ways: it gathers speed and brakes, slows at bends, stops at points, and is lifted between ways.
// Look-ahead in two passes, as controllers of plotters do it (trapezoidal speed profile).

/** How a machine moves. Lengths in mm, times in s. */
export interface Pace {
  speedMmPerS: number
  /** Between ways, the tool lifted. */
  travelMmPerS: number
  accelMmPerS2: number
  /** Lost at each point. */
  cornerS: number
  /** To lift the tool and put it down again. */
  liftS: number
}

/** At a turn of so much or more (radians) the tool stops; below it goes round the more slowly the sharper it is. */
const STOP = Math.PI / 3
/** Turns sharper than this are points, at which time is lost. */
const POINT = Math.PI / 6

/** Seconds for one pass over all ways, from the sheet's lower left corner and back to it. `heightMm` is the sheet's. */
export function toolSeconds(ways: readonly Float64Array[], pace: Pace, heightMm: number): number {
  let [x, y] = [0, heightMm]
  let seconds = 0
  for (const way of ways) {
    seconds +=
      pace.liftS + straight(Math.hypot(way[0]! - x, way[1]! - y), pace.travelMmPerS, pace.accelMmPerS2)
    seconds += waySeconds(way, pace)
    x = way.at(-2)!
    y = way.at(-1)!
  }
  return seconds + pace.liftS + straight(Math.hypot(x, heightMm - y), pace.travelMmPerS, pace.accelMmPerS2)
}

/** A straight move from rest to rest. */
function straight(mm: number, speed: number, accel: number): number {
  const ramp = (speed * speed) / accel
  return mm >= ramp ? mm / speed + speed / accel : 2 * Math.sqrt(mm / accel)
}

function waySeconds(way: Float64Array, { speedMmPerS: top, accelMmPerS2: accel, cornerS }: Pace): number {
  const n = way.length / 2
  if (n < 2) return 0
  const long = new Float64Array(n - 1)
  for (let k = 0; k < n - 1; k++)
    long[k] = Math.hypot(way[2 * k + 2]! - way[2 * k]!, way[2 * k + 3]! - way[2 * k + 1]!)
  /** Speed at each corner, at the most. */
  const speed = new Float64Array(n)
  let seconds = 0
  for (let k = 1; k < n - 1; k++) {
    const turn = turnOf(way, k)
    speed[k] = turn >= STOP ? 0 : top * (1 - turn / STOP)
    if (turn > POINT) seconds += cornerS
  }
  for (let k = 1; k < n; k++)
    speed[k] = Math.min(speed[k]!, Math.sqrt(speed[k - 1]! ** 2 + 2 * accel * long[k - 1]!))
  for (let k = n - 2; k >= 0; k--)
    speed[k] = Math.min(speed[k]!, Math.sqrt(speed[k + 1]! ** 2 + 2 * accel * long[k]!))
  for (let k = 0; k < n - 1; k++) seconds += between(speed[k]!, speed[k + 1]!, { mm: long[k]!, top, accel })
  return seconds
}

/** From one speed to another over a stretch: up to the top speed, along at it, down again. */
function between(
  from: number,
  to: number,
  { mm, top, accel }: { mm: number; top: number; accel: number },
): number {
  if (mm === 0) return 0
  const peak = Math.min(top, Math.sqrt((from * from + to * to) / 2 + accel * mm))
  const ramps = (2 * peak * peak - from * from - to * to) / (2 * accel)
  return (2 * peak - from - to) / accel + Math.max(0, mm - ramps) / (peak || 1)
}

function turnOf(way: Float64Array, k: number): number {
  const [ax, ay] = [way[2 * k]! - way[2 * k - 2]!, way[2 * k + 1]! - way[2 * k - 1]!]
  const [bx, by] = [way[2 * k + 2]! - way[2 * k]!, way[2 * k + 3]! - way[2 * k + 1]!]
  return Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by))
}
