import { useEffect } from 'react'
import { noteRun } from '@feuillet/core/stages/journal'
import type { LoadView } from '@feuillet/core/stages/sheets'
import { change } from '../../../state/edits'
import { useAppDispatch, useAppSelector } from '../../../state/store'
import type { CutterState } from './client'

/** Runs that this page has noted. */
const noted = new Set<string>()

/** What came of a run goes into the journal, once, by the page that writes. */
export function useNotedRun(cutter: CutterState | null, load: LoadView | undefined): void {
  const dispatch = useAppDispatch()
  const role = useAppSelector((state) => state.document.role)
  const ended =
    cutter && (cutter.status === 'done' || cutter.status === 'cancelled') && cutter.startedAt !== null
      ? cutter
      : null
  useEffect(() => {
    if (!ended || !load || role !== 'writing') return
    const key = `${load.id} ${ended.startedAt} ${ended.status} ${ended.passes}`
    // What was noted and then undone stays undone, however often the cutter reports it.
    if (noted.has(key)) return
    noted.add(key)
    const run = {
      loadId: load.id,
      paper: load.paper.name,
      startedAt: ended.startedAt!,
      minutes: ended.ranS / 60,
      passes: ended.passes,
      outcome: ended.status === 'cancelled' ? ('cancelled' as const) : ended.outcome!,
    }
    dispatch(change(`run of load ${load.number}`, (p) => noteRun(p, run)))
  }, [ended, load, role, dispatch])
}
