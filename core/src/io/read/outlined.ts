// What outlines alone mean, as cut files are drawn: each closed one is cut, so that one within another is its opening.
import {
  cleanRing,
  facesOf,
  fillRings,
  regionArea,
  ringBox,
  signedArea,
  type Polygon,
  type Region,
  type Ring,
} from '../../base/geometry'
import { chain } from './chain'

/** A line of points, mm. */
interface Line {
  points: Ring
  closed: boolean
}

/** Ends of a line nearer than this (mm) close it. */
const CLOSED_MM = 0.05
/** What agrees so far, mm, is one outline. */
const SAME_MM = 0.05
/** Areas agree within this share. */
const SAME_SHARE = 0.001
/** What holds less, mm², is no outline. */
const SPECK_MM2 = 1e-4

const isClosed = ({ closed, points: p }: Line): boolean =>
  closed || Math.hypot(p[0]! - p[p.length - 2]!, p[1]! - p[p.length - 1]!) < CLOSED_MM

/** Card that an outline holds, and the element that it is of; of lines that were joined, the first. */
export interface Outlined {
  region: Region
  element: number
}

/**
 * Card that outlines hold, mm; `open` is how many of them hold none. Lines that meet end to end are one outline. Where outlines cross, or
 * elements share some of theirs, each element is a piece of its own.
 * @param elements the lines of each element
 */
export function outlined(elements: readonly (readonly Line[])[]): { pieces: Outlined[]; open: number } {
  const loose = elements.flatMap((lines) => lines.filter((line) => !isClosed(line)))
  const chained = chain(loose.map(({ points }) => ({ points: [...points], closed: false })))
  const own = [
    ...elements.map((lines, element) => ({
      element,
      rings: lines.filter(isClosed).map(({ points }) => points),
    })),
    ...chained.rings.map((ring) => ({ element: 0, rings: [ring] })),
  ].filter(({ rings }) => rings.length > 0)
  const together = nested(own.map(({ rings }) => rings))
  const pieces = together
    ? [{ region: together, element: 0 }]
    : own.map(({ element, rings }) => ({ region: fillRings(rings, 'evenodd'), element }))
  return { pieces: pieces.filter(({ region }) => region.length > 0), open: chained.open }
}

/**
 * Outlines as pieces, those within them as their openings: pieces that touch stay two, as they are cut. Null where outlines cross, or
 * elements share some of theirs.
 * @param elements the outlines of each element, mm
 */
export function nested(elements: readonly Ring[][]): Polygon[] | null {
  const rings = withoutRepeats(elements)?.flatMap((ring) => cleanRing(ring) ?? [])
  if (!rings || rings.length === 0) return null
  const faces = facesOf(rings)
  const total = rings.reduce((sum, ring) => sum + Math.abs(signedArea(ring)), 0)
  // Where outlines cross, what they hold by turns is another area than what each of them holds.
  const byTurns = regionArea(fillRings(rings, 'evenodd'))
  return Math.abs(regionArea(faces) - byTurns) <= SAME_SHARE * total ? faces : null
}

/** All rings, those of an element that is drawn again once; null where elements share an outline but not all. */
function withoutRepeats(elements: readonly Ring[][]): Ring[] | null {
  const once = new Map(elements.map((rings) => [keyOf(rings), rings]))
  const all = [...once.values()].flat().filter((ring) => Math.abs(signedArea(ring)) > SPECK_MM2)
  return new Set(all.map((ring) => keyOf([ring]))).size === all.length ? all : null
}

/** Where rings lie and how large they are, as far as outlines of one shape agree. */
const keyOf = (rings: readonly Ring[]): string =>
  rings
    .map((ring) => {
      const { minX, minY, maxX, maxY } = ringBox(ring)
      const side = Math.sqrt(Math.abs(signedArea(ring)))
      return [minX, minY, maxX, maxY, side].map((mm) => Math.round(mm / SAME_MM)).join()
    })
    .toSorted()
    .join(' ')
