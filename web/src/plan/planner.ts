import type { Paper, Project } from '@feuillet/core/project'
import { foundLayouts } from '../session/layouts'
import { store } from '../state/store'
import { PlannerLink } from './link'

/** The planner of this page. */
export const planner = new PlannerLink(
  {
    dispatch: (action) => store.dispatch(action),
    layouts: async () => [...(await foundLayouts())],
  },
  () =>
    new Worker(new URL('../workers/planner.worker.ts', import.meta.url), { type: 'module', name: 'planner' }),
)

let last: { project: Project | null; stock: readonly Paper[] } = { project: null, stock: [] }

// Every state of the document goes to the planner, whoever made it.
store.subscribe(() => {
  const { project, stock } = store.getState().document
  if (project === last.project && stock === last.stock) return
  const before = last.project
  last = { project, stock }
  if (!project) planner.close()
  else if (before?.id === project.id) planner.change({ project, stock })
  else void planner.open({ project, stock })
})
