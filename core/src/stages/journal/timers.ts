import { tickStep, type CutRun, type Project, type Stage, type StepNote } from '../../project'
import type { Step } from '../assembly'

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

/** Notes what a step took; done again it is noted anew. Times in minutes and ms since 1970. */
export function noteStep(
  project: Project,
  { step, minutes, at }: { step: Step; minutes: number; at: number },
): Project {
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
  return { ...project, journal: { ...project.journal, steps: [...rest, note] } }
}

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
