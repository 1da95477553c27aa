// What the graph of the work follows from, and a job of it.
import type { Project } from '../../../project'
import type { DepthPlan, GlueAmount } from '../../depth'
import type { Load } from '../../sheets'
import type { About, Job, Untold } from '../task'

/** What the graph follows from. */
export interface Known {
  project: Project
  loads: readonly Load[]
  /** Null before the pads are planned: every joint on foam is taken to hold, and times of pads are left out. */
  depth: Pick<
    DepthPlan,
    'layers' | 'pads' | 'pieces' | 'stackMm' | 'roomMm' | 'pins' | 'shim' | 'lip' | 'apart'
  > | null
  /** Glue of the layers that take some. */
  glue?: readonly GlueAmount[] | undefined
  /** The backmost layer is one sheet that carries the others: see backCarries. */
  carried: boolean
}

/** A job of the hands unless it says otherwise. */
export const job = (
  one: Pick<Job, 'id' | 'kind' | 'after' | 'minutes'> & Partial<Job> & { about: About },
): Untold => ({
  needs: ['hands'],
  layerId: null,
  loadId: null,
  ...one,
})

/** Those of some jobs that none of the others waits for. */
export function lastOf(jobs: readonly Pick<Job, 'id' | 'after'>[]): string[] {
  const waitedFor = new Set(jobs.flatMap(({ after }) => after))
  return jobs.flatMap(({ id }) => (waitedFor.has(id) ? [] : [id]))
}
