// The steps that are left, put to the evenings before the date that the project names.
import type { Plan } from '../../project'
import { ifMissed, overEvenings, readTimeOfDay, readWallClock, type DatedPlan, type Missed } from './evenings'
import type { Step } from './task'

/** A date to be ready by, with the evenings to work on. */
export type Due = NonNullable<Plan['due']>

/** A plan over evenings, and what becomes of it where one of them is missed. */
export interface DuePlan extends DatedPlan {
  missed: Missed[]
}

/** The work put to evenings before a date, or why it cannot be, in a sentence. */
export function datedPlan(
  steps: readonly Step[],
  { done, due, people }: { done: readonly string[]; due: Due; people: number },
): DuePlan | string {
  const [byMin, fromMin, toMin] = [readWallClock(due.by), readTimeOfDay(due.from), readTimeOfDay(due.to)]
  if (byMin === null || fromMin === null || toMin === null) return 'A date and times are wanted.'
  const left = steps.filter(({ id }) => !done.includes(id))
  if (left.length === 0) return 'All steps are done.'
  try {
    const when = { byMin, fromMin, toMin, days: due.days, people }
    const dated = overEvenings(left, when)
    return { ...dated, missed: ifMissed(left, when, dated) }
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error)
    return `${why.charAt(0).toUpperCase()}${why.slice(1)}.`
  }
}
