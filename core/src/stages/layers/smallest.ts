// How far a design can be made smaller before something of it does not survive: the third limit, beside opening and sheet.
import { boxHeight, boxWidth, offset, offsetPlain, ringBox, simplify, type Region } from '../../base/geometry'
import { layerRegion, safeStripOf, type Layer, type Project } from '../../project'
import { NUMBER_ROOM_MM } from './marks/number-place'
import { narrowestStrip } from './soundness/necks'

/** What keeps a layer from being made smaller still. */
export interface Smallest {
  layerId: string
  /** Factor on the size that it has now. */
  scale: number
  limit: 'strip' | 'opening' | 'number'
  /** The measure that sets the limit as it is now, and what it may not fall under, mm. */
  nowMm: number
  leastMm: number
}

/** An opening less across than this cannot be weeded any more, mm. */
const OPENING_LEAST_MM = 1
/** Strips wider than so many safe ones set no limit that anyone reaches. */
const WIDEST = 4
/** How much what hides a number is smoothed before, mm. */
const SLACK_MM = 0.1
/** Numbers find room until the design is so small. */
const DEEPEST = 20

/** The tighter of limits; null where there is none. */
export const tightest = (limits: readonly (Smallest | null)[]): Smallest | null =>
  limits.reduce<Smallest | null>(
    (most, one) => (!one || (most && most.scale >= one.scale) ? most : one),
    null,
  )

/** What the shape of one layer alone allows; null where nothing of it sets a limit. */
export function shapeLimit(project: Project, layer: Layer): Smallest | null {
  const region = layerRegion(layer)
  const safeMm = safeStripOf(project, layer)
  const strip = narrowestStrip(region, safeMm, safeMm * WIDEST)
  const across = region
    .flatMap((face) => face.holes)
    .map(ringBox)
    .map((b) => Math.max(boxWidth(b), boxHeight(b)))
    .reduce((a, b) => Math.min(a, b), Infinity)
  return tightest([
    strip ? limitOf(layer.id, 'strip', { nowMm: strip, leastMm: safeMm }) : null,
    across < Infinity ? limitOf(layer.id, 'opening', { nowMm: across, leastMm: OPENING_LEAST_MM }) : null,
  ])
}

/**
 * What the number of a layer allows, where that is less than another limit does: its place may not become too small for it.
 * @param hidden where the number may stand; null where the layer bears none
 * @param known the tightest limit of shapes
 */
export function numberLimit(layerId: string, hidden: Region | null, known: Smallest | null): Smallest | null {
  if (!hidden) return null
  const smooth = simplify(hidden, SLACK_MM)
  const takes = (mm: number) => offset(smooth, -mm, 'miter').length > 0
  let high = Math.min(NUMBER_ROOM_MM * DEEPEST, known ? NUMBER_ROOM_MM / known.scale : Infinity)
  let low = NUMBER_ROOM_MM
  // A layer whose number finds no place now does not ask for one.
  if (high <= low || surely(hidden, high) || takes(high) || !takes(low)) return null
  for (let k = 0; k < 7; k++) {
    const mid = (low + high) / 2
    if (takes(mid)) low = mid
    else high = mid
  }
  return limitOf(layerId, 'number', { nowMm: low, leastMm: NUMBER_ROOM_MM })
}

/** Whether a region surely has room for a disc of a radius (mm), told by an outline smoothed by a tenth of it. */
const surely = (region: Region, mm: number): boolean =>
  offsetPlain(region, -mm * 1.1, { toleranceMm: mm / 10, join: 'miter' }).length > 0

const limitOf = (
  layerId: string,
  limit: Smallest['limit'],
  { nowMm, leastMm }: { nowMm: number; leastMm: number },
): Smallest => ({
  layerId,
  scale: leastMm / nowMm,
  limit,
  nowMm,
  leastMm,
})
