// The steps over evenings, so that the work is ready by a date: as late a start as will do. An evening holds whole steps only, and ends on
// nothing wet: what is glued has come to hold by then. What merely dries, dries on overnight.
import { BadInput } from '../../base'
import { Crew } from './schedule'
import { handsMinutesOf, type Step } from './task'

/** When the maker works. Times are local wall clock: minutes since 1970 as a clock on the wall tells them, and of the day. */
export interface Evenings {
  /** Ready by then. */
  byMin: number
  fromMin: number
  toMin: number
  /** Days of the week, 0 for Sunday. */
  days: readonly number[]
  /** How many work at it. */
  people?: number
}

/** A step with its wall-clock minutes since 1970. */
export interface DatedStep {
  step: Step
  startAt: number
  endAt: number
}

/** The work put to evenings. */
export interface DatedPlan {
  /** In the order in which they start. */
  steps: DatedStep[]
  /** Evenings on which something is done, each with the minutes when it begins and ends. */
  evenings: { fromAt: number; toAt: number; steps: DatedStep[] }[]
  /** When the last step ends, and so many minutes before the date. */
  readyAt: number
  slackMin: number
}

const DAY = 1440
/** So far back an evening to begin on is looked for, days. */
const MOST_DAYS = 500
const HAIR = 1e-6

/**
 * Steps over evenings, begun as late as will do. Throws BadInput where a step is longer than an evening, or no start within a year and a
 * half is early enough.
 */
export function overEvenings(steps: readonly Step[], when: Evenings): DatedPlan {
  const { byMin, fromMin, toMin, days } = when
  if (toMin - fromMin < 5) throw new BadInput('an evening lasts at least 5 minutes')
  if (days.length === 0) throw new BadInput('at least one day of the week is wanted')
  const heldMin = heldMinutes(steps)
  const longest = steps
    .filter(({ needs }) => needs.length > 0)
    .toSorted((a, b) => heldMin.get(b)! - heldMin.get(a)!)[0]
  if (longest && heldMin.get(longest)! > toMin - fromMin + HAIR)
    throw new BadInput(
      `“${longest.title}” takes ${Math.ceil(heldMin.get(longest)!)} min with what it waits for: longer than an evening`,
    )
  const windows = eveningsBefore(when)
  // The later it begins the later it ends: the last beginning that is early enough.
  const wanted = steps.reduce((sum, step) => sum + handsMinutesOf(step), 0)
  let room = 0
  for (let k = windows.length - 1; k >= 0; k--) {
    room += windows[k]!.toAt - windows[k]!.fromAt
    if (room * (when.people ?? 1) < wanted - HAIR) continue
    const dated = from(steps, windows.slice(k), { heldMin, people: when.people ?? 1 })
    if (dated && Math.max(...dated.map(({ endAt }) => endAt)) <= byMin + HAIR)
      return planOf(dated, windows, byMin)
  }
  throw new BadInput('there are not enough evenings before that date')
}

/** What becomes of the plan where an evening of it is missed. */
export interface Missed {
  /** The evening. */
  fromAt: number
  /** When it is ready all the same, the other evenings as they are; null where it is no longer ready in time. */
  readyAt: number | null
}

/** For each evening of a plan: whether the work is still ready in time without it, begun as planned. */
export function ifMissed(steps: readonly Step[], when: Evenings, { evenings }: DatedPlan): Missed[] {
  const [first] = evenings
  if (!first) return []
  const heldMin = heldMinutes(steps)
  const windows = eveningsBefore(when).filter(({ fromAt }) => fromAt >= first.fromAt - HAIR)
  return evenings.map(({ fromAt }): Missed => {
    const others = windows.filter((one) => Math.abs(one.fromAt - fromAt) > HAIR)
    const dated = others.length > 0 ? from(steps, others, { heldMin, people: when.people ?? 1 }) : null
    const readyAt = dated ? Math.max(...dated.map(({ endAt }) => endAt)) : Infinity
    return { fromAt, readyAt: readyAt <= when.byMin + HAIR ? readyAt : null }
  })
}

/** Evenings before a date, the earliest first. */
function eveningsBefore({ byMin, fromMin, toMin, days }: Evenings): { fromAt: number; toAt: number }[] {
  const last = Math.floor(byMin / DAY)
  const out: { fromAt: number; toAt: number }[] = []
  for (let day = last - MOST_DAYS; day <= last; day++) {
    // 1 January 1970 was a Thursday.
    if (!days.includes((((day + 4) % 7) + 7) % 7)) continue
    const fromAt = day * DAY + fromMin
    if (fromAt < byMin) out.push({ fromAt, toAt: Math.min(day * DAY + toMin, byMin) })
  }
  return out
}

