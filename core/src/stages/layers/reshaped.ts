import { setLayer, type Layer, type Project } from '../../project'
import type { Region } from '../../base/geometry'
import { makeLayer } from './intake/intake'

/** A layer with another shape, and what else of it changes with that; where its pieces were pinned on the sheets no longer counts. */
export function reshaped(
  project: Project,
  { id, name }: Layer,
  { region, ...more }: { region: Region } & Partial<Pick<Layer, 'ties'>>,
): Project {
  const next = setLayer(project, id, { pieces: makeLayer({ id, name }, region).pieces, ...more })
  return { ...next, plan: { ...next.plan, pins: next.plan.pins.filter(({ layerId }) => layerId !== id) } }
}
