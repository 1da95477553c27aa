import { node } from '../../planner'
import { measureSnags } from './snags'

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
  compute: ({ project }) => measureSnags(project),
  view: (snags) => snags,
})
