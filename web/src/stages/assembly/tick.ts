import { tickStep, tickTaking } from '@feuillet/core/project'
import type { LoadView } from '@feuillet/core/stages/sheets'
import type { Step } from '@feuillet/core/stages/assembly'
import { noteStep } from '@feuillet/core/stages/journal'
import { thingsTaken } from '@feuillet/core/stages/measure'
import { change, changeSupplies } from '../../state/edits'
import type { AppDispatch, RootState } from '../../state/store'
import { noteCut, takeBack, whenNoted } from '../../state/note-cut'

/** The paper of a sheet that is planned or cut. */
const paperOfLoad = ({ plan, document }: RootState, loadId: string | null): string | null => {
  const planned = (plan.views['loads'] as LoadView[] | undefined)?.find(({ id }) => id === loadId)
  return (planned ?? document.project?.cut.find(({ id }) => id === loadId))?.paper.name ?? null
}

/**
 * Ticks a step off or takes the tick back. A step that uses foam takes it for the whole batch out of the drawer, and gives it back; laying all
 * ready does so with frames, sticks and twine. One that cuts a sheet notes the sheet as cut, or takes it back.
 * @param minutes what it took, where a clock ran; null where none did
 * @returns when it is noted: a sheet's pieces are frozen in the worker first
 */
export const tick =
  (step: Step, done: boolean, minutes: number | null = null) =>
  async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    const label = `${done ? 'tick' : 'untick'} “${step.title}”`
    const { loadId } = step
    const projectId = getState().document.project?.id
    // A sheet that is still being noted is taken back once it is.
    if (step.kind === 'cut' && !done) await whenNoted()
    if (getState().document.project?.id !== projectId) return
    const isCut = getState().document.project?.cut.some(({ id }) => id === loadId) ?? false
    if (step.kind === 'cut' && loadId !== null && done !== isCut) {
      if (!done) dispatch(takeBack(loadId))
      else {
        // A machine tells by itself what it took; of hands the clock does.
        const byHand = getState().document.project?.drawer.cutter.tool === 'knife' && minutes !== null
        const took = byHand ? { step, minutes, paper: paperOfLoad(getState(), loadId) } : undefined
        const noted = await dispatch(noteCut({ loadIds: [loadId], ...(took ? { took } : {}) }, label))
        // What cannot be found any more is ticked all the same, in the project it was asked of.
        if (!noted && getState().document.project?.id === projectId)
          dispatch(change(label, (p) => tickStep(p, step.id, true)))
      }
      return
    }
    dispatch(
      changeSupplies(label, (held) => {
        const batch = step.nth === undefined ? held.project.plan.batch : 1
        const foams = (step.takes ?? []).map(({ foamId, count }) => ({ foamId, count: count * batch }))
        const things = step.kind === 'prepare' ? thingsTaken(held.project) : []
        const ticked = tickTaking(held, step.id, { done, foams, things })
        return minutes === null
          ? ticked
          : noteStep(ticked, { step, minutes, at: Date.now(), paper: paperOfLoad(getState(), loadId) })
      }),
    )
  }
