// How far an outline reaches to either side, strip by strip across it: two outlines that come together along an axis touch first where
// these come nearest.
import type { Ring } from '../../../../base/geometry'

/** Of each strip across an axis, from the first on: how far the outline reaches back and forth along the axis, mm. */
export interface Profile {
  first: number
  near: Float64Array
  far: Float64Array
}

/** The profile of a ring along x, by strips of y, or along y, by strips of x. Where an edge passes through a strip, all of it in there counts. */
export function profileOf(ring: Ring, along: 'x' | 'y', stripMm: number): Profile {
  const [u, v] = along === 'x' ? [0, 1] : [1, 0]
  let [low, high] = [Infinity, -Infinity]
  for (let i = v; i < ring.length; i += 2) {
    low = Math.min(low, ring[i]!)
    high = Math.max(high, ring[i]!)
  }
  const first = Math.floor(low / stripMm)
  const count = Math.floor(high / stripMm) - first + 1
  const near = new Float64Array(count).fill(Infinity)
  const far = new Float64Array(count).fill(-Infinity)
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const back = ring[j + v]! > ring[i + v]!
    const [from, to] = back ? [i, j] : [j, i]
    const [across1, across2] = [ring[from + v]!, ring[to + v]!]
    const [along1, along2] = [ring[from + u]!, ring[to + u]!]
    const slope = across2 > across1 ? (along2 - along1) / (across2 - across1) : 0
    const last = Math.floor(across2 / stripMm)
    for (let k = Math.floor(across1 / stripMm); k <= last; k++) {
      const a = along1 + slope * (Math.max(across1, k * stripMm) - across1)
      const b = across2 > across1 ? along1 + slope * (Math.min(across2, (k + 1) * stripMm) - across1) : along2
      near[k - first] = Math.min(near[k - first]!, a, b)
      far[k - first] = Math.max(far[k - first]!, a, b)
    }
  }
  return { first, near, far }
}

/** How far `b`, moved across by so many strips, must be moved along to lie behind `a`; −Infinity where they pass each other. */
export function behind(a: Profile, b: Profile, strips: number): number {
  const offset = a.first - b.first - strips
  const from = Math.max(0, -offset)
  const to = Math.min(a.far.length, b.near.length - offset)
  let most = -Infinity
  for (let i = from; i < to; i++) {
    const way = a.far[i]! - b.near[i + offset]!
    if (way > most) most = way
  }
  return most
}
