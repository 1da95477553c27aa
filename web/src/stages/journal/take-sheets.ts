import { toast } from 'sonner'
import { noteSheets } from '@feuillet/core/stages/journal'
import { type Paper } from '@feuillet/core/project'
import { groupBy } from '@feuillet/core/base'
import { stockAfter, type LeftView, type LoadView, type SheetsNeeded } from '@feuillet/core/stages/sheets'
import type { AppDispatch, RootState } from '../../state/store'
import { edited } from '../../state/document'

/** A paper's planned sheets with those that are not noted as used yet. */
export type OpenNeed = SheetsNeeded & { open: number }

/** Loads whose sheet is not noted yet: of each paper its last sheets, and the off-cuts that are still in the drawer. */
export const openLoads = (
  needs: readonly OpenNeed[],
  loads: readonly LoadView[],
  stock: readonly Paper[],
): LoadView[] =>
  loads.filter((load) => {
    if (load.onOffCut)
      return stock.some((paper) => paper.offCuts.some((offCut) => offCut.id === load.onOffCut!.id))
    const needed = needs.find((need) => need.paper.id === load.paper.id)
    return needed !== undefined && load.nth > needed.sheets - needed.open
  })

/** Notes sheets as used, takes them out of the shared drawer and puts back what is kept; one step of the history. */
export const takeSheets =
  (taken: readonly LoadView[], kept: readonly LeftView[]) =>
  (dispatch: AppDispatch, getState: () => RootState) => {
    const { project, stock } = getState().document
    if (!project) return
    const now = Date.now()
    // A paper of which only off-cuts were cut is noted too, with no sheet.
    const used = [...groupBy(taken, (load) => load.paper.id)].map(([paperId, own]) => ({
      paperId,
      count: own.filter((load) => !load.onOffCut).length,
    }))
    const back = kept.filter((left) => taken.some((load) => load.id === left.loadId))
    dispatch(
      edited({
        label: 'note sheets as used',
        project: noteSheets(project, used, now),
        stock: stockAfter(stock, { loads: taken, kept: back, stamp: now.toString(36) }),
      }),
    )
    toast(
      `Noted, and taken out of the drawer.${back.length > 0 ? ` ${back.length} ${back.length === 1 ? 'off-cut' : 'off-cuts'} put back.` : ''}`,
    )
  }
