import { node } from '../../planner'
import { measureSnags } from './snags'
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

/** Findings of the measure stage. */
export const measureSnagsNode = node('snags of measure', {
  stage: 'measure',
  reads: {
    mount: true,
    layers: ['name', 'pieces', 'role', 'paperId'],
    papers: ['widthMm', 'heightMm'],
    cutter: true,
    plan: ['turns'],
  },
  needs: () => ({ need: thing() }),
  compute: ({ project }, { need }) => [...measureSnags(project), ...shortSnags(need)],
  view: (snags) => snags,
})
