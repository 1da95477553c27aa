// What shows of each layer from straight ahead: the layer less all that lies above it, inside the opening.
import {
  intersect,
  mapRegion,
  regionArea,
  regionToPath,
  subtract,
  translation,
  union,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { builtLayers, layerRegion, openingRect, paperOf, type Layer, type Project } from '../../../project'

/** How much shows of a layer. */
export interface VisibleArea {
  id: string
  areaMm2: number
  visibleMm2: number
}

/** The same with the outline of what shows. */
export interface Visible extends VisibleArea {
  visiblePath: string
}

/** Clear sheets hide nothing of what is below them. */
export const isSeeThrough = (project: Project, layer: Layer): boolean =>
  paperOf(project, layer)?.finish === 'acetate'

/** Where the eye stands: so many degrees off straight ahead, towards a direction on the picture (0 right, 90 down). */
export interface Slant {
  angleDeg: number
  towardsDeg: number
  /** Upper side of each layer by id, and of the glazing, mm: what lies high moves by height × tan of the angle. */
  heights: ReadonlyMap<string, number>
  openingMm: number
}

/** Visible areas, back to front, straight ahead or from a slant (paths then lie as that eye sees them). Needs the geometry loaded. */
export function shows(project: Project, slant?: Slant): Visible[] {
  const opening = openingRect(project)
  const moved = (region: Region, heightMm: number): Region => {
    if (!slant) return region
    const by = -heightMm * Math.tan((slant.angleDeg * Math.PI) / 180)
    const way = (slant.towardsDeg * Math.PI) / 180
    return mapRegion(translation(by * Math.cos(way), by * Math.sin(way)), region)
  }
  const window: Region | null = opening ? moved([opening], slant?.openingMm ?? 0) : null
  let above: Polygon[] = []
  const layers = builtLayers(project)
  const out: Visible[] = []
  for (const layer of layers.toReversed()) {
    const region = union(moved(layerRegion(layer), slant?.heights.get(layer.id) ?? 0))
    const { areaMm2, seen } = seenOf(region, window, above)
    out.unshift({ id: layer.id, areaMm2, visibleMm2: regionArea(seen), visiblePath: regionToPath(seen) })
    if (!isSeeThrough(project, layer)) above = union(above, region)
  }
  return out
}

/** What is seen of a region (a union) through a window, less what lies in front of it. */
export function seenOf(
  region: Region,
  window: Region | null,
  above: Region,
): { areaMm2: number; seen: Polygon[] } {
  const inside = window ? intersect(region, window) : region
  return { areaMm2: regionArea(region), seen: subtract(inside, above) }
}
