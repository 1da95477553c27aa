// Where a layer's number can stand unseen: on its card, covered by a layer above or by the frame's lip.
import {
  intersect,
  offset,
  regionBox,
  regionContains,
  simplify,
  subtract,
  union,
  type Point,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { bearsNumber, builtLayers, layerRegion, openingRect, type Project } from '../../../project'

/** Height of a folio number, mm. */
export const NUMBER_MM = 4
/** How much outlines are smoothed before. */
const SLACK_MM = 0.05
/** From the middle of a number to the edge of what hides it, mm. */
export const NUMBER_ROOM_MM = NUMBER_MM / 2 + 0.5

/**
 * The hidden place nearest to the lower right corner that takes a number; null where none does, or where the layer is
 * to bear none. `cover` is all card in front of the layer, where it is known already. Needs the geometry loaded.
 */
export function numberPlace(project: Project, layerId: string, cover?: Region): Point | null {
  const hidden = hiddenPart(project, layerId, cover)
  if (!hidden) return null
  const { own } = hidden
  const room = offset(simplify(hidden.part, SLACK_MM), -NUMBER_ROOM_MM, 'miter')
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

/** The part of a layer that is to bear a number and lies unseen: under card in front of it or the frame's lip. Null where it bears none. */
export function hiddenPart(
  project: Project,
  layerId: string,
  cover?: Region,
): { own: Region; part: Polygon[] } | null {
  const layers = builtLayers(project)
  const at = layers.findIndex((layer) => layer.id === layerId)
  const layer = layers[at]
  if (!layer || !bearsNumber(layer)) return null
  const own = union(layerRegion(layer))
  const above = cover ?? union(...layers.slice(at + 1).map(layerRegion))
  const opening = openingRect(project)
  const underLip: Polygon[] = opening && project.mount.kind === 'frame' ? subtract(own, [opening]) : []
  return { own, part: union(intersect(own, above), underLip) }
}
