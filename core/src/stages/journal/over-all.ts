// What the journals of several projects say together: hours by stage, sheets by paper, and what was at hand when.
import { STAGES, type Project, type Stage } from '../../project'
import { minutesSpent } from './timers'

/** A project's journal, in short. */
export interface Digest {
  id: string
  name: string
  /** By the clocks of the stages; steps that the bench timed count for Assembly, cuts and weeding for Sheets. */
  minutes: Record<Stage, number>
  /** Sheets noted as used; times in ms since 1970. */
  used: { paperId: string; count: number; at: number }[]
}

/** Kinds of steps that are work on sheets. */
const ON_SHEETS = new Set(['print', 'cut', 'weed'])

/** A journal in short. A step that was timed while a clock of its stage ran is counted once. `now` in ms since 1970. */
export function digestOf(project: Project, now: number): Digest {
  const minutes = Object.fromEntries(
    STAGES.map((stage) => [stage, minutesSpent(project, stage, now)]),
  ) as Digest['minutes']
  const ran = (stage: Stage, at: number) =>
    project.journal.timers.some(
      (timer) => timer.stage === stage && timer.startedAt <= at && at <= (timer.endedAt ?? now),
    )
  for (const step of project.journal.steps) {
    const stage = ON_SHEETS.has(step.kind) ? 'sheets' : 'assembly'
    if (!ran(stage, step.at)) minutes[stage] += step.minutes
  }
  return { id: project.id, name: project.name, minutes, used: project.journal.sheetsUsed }
}

/** Sheets used in all, by paper, the most first. */
export function sheetsUsedOf(digests: readonly Digest[]): { paperId: string; count: number }[] {
  const counts = new Map<string, number>()
  for (const { used } of digests)
    for (const { paperId, count } of used) counts.set(paperId, (counts.get(paperId) ?? 0) + count)
  return [...counts]
    .map(([paperId, count]) => ({ paperId, count }))
    .toSorted((a, b) => b.count - a.count || a.paperId.localeCompare(b.paperId))
}

/**
 * Sheets at hand over time, back from what is there now by what was noted as used since: what was bought or corrected in between is
 * not known. The first point is before the first use, the last is now.
 */
export function drawerOverTime(
  digests: readonly Digest[],
  { atHand, now }: { atHand: number; now: number },
): { at: number; sheets: number }[] {
  const byTime = new Map<number, number>()
  for (const { used } of digests)
    for (const { at, count } of used) byTime.set(at, (byTime.get(at) ?? 0) + count)
  const uses = [...byTime].toSorted(([a], [b]) => b - a)
  // A use is noted with the clock that runs on.
  const points = [{ at: Math.max(now, uses[0]?.[0] ?? now), sheets: atHand }]
  let sheets = atHand
  for (const [at, count] of uses) {
    points.push({ at, sheets })
    sheets += count
    points.push({ at, sheets })
  }
  return points.toReversed()
}
