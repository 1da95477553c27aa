import { node } from '../../planner'
import { isMeant, laidOut } from '../../project'
import { LAID_OUT } from './laid-out'
import { measureSnags, mountSnags } from './snags'
import { shortSnags, thingNeeded, type ThingNeeded } from './things'

/** What the work takes of a thing that is counted in the drawer; null where it takes none. */
export const thing = node('thing', {
  stage: 'measure',
  reads: {
    mount: true,
    layers: ['joint', 'pieces'],
    things: true,
    grown: true,
    plan: ['parts', 'batch'],
    took: true,
  },
  compute: ({ project }) => thingNeeded(project),
  view: (need: ThingNeeded | null) => need,
})

/** Sheets that the drawing shows beside each other, as they are laid out to be cut, and whether they are meant to lie so. */
export const sheetsBeside = node('sheets beside each other', {
  stage: 'measure',
  reads: {
    mount: true,
    layers: ['pieces', 'blanks', 'lives', 'role', 'print', 'colour'],
    plan: ['guests', 'cutWith', 'meant'],
    cut: true,
  },
  byValue: true,
  compute: ({ project }) => ({ laid: laidOut(project), isMeant: isMeant(project, LAID_OUT) }),
})

/** Findings of the measure stage. */
export const measureSnagsNode = node('snags of measure', {
  stage: 'measure',
  reads: {
    mount: true,
    layers: ['name', 'pieces', 'blanks', 'folds', 'role', 'paperId'],
    papers: ['widthMm', 'heightMm'],
    cutter: true,
    plan: ['turns'],
  },
  needs: () => ({ need: thing(), beside: sheetsBeside() }),
  compute: ({ project }, { need, beside }) => [
    // How far they reach past what they live in follows from how they lie: that is the finding.
    ...(beside.laid.sheets.length > 0 && !beside.isMeant ? mountSnags(project) : measureSnags(project)),
    ...shortSnags(need),
  ],
  view: (snags) => snags,
})
