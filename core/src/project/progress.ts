// What is done: ticked steps, and what they took out of the drawer.
import type { Project } from './schema'
import type { Supplies } from './supplies'
import type { ThingCount } from './things'

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

/** So many of a record, and how many of them were not there. */
interface Taken {
  id: string
  count: number
  missing: number
}

/**
 * Gives back to the drawer what was taken of it before, and takes what is wanted now as far as it is there. What is not counted is not taken.
 * @param shared the drawer's list, and `own` the project's copy, which may have some that the drawer has not
 */
function taking<T extends { id: string; count: number | null }>(
  { shared, own: copy }: { shared: readonly T[]; own: readonly T[] },
  { before, wanted }: { before: readonly Taken[]; wanted: readonly Omit<Taken, 'missing'>[] },
): { taken: Taken[]; left: (list: readonly T[]) => T[] } {
  const there = new Map([...copy, ...shared].map(({ id, count }) => [id, count]))
  const isCounted = ({ id }: { id: string }) => there.get(id) !== null
  for (const { id, count, missing } of before.filter(isCounted))
    there.set(id, (there.get(id) ?? 0) + count - missing)
  const taken = wanted.filter(isCounted).map(({ id, count }) => {
    const had = there.get(id) ?? 0
    const own = Math.min(count, had)
    there.set(id, had - own)
    return { id, count, missing: count - own }
  })
  const left = (list: readonly T[]) =>
    list.map((one) => {
      const count = there.get(one.id)
      return typeof count !== 'number' || one.count === null ? one : { ...one, count }
    })
  return { taken, left }
}

/**
 * Ticks a step off and takes what it needs out of the drawer; or takes the tick back and gives back what it took. Nothing falls under
 * nought: what was not there is noted, and not given back.
 */
export function tickTaking(
  { project, supplies }: { project: Project; supplies: Supplies },
  stepId: string,
  {
    done,
    foams = [],
    things = [],
  }: { done: boolean; foams?: readonly FoamCount[]; things?: readonly ThingCount[] },
): { project: Project; supplies: Supplies } {
  const before = project.progress.took.find((one) => one.stepId === stepId)
  const { drawer } = project
  const foam = taking(
    { shared: supplies.foams, own: drawer.foams },
    {
      before: (before?.foams ?? []).map(({ foamId, ...rest }) => ({ id: foamId, ...rest })),
      wanted: done ? foams.map(({ foamId, count }) => ({ id: foamId, count })) : [],
    },
  )
  const thing = taking(
    { shared: supplies.things, own: drawer.things },
    {
      before: (before?.things ?? []).map(({ thingId, ...rest }) => ({ id: thingId, ...rest })),
      wanted: done ? things.map(({ thingId, count }) => ({ id: thingId, count })) : [],
    },
  )
  const ticked = tickStep(project, stepId, done)
  const takes = foam.taken.length + thing.taken.length > 0
  if (!before && !takes) return { project: ticked, supplies }
  const noted = {
    stepId,
    foams: foam.taken.map(({ id, ...rest }) => ({ foamId: id, ...rest })),
    things: thing.taken.map(({ id, ...rest }) => ({ thingId: id, ...rest })),
  }
  const rest = project.progress.took.filter((one) => one.stepId !== stepId)
  return {
    project: {
      ...ticked,
      drawer: { ...drawer, foams: foam.left(drawer.foams), things: thing.left(drawer.things) },
      progress: { ...ticked.progress, took: takes ? [...rest, noted] : rest },
    },
    supplies: { ...supplies, foams: foam.left(supplies.foams), things: thing.left(supplies.things) },
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
