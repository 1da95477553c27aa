import { toast } from 'sonner'
import { noteSheets } from '@feuillet/core/log'
import type { SheetsNeeded } from '@feuillet/core/sheets'
import type { AppDispatch, RootState } from '../../app/store'
import { edited } from '../../app/work'

/** A paper's planned sheets with those that are not noted as used yet. */
export type OpenNeed = SheetsNeeded & { open: number }

/** Notes planned sheets as used and takes them out of the shared drawer; one step of the history. */
export const takeSheets = (needs: readonly OpenNeed[]) => (dispatch: AppDispatch, getState: () => RootState) => {
  const { project, stock } = getState().work
  if (!project) return
  const taken = new Map(needs.filter((need) => need.open > 0).map((need) => [need.paper.id, need.open]))
  const next = noteSheets(
    project,
    [...taken].map(([paperId, count]) => ({ paperId, count })),
    Date.now(),
  )
  const left = stock.map((paper) => ({ ...paper, count: Math.max(0, paper.count - (taken.get(paper.id) ?? 0)) }))
  dispatch(edited({ label: 'note sheets as used', project: next, stock: left }))
  toast('Noted, and taken out of the drawer.')
}
