// Where a layer's number can stand unseen: on its card, covered by a layer above or by the frame's lip.
import {
  intersect,
  offset,
  offsetPlain,
  regionBox,
  regionContains,
  subtract,
  union,
  type Point,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import {
  backingRect,
  bearsNumber,
  builtLayers,
  isOnPane,
  layerRegion,
  openingRect,
  paperOf,
  type Layer,
  type Project,
} from '../../../project'

/** Height of a folio number, mm. */
export const NUMBER_MM = 4
/** How much outlines are smoothed before. */
const SLACK_MM = 0.05
const BEYOND_MM = 100
/** From the middle of a number to the edge of what hides it, mm. */
export const NUMBER_ROOM_MM = NUMBER_MM / 2 + 0.5

/**
 * The hidden place nearest to the lower right corner of a layer that takes its number; null where none does.
 * @param hidden where the number may stand
 */
export function numberPlace(own: Region, hidden: Region): Point | null {
  const room = offsetPlain(hidden, -NUMBER_ROOM_MM, { toleranceMm: SLACK_MM, join: 'miter' })
  if (room.length === 0) return null
  const b = regionBox(own)
  let best: Point | null = null
  let least = Infinity
  const box = regionBox(room)
  const step = Math.max(0.8, (box.maxX - box.minX) / 90)
  for (let x = box.maxX - step / 4; x > box.minX; x -= step)
    for (let y = box.maxY - step / 4; y > box.minY; y -= step) {
      const away = Math.hypot(b.maxX - x, b.maxY - y)
      if (away < least && regionContains(room, x, y)) {
        least = away
        best = { x, y }
      }
    }
  return best
}

/**
 * The part of a layer that is to bear a number and lies unseen, from aside too. Null where it bears none.
 * @param cover what is hidden under all in front of the layer, where it is known already
 */
export function hiddenPart(project: Project, layerId: string, cover?: Region): Polygon[] | null {
  const layer = builtLayers(project).find((one) => one.id === layerId)
  if (!layer || !bearsNumber(layer)) return null
  return intersect(union(layerRegion(layer)), cover ?? hiddenUnderAll(project, layerId))
}

/** What hides a layer: every layer in front of it, from the front, and the frame's lip. */
function hiddenUnderAll(project: Project, layerId: string): Region {
  const layers = builtLayers(project)
  let hidden: Region | null = null
  for (const layer of layers.slice(layers.findIndex((one) => one.id === layerId) + 1).toReversed())
    hidden = hiddenUnder(project, layer, hidden)
  return hidden ?? hiddenByLip(project)
}

/**
 * What lies right under a layer and cannot be seen from any side, up to the angle of the plan: a place is hidden where all
 * that a slanted eye may look through at the layer's height is its card, or is hidden there by what is in front of it.
 * @param above the same of the layer in front; null where none is
 */
export function hiddenUnder(project: Project, layer: Layer, above: Region | null): Polygon[] {
  const higher = above ?? hiddenByLip(project)
  // Far in front of the stack, what is on the pane hides nothing from aside.
  const cover =
    letsLight(project, layer) || isOnPane(layer) ? union(higher) : union(higher, layerRegion(layer))
  const gapMm = layer.joint.kind === 'foam' ? layer.joint.gapMm : 0
  return gapMm > 0 ? offsetPlain(cover, -gapMm * slope(project), { toleranceMm: SLACK_MM }) : cover
}

/** What a frame's lip or mat hides of the foremost layer. */
export function hiddenByLip(project: Project): Polygon[] {
  const opening = openingRect(project)
  const backing = backingRect(project)
  if (project.mount.kind !== 'frame' || !opening || !backing) return []
  // Beyond the backing the frame goes on: there nothing is seen from any side.
  const frame = offset([backing], BEYOND_MM, 'miter')
  return offset(subtract(frame, [opening]), -project.mount.clearanceMm * slope(project))
}

const slope = ({ plan }: Project): number => Math.tan((plan.viewingDeg * Math.PI) / 180)

/** A number is read through clear sheets and vellum. */
function letsLight(project: Project, layer: Layer): boolean {
  const finish = paperOf(project, layer)?.finish
  return finish === 'acetate' || finish === 'vellum'
}
