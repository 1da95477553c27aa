import { toast } from 'sonner'
import { noteSheets } from '@feuillet/core/log'
import { stockAfter, type LeftOver, type Load, type SheetsNeeded } from '@feuillet/core/sheets'
import type { AppDispatch, RootState } from '../../app/store'
import { edited } from '../../app/work'

/** A paper's planned sheets with those that are not noted as used yet. */
export type OpenNeed = SheetsNeeded & { open: number }

/** Notes planned sheets as used, takes them out of the shared drawer and puts back what is kept; one step of the history. */
export const takeSheets =
  (needs: readonly OpenNeed[], loads: readonly Load[], kept: readonly LeftOver[]) => (dispatch: AppDispatch, getState: () => RootState) => {
    const { project, stock } = getState().work
    if (!project) return
    const open = new Map(needs.filter((need) => need.open > 0).map((need) => [need.paper.id, need.open]))
    const now = Date.now()
    const next = noteSheets(
      project,
      [...open].map(([paperId, count]) => ({ paperId, count })),
      now,
    )
    // Of each paper the last sheets that are not noted yet, and the off-cuts that are still in the drawer.
    const taken = loads.filter((load) => {
      if (load.onOffCut) return stock.some((paper) => paper.offCuts.some((offCut) => offCut.id === load.onOffCut!.id))
      const needed = needs.find((need) => need.paper.id === load.paper.id)
      return needed !== undefined && load.sheet >= needed.sheets - needed.open
    })
    const ids = new Set(taken.map((load) => load.id))
    const back = kept.filter((left) => ids.has(left.loadId))
    dispatch(edited({ label: 'note sheets as used', project: next, stock: stockAfter(stock, taken, back, now.toString(36)) }))
    toast(`Noted, and taken out of the drawer.${back.length > 0 ? ` ${back.length} ${back.length === 1 ? 'off-cut' : 'off-cuts'} put back.` : ''}`)
  }
