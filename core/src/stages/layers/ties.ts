// Strips of card that tie pieces: kept with their layer, so that one can be moved, made wider or taken out again. Lengths in mm.
import {
  offset,
  polygonArea,
  polygonToPath,
  pathToRegion,
  intersect,
  regionArea,
  regionContains,
  subtract,
  union,
  type Point,
  type Region,
} from '../../base/geometry'
import { findLayer, layerRegion, type Layer, type Project, type Tie } from '../../project'
import { stripRegion } from './makers/bridge'
import { reshaped } from './reshaped'

/** A strip as the maker drags it. */
export interface DrawnStrip {
  from: Point
  to: Point
  widthMm: number
}

/** Faces smaller than this come of rounding, mm². */
const CRUMB_MM2 = 0.05
/** So much round what a tie had added goes with it, so that no hair stays where its edge was. */
const HAIR_MM = 0.005

/**
 * Ties of a region by the strips that add card to it: each remembers which. Needs the geometry loaded.
 * @param within where card may be; everywhere where it is not given
 */
export function tiesOf(region: Region, strips: readonly DrawnStrip[], within?: Region): Tie[] {
  return strips.flatMap(({ from, to, widthMm }): Tie[] => {
    const strip = stripRegion(from, to, { widthMm })
    const added = subtract(within ? intersect(strip, within) : strip, region)
    // What lies wholly on card ties nothing.
    if (regionArea(added) < CRUMB_MM2) return []
    return [{ line: [from.x, from.y, to.x, to.y], widthMm, added: added.map(polygonToPath).join('') }]
  })
}

/** Ties of a layer by their places in its list that are still there: card lies all along them. */
export function tiesThere(layer: Layer): number[] {
  const region = layerRegion(layer)
  return layer.ties.flatMap(({ line: [x1, y1, x2, y2] }, i) =>
    ALONG.every((t) => regionContains(region, x1 + (x2 - x1) * t, y1 + (y2 - y1) * t)) ? [i] : [],
  )
}
const ALONG = [0.3, 0.5, 0.7]

/** What ties had added, and a hair round it. */
const addedBy = (ties: readonly Tie[]): Region =>
  union(
    offset(
      ties.flatMap(({ added }) => pathToRegion(added)),
      HAIR_MM,
    ),
  )

/** A layer's region without its ties, so that of ties that cross each remembers all of its own card. */
export const untied = (layer: Layer): Region => subtract(layerRegion(layer), addedBy(layer.ties))

/**
 * Lays a tie anew, or takes it out: what it had added goes, save what another tie needs. Unchanged where there is no such tie, or
 * nothing would be left. Needs the geometry loaded.
 * @param at place in the list of the layer's ties
 * @param to where it is laid instead; null to take it out
 */
export function moveTie(
  project: Project,
  layerId: string,
  { at, to }: { at: number; to: DrawnStrip | null },
): Project {
  const layer = findLayer(project, layerId)
  const tie = layer?.ties[at]
  if (!layer || !tie || layer.blanks.length > 0) return project
  const others = layer.ties.filter((_, i) => i !== at)
  const goes = subtract(addedBy([tie]), addedBy(others))
  const bare = subtract(layerRegion(layer), goes).filter((face) => polygonArea(face) > CRUMB_MM2)
  const laid = to ? tiesOf(untied(layer), [to]) : []
  const region = union(bare, ...(to ? [stripRegion(to.from, to.to, to)] : []))
  if (region.length === 0) return project
  return reshaped(project, layer, { region, ties: [...others.slice(0, at), ...laid, ...others.slice(at)] })
}
