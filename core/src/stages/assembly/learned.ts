// What the hands and the cutter really took in earlier work, as factors of our own times.
import { learn, type Learned } from '../../base'
import { adhesiveOf, findLayer, glueOf, type Observation, type Project } from '../../project'
import type { Job } from './task'

/** What was learned of a kind of step, of all of it or with one foam, glue, or cutter and paper. */
export interface Factor extends Learned<Observation> {
  what: string
  /** Empty where it is of the kind as a whole. */
  of: string
}

/** Factors of all that was observed: of each kind, and of what it was done with, drawn towards that of the kind. */
export function factorsOf(observed: readonly Observation[]): Factor[] {
  const kinds = [...new Set(observed.map(({ what }) => what))].toSorted()
  return kinds.flatMap((what) => {
    const own = observed.filter((one) => one.what === what)
    const whole = learn(own)
    const parts = [...new Set(own.map(({ of }) => of))].filter((of) => of !== '').toSorted()
    return [
      { what, of: '', ...whole },
      ...parts.map((of) => ({
        what,
        of,
        ...learn(
          own.filter((one) => one.of === of),
          whole.factor,
        ),
      })),
    ]
  })
}

/** What a step is done with, as far as that tells how long it takes. */
export function doneWith(
  project: Project,
  step: Pick<Job, 'kind' | 'layerId' | 'takes'>,
  paper: string | null = null,
): string {
  switch (step.kind) {
    case 'cut':
      return [project.drawer.cutter.name, paper].filter(Boolean).join(', ')
    case 'pad': {
      const most = [...(step.takes ?? [])].toSorted((a, b) => b.count - a.count)[0]
      return project.drawer.foams.find(({ id }) => id === most?.foamId)?.name ?? ''
    }
    case 'glue': {
      const layer = findLayer(project, step.layerId)
      return (layer ? glueOf(project, layer) : adhesiveOf(project))?.name ?? ''
    }
    case 'weed':
      return paper ?? ''
    default:
      return ''
  }
}

/** Jobs with what was learned of them; what dries takes its time whoever waits. Nothing changes where nothing was seen. */
export function withLearned<T extends Job>(
  project: Project,
  jobs: readonly T[],
  paperOfLoad: ReadonlyMap<string, string>,
): T[] {
  const { observed } = project.drawer
  if (!project.plan.learns || observed.length === 0) return [...jobs]
  const factors = new Map(factorsOf(observed).map((one) => [`${one.what} ${one.of}`, one]))
  return jobs.map((job) => {
    if (job.needs.length === 0) return job
    const of = doneWith(project, job, job.loadId === null ? null : (paperOfLoad.get(job.loadId) ?? null))
    const found = factors.get(`${job.kind} ${of}`) ?? factors.get(`${job.kind} `)
    return found ? { ...job, minutes: job.minutes * found.factor, oursMin: job.minutes } : job
  })
}
