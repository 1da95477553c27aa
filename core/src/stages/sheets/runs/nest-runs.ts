// Nesting a whole project: a nester per paper, worked in turn.
import { type Project } from '../../../project'
import { BadInput, Memory } from '../../../base'
import type { NestLayout } from '../nest/instance'
import { Nester } from '../nest/nester'
import { paperRuns, type NestedRun, type PaperRun } from './paper-runs'

/** Search steps that every layout gets at once, before the maker asks for more; fewer where there are many pieces to lay. */
const FIRST_STEPS = 12
const LEAST_STEPS = 2
const FIRST_PIECES = 1500

function firstSteps({ instance }: PaperRun): number {
  const pieces = instance.pieces.reduce((sum, piece) => sum + piece.qty, 0)
  return Math.max(LEAST_STEPS, Math.min(FIRST_STEPS, Math.floor(FIRST_PIECES / Math.max(1, pieces))))
}

export interface Unplaceable {
  run: PaperRun
  reason: string
}

/** Layouts of all runs but those to skip (by id) after a fixed number of steps: the same project always gives the same sheets. */
export function nestProject(
  project: Project,
  skip: ReadonlySet<string> = new Set(),
  steps?: number,
): { runs: NestedRun[]; failed: Unplaceable[] } {
  const runs: NestedRun[] = []
  const failed: Unplaceable[] = []
  for (const run of paperRuns(project)) {
    if (skip.has(run.id)) continue
    try {
      runs.push({ run, layout: nestRun(run, steps ?? firstSteps(run)) })
    } catch (error) {
      if (!(error instanceof BadInput)) throw error
      failed.push({ run, reason: error.message })
    }
  }
  return { runs, failed }
}

const before = new Memory<NestLayout>(100)

/** One paper's layout after a fixed number of steps, remembered; stops early where it cannot get better. */
export function nestRun(run: PaperRun, steps: number): NestLayout {
  return before.get(`${run.fingerprint} ${steps}`, () => {
    const nester = new Nester(run.instance, run.seed)
    for (let k = 0; k < steps && !nester.done; k++) nester.step()
    return nester.best
  })
}
