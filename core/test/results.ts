// Everything that follows from a project, computed by a planner with a cache of its own.
import { Cache } from '../src/base'
import { Planner } from '../src/planner'
import { builtLayers, type Paper, type Project } from '../src/project'
import { nodes, snagsOf } from '../src/stages'
import type { NestLayout } from '../src/stages/sheets'

export function results(
  project: Project,
  stock: readonly Paper[] = project.drawer.papers,
  found: ReadonlyMap<string, NestLayout> = new Map(),
) {
  const planner = new Planner(new Cache())
  planner.update({ project, stock, found })
  const { runs } = planner.get(nodes.nested())
  return {
    visible: builtLayers(project).map((layer) => planner.get(nodes.visible(layer.id))),
    sound: builtLayers(project).map((layer) => planner.get(nodes.sound(layer.id))),
    depth: planner.get(nodes.depth()),
    levels: planner.get(nodes.levels()),
    glue: planner.get(nodes.glues()),
    colourings: planner.get(nodes.colourings()),
    runs,
    loads: planner.get(nodes.loads()),
    needed: planner.get(nodes.needed()),
    left: planner.get(nodes.left()),
    assembly: planner.get(nodes.assembly()),
    cost: planner.get(nodes.cost()),
    snags: snagsOf(planner, project),
  }
}

/** All findings of a project. */
export const check = (project: Project, stock?: readonly Paper[]) => results(project, stock).snags
