// Where an edit has some pieces cut again, what is left to cut stays where it lies: its layouts are kept before the edit is made.
import type { Project } from '@feuillet/core/project'
import { planner } from '../plan'
import { keepLayouts } from '../session/layouts'
import type { AppDispatch, RootState } from './store'

/** A planner that is busy for longer is not waited for: then all is laid anew, ms. */
const PATIENCE_MS = 1500

/** Keeps the layouts of a project as an edit would leave it, the pieces to be cut again on a load of their own. Changes nothing else. */
export const keepLying =
  (edit: (held: Pick<RootState['document'], 'supplies' | 'stock'> & { project: Project }) => Project) =>
  async (_: AppDispatch, getState: () => RootState): Promise<void> => {
    const { project, supplies, stock } = getState().document
    if (!project) return
    const next = edit({ project, supplies, stock })
    if (next.cut === project.cut && next.cutElsewhere === project.cutElsewhere) return
    const laid = planner.host
      .ask((api) => api.layAgain(next))
      .then(async (found) => {
        await keepLayouts(found)
        planner.takeLayouts(found)
      })
      // That the planner broke off was said where it was started anew.
      .catch(() => undefined)
    await Promise.race([laid, new Promise((done) => setTimeout(done, PATIENCE_MS))])
  }
