// The evenings of a project as a calendar.
import type { Project } from '../../project'
import { wallClock, type DatedPlan } from '../../stages/assembly'
import { writeIcs } from '../write'

/** An entry for each evening, with its steps and when they begin. */
export const calendarOf = (project: Project, { evenings }: DatedPlan): string =>
  writeIcs(
    evenings.map(({ fromAt, toAt, steps }, i) => ({
      uid: `${project.id}-evening-${i + 1}@feuillet`,
      title: `${project.name}, evening ${i + 1} of ${evenings.length}`,
      text: steps.map(({ step, startAt }) => `${wallClock(startAt).slice(11, 16)} ${step.title}`).join('\n'),
      fromAt,
      toAt: Math.ceil(toAt),
    })),
    project.name,
  )
