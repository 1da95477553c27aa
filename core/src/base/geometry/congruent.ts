// Whether two outlines are the same shape, moved or turned: what was cut still fits where a layer was only moved.
import { pathToRings } from './path'
import { signedArea } from './ring'
import type { Ring } from './types'

/** Outlines that stray by no more are the same (mm). */
const STRAY_MM = 0.02

/** Whether a shape (path data) is another, moved and turned in its plane; mirrored it is another. */
export const isCongruent = (a: string, b: string): boolean =>
  a === b || areCongruent(pathToRings(a), pathToRings(b))

/** Edits keep the order of corners, but not that of rings: the largest tells the turn, the others are sought. */
function areCongruent(a: readonly Ring[], b: readonly Ring[]): boolean {
  if (a.length !== b.length) return false
  const [first, other] = [largest(a), largest(b)]
  if (!first || !other) return true
  if (first.length !== other.length) return false
  const far = farthestFromFirst(first)
  const angle = (ring: Ring) => Math.atan2(ring[far + 1]! - ring[1]!, ring[far]! - ring[0]!)
  const turn = angle(other) - angle(first)
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)]
  const isOn = (ring: Ring, on: Ring) => {
    if (ring.length !== on.length) return false
    for (let i = 0; i < ring.length; i += 2) {
      const [dx, dy] = [ring[i]! - first[0]!, ring[i + 1]! - first[1]!]
      const x = other[0]! + dx * cos - dy * sin
      const y = other[1]! + dx * sin + dy * cos
      if (Math.hypot(x - on[i]!, y - on[i + 1]!) > STRAY_MM) return false
    }
    return true
  }
  const left = new Set(b)
  return a.every((ring) => {
    for (const on of left) if (isOn(ring, on)) return left.delete(on)
    return false
  })
}

const largest = (rings: readonly Ring[]): Ring | undefined =>
  rings.toSorted((p, q) => Math.abs(signedArea(q)) - Math.abs(signedArea(p)))[0]

/** The place of the corner that is farthest from the first. */
export function farthestFromFirst(ring: Ring): number {
  let [far, most] = [0, -1]
  for (let i = 2; i < ring.length; i += 2) {
    const away = Math.hypot(ring[i]! - ring[0]!, ring[i + 1]! - ring[1]!)
    if (away > most) [far, most] = [i, away]
  }
  return far
}
