// The one spelling of shapes in project files: absolute M, L, Z, even-odd, mm.
import { cleanRing } from './ring'
import { facesOf, polygonRings } from './region'
import type { Polygon, Region, Ring } from './types'

const round = (v: number): string => String(Math.round(v * 1000) / 1000)

export function ringToPath(ring: Ring): string {
  let d = ''
  for (let i = 0; i < ring.length; i += 2)
    d += `${i === 0 ? 'M' : 'L'}${round(ring[i]!)} ${round(ring[i + 1]!)}`
  return d + 'Z'
}

/** Path data with absolute M, L and Z only, rounded to 0.001 mm. */
export const polygonToPath = (p: Polygon): string => polygonRings(p).map(ringToPath).join('')

export const regionToPath = (region: Region): string => region.map(polygonToPath).join('')

/**
 * Rings of path data made of absolute M, L and Z. Throws a RangeError that names the first other command, so that a
 * damaged project file is refused and not silently bent.
 */
export function pathToRings(d: string): Ring[] {
  const stray = /[^MLZ0-9eE+\-.,\s]/.exec(d)
  if (stray) throw new RangeError(`path data holds “${stray[0]}”; only M, L and Z are used`)
  const rings: Ring[] = []
  for (const sub of d.split('M')) {
    const numbers = sub.match(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi)
    if (!numbers) continue
    const ring = cleanRing(numbers.map(Number))
    if (ring) rings.push(ring)
  }
  return rings
}

/** The faces of path data under the even-odd rule. Rings of one path never cross in a sound project. */
export const pathToRegion = (d: string): Polygon[] => facesOf(pathToRings(d))
