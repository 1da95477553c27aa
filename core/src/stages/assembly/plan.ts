// The steps of a project: the graph of jobs, put into words and put to times.
import type { Project } from '../../project'
import type { DepthPlan, GlueAmount } from '../depth'
import type { Turn } from '../layers'
import type { Load } from '../sheets'
import { jobsOf } from './jobs/jobs'
import { backCarries } from './jobs/kinds'
import { withLearned } from './learned'
import { withOrder } from './order'
import { schedule } from './schedule'
import { handsMinutesOf, type AssemblyPlan, type Task } from './task'
import { tell } from './words'

/** What the steps follow from. */
export interface AssemblyInputs {
  project: Project
  /** In the order in which they are cut. */
  loads: readonly Load[]
  depth: Pick<
    DepthPlan,
    'layers' | 'pads' | 'pieces' | 'stackMm' | 'roomMm' | 'pins' | 'shim' | 'lip' | 'apart'
  >
  /** Glue of the layers that take some. */
  glue?: readonly GlueAmount[]
  /** Ways of laying each layer that look right, by id. */
  turns?: ReadonlyMap<string, readonly Turn[]>
  /** See backCarries; found out where it is not told. */
  carried?: boolean
}

/** All steps with their times, in the order in which they start; none without layers. Times in minutes. */
export function planAssembly({
  project,
  loads,
  depth,
  glue,
  turns = new Map(),
  carried = backCarries(project),
}: AssemblyInputs): AssemblyPlan {
  const papers = new Map(loads.map(({ id, paper }) => [id, paper.name]))
  const jobs = withLearned(project, jobsOf({ project, loads, depth, glue, carried }), papers)
  const steps = schedule(tell(project, withOrder(jobs, project.plan.stepOrder), turns), project.plan.people)
  return {
    steps,
    minutes: Math.max(0, ...steps.map((step) => step.endMin)),
    handsMinutes: steps.reduce((total, step) => total + handsMinutesOf(step), 0),
  }
}

/** A step whose time is not known yet. */
export type DraftStep = Pick<Task, 'id' | 'kind' | 'title' | 'layerId' | 'needs'>

/**
 * The order of work as it follows from the joints alone, before sheets are laid and pads are planned: no loads, no pads and
 * no times, and a joint on foam is taken to hold.
 */
export const draftAssembly = (project: Project, carried = backCarries(project)): DraftStep[] =>
  tell(project, jobsOf({ project, loads: [], depth: null, carried }), new Map()).map(
    ({ id, kind, title, layerId, needs }) => ({ id, kind, title, layerId, needs }),
  )
