// Nesting a whole project: a nester per paper, worked in turn.
import type { Project } from '../../../project'
import { fresh, type Memo } from '../../../base'
import type { NestLayout } from '../nest/instance'
import { Nester } from '../nest/nester'
import { summarise } from '../nest/summary'
import { asItLay, laidRound, layOf, type Lay } from './carried-over'
import { knownLayout } from './kept-layouts'
import { inOwnFrames, layoutInPicture } from './own-frames'
import { paperRuns, type NestedRun, type PaperRun } from './paper-runs'

/** Search steps that every layout gets at once, before the maker asks for more; fewer where there are many pieces to lay. */
const FIRST_STEPS = 12
const LEAST_STEPS = 2
const FIRST_PIECES = 1500

function firstSteps({ instance }: PaperRun): number {
  const pieces = instance.pieces.reduce((sum, piece) => sum + piece.qty, 0)
  return Math.max(LEAST_STEPS, Math.min(FIRST_STEPS, Math.floor(FIRST_PIECES / Math.max(1, pieces))))
}

/** A run with its first layout, after a fixed number of steps. */
export function layRun(run: PaperRun, memo: Memo = fresh, steps = firstSteps(run)): NestedRun {
  const laying = layStepwise(run, memo, steps)
  for (;;) {
    const step = laying.next()
    if (step.done) return step.value
  }
}

/** The same, with a pause between any two steps of the search. */
export function* layStepwise(
  run: PaperRun,
  memo: Memo,
  steps = firstSteps(run),
): Generator<undefined, NestedRun> {
  if (run.instance.pieces.length === 0) return { run, layout: summarise(run.instance, []) }
  // Remembered once it is whole: a search that was broken off begins anew, so that it always comes to the same.
  const laid = memo('first layout', [run.fingerprint, steps], (): { layout: NestLayout | null } => ({
    layout: null,
  }))
  if (!laid.layout) {
    const nester = yield* Nester.inParts(inOwnFrames(run.instance, memo), run.seed)
    laid.layout = yield* nester.begin(steps)
  }
  return { run, layout: layoutInPicture(run.instance, laid.layout) }
}

/** A run with the layout that was kept of it, else with what of one like it lies on as it lay, else with its first. */
export function layKnown(
  run: PaperRun,
  kept: ReadonlyMap<string, unknown>,
  memo: Memo,
): NestedRun | Generator<undefined, NestedRun> {
  const known = knownLayout(run, kept, memo)
  if (known) return { run, layout: known }
  const lay = layOf(run, kept, memo)
  return lay ? layCarried(run, lay, memo) : layStepwise(run, memo)
}

function* layCarried(run: PaperRun, lay: Lay, memo: Memo): Generator<undefined, NestedRun> {
  const { layout: anew } = yield* layStepwise(run, memo)
  const carried = memo('carried over', [run.fingerprint, lay], (): { layout: NestLayout | null } => ({
    layout: null,
  }))
  carried.layout ??= yield* laidRound(run, { lay, steps: firstSteps(run) }, memo)
  const layout = asItLay(carried.layout, anew)
  return layout === anew ? { run, layout } : { run, layout, carried: true }
}

/** Layouts of all runs: the same project always gives the same sheets. */
export const nestProject = (project: Project, steps?: number): NestedRun[] =>
  paperRuns(project).map((run) => layRun(run, fresh, steps))
