import { node } from '../../planner'
import { assembly } from '../assembly'
import { amountOf, depth, glues } from '../depth'
import { cutLoads, loads } from '../sheets'
import { inOrder, paperForGuests, sheetLines, sumOf, workLines, type Cost, type CostLine } from './cost'
import { priceOf, type Priced } from './price'
import { rightsSnags } from './rights'

/** The lines that follow from the sheets: what is told of the cost while pads and steps are still being planned. */
export const sheetCost = node('cost of sheets', {
  stage: 'journal',
  reads: {
    mount: true,
    layers: ['joint', 'pieces'],
    cutter: true,
    things: true,
    took: true,
    grown: true,
    plan: ['pricing', 'parts', 'batch', 'cutWith', 'printPrice'],
  },
  needs: () => ({ cut: cutLoads(), open: loads() }),
  compute: ({ project }, { cut, open }): CostLine[] => sheetLines(project, [...cut, ...open]),
  view: (lines: CostLine[]) => lines,
})

/** Planned cost line by line, what of the paper's is for the projects that are cut along, and the price of one. */
export const cost = node('cost', {
  stage: 'journal',
  reads: {
    mount: true,
    layers: ['joint', 'pieces'],
    adhesives: true,
    foams: true,
    cutter: true,
    things: true,
    grown: true,
    plan: ['hourlyRate', 'pricing', 'parts', 'batch', 'cutWith', 'printPrice', 'glueLost'],
  },
  needs: () => ({
    sheets: sheetCost(),
    cut: cutLoads(),
    open: loads(),
    heights: depth(),
    glue: glues(),
    steps: assembly(),
  }),
  compute: ({ project }, { sheets, cut, open, heights, glue, steps }): PlannedCost => {
    const { handsMinutes } = steps
    const work = workLines({ project, depth: heights, glue: glue.map(amountOf), handsMinutes })
    const lines = inOrder([...sheets, ...work])
    const sum = sumOf(lines)
    const guests = project.plan.cutWith ? 0 : paperForGuests([...cut, ...open])
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
