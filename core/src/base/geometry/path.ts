// The one spelling of shapes in project files: absolute M, L, Z, even-odd, mm.
import { cleanRing } from './ring'
import { facesOf, polygonRings } from './region'
import type { Polygon, Region, Ring } from './types'

const round = (v: number): string => String(Math.round(v * 1000) / 1000)

/** A ring as path data of M, L and Z, mm to a thousandth. */
export function ringToPath(ring: Ring): string {
  let d = ''
  for (let i = 0; i < ring.length; i += 2)
    d += `${i === 0 ? 'M' : 'L'}${round(ring[i]!)} ${round(ring[i + 1]!)}`
  return d + 'Z'
}

/** Path data with absolute M, L and Z only, rounded to 0.001 mm. */
export const polygonToPath = (p: Polygon): string => polygonRings(p).map(ringToPath).join('')

/** A region as path data: to be filled by the even-odd rule. */
export const regionToPath = (region: Region): string => region.map(polygonToPath).join('')

/**
 * Rings of path data made of absolute M, L and Z. Throws a RangeError that names the first other command, so that a
 * damaged project file is refused and not silently bent. Rings of fewer than three different points are left out.
 */
export function pathToRings(d: string): Ring[] {
  const stray = /[^MLZ0-9eE+\-.,\s]/.exec(d)
  if (stray) throw new RangeError(`path data holds “${stray[0]}”; only M, L and Z are used`)
  const rings: Ring[] = []
  let numbers: number[] = []
  const close = () => {
    const ring = numbers.length >= 6 ? cleanRing(numbers) : null
    if (ring) rings.push(ring)
    numbers = []
  }
  for (let i = 0; i < d.length;) {
    const c = d.charCodeAt(i)
    if (c === M) close()
    if (!startsNumber(c)) {
      i++
      continue
    }
    const end = endOfNumber(d, i)
    const value = Number(d.slice(i, end))
    if (!Number.isNaN(value)) numbers.push(value)
    i = end
  }
  close()
  return rings
}

const [M, PLUS, MINUS, POINT, NOUGHT, NINE, E, SMALL_E] = [...'M+-.09Ee'].map((sign) =>
  sign.charCodeAt(0),
) as [number, number, number, number, number, number, number, number]

const isDigit = (c: number): boolean => c >= NOUGHT && c <= NINE
const isSign = (c: number): boolean => c === PLUS || c === MINUS
const startsNumber = (c: number): boolean => isDigit(c) || isSign(c) || c === POINT

/** Where a number that starts at a place ends: a sign begins the next one unless it stands behind an exponent. */
function endOfNumber(d: string, start: number): number {
  let i = start + 1
  let points = d.charCodeAt(start) === POINT ? 1 : 0
  for (; i < d.length; i++) {
    const c = d.charCodeAt(i)
    if (isDigit(c)) continue
    if (c === POINT && points === 0) points++
    else if (c === E || c === SMALL_E) points = 1
    else if (!isSign(c) || !'eE'.includes(d[i - 1]!)) break
  }
  return i
}

/** The faces of path data under the even-odd rule. Rings of one path never cross in a sound project. */
export const pathToRegion = (d: string): Polygon[] => facesOf(pathToRings(d))
