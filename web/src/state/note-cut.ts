// Notes loads as cut, by hand, by a ticked step or as the machine reports: their pieces leave every later layout.
import { toast } from 'sonner'
import { share } from '@feuillet/core/base'
import {
  refreshSupplies,
  uncut,
  wearMats,
  type CutRun,
  type Project,
  type Supplies,
} from '@feuillet/core/project'
import type { Step } from '@feuillet/core/stages/assembly'
import { noteRun, noteStep, observeRun } from '@feuillet/core/stages/journal'
import type { Sent } from '@feuillet/core/stages/sheets'
import { planner } from '../plan'
import { keepLayouts } from '../session/layouts'
import { runIdOf, savedLoads, type SavedLoad } from '../session/loads-out'
import { momentOf } from '../ui/when'
import { edited } from './document'
import type { AppDispatch, RootState } from './store'
import { WorkerGone } from '../workers'

export interface ToNote {
  loadIds: readonly string[]
  /** Names of left-overs (`load left-over`) that go into the drawer; clean ones where nothing is said. */
  kept?: readonly string[]
  /** Pieces that came out whole (`layer/piece#copy`), where not all did. */
  whole?: readonly string[]
  /** It was not cut from the file that was saved of it. */
  asItLies?: boolean
  /** The run of the machine that cut them, and what it was sent: one load. */
  run?: CutRun
  sent?: Sent
  /** The step of a sheet that hands cut, the minutes it took by the clock, and the sheet's paper. */
  took?: { step: Step; minutes: number; paper: string | null }
}

const TRIES = 8

/** One after the other, so that ticks in quick succession do not overtake each other. */
let last: Promise<unknown> = Promise.resolve()

/** When all that is being noted is noted. */
export const whenNoted = (): Promise<unknown> => last

/** Notes loads as cut, in one step of the history; tried anew where the project was changed meanwhile. */
export const noteCut =
  (what: ToNote, label: string) =>
  (dispatch: AppDispatch, getState: () => RootState): Promise<boolean> => {
    const projectId = getState().document.project?.id
    const noting = last.then(() => dispatch(noteNow(what, label, projectId)))
    last = noting.catch(() => undefined)
    return noting
  }

const noteNow =
  ({ run, took, sent, asItLies = false, ...what }: ToNote, label: string, projectId: string | undefined) =>
  async (dispatch: AppDispatch, getState: () => RootState): Promise<boolean> => {
    const at = run?.startedAt ?? Date.now()
    const was = sent && { sent: { sheet: sent.sheet, kept: sent.kept } }
    const files = run || asItLies ? [] : await filesOf(projectId, what.loadIds)
    for (let k = 0; k < TRIES; k++) {
      const { project, stock, supplies } = getState().document
      // What was asked of one project is never noted in another.
      if (!project || project.id !== projectId) return false
      const base = run ? noteRun(project, run) : project
      const frozen = await planner.host
        .ask((api) => api.freeze(base, stock, { ...what, ...was, saved: files, at }))
        .catch((error: unknown) => {
          if (!(error instanceof WorkerGone))
            toast.error(`Not noted: ${error instanceof Error ? error.message : String(error)}`)
          return null
        })
      if (getState().document.project !== project) continue
      if (!frozen) {
        if (base !== project) dispatch(edited({ label, project: base }))
        return false
      }
      await keepLayouts(frozen.found)
      if (getState().document.project !== project) continue
      planner.takeLayouts(frozen.found)
      const learned = run?.outcome === 'cut' ? observed(frozen.project, supplies, run) : supplies
      const cut = share(project, frozen.project)
      const after = took
        ? noteStep({ project: cut, supplies: learned }, { ...took, at })
        : { project: cut, supplies: learned }
      const worn = { ...after.supplies, cutters: wearMats(supplies.cutters, frozen.matIds) }
      dispatch(
        edited({
          label,
          project: refreshSupplies(after.project, worn),
          stock: frozen.stock,
          supplies: frozen.matIds.length > 0 || after.supplies !== supplies ? worn : supplies,
        }),
      )
      const asSaved = files.filter(({ sheet }) => frozen.asSaved.includes(sheet.id))
      if (asSaved.length > 0) dispatch(tellAsSaved(asSaved))
      return true
    }
    return false
  }

/** Loads as they are in the files that were saved last. */
async function filesOf(projectId: string | undefined, loadIds: readonly string[]): Promise<SavedLoad[]> {
  if (projectId === undefined) return []
  const files = await Promise.all(loadIds.map((id) => savedLoads.recall(runIdOf(projectId, id))))
  return files.filter((file) => file !== null)
}

/** Says which loads were noted as in their files and not as they lie now; one press notes them as they lie. */
const tellAsSaved = (files: readonly SavedLoad[]) => (dispatch: AppDispatch, getState: () => RootState) => {
  const projectId = getState().document.project?.id
  const numbers = files.map(({ sheet }) => sheet.number)
  const which = numbers.length === 1 ? `Load ${numbers[0]}` : `Loads ${numbers.join(', ')}`
  const loadIds = files.map(({ sheet }) => sheet.id)
  const renote = () => {
    // Loads of another project may have the same names.
    if (getState().document.project?.id !== projectId) return
    for (const id of loadIds) dispatch(takeBack(id))
    void dispatch(noteCut({ loadIds, asItLies: true }, `${which} cut as planned now`))
  }
  const at = momentOf(Math.max(...files.map((file) => file.at)))
  toast(`${which}: noted as in the cut file of ${at}; the plan has changed since.`, {
    duration: 20_000,
    action: { label: 'Note as planned now', onClick: renote },
  })
}

/** What the run of a sheet taught. */
function observed(project: Project, supplies: Supplies, run: CutRun): Supplies {
  const oursMin = project.cut.find(({ id }) => id === run.loadId)?.minutes
  if (oursMin === undefined) return supplies
  // The machine tells of its cutting; putting the sheet in is planned beside it.
  const cuttingMin = Math.max(0.1, oursMin - project.drawer.cutter.loadMin)
  return observeRun({ project, supplies }, { run, oursMin: cuttingMin }).supplies
}

/** Takes a sheet back that is not cut after all. */
export const takeBack = (sheetId: string) => (dispatch: AppDispatch, getState: () => RootState) => {
  const { project, stock } = getState().document
  if (project)
    dispatch(edited({ label: 'a sheet is not cut after all', ...uncut({ project, stock }, sheetId) }))
}
