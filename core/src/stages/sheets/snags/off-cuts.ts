// Off-cuts that lie in the drawer while a project plans with whole sheets only.
import { fresh, type Memo } from '../../../base'
import { papersToCut, type Paper, type Project, type Snag } from '../../../project'

/** Papers of the project of which the drawer has off-cuts that the project does not know of. None once its sheets are cut. */
export function offCutSnags(project: Project, stock: readonly Paper[], memo: Memo = fresh): Snag[] {
  if (!project.plan.useOffCuts || (project.journal.sheetsUsed.length > 0 && project.cut.length === 0))
    return []
  const wanted = papersToCut(project, memo)
  const unknown = project.drawer.papers.filter((paper) => {
    if (!wanted.has(paper.id)) return false
    const shared = stock.find((p) => p.id === paper.id)
    return (
      shared !== undefined &&
      shared.offCuts.some((offCut) => !paper.offCuts.some((own) => own.id === offCut.id))
    )
  })
  if (unknown.length === 0) return []
  const names = unknown.map((paper) => paper.name).join(', ')
  return [
    {
      code: 'off-cuts-at-hand',
      stage: 'sheets',
      severity: 'caution',
      layer: null,
      at: null,
      message: `The drawer holds off-cuts of ${names} that could take pieces before a whole sheet is cut into.`,
      mend: {
        label: 'Plan with them',
        action: { kind: 'take-off-cuts', paperIds: unknown.map((paper) => paper.id) },
      },
    },
  ]
}
