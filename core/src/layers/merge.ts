// Two or more layers into one: the frontmost keeps its name, place and paper.
import { regionRings, fillRings } from '../geometry'
import { layerRegion, type Project } from '../project'
import { makeLayer } from './intake'

/** Merges the layers into the frontmost of them. Fewer than two ids change nothing. Needs the geometry loaded. */
export function mergeLayers(project: Project, layerIds: readonly string[]): Project {
  const chosen = project.layers.filter((layer) => layerIds.includes(layer.id))
  if (chosen.length < 2) return project
  const front = chosen[chosen.length - 1]!
  const faces = fillRings(
    chosen.flatMap((layer) => regionRings(layerRegion(layer))),
    'nonzero',
  )
  const merged = { ...front, pieces: makeLayer(front.id, front.name, faces).pieces, joint: chosen[0]!.joint }
  return {
    ...project,
    layers: project.layers.flatMap((layer) => (layer.id === front.id ? [merged] : layerIds.includes(layer.id) ? [] : [layer])),
    plan: { ...project.plan, pins: project.plan.pins.filter((pin) => !layerIds.includes(pin.layerId)) },
  }
}
