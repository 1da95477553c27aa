// The graph of the work: which jobs there are, what each waits for and how long it takes. Loads are cut and weeded, folds
// scored, everything tried on dry; then layers are stuck from one side of the stack to the other; then it dries and is mounted.
import { batchTimes } from '../../../base'
import { builtLayers } from '../../../project'
import type { Untold } from '../task'
import { finishing } from './finishing'
import { lastOf, type Known } from './known'
import { padCounts, sum } from './pads'
import { colouring, cutting, pressings, scoring, shapings } from './preparing'
import { sticking } from './sticking'

/** All jobs of a project; of the hands as often as the work is made, a little quicker each time; drying goes on for all at once. */
export function jobsOf(known: Known): Untold[] {
  const layers = builtLayers(known.project)
  if (layers.length === 0) return []
  const pads = padCounts(known)
  const stuck = sticking(known, layers, pads)
  const rest = [
    ...scoring(known, layers),
    ...colouring(known, layers),
    ...shapings(known, layers),
    ...pressings(known, layers),
    ...stuck,
    ...finishing(known, { layers, stuck, padsOf: pads }),
  ]
  const { batch, batchWay, batchRate } = known.project.plan
  const times = (n: number) => batchTimes(n, batchRate)
  const singlePads = sum(rest.flatMap(({ takes = [] }) => takes)) * batch
  return [
    ...cutting(known, singlePads),
    ...(batch > 1 && batchWay === 'one by one'
      ? oneByOne(rest, batch, times)
      : rest.map((one) => timesBatch(one, times(batch)))),
  ]
}

/** The same jobs for each piece of a batch, one piece after the other, each a little quicker; what dries does not hold up the next. */
function oneByOne(jobs: readonly Untold[], batch: number, times: (n: number) => number): Untold[] {
  const own = new Set(jobs.map(({ id }) => id))
  const idOf = (id: string, k: number) => (k > 0 && own.has(id) ? `${id}-of-${k + 1}` : id)
  const last = lastOf(jobs.filter(({ needs }) => needs.includes('hands')))
  return Array.from({ length: batch }, (_, k) =>
    jobs.map((one, i): Untold => ({
      ...one,
      id: idOf(one.id, k),
      nth: k + 1,
      minutes: one.needs.includes('hands') ? one.minutes * (times(k + 1) - times(k)) : one.minutes,
      // The next piece is begun when the hands have finished the one before.
      after: [
        ...one.after.map((id) => idOf(id, k)),
        ...(i === 0 && k > 0 ? last.map((id) => idOf(id, k - 1)) : []),
      ],
    })),
  ).flat()
}

const timesBatch = (job: Untold, times: number): Untold =>
  job.needs.includes('hands') ? { ...job, minutes: job.minutes * times } : job
