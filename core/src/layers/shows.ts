// What shows of each layer from straight ahead: the layer less all that lies above it, inside the opening.
import { intersect, regionArea, regionToPath, subtract, union, type Polygon, type Region } from '../geometry'
import { builtLayers, layerRegion, openingRect, paperOf, type Layer, type Project } from '../project'

export interface Visible {
  id: string
  areaMm2: number
  visibleMm2: number
  visiblePath: string
}

/** Clear sheets hide nothing of what is below them. */
export const isSeeThrough = (project: Project, layer: Layer): boolean => paperOf(project, layer)?.finish === 'acetate'

/** Visible areas, back to front. Needs the geometry loaded. */
export function shows(project: Project): Visible[] {
  const opening = openingRect(project)
  const window: Region | null = opening ? [opening] : null
  let above: Polygon[] = []
  const layers = builtLayers(project)
  const out: Visible[] = []
  for (const layer of layers.toReversed()) {
    const region = union(layerRegion(layer))
    const inside = window ? intersect(region, window) : region
    const seen = subtract(inside, above)
    out.unshift({ id: layer.id, areaMm2: regionArea(region), visibleMm2: regionArea(seen), visiblePath: regionToPath(seen) })
    if (!isSeeThrough(project, layer)) above = union(above, region)
  }
  return out
}
