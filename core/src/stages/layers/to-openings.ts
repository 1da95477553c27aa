// Layers that stand for openings: many drawings show a window as a shape of white, or of whatever colour lies behind.
import { intersect, polygonArea, regionArea, subtract, type Polygon } from '../../base/geometry'
import { designLayers, findLayer, layerRegion, removeLayer, type Layer, type Project } from '../../project'
import { reshaped } from './reshaped'

/** How far openings go: through what is seen right under them, place by place, or through all that is behind. */
export type Through = 'next' | 'all'

/** Less than this (mm²) comes of rounding. */
const CRUMB_MM2 = 0.05

/**
 * The project with openings of a layer's shape in what lies behind it, and without the layer. A layer of which nothing would be left stays
 * whole; so does the project where nothing lies behind. Needs the geometry loaded.
 */
export function toOpenings(project: Project, { byId, through }: { byId: string; through: Through }): Project {
  const by = findLayer(project, byId)
  if (!by) return project
  const built = designLayers(project)
  let shape: readonly Polygon[] = layerRegion(by)
  let next = project
  for (const layer of built.slice(0, Math.max(0, built.indexOf(by))).toReversed()) {
    if (layer.blanks.length > 0) continue
    const rest = restOf(layer, shape)
    if (rest === null) continue
    next = reshaped(next, layer, { region: rest })
    if (through === 'next') shape = subtract(shape, layerRegion(layer))
  }
  return next === project ? project : removeLayer(next, byId)
}

/** What a shape leaves of a layer; null where it does not reach it, or leaves nothing. */
function restOf(layer: Layer, shape: readonly Polygon[]): Polygon[] | null {
  const own = layerRegion(layer)
  if (regionArea(intersect(own, shape)) < CRUMB_MM2) return null
  const rest = subtract(own, shape).filter((face) => polygonArea(face) > CRUMB_MM2)
  return rest.length > 0 ? rest : null
}
