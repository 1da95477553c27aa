import { node } from '../../planner'
import { each, visible } from '../layers'
import { dearSnags, paperSnags } from './snags'

/** Findings of the paper stage that follow from colours and from what shows. */
export const paperSnagsNode = node('snags of paper', {
  stage: 'paper',
  reads: {
    layers: ['name', 'role', 'colour', 'tint', 'paperId', 'print', 'pieces', 'blanks'],
    papers: 'all',
    stock: true,
    cutter: true,
    plan: ['ramps'],
  },
  needs: (project) => ({ shown: each(visible, project) }),
  compute: ({ project, stock, memo }, { shown }) => [
    ...paperSnags(project, stock, memo),
    ...dearSnags(project, shown, stock),
  ],
  view: (snags) => snags,
})
