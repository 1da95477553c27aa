import { node } from '../../planner'
import { amountOf, depth, glues } from '../depth'
import { each, turns } from '../layers'
import { cutLoads, loads } from '../sheets'
import { backCarries } from './jobs/kinds'
import { draftAssembly, planAssembly, type DraftStep } from './plan'
import type { AssemblyPlan } from './task'

/** Whether the backmost sheet carries the rest: of all that the steps follow from it alone asks for the shapes. */
const carried = node('carried', {
  stage: 'assembly',
  reads: { layers: ['pieces', 'blanks', 'role', 'lives', 'joint'] },
  compute: ({ project }): boolean => backCarries(project),
})

/** All steps with their times. */
export const assembly = node('assembly', {
  stage: 'assembly',
  reads: {
    mount: true,
    grown: true,
    layers: 'all',
    papers: ['name', 'gsm', 'finish', 'press', 'thicknessMm'],
    adhesives: true,
    foams: true,
    plan: [
      'batch',
      'cutWith',
      'direction',
      'alignment',
      'adhesiveId',
      'stepOrder',
      'learns',
      'people',
      'batchWay',
      'batchRate',
      'glueWait',
      'plate',
      'guests',
      'numbers',
      'placeMarks',
      'litFromBehind',
    ],
    cut: true,
    observed: true,
    inks: true,
    cutter: true,
    parts: 'named',
  },
  needs: (project) => ({
    cut: cutLoads(),
    list: loads(),
    heights: depth(),
    glue: glues(),
    ways: each(turns, project),
    onSheet: carried(),
  }),
  compute: ({ project }, { cut, list, heights, glue, ways, onSheet }) =>
    planAssembly({
      project,
      loads: [...cut, ...list],
      depth: heights,
      glue: glue.map(amountOf),
      turns: new Map(ways.map(({ id, turns: own }) => [id, own])),
      carried: onSheet,
    }),
  view: (plan: AssemblyPlan) => plan,
})

/** The order of work while sheets and pads are still being counted. */
export const orderOfWork = node('order of work', {
  stage: 'assembly',
  reads: {
    mount: true,
    layers: [
      'name',
      'pieces',
      'blanks',
      'folds',
      'slits',
      'shaping',
      'joint',
      'paperId',
      'role',
      'lives',
      'tint',
      'assemblyId',
    ],
    parts: 'named',
    papers: ['name', 'gsm', 'finish', 'press'],
    adhesives: true,
    tool: true,
    plan: [
      'batch',
      'batchRate',
      'batchWay',
      'cutWith',
      'direction',
      'glueWait',
      'alignment',
      'adhesiveId',
      'plate',
      'placeMarks',
    ],
    cut: true,
  },
  needs: () => ({ onSheet: carried() }),
  compute: ({ project }, { onSheet }) => draftAssembly(project, onSheet),
  view: (steps: DraftStep[]) => steps,
})
