import { compute } from '../workers/compute'
import { foundLayouts } from '../session/layouts'
import { arrived, asked } from './results'
import type { AppDispatch, RootState } from '../state/store'

/** Computes the results once more for the same project: after better layouts were found. */
export const derivedAgain =
  () =>
  async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    const { project, stock } = getState().work
    if (!project) return
    dispatch(asked())
    const derived = await compute.derive(project, stock, await foundLayouts())
    if (getState().work.project === project) dispatch(arrived(derived))
  }
