// How screens change things: a label for the history and a function of the core.
import type { Paper, Project, Snag } from '@feuillet/core/project'
import { compute } from '../workers/compute'
import type { AppDispatch, RootState } from './store'
import { edited } from './document'

type Thunk = (dispatch: AppDispatch, getState: () => RootState) => void

/** Changes the open project; a change that gives the same project is no step of the history. */
export const change =
  (label: string, edit: (project: Project, stock: Paper[]) => Project): Thunk =>
  (dispatch, getState) => {
    const { project, stock } = getState().work
    if (!project) return
    const next = edit(project, stock)
    if (next !== project) dispatch(edited({ label, project: next }))
  }

/** Changes the shared drawer's papers, and the project's copies of them. */
export const changeStock =
  (
    label: string,
    edit: (stock: Paper[]) => Paper[],
    refresh: (project: Project, stock: Paper[]) => Project,
  ): Thunk =>
  (dispatch, getState) => {
    const { project, stock } = getState().work
    if (!project) return
    const next = edit(stock)
    dispatch(edited({ label, project: refresh(project, next), stock: next }))
  }

/** Mends snags, as one step of the history: computed in the worker, since some mends cut and join shapes. */
export const mend =
  (...snags: readonly Snag[]) =>
  async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    const { project, stock } = getState().work
    const mends = snags.flatMap((snag) => snag.mend ?? [])
    if (!project || mends.length === 0) return
    const next = await compute.mend(
      project,
      mends.map((m) => m.action),
      stock,
    )
    // What was changed meanwhile is not thrown away: the snag is offered again then.
    if (getState().work.project === project)
      dispatch(
        edited({ label: mends.length > 1 ? `mend ${mends.length} snags` : mends[0]!.label, project: next }),
      )
  }
