// How screens change things: a label for the history and a function of the core.
import { wordsIn } from '@feuillet/core/base/units'
import { toast } from 'sonner'
import { share } from '@feuillet/core/base'
import {
  putIn,
  refreshSupplies,
  type Bought,
  type Paper,
  type Project,
  type Snag,
  type Supplies,
} from '@feuillet/core/project'
import { editor, WorkerGone } from '../workers'
import { edited, undone, type Edit } from './document'
import { lostBetween } from './selectors'
import type { AppDispatch, RootState } from './store'

type Thunk = (dispatch: AppDispatch, getState: () => RootState) => void

/** What is said of pieces that an edit spoilt, once: it is gone with the next edit. */
const SPOILT_TOAST = 'spoilt by an edit'

/** Makes an edit, and says how many pieces that are cut it has spoilt: one press takes it back. */
const put =
  (edit: Edit): Thunk =>
  (dispatch, getState) => {
    const before = getState().document.project
    dispatch(edited(edit))
    if (edit.gesture === undefined) toast.dismiss(SPOILT_TOAST)
    if (!before || bookOf(before).some((part, k) => part !== bookOf(edit.project)[k])) return
    const words = spoiltWords(before, edit.project)
    if (words === null) return
    const lastStep = () => getState().document.past.at(-1)
    const step = lastStep()
    const takeBack = () => {
      if (lastStep() === step) dispatch(undone())
      else toast('The work was changed again since: undo goes back step by step.')
    }
    toast(words, {
      id: SPOILT_TOAST,
      duration: 15_000,
      action: { label: 'Undo', onClick: takeBack },
    })
  }

/** What is noted of cut sheets: a change of that is meant. */
const bookOf = ({ cut, cutElsewhere, plan }: Project) => [cut, cutElsewhere, plan.guests]

/** How many pieces that are cut are of no use any more, in a sentence; null where all are as they were. */
function spoiltWords(before: Project, after: Project): string | null {
  const lost = lostBetween(before, after)
  const pieces = (n: number) => (n === 1 ? 'a piece that is cut' : `${n} pieces that are cut`)
  if (lost.spoilt > 0) return `That spoils ${pieces(lost.spoilt)}.`
  return lost.idle > 0 ? `That leaves ${pieces(lost.idle)} of no use.` : null
}

/** Changes the open project; a change that gives the same project is no step of the history. Changes of one gesture (a drag, a slide) are one step. */
export const change =
  (label: string, edit: (project: Project, stock: readonly Paper[]) => Project, gesture?: string): Thunk =>
  (dispatch, getState) => {
    const { project, stock } = getState().document
    if (!project) return
    const next = edit(project, stock)
    if (next !== project) dispatch(put({ label, project: next, gesture }))
  }

/** Changes the shared drawer's papers, and the project's copies of them. */
export const changeStock =
  (
    label: string,
    edit: (stock: readonly Paper[]) => readonly Paper[],
    {
      refresh,
      gesture,
    }: { refresh: (project: Project, stock: readonly Paper[]) => Project; gesture?: string },
  ): Thunk =>
  (dispatch, getState) => {
    const { project, stock } = getState().document
    if (!project) return
    const next = edit(stock)
    dispatch(put({ label, project: refresh(project, next), stock: next, gesture }))
  }

/** A project with the supplies of the shared drawer. */
interface Held {
  project: Project
  supplies: Supplies
}

/** Changes the foams or glues of the shared drawer, and what the project has of them. */
export const changeSupplies =
  (label: string, edit: (held: Held) => Held, gesture?: string): Thunk =>
  (dispatch, getState) => {
    const { project, supplies } = getState().document
    if (!project) return
    const next = edit({ project, supplies })
    if (next.project === project && next.supplies === supplies) return
    dispatch(
      put({
        label,
        project: refreshSupplies(next.project, next.supplies),
        supplies: next.supplies,
        gesture,
      }),
    )
  }

/** Puts what was bought into the shared drawer, and into what the project has of it. */
export const buy =
  (label: string, bought: Bought): Thunk =>
  (dispatch, getState) => {
    const { project, stock, supplies } = getState().document
    if (project) dispatch(put({ label, ...putIn({ project, stock, supplies }, bought) }))
  }

/** So often an edit that takes its time is begun anew, where the project was changed while it was computed. */
const TRIES = 3

/**
 * An edit that cuts and joins shapes, computed in the editor's worker. It is applied to the very state that it was computed
 * from; where that has changed meanwhile it is computed again, and given up with a word where it never comes to an end. What is said
 * where it changes nothing is `idle`.
 */
export const changeApart =
  (label: string, work: (project: Project, stock: readonly Paper[]) => Promise<Project>, idle?: string) =>
  async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    const began = getState().document.project?.id
    for (let k = 0; k < TRIES; k++) {
      const { project, stock } = getState().document
      if (!project || project.id !== began) return
      let next: Project
      try {
        next = await work(project, stock)
      } catch (error) {
        // That the worker broke off was said where it was started anew.
        if (!(error instanceof WorkerGone))
          toast.error(`Not done (${label}): ${error instanceof Error ? error.message : String(error)}`)
        return
      }
      if (getState().document.project !== project) continue
      const shared = share(project, next)
      if (shared !== project) dispatch(put({ label, project: shared }))
      else if (idle) toast(idle)
      return
    }
    toast.error(
      `Not done (${label}): the project was changed again and again while it was computed. Try once more.`,
    )
  }

/** Mends snags, as one step of the history. */
export const mend = (...snags: readonly Snag[]) => {
  const mends = snags.flatMap((snag) => snag.mend ?? [])
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    if (mends.length === 0) return
    const unit = getState().document.project?.unit ?? 'mm'
    const label = mends.length > 1 ? `mend ${mends.length} snags` : wordsIn(mends[0]!.label, unit)
    const actions = mends.map((m) => m.action)
    await dispatch(
      changeApart(label, (project, stock) => editor.ask((api) => api.mend(project, actions, stock))),
    )
  }
}
