// List scheduling on two resources, the cutter and the hands; drying needs neither. Of the steps that may start, the one
// with the longest way to the end goes first, so that drying and cutting run while the hands do something else.
import type { Resource, Step, Task } from './steps'

/** Puts start and end to tasks; the result is sorted by start. Throws on a circle, which would be a bug. */
export function schedule(tasks: readonly Task[]): Step[] {
  const byId = new Map(tasks.map((task) => [task.id, task]))
  const followers = new Map<string, string[]>()
  for (const task of tasks)
    for (const id of task.after) followers.set(id, [...(followers.get(id) ?? []), task.id])
  const tail = new Map<string, number>()
  const tailOf = (id: string, trail: readonly string[] = []): number => {
    if (trail.includes(id)) throw new Error(`steps wait for each other: ${[...trail, id].join(' → ')}`)
    const known = tail.get(id)
    if (known !== undefined) return known
    const longest = Math.max(0, ...(followers.get(id) ?? []).map((next) => tailOf(next, [...trail, id])))
    const value = longest + (byId.get(id)?.minutes ?? 0)
    tail.set(id, value)
    return value
  }
  for (const task of tasks) tailOf(task.id)

  const busyUntil: Record<Resource, number> = { cutter: 0, hands: 0 }
  const ends = new Map<string, number>()
  const open = new Set(tasks)
  const steps: Step[] = []
  while (open.size > 0) {
    let pick: Task | undefined
    let pickStart = Infinity
    for (const task of open) {
      if (!task.after.every((id) => !byId.has(id) || ends.has(id))) continue
      const start = Math.max(
        0,
        ...task.after.map((id) => ends.get(id) ?? 0),
        ...task.needs.map((r) => busyUntil[r]),
      )
      if (
        start < pickStart - 1e-9 ||
        (start < pickStart + 1e-9 && tail.get(task.id)! > tail.get(pick!.id)!)
      ) {
        pick = task
        pickStart = start
      }
    }
    if (!pick) throw new Error('steps wait for each other')
    open.delete(pick)
    const endMin = pickStart + pick.minutes
    ends.set(pick.id, endMin)
    for (const r of pick.needs) busyUntil[r] = endMin
    steps.push({ ...pick, startMin: pickStart, endMin })
  }
  return steps.sort((a, b) => a.startMin - b.startMin || a.endMin - b.endMin)
}
