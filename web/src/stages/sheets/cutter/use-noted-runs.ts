// What came of each run goes into the journal, once, by the page that writes: as it ends, or later where no page was looking.
import { useEffect } from 'react'
import type { EndedRun } from '@feuillet/cutter-protocol'
import type { CutRun } from '@feuillet/core/project'
import { noteRun } from '@feuillet/core/stages/journal'
import { runIdOf, sentLoads } from '../../../session/loads-out'
import { noteCut } from '../../../state/note-cut'
import { change } from '../../../state/edits'
import type { AppDispatch, RootState } from '../../../state/store'
import { useAppDispatch, useAppSelector, useAppStore } from '../../../state/store'
import { askCutter, isBusy, tellCutter, type CutterState } from './use-cutter'

/** Runs that this page has noted: what was undone stays undone, however often the machine reports it. */
const noted = new Set<string>()
/** Runs that are being noted: the machine is to remember them until they are. */
const pending = new Set<string>()

/** Notes what has ended of the open project, and tells the machine that it may forget it. */
const noteEnded =
  (runs: readonly EndedRun[]) =>
  (dispatch: AppDispatch, getState: () => RootState): void => {
    const { project, role } = getState().document
    if (!project || role !== 'writing') return
    /** What was cut is what was sent, whatever was changed meanwhile. */
    const noteAsSent = async (run: CutRun, id: string) => {
      const sent = await sentLoads.recall(id)
      await dispatch(noteCut({ loadIds: [run.loadId], run, ...(sent && { sent }) }, `run of ${run.paper}`))
      if (getState().document.project?.cut.some((sheet) => sheet.id === run.loadId))
        await sentLoads.forget(id)
    }
    for (const { id, name, startedAt, ranS, passes, outcome } of runs) {
      if (!id.startsWith(runIdOf(project.id, ''))) continue
      const key = `${id} ${startedAt}`
      if (pending.has(key)) continue
      if (!noted.has(key)) {
        noted.add(key)
        const run = {
          loadId: id.slice(project.id.length + 1),
          paper: name,
          startedAt,
          minutes: ranS / 60,
          passes,
          outcome,
        }
        const label = `run of ${name}`
        if (outcome === 'cut') {
          // The machine may forget it once it is in the journal, and not before.
          pending.add(key)
          void noteAsSent(run, id).then(() => {
            pending.delete(key)
            const kept = getState().document.project?.journal.runs ?? []
            if (kept.some((one) => one.loadId === run.loadId && one.startedAt === startedAt))
              void tellCutter('noted', { id, startedAt })
            else noted.delete(key)
          })
          continue
        }
        dispatch(change(label, (p) => noteRun(p, run)))
      }
      void tellCutter('noted', { id, startedAt })
    }
  }

/** On the cutter's screen: notes runs as they end, and one whose machine has gone silent as broken off. */
export function useNotedRuns(cutter: CutterState | 'absent' | null): void {
  const dispatch = useAppDispatch()
  const role = useAppSelector((state) => state.document.role)
  useEffect(() => {
    if (cutter === null || cutter === 'absent' || role !== 'writing') return
    dispatch(noteEnded(cutter.unnoted))
    const { load, startedAt, ranS, passes } = cutter
    if (!isBusy(cutter) || !load || startedAt === null) return
    const { id, name } = load
    return () => {
      broken = { id, name, startedAt, ranS, passes, outcome: 'cancelled' }
    }
  }, [cutter, role, dispatch])
  useEffect(() => {
    if (cutter !== 'absent' || !broken) return
    const run = broken
    // A line that is only slow comes back before this.
    const timer = setTimeout(() => dispatch(noteEnded([run])), SILENT_MS)
    return () => clearTimeout(timer)
  }, [cutter, dispatch])
}

/** The run that was under way when the machine was last heard. */
let broken: EndedRun | null = null
const SILENT_MS = 3000

/** On every other screen: asks when the project is opened and when the page is looked at again. */
export function useUnseenRuns(): void {
  const dispatch = useAppDispatch()
  const store = useAppStore()
  useEffect(() => {
    const look = async () => {
      const { project } = store.getState().document
      if (!project || document.visibilityState === 'hidden') return
      if (!(await sentLoads.isAwaited(project.id))) return
      const state = await askCutter()
      if (state) dispatch(noteEnded(state.unnoted))
    }
    const heard = () => void look()
    heard()
    document.addEventListener('visibilitychange', heard)
    return () => document.removeEventListener('visibilitychange', heard)
  }, [dispatch, store])
}
