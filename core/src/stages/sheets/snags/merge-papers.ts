// Papers so near in colour that one could stand in for the other, where that saves a sheet.
import { colourDifference, TOO_ALIKE } from '../../paper'
import { fresh, type Memo } from '../../../base'
import { assignPaper, builtLayers, findLayer, type Paper, type Project, type Snag } from '../../../project'
import { layRun } from '../runs/nest-runs'
import { isStandIn, paperRuns, type NestedRun } from '../runs/paper-runs'

/** Colours that cannot be told apart pass for one; those that can do not. */
const NEAR = TOO_ALIKE
/** Papers that differ more in thickness change the heights of the stack (mm). */
const AS_THICK_MM = 0.08
const STEPS = 2

/** Pairs of papers that may be merged: like in colour, finish and thickness, and never one layer upon the other. */
export function mergeSnags(project: Project, all: readonly NestedRun[], memo: Memo = fresh): Snag[] {
  // What guests are cut of is not this project's to choose; what is not chosen yet will be; a print wants its own paper.
  const runs = all.filter(
    ({ run }) =>
      !run.tooLarge &&
      !isStandIn(run.paper) &&
      run.layers.every(({ id, guest }) => guest === null && !findLayer(project, id)?.print),
  )
  return runs.flatMap((a, i) =>
    runs.slice(i + 1).flatMap((b): Snag[] => {
      const [keep, drop] = a.run.layers.length >= b.run.layers.length ? [a, b] : [b, a]
      if (!alike(keep.run.paper, drop.run.paper) || touch(project, keep, drop)) return []
      const merged = assignPaper(
        project,
        drop.run.layers.map((layer) => layer.id),
        { paper: keep.run.paper },
      )
      const saved = sheetsIn(keep) + sheetsIn(drop) - sheetsOf(merged, keep.run.paper, memo)
      if (saved < 1) return []
      const d = colourDifference(keep.run.paper.colour, drop.run.paper.colour)
      const names = drop.run.layers.map(({ id }) => `“${findLayer(project, id)?.name ?? id}”`).join(', ')
      return [
        {
          code: 'papers-alike',
          stage: 'paper',
          severity: 'caution',
          layer: drop.run.layers[0]!.id,
          at: null,
          message: `${drop.run.paper.name} and ${keep.run.paper.name} differ by only ${d.toFixed(1)}: cutting ${names} of ${keep.run.paper.name} too saves ${saved} ${saved === 1 ? 'sheet' : 'sheets'}.`,
          mend: {
            label: `Take ${keep.run.paper.name} for ${drop.run.layers.length === 1 ? 'it' : 'them'}`,
            action: {
              kind: 'merge-papers',
              paperId: keep.run.paper.id,
              layerIds: drop.run.layers.map((layer) => layer.id),
            },
          },
        },
      ]
    }),
  )
}

const alike = (a: Paper, b: Paper): boolean =>
  a.id !== b.id &&
  a.finish === b.finish &&
  a.core === b.core &&
  Math.abs(a.thicknessMm - b.thicknessMm) <= AS_THICK_MM &&
  colourDifference(a.colour, b.colour) < NEAR

/** Whether a layer of one run lies right on a layer of the other: there the difference is what one sees. */
function touch(project: Project, a: NestedRun, b: NestedRun): boolean {
  const layers = builtLayers(project)
  const of = ({ run }: NestedRun, i: number) => run.layers.some((layer) => layer.id === layers[i]?.id)
  return layers.some((_, i) => (of(a, i) && of(b, i + 1)) || (of(b, i) && of(a, i + 1)))
}

/** Whole sheets of a run, those of other sizes too. */
const sheetsIn = ({ run, layout }: NestedRun): number =>
  layout.sheets +
  new Set(
    layout.placements.flatMap(({ sheet }) => (sheet < 0 && !run.bins[-1 - sheet]!.offCut ? [sheet] : [])),
  ).size

/** Sheets after the merge; more than any where a piece does not fit on that paper. */
function sheetsOf(merged: Project, paper: Paper, memo: Memo): number {
  const run = paperRuns(merged, memo).find((r) => r.layers.some((layer) => layer.paper?.id === paper.id))!
  return run.tooLarge ? Infinity : sheetsIn(layRun(run, memo, STEPS))
}