/** Minutes of each step with the hold that follows it: they belong into one evening. */
function heldMinutes(steps: readonly Step[]): Map<Step, number> {
  const holds = new Map<string, number>()
  for (const { id, after, needs, minutes } of steps)
    if (id.startsWith('hold-') && needs.length === 0) for (const before of after) holds.set(before, minutes)
  return new Map(steps.map((step) => [step, step.minutes + (holds.get(step.id) ?? 0)]))
}

/** List scheduling over windows, the longest way to the end first; null where the windows run out. */
function from(
  steps: readonly Step[],
  windows: readonly { fromAt: number; toAt: number }[],
  { heldMin, people }: { heldMin: ReadonlyMap<Step, number>; people: number },
): DatedStep[] | null {
  const ids = new Set(steps.map(({ id }) => id))
  const tail = tailsOf(steps)
  const endOf = new Map<string, number>()
  const done: DatedStep[] = []
  const open = new Set(steps)
  const put = (step: Step, startAt: number) => {
    const endAt = startAt + step.minutes
    endOf.set(step.id, endAt)
    done.push({ step, startAt, endAt })
    open.delete(step)
  }
  /** When all that a step waits for is done; Infinity while it is not known. */
  const readyAt = (step: Step): number =>
    step.after.reduce(
      (latest, id) => (ids.has(id) ? Math.max(latest, endOf.get(id) ?? Infinity) : latest),
      -Infinity,
    )
  const letDry = () => {
    for (let some = true; some;) {
      some = false
      for (const step of open)
        if (step.needs.length === 0 && readyAt(step) < Infinity) {
          put(step, Math.max(windows[0]!.fromAt, readyAt(step)))
          some = true
        }
    }
  }
  for (const { fromAt, toAt } of windows) {
    const busy = new Crew(fromAt, people)
    for (;;) {
      letDry()
      let best: Step | null = null
      let bestAt = Infinity
      for (const step of open) {
        const ready = readyAt(step)
        if (ready === Infinity || step.needs.length === 0) continue
        const at = busy.freeFrom(step, Math.max(fromAt, ready))
        if (at + heldMin.get(step)! > toAt + HAIR) continue
        if (at < bestAt - HAIR || (at < bestAt + HAIR && tail.get(step.id)! > tail.get(best!.id)!))
          [best, bestAt] = [step, at]
      }
      if (!best) break
      put(best, bestAt)
      busy.take(best, bestAt)
    }
    if (open.size === 0) break
  }
  return open.size === 0 ? done.toSorted((a, b) => a.startAt - b.startAt || a.endAt - b.endAt) : null
}

/** The longest way from the start of each step to the end of all. */
function tailsOf(steps: readonly Step[]): Map<string, number> {
  const followers = new Map<string, Step[]>()
  for (const step of steps)
    for (const id of step.after) followers.set(id, [...(followers.get(id) ?? []), step])
  const tails = new Map<string, number>()
  const tailOf = (step: Step): number => {
    let known = tails.get(step.id)
    if (known === undefined) {
      known = step.minutes + Math.max(0, ...(followers.get(step.id) ?? []).map(tailOf))
      tails.set(step.id, known)
    }
    return known
  }
  steps.forEach(tailOf)
  return tails
}

function planOf(
  steps: DatedStep[],
  windows: readonly { fromAt: number; toAt: number }[],
  byMin: number,
): DatedPlan {
  const readyAt = Math.max(...steps.map(({ endAt }) => endAt))
  const evenings = windows.flatMap(({ fromAt, toAt }) => {
    const own = steps.filter(
      ({ step, startAt }) => step.needs.length > 0 && startAt >= fromAt - HAIR && startAt < toAt,
    )
    return own.length > 0 ? [{ fromAt, toAt: Math.max(...own.map(({ endAt }) => endAt)), steps: own }] : []
  })
  return { steps, evenings, readyAt, slackMin: byMin - readyAt }
}

/** “2026-12-20T18:00” of wall-clock minutes since 1970. */
export const wallClock = (minutes: number): string =>
  new Date(Math.round(minutes * 60) * 1000).toISOString().slice(0, 19)

/** Wall-clock minutes since 1970 of “2026-12-20T18:00”; null where it is none. */
export function readWallClock(text: string): number | null {
  if (!/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2})?$/.test(text)) return null
  const ms = Date.parse(`${text}Z`)
  return Number.isFinite(ms) ? ms / 60_000 : null
}

/** Minutes of the day of “19:00”; null where it is none. */
export function readTimeOfDay(text: string): number | null {
  const found = /^(\d{1,2}):(\d{2})$/.exec(text.trim())
  if (!found) return null
  const [hours, minutes] = [Number(found[1]), Number(found[2])]
  return hours <= 24 && minutes < 60 && hours * 60 + minutes <= DAY ? hours * 60 + minutes : null
}
