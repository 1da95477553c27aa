import { node } from '../../planner'
import { assembly } from '../assembly'
import { amountOf, depth, glues } from '../depth'
import { cutLoads, loads } from '../sheets'
import { costLines, paperForGuests, sumOf, type Cost, type CostLine } from './cost'
import { priceOf, type Priced } from './price'
import { rightsSnags } from './rights'

/** Planned cost line by line, what of the paper's is for the projects that are cut along, and the price of one. */
export const cost = node('cost', {
  stage: 'journal',
  reads: {
    mount: true,
    layers: ['joint', 'pieces'],
    adhesives: true,
    foams: true,
    cutter: true,
    grown: true,
    plan: ['hourlyRate', 'pricing', 'parts', 'batch', 'cutWith', 'printPrice', 'glueLost'],
  },
  needs: () => ({ cut: cutLoads(), open: loads(), heights: depth(), glue: glues(), steps: assembly() }),
  compute: ({ project }, { cut, open, heights, glue, steps }): PlannedCost => {
    const list = [...cut, ...open]
    const { handsMinutes } = steps
    const lines = costLines({ project, loads: list, depth: heights, glue: glue.map(amountOf), handsMinutes })
    const sum = sumOf(lines)
    const guests = project.plan.cutWith ? 0 : paperForGuests(list)
    const own = { ...sum, paper: sum.paper - guests, total: sum.total - guests }
    return { ...sum, lines, paperForGuests: guests, priced: priceOf(project, { cost: own, handsMinutes }) }
  },
  view: (value: PlannedCost) => value,
})

/** Planned cost, in the drawer’s currency. */
export interface PlannedCost extends Cost {
  lines: CostLine[]
  paperForGuests: number
  priced: Priced
}

/** Findings of the journal: what may be sold. */
export const journalSnagsNode = node('snags of the journal', {
  stage: 'journal',
  reads: { rights: true, makes: true, plan: ['batch'] },
  compute: ({ project }) => rightsSnags(project),
  view: (snags) => snags,
})
