// How wide a shape is at any turn, and at which it fits between four walls.
import { mapRing, rotation } from './affine'
import { boxHeight, boxWidth, ringBox } from './box'
import type { Ring } from './types'

/** How wide a hull is turned by 0 up to 180 degrees, so many looks a degree: two corners that lie farthest go round it (rotating calipers, Shamos 1978). */
export function hullWidths(hull: Ring, aDegree = 1): number[] {
  let [right, left] = [0, 0]
  return Array.from({ length: 180 * aDegree }, (_, k) => {
    const [a, , c] = rotation(k / aDegree)
    right = farthestFrom(right, hull, [a, c])
    left = farthestFrom(left, hull, [-a, -c])
    return a * (hull[right]! - hull[left]!) + c * (hull[right + 1]! - hull[left + 1]!)
  })
}

/** The corner of a hull that lies farthest towards (dx, dy): from any other, it only goes up to there. */
function farthestFrom(start: number, hull: Ring, [dx, dy]: readonly [number, number]): number {
  const n = hull.length
  let at = start
  let reach = dx * hull[at]! + dy * hull[at + 1]!
  for (let step = n - 2; step >= 2;) {
    const next = (at + step) % n
    const further = dx * hull[next]! + dy * hull[next + 1]!
    if (further > reach) {
      at = next
      reach = further
    } else step = step === n - 2 && at === start ? 2 : 0
  }
  return at
}

/** Turns looked at in a degree for one that fits at all, and how often what lies round the best of them is halved. */
const FINE_TURNS = 4
const HALVINGS = 30

/**
 * A turn (0 up to 180 degrees) at which a hull lies within w × h mm, as far from its sides as it may: what fits across the corners of a
 * sheet only. Null where there is none.
 */
export function turnWithin(hull: Ring, w: number, h: number): number | null {
  const widths = hullWidths(hull, FINE_TURNS)
  const n = widths.length
  const over = widths.map((wide, k) => Math.max(wide - w, widths[(k + n / 2) % n]! - h))
  const overAt = (deg: number) => {
    const b = ringBox(mapRing(rotation(deg), hull))
    return Math.max(boxWidth(b) - w, boxHeight(b) - h)
  }
  const lows = [...over.keys()].filter(
    (k) => over[k]! <= over[(k + n - 1) % n]! && over[k]! < over[(k + 1) % n]!,
  )
  let best = { deg: 0, over: Infinity }
  for (const k of lows) {
    let [from, to] = [(k - 1) / FINE_TURNS, (k + 1) / FINE_TURNS]
    for (let i = 0; i < HALVINGS; i++) {
      const [a, b] = [(2 * from + to) / 3, (from + 2 * to) / 3]
      if (overAt(a) < overAt(b)) to = b
      else from = a
    }
    const deg = (from + to) / 2
    const here = overAt(deg)
    if (here < best.over) best = { deg: (deg + 180) % 180, over: here }
  }
  return best.over <= 0 ? best.deg : null
}
