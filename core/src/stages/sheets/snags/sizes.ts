// Papers that the drawer holds in sizes a project does not plan with, where one of those would save card.
import { say, sayAll, size, type Said } from '../../../base/units'
import { fresh, type Memo } from '../../../base'
import { cutLayers, sameButSize, takeSizes, type Paper, type Project, type Snag } from '../../../project'
import { paperRuns, type NestedRun, type PaperRun } from '../runs/paper-runs'

/** One finding a paper: which size there is, and what it changes. None once the sheets are cut. */
export function sizeSnags(
  project: Project,
  { stock, runs }: { stock: readonly Paper[]; runs: readonly NestedRun[] },
  memo: Memo = fresh,
): Snag[] {
  if (project.journal.sheetsUsed.length > 0 && project.cut.length === 0) return []
  const own = project.drawer.papers
  const others = stock.filter(
    (p) => !own.some((paper) => paper.id === p.id) && own.some((paper) => sameButSize(p, paper)),
  )
  const used = others.filter((p) =>
    cutLayers(project, memo).some((layer) => layer.paper && sameButSize(layer.paper, p)),
  )
  if (used.length === 0) return []
  const after = paperRuns(
    takeSizes(
      project,
      stock,
      used.map((p) => p.id),
    ),
    memo,
  )
  return used.flatMap((other): Snag[] => {
    const run = after.find(
      (r) => r.paper === other || r.bins.some((bin) => !bin.offCut && bin.paper === other),
    )
    if (!run) return []
    const before = runs.find((one) => one.run.id === run.id)?.run.tooLarge?.parts.length ?? 0
    const fitsMore = before > (run.tooLarge?.parts.length ?? 0)
    if (!fitsMore && run.instance.pieces.length === 0) return []
    const gain = fitsMore
      ? say`cut ${mixWords(run)}, what is too large for the sheets that are planned with fits`
      : say`cutting ${mixWords(run)} costs less, or less has to be bought`
    return [
      {
        code: 'other-size-at-hand',
        stage: 'sheets',
        severity: 'caution',
        layer: run.layers.find((layer) => layer.guest === null)?.id ?? null,
        at: null,
        message: say`The drawer holds ${other.name} in ${sizeOf(other)} too: ${gain}.`,
        mend: { label: 'Plan with it too', action: { kind: 'take-sizes', paperIds: [other.id] } },
      },
    ]
  })
}

const sizeOf = ({ widthMm, heightMm }: Paper): Said => say`${size(widthMm, heightMm)}`

/** Of which sizes of the paper the run is cut. */
function mixWords({ paper, bins }: PaperRun): Said {
  const others = new Map(bins.flatMap((bin) => (bin.offCut ? [] : [[bin.paper.id, bin.paper] as const])))
  return others.size > 0
    ? say`of ${sizeOf(paper)} and ${sayAll([...others.values()].map(sizeOf), ', ')} together`
    : say`of ${sizeOf(paper)} alone`
}
