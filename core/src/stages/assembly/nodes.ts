import { node } from '../../planner'
import { depth } from '../depth'
import { each, turns } from '../layers'
import { loads } from '../sheets'
import { planAssembly, type AssemblyPlan } from './steps'

/** All steps with their times. */
export const assembly = node('assembly', {
  stage: 'assembly',
  reads: {
    mount: true,
    layers: 'all',
    papers: ['name', 'gsm'],
    adhesives: true,
    plan: ['batch', 'cutWith', 'direction', 'alignment', 'adhesiveId'],
  },
  needs: (project) => ({ list: loads(), heights: depth(), ways: each(turns, project) }),
  compute: ({ project }, { list, heights, ways }) =>
    planAssembly(project, list, heights, new Map(ways.map(({ id, turns: own }) => [id, own]))),
  view: (plan: AssemblyPlan) => plan,
})
