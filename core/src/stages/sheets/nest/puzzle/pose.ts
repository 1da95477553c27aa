// Where parts of a puzzle lie, and the turns that they may take.
import type { Turns } from '../instance'

/** Where a part lies: its points turned by deg about its origin, then moved, mm. */
export interface Pose {
  part: number
  deg: number
  cos: number
  sin: number
  x: number
  y: number
}

/** A turn so far from one that a part may take is none, degrees. */
const OFF_DEG = 4

export const turn = (deg: number): Pick<Pose, 'deg' | 'cos' | 'sin'> => ({
  deg,
  cos: Math.cos((deg * Math.PI) / 180),
  sin: Math.sin((deg * Math.PI) / 180),
})

/** The turn that a part may take nearest to one, degrees from 0 to 360; null where none is near. */
export function allowed(turns: Turns, deg: number): number | null {
  const round = ((deg % 360) + 360) % 360
  if (turns === 'free') return round
  const near = turns === 'quarter' ? Math.round(round / 90) * 90 : round > 180 ? 360 : 0
  return Math.abs(near - round) <= OFF_DEG ? near % 360 : null
}

/** Where a part within a whole comes to lie when the whole is laid. */
export function within(inner: Pose, { deg, cos, sin, x, y }: Omit<Pose, 'part'>): Pose {
  return {
    part: inner.part,
    ...turn(inner.deg + deg),
    x: cos * inner.x - sin * inner.y + x,
    y: sin * inner.x + cos * inner.y + y,
  }
}
