import { node } from '../../planner'
import { assembly } from '../assembly'
import { depth } from '../depth'
import { cutLoads, loads } from '../sheets'
import { paperForGuests, plannedCost, type Cost } from './cost'

/** Planned cost, and what of the paper's is for the projects that are cut along. */
export const cost = node('cost', {
  stage: 'journal',
  reads: { plan: ['hourlyRate'] },
  needs: () => ({ cut: cutLoads(), open: loads(), heights: depth(), steps: assembly() }),
  compute: ({ project }, { cut, open, heights, steps }): PlannedCost => {
    const list = [...cut, ...open]
    return {
      ...plannedCost(project, list, heights, steps.handsMinutes),
      paperForGuests: paperForGuests(list),
    }
  },
  view: (value: PlannedCost) => value,
})

/** Planned cost, in the drawer’s currency. */
export interface PlannedCost extends Cost {
  paperForGuests: number
}
