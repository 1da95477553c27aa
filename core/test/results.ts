// Everything that follows from a project. Tests look at the same few projects again and again, and at others that differ by little: the
// planner's cache is one for a file of tests, and all of what was computed last is kept, by what it follows from. That neither
// changes anything is tested by `computeResults`, which begins anew, and in planner.test.ts.
import { Cache } from '../src/base'
import { Planner, type Inputs } from '../src/planner'
import { builtLayers, type Paper, type Project, type Snag } from '../src/project'
import { nodes, snagsOf } from '../src/stages'
import type { NestLayout } from '../src/stages/sheets'

/** So many results are kept. */
const MOST_KEPT = 12

const kept = new Map<string, Results>()
/** Of so many bytes. */
const cache = new Cache(150_000_000)

type Results = ReturnType<typeof resultsBy>

const keyOf = (project: Project, stock: readonly Paper[], found?: ReadonlyMap<string, NestLayout>): string =>
  JSON.stringify([project, stock, [...(found ?? [])]])

/** All that follows from a project. What two runs have in common is proved by `computeResults` alone. */
export function results(
  project: Project,
  stock: readonly Paper[] = project.drawer.papers,
  found: ReadonlyMap<string, NestLayout> = new Map(),
): Results {
  const key = keyOf(project, stock, found)
  const known = kept.get(key)
  // The one used last stands last.
  kept.delete(key)
  const all = known ?? resultsBy(new Planner(cache), { project, stock, found })
  kept.set(key, all)
  for (const oldest of kept.keys()) if (kept.size > MOST_KEPT) kept.delete(oldest)
  return all
}

/** The same, computed anew. */
export const computeResults = (project: Project, stock: readonly Paper[]): Results =>
  resultsBy(new Planner(new Cache()), { project, stock, found: new Map() })

function resultsBy(planner: Planner, inputs: Inputs) {
  const { project } = inputs
  planner.update(inputs)
  const runs = planner.get(nodes.nested())
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

/** All findings of a project, and nothing beside them. */
export function check(project: Project, stock: readonly Paper[] = project.drawer.papers): Snag[] {
  const known = kept.get(keyOf(project, stock))
  if (known) return known.snags
  const planner = new Planner(cache)
  planner.update({ project, stock, found: new Map() })
  return snagsOf(planner, project)
}
