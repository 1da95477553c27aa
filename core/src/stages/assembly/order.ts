// The order of steps beyond what their times tell: what is critical, and which steps the maker moves within what precedence allows.
import { setPlan, type Project } from '../../project'
import type { Job } from './task'

type Waiting = Pick<Job, 'id' | 'after' | 'minutes'>

/** Where a step lies between the earliest and the latest it may be, minutes from the start; hands and cutter left out of account. */
export interface Leeway {
  earliestMin: number
  latestMin: number
  /** So much it may be late without the end being later; nought on the critical path. */
  slackMin: number
}

/** The leeway of every step: one pass forward for the earliest starts, one back for the latest (critical path method). Steps that are not in the list count as done. */
export function leeways(steps: readonly Waiting[]): Map<string, Leeway> {
  const byId = new Map(steps.map((step) => [step.id, step]))
  const followers = new Map<string, Waiting[]>()
  for (const step of steps)
    for (const id of step.after) followers.set(id, [...(followers.get(id) ?? []), step])
  const earliest = new Map<string, number>()
  const latest = new Map<string, number>()
  const early = (step: Waiting): number => {
    const known = earliest.get(step.id)
    if (known !== undefined) return known
    const value = step.after.reduce((most, id) => {
      const before = byId.get(id)
      return before ? Math.max(most, early(before) + before.minutes) : most
    }, 0)
    earliest.set(step.id, value)
    return value
  }
  const end = steps.reduce((most, step) => Math.max(most, early(step) + step.minutes), 0)
  const late = (step: Waiting): number => {
    const known = latest.get(step.id)
    if (known !== undefined) return known
    const value =
      (followers.get(step.id) ?? []).reduce((least, next) => Math.min(least, late(next)), end) - step.minutes
    latest.set(step.id, value)
    return value
  }
  return new Map(
    steps.map((step) => {
      const [earliestMin, latestMin] = [early(step), late(step)]
      return [step.id, { earliestMin, latestMin, slackMin: Math.max(0, latestMin - earliestMin) }]
    }),
  )
}

/** All that a step waits for, directly or not. */
export function waitsFor(steps: readonly Pick<Job, 'id' | 'after'>[], id: string): Set<string> {
  const byId = new Map(steps.map((step) => [step.id, step]))
  const found = new Set<string>()
  const open = [id]
  for (let next = open.pop(); next !== undefined; next = open.pop())
    for (const before of byId.get(next)?.after ?? [])
      if (byId.has(before) && !found.has(before)) {
        found.add(before)
        open.push(before)
      }
  return found
}

/** The jobs with what the maker wants before what; wishes that would make steps wait for each other are left out. */
export function withOrder<T extends Pick<Job, 'id' | 'after'>>(
  jobs: readonly T[],
  order: Project['plan']['stepOrder'],
): T[] {
  let next = [...jobs]
  for (const { first, then } of order) {
    const ids = new Set(next.map(({ id }) => id))
    if (first === then || !ids.has(first) || !ids.has(then) || waitsFor(next, first).has(then)) continue
    next = next.map((job) =>
      job.id === then && !job.after.includes(first) ? { ...job, after: [...job.after, first] } : job,
    )
  }
  return next
}

/** A step moved by one place among those that need the hands or the cutter; or why it cannot be. */
export type Moved = { ok: true; project: Project } | { ok: false; why: string }

/**
 * Moves a step before the one that comes before it, or behind the one that comes after. `steps` are in the order in which they start.
 */
export function moveStep(
  project: Project,
  steps: readonly (Pick<Job, 'id' | 'after' | 'needs'> & { title: string })[],
  { id, way }: { id: string; way: 'earlier' | 'later' },
): Moved {
  const own = steps.find((step) => step.id === id)
  if (!own) return { ok: false, why: 'it is no longer in the plan' }
  const line = steps.filter(({ needs }) => needs.some((one) => own.needs.includes(one)))
  const at = line.indexOf(own)
  const other = line[way === 'earlier' ? at - 1 : at + 1]
  if (!other) return { ok: false, why: way === 'earlier' ? 'it is the first' : 'it is the last' }
  const [first, then] = way === 'earlier' ? [own, other] : [other, own]
  const { stepOrder } = project.plan
  // A wish of before that says the opposite is what kept it there.
  const rest = stepOrder.filter((wish) => !(wish.first === then.id && wish.then === first.id))
  const isWish = (before: string, after: string) =>
    stepOrder.some((wish) => wish.first === before && wish.then === after)
  const plain = steps.map((step) => ({
    ...step,
    after: step.after.filter((before) => !isWish(before, step.id)),
  }))
  if (waitsFor(withOrder(plain, rest), first.id).has(then.id))
    return { ok: false, why: `“${first.title}” waits for “${then.title}”` }
  const wishes = rest.some((wish) => wish.first === first.id && wish.then === then.id)
    ? rest
    : [...rest, { first: first.id, then: then.id }]
  return { ok: true, project: setPlan(project, { stepOrder: wishes }) }
}

/** The wishes about a step let go. */
export const letStepGo = (project: Project, id: string): Project =>
  setPlan(project, {
    stepOrder: project.plan.stepOrder.filter(({ first, then }) => first !== id && then !== id),
  })
