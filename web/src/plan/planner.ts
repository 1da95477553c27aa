import type { Paper, Project } from '@feuillet/core/project'
import { foundLayouts, keepLayouts } from '../session/layouts'
import { store } from '../state/store'
import { PlannerLink } from './link'

/** The planner of this page. */
export const planner = new PlannerLink(
  {
    dispatch: (action) => store.dispatch(action),
    layouts: async () => [...(await foundLayouts())],
    keep: (layouts) => void keepLayouts(layouts),
  },
  () =>
    new Worker(new URL('../workers/planner.worker.ts', import.meta.url), { type: 'module', name: 'planner' }),
)

let last: { project: Project | null; stock: readonly Paper[] } = { project: null, stock: [] }
/** The open project as it would be if what is being dragged were let go here. */
let trial: { of: Project; project: Project } | null = null

function follow(): void {
  const { project: kept, stock } = store.getState().document
  if (trial && trial.of !== kept) trial = null
  const project = trial?.project ?? kept
  if (project === last.project && stock === last.stock) return
  const before = last.project
  last = { project, stock }
  if (!project) planner.close()
  else if (before?.id === project.id) planner.change({ project, stock })
  else void planner.open({ project, stock })
}

// Every state of the document goes to the planner, whoever made it.
store.subscribe(follow)

/** Lets the planner answer for the open project as it would be, without an edit; null for what it is. The next edit ends it. */
export function tryOut(project: Project | null): void {
  const { project: of } = store.getState().document
  trial = project && of ? { of, project } : null
  follow()
}
