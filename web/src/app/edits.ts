// How screens change things: a label for the history and a function of the core.
import type { Mend, Paper, Project, Snag } from '@feuillet/core/project'
import { mendProject } from '@feuillet/core/whole'
import type { AppDispatch, RootState } from './store'
import { edited } from './work'

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
  (label: string, edit: (stock: Paper[]) => Paper[], refresh: (project: Project, stock: Paper[]) => Project): Thunk =>
  (dispatch, getState) => {
    const { project, stock } = getState().work
    if (!project) return
    const next = edit(stock)
    dispatch(edited({ label, project: refresh(project, next), stock: next }))
  }

export const mend = (snag: Snag): Thunk => change(snag.mend!.label, (project, stock) => mendProject(project, snag.mend!.action as Mend, stock))
