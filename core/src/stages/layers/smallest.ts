// How far a design can be made smaller before something of it does not survive: the third limit, beside opening and sheet.
import { boxHeight, boxWidth, offset, ringBox, simplify, type Region } from '../../base/geometry'
import { layerRegion, paperOf, safeStripMm, type Layer, type Project } from '../../project'
import { hiddenPart, NUMBER_ROOM_MM } from './marks/number-place'
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

/** Of one layer; null where nothing of it sets a limit. `cover` is what is hidden under all in front of it. Needs the geometry loaded. */
export function smallestOf(project: Project, layer: Layer, cover: Region): Smallest | null {
  const region = layerRegion(layer)
  const safeMm = safeStripMm(paperOf(project, layer))
  const limits: Smallest[] = []
  const add = (limit: Smallest['limit'], nowMm: number, leastMm: number) =>
    limits.push({ layerId: layer.id, scale: leastMm / nowMm, limit, nowMm, leastMm })
  const strip = narrowestStrip(region, safeMm, safeMm * WIDEST)
  if (strip) add('strip', strip, safeMm)
  const across = region
    .flatMap((face) => face.holes)
    .map(ringBox)
    .map((b) => Math.max(boxWidth(b), boxHeight(b)))
  if (across.length > 0)
    add(
      'opening',
      across.reduce((a, b) => Math.min(a, b)),
      OPENING_LEAST_MM,
    )
  const hidden = hiddenPart(project, layer.id, cover)
  const deep = hidden ? deepest(hidden.part) : 0
  // A layer whose number finds no place now does not ask for one.
  if (deep >= NUMBER_ROOM_MM) add('number', deep, NUMBER_ROOM_MM)
  return limits.reduce<Smallest | null>((most, one) => (most && most.scale >= one.scale ? most : one), null)
}

/** How far a region can be shrunk before nothing is left, mm. */
function deepest(region: Region): number {
  const smooth = simplify(region, SLACK_MM)
  let [low, high] = [0, NUMBER_ROOM_MM * DEEPEST]
  for (let k = 0; k < 7; k++) {
    const mid = (low + high) / 2
    if (offset(smooth, -mid, 'miter').length > 0) low = mid
    else high = mid
  }
  return low
}
