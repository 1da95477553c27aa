// List scheduling (Graham 1966) on the cutter and as many pairs of hands as there are; drying needs neither. Of the steps that may
// start, the one with the longest way to the end goes first, so that drying and cutting run while the hands do something else.
import { handsMinutesOf, type Resource, type Step, type Task, type Work } from './task'

/**
 * Puts start and end to tasks; the result is sorted by start. What a task waits for and is not among the tasks counts as done.
 * Throws on a circle, which would be a bug.
 */
export function schedule(tasks: readonly Task[], people = 1): Step[] {
  const { followers, waiting } = precedence(tasks)
  const tail = tails(tasks, followers, waiting)
  const busy = new Crew(0, people)
  /** When the last of what a task waits for ends. */
  const earliest = new Float64Array(tasks.length)
  const left = waiting.slice()
  // In the order of the list, so that of equals the first goes first.
  const ready = tasks.flatMap((_, k) => (left[k] === 0 ? [k] : []))
  const steps: Step[] = []
  while (ready.length > 0) {
    let at = 0
    let startMin = Infinity
    ready.forEach((k, place) => {
      const start = busy.freeFrom(tasks[k]!, earliest[k]!)
      if (start < startMin - HAIR || (start < startMin + HAIR && tail[k]! > tail[ready[at]!]!)) {
        at = place
        startMin = start
      }
    })
    const [k] = ready.splice(at, 1) as [number]
    const task = tasks[k]!
    const endMin = startMin + task.minutes
    busy.take(task, startMin)
    steps.push({ ...task, startMin, endMin })
    for (const next of followers[k]!) {
      earliest[next] = Math.max(earliest[next]!, endMin)
      if (--left[next]! === 0) insert(ready, next)
    }
  }
  return steps.sort((a, b) => a.startMin - b.startMin || a.endMin - b.endMin)
}

const HAIR = 1e-9

/** Until when the cutter and each pair of hands are busy, minutes. */
export class Crew {
  private readonly until: Record<Resource, number[]>

  constructor(fromMin: number, people: number) {
    this.until = { cutter: [fromMin], hands: Array.from({ length: people }, () => fromMin) }
  }

  /** The earliest time, not before another, at which one of each that is needed is free. */
  freeFrom(work: Work, earliestMin: number): number {
    let at = earliestMin
    if (work.needs.includes('cutter')) at = Math.max(at, ...this.until.cutter)
    if (takesHands(work)) at = Math.max(at, Math.min(...this.until.hands))
    return at
  }

  /** Keeps one of each busy, for as long as it is needed: the one that is free first. */
  take(work: Work, startMin: number): void {
    const { cutter, hands } = this.until
    if (work.needs.includes('cutter')) cutter[0] = startMin + work.minutes
    if (takesHands(work)) hands[hands.indexOf(Math.min(...hands))] = startMin + handsMinutesOf(work)
  }
}

const takesHands = ({ needs, handsMin }: Work): boolean => needs.includes('hands') || handsMin !== undefined

/** Who follows each task, and how many tasks each waits for; by their places in the list. */
function precedence(tasks: readonly Task[]): { followers: number[][]; waiting: Int32Array } {
  const placeOf = new Map(tasks.map((task, k) => [task.id, k]))
  const followers = tasks.map((): number[] => [])
  const waiting = new Int32Array(tasks.length)
  tasks.forEach((task, k) => {
    for (const id of new Set(task.after)) {
      const before = placeOf.get(id)
      if (before === undefined) continue
      followers[before]!.push(k)
      waiting[k]!++
    }
  })
  return { followers, waiting }
}

/** The longest way from the start of each task to the end of all (critical path: Kelley and Walker 1959). */
function tails(tasks: readonly Task[], followers: readonly number[][], waiting: Int32Array): Float64Array {
  const left = waiting.slice()
  const order = tasks.flatMap((_, k) => (left[k] === 0 ? [k] : []))
  for (let i = 0; i < order.length; i++)
    for (const next of followers[order[i]!]!) if (--left[next]! === 0) order.push(next)
  if (order.length < tasks.length) {
    const stuck = tasks.filter((_, k) => left[k]! > 0).map((task) => task.id)
    throw new Error(`steps wait for each other: ${stuck.slice(0, 6).join(', ')}`)
  }
  const tail = new Float64Array(tasks.length)
  for (const k of order.toReversed())
    tail[k] = tasks[k]!.minutes + followers[k]!.reduce((most, next) => Math.max(most, tail[next]!), 0)
  return tail
}

/** Puts a place into a rising list. */
function insert(list: number[], place: number): void {
  let i = list.length
  while (i > 0 && list[i - 1]! > place) i--
  list.splice(i, 0, place)
}
