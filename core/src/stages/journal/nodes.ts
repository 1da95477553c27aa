import { node } from '../../planner'
import { assembly } from '../assembly'
import { depth } from '../depth'
import { loads } from '../sheets'
import { paperForGuests, plannedCost, type Cost } from './cost'

/** Planned cost, and what of the paper's is for the projects that are cut along. */
export const cost = node('cost', {
  stage: 'journal',
  reads: { plan: ['hourlyRate'] },
  needs: () => ({ list: loads(), heights: depth(), steps: assembly() }),
  compute: ({ project }, { list, heights, steps }): PlannedCost => ({
    ...plannedCost(project, list, heights, steps.handsMinutes),
    paperForGuests: paperForGuests(list),
  }),
  view: (value: PlannedCost) => value,
})

/** Planned cost, in the drawer’s currency. */
export interface PlannedCost extends Cost {
  paperForGuests: number
}
