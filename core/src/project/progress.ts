// What is done: ticked steps, and what they took out of the drawer.
import type { Project } from './schema'
import type { Supplies } from './supplies'

/** Single pads of a foam. */
export interface FoamCount {
  foamId: string
  count: number
}

/** Ticks a step off, or takes the tick back. What is done is waited for no longer. */
export function tickStep(project: Project, stepId: string, done: boolean): Project {
  const { progress } = project
  const rest = progress.done.filter((id) => id !== stepId)
  const drying = done ? progress.drying.filter((one) => one.stepId !== stepId) : progress.drying
  return {
    ...project,
    progress: {
      ...progress,
      done: done ? [...rest, stepId] : rest,
      drying: drying.length === progress.drying.length ? progress.drying : drying,
    },
  }
}

/**
 * Ticks a step off and takes the foam it needs out of the drawer; or takes the tick back and gives back what it took. A foam never
 * falls under nought: what was not there is noted, and not given back.
 */
export function tickTaking(
  { project, supplies }: { project: Project; supplies: Supplies },
  stepId: string,
  { done, foams = [] }: { done: boolean; foams?: readonly FoamCount[] },
): { project: Project; supplies: Supplies } {
  const before = project.progress.took.find((one) => one.stepId === stepId)?.foams ?? []
  const wanted = done ? foams : []
  const there = new Map(supplies.foams.map((foam) => [foam.id, foam.count]))
  for (const { foamId, count, missing } of before)
    there.set(foamId, (there.get(foamId) ?? 0) + count - missing)
  const taken = wanted.map(({ foamId, count }) => {
    const own = Math.min(count, there.get(foamId) ?? 0)
    there.set(foamId, (there.get(foamId) ?? 0) - own)
    return { foamId, count, missing: count - own }
  })
  const ticked = tickStep(project, stepId, done)
  const rest = project.progress.took.filter((one) => one.stepId !== stepId)
  if (before.length === 0 && taken.length === 0) return { project: ticked, supplies }
  const took = taken.length > 0 ? [...rest, { stepId, foams: taken }] : rest
  const counted = <T extends { id: string; count: number }>(list: readonly T[]) =>
    list.map((one) => {
      const count = there.get(one.id)
      return count === undefined || count === one.count ? one : { ...one, count }
    })
  return {
    project: {
      ...ticked,
      drawer: { ...ticked.drawer, foams: counted(ticked.drawer.foams) },
      progress: { ...ticked.progress, took },
    },
    supplies: { ...supplies, foams: counted(supplies.foams) },
  }
}

/** Begins to let a step dry; one that is drying already begins anew. Times in ms since 1970. */
export const letDry = (
  project: Project,
  { stepId, title, endsAt }: { stepId: string; title: string; endsAt: number },
): Project => ({
  ...project,
  progress: {
    ...project.progress,
    drying: [...project.progress.drying.filter((one) => one.stepId !== stepId), { stepId, title, endsAt }],
  },
})

/** What dried is dry, and its step done; or it is no longer waited for. */
export function driedOff(project: Project, stepId: string, done: boolean): Project {
  const drying = project.progress.drying.filter((one) => one.stepId !== stepId)
  const stopped = { ...project, progress: { ...project.progress, drying } }
  return done ? tickStep(stopped, stepId, true) : stopped
}

/** Foam that was stuck and came off again is noted as a step of its own, which nothing gives back. */
const isSpent = (stepId: string): boolean => / spent \d+$/.test(stepId)

/** Foam that comes off a piece is of no more use: it stays noted as used, apart from what the step takes when it is done again. */
export function spendFoam(project: Project, stepId: string): Project {
  const { took } = project.progress
  if (!took.some((one) => one.stepId === stepId)) return project
  let n = 1
  while (took.some((one) => one.stepId === `${stepId} spent ${n}`)) n++
  const apart = took.map((one) => (one.stepId === stepId ? { ...one, stepId: `${stepId} spent ${n}` } : one))
  return { ...project, progress: { ...project.progress, took: apart } }
}

/** Takes every tick back but those of sheets that are cut, and gives back all that the steps took and that can be stuck again. */
export function untickAll(held: { project: Project; supplies: Supplies }): {
  project: Project
  supplies: Supplies
} {
  const given = held.project.progress.took
    .filter(({ stepId }) => !isSpent(stepId))
    .reduce((now, { stepId }) => tickTaking(now, stepId, { done: false }), held)
  return {
    ...given,
    project: {
      ...given.project,
      progress: {
        ...given.project.progress,
        drying: [],
        done: given.project.cut.map(({ id }) => `cut-${id}`),
      },
    },
  }
}
