// The steps that are left, put to the evenings before the date that the project names.
import type { Plan } from '../../project'
import { overEvenings, readTimeOfDay, readWallClock, type DatedPlan } from './evenings'
import type { Step } from './task'

/** A date to be ready by, with the evenings to work on. */
export type Due = NonNullable<Plan['due']>

/** The work put to evenings before a date, or why it cannot be, in a sentence. */
export function datedPlan(
  steps: readonly Step[],
  { done, due, people }: { done: readonly string[]; due: Due; people: number },
): DatedPlan | string {
  const [byMin, fromMin, toMin] = [readWallClock(due.by), readTimeOfDay(due.from), readTimeOfDay(due.to)]
  if (byMin === null || fromMin === null || toMin === null) return 'A date and times are wanted.'
  const left = steps.filter(({ id }) => !done.includes(id))
  if (left.length === 0) return 'All steps are done.'
  try {
    return overEvenings(left, { byMin, fromMin, toMin, days: due.days, people })
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error)
    return `${why.charAt(0).toUpperCase()}${why.slice(1)}.`
  }
}
