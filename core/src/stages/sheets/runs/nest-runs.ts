// Nesting a whole project: a nester per paper, worked in turn.
import type { Project } from '../../../project'
import { BadInput, fresh, type Memo } from '../../../base'
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

/** A run with its first layout, after a fixed number of steps; where a piece is larger than its sheets, why not. */
export function layRun(run: PaperRun, memo: Memo = fresh, steps = firstSteps(run)): NestedRun | Unplaceable {
  try {
    return { run, layout: nestRun(run, steps, memo) }
  } catch (error) {
    if (!(error instanceof BadInput)) throw error
    return { run, reason: error.message }
  }
}

/** Layouts of all runs: the same project always gives the same sheets. */
export function nestProject(project: Project, steps?: number): { runs: NestedRun[]; failed: Unplaceable[] } {
  return sortOut(paperRuns(project).map((run) => layRun(run, fresh, steps)))
}

/** What could be laid, and what not. */
export const sortOut = (
  all: readonly (NestedRun | Unplaceable)[],
): { runs: NestedRun[]; failed: Unplaceable[] } => ({
  runs: all.filter((one) => 'layout' in one),
  failed: all.filter((one) => 'reason' in one),
})

/** One paper's layout after a fixed number of steps; stops early where it cannot get better. Throws BadInput where a piece is too large. */
export const nestRun = (run: PaperRun, steps: number, memo: Memo = fresh): NestLayout =>
  memo('first layout', [run.fingerprint, steps], () => {
    const nester = new Nester(run.instance, run.seed)
    for (let k = 0; k < steps && !nester.done; k++) nester.step()
    return nester.best
  })
