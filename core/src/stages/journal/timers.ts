import { fingerprint } from '../../base'
import { tickStep, type CutRun, type Project, type Stage, type StepNote, type Supplies } from '../../project'
import { doneWith, handsMinutesOf, type Step } from '../assembly'

/** Starts a stage's timer; any other that runs is stopped first. `now` in ms since 1970. */
export function startTimer(project: Project, stage: Stage, now: number): Project {
  const stopped = stopTimer(project, now)
  return {
    ...stopped,
    journal: {
      ...stopped.journal,
      timers: [...stopped.journal.timers, { stage, startedAt: now, endedAt: null }],
    },
  }
}

/** Stops whichever timer runs. */
export function stopTimer(project: Project, now: number): Project {
  const timers = project.journal.timers.map((timer) =>
    timer.endedAt === null ? { ...timer, endedAt: Math.max(now, timer.startedAt) } : timer,
  )
  return { ...project, journal: { ...project.journal, timers } }
}

/** The stage whose clock runs; none where none does. */
export const runningStage = (project: Project): Stage | null =>
  project.journal.timers.find((timer) => timer.endedAt === null)?.stage ?? null

/** Minutes a stage's timers have run, up to now for the one that is running. */
export function minutesSpent(project: Project, stage: Stage, now: number): number {
  return project.journal.timers
    .filter((timer) => timer.stage === stage)
    .reduce(
      (sum, timer) => sum + ((timer.endedAt ?? Math.max(now, timer.startedAt)) - timer.startedAt) / 60000,
      0,
    )
}

/** Minutes that steps are planned to take of the clocks of stages: sheets are cut, by machine or by knife, while that of Sheets runs. */
export function minutesPlanned(steps: readonly Step[]): Partial<Record<Stage, number>> {
  const sum = (list: readonly Step[], minutesOf: (step: Step) => number) =>
    list.reduce((total, step) => total + minutesOf(step), 0)
  const [cut, rest] = [steps.filter(({ kind }) => kind === 'cut'), steps.filter(({ kind }) => kind !== 'cut')]
  return { sheets: sum(cut, ({ minutes }) => minutes), assembly: sum(rest, handsMinutesOf) }
}

/** Notes that sheets of papers were used. */
export function noteSheets(
  project: Project,
  used: readonly { paperId: string; count: number }[],
  at: number,
): Project {
  return {
    ...project,
    journal: {
      ...project.journal,
      sheetsUsed: [...project.journal.sheetsUsed, ...used.map((u) => ({ ...u, at }))],
    },
  }
}

/** A project with what of the shared drawer is no paper. */
interface Held {
  project: Project
  supplies: Supplies
}

/**
 * Notes what a step took, in the project and for all that are planned after it; done again it is noted anew. Times in minutes and ms
 * since 1970.
 * @param paper of the sheet that the step is about
 */
export function noteStep(
  { project, supplies }: Held,
  { step, minutes, at, paper = null }: { step: Step; minutes: number; at: number; paper?: string | null },
): Held {
  const { id: stepId, kind, title, minutes: plannedMin, oursMin = plannedMin } = step
  const note: StepNote = {
    stepId,
    kind,
    title,
    made: project.plan.batch,
    plannedMin,
    oursMin,
    minutes: Math.round(minutes * 100) / 100,
    at,
    counts: null,
  }
  const rest = project.journal.steps.filter((one) => one.stepId !== stepId)
  return observed(
    { project: { ...project, journal: { ...project.journal, steps: [...rest, note] } }, supplies },
    { step, note, of: doneWith(project, step, paper) },
  )
}

/** So many observations are kept; the oldest go first. */
const MOST_OBSERVED = 1500

function observed(
  { project, supplies }: Held,
  {
    step,
    note,
    of,
  }: { step: Pick<Step, 'id' | 'kind'>; note: Pick<StepNote, 'oursMin' | 'minutes' | 'at'>; of: string },
): Held {
  const { oursMin, minutes, at } = note
  const id = idOf(project, step.id)
  const seen = { id, what: step.kind, of, project: project.name, oursMin, minutes, at, counts: null }
  const others = supplies.observed.filter((one) => one.id !== id)
  const next = oursMin > 0 && minutes > 0 ? [...others, seen].slice(-MOST_OBSERVED) : others
  return { project, supplies: { ...supplies, observed: next } }
}

/** What a step of a project is observed as: made again it is the same. */
const idOf = (project: Project, stepId: string): string => `o-${fingerprint([project.id, stepId])}`

/** Corrects what a step took; null takes the note out. */
export function correctStep({ project, supplies }: Held, stepId: string, minutes: number | null): Held {
  const id = idOf(project, stepId)
  const set = <T extends { minutes: number }>(list: readonly T[], isIt: (one: T) => boolean): T[] =>
    minutes === null
      ? list.filter((one) => !isIt(one))
      : list.map((one) => (isIt(one) ? { ...one, minutes } : one))
  return {
    project: {
      ...project,
      journal: { ...project.journal, steps: set(project.journal.steps, (one) => one.stepId === stepId) },
    },
    supplies: { ...supplies, observed: set(supplies.observed, (one) => one.id === id) },
  }
}

/** Says of something that was observed whether it counts, however far off it is. */
export const judge = (supplies: Supplies, id: string, counts: boolean | null): Supplies => ({
  ...supplies,
  observed: supplies.observed.map((one) => (one.id === id ? { ...one, counts } : one)),
})

/** What a run of the cutter took, for all that are planned after it. `oursMin` is what was planned by our own values. */
export const observeRun = (held: Held, { run, oursMin }: { run: CutRun; oursMin: number }): Held =>
  observed(held, {
    step: { id: `cut-${run.loadId}`, kind: 'cut' },
    note: { oursMin, minutes: run.minutes, at: run.startedAt },
    of: doneWith(held.project, { kind: 'cut', layerId: null }, run.paper),
  })

/** Notes a run of the cutter, once; a load cut through ticks its step off. */
export function noteRun(project: Project, run: CutRun): Project {
  if (
    project.journal.runs.some(
      (known) =>
        known.loadId === run.loadId && known.startedAt === run.startedAt && known.outcome === run.outcome,
    )
  )
    return project
  const noted = { ...project, journal: { ...project.journal, runs: [...project.journal.runs, run] } }
  return run.outcome === 'cut' ? tickStep(noted, `cut-${run.loadId}`, true) : noted
}
