// Findings of the layers stage.
import type { LayerFigures, Visible } from '../layers'
import { pieceRegion, type Project, type Snag } from '../project'

export function layerSnags(project: Project, figures: readonly LayerFigures[], visible: readonly Visible[]): Snag[] {
  const snags: Snag[] = []
  for (const layer of project.layers) {
    const figure = figures.find((f) => f.id === layer.id)!
    if (layer.pieces.length === 0)
      snags.push({ code: 'empty-layer', stage: 'layers', severity: 'caution', layer: layer.id, at: null, message: `“${layer.name}” has no pieces.` })
    if (figure.specks.length > 0) {
      const first = layer.pieces.find((piece) => piece.id === figure.specks[0])!
      const { outer } = pieceRegion(first.path)[0]!
      snags.push({
        code: 'specks',
        stage: 'layers',
        severity: 'caution',
        layer: layer.id,
        at: [outer[0]!, outer[1]!],
        message: `“${layer.name}” has ${figure.specks.length} ${figure.specks.length === 1 ? 'piece' : 'pieces'} under 2 mm: too small to weed or to stick.`,
        mend: { label: 'Drop them', action: { kind: 'drop-specks', layerId: layer.id, pieceIds: figure.specks } },
      })
    }
    const seen = visible.find((v) => v.id === layer.id)
    if (seen && seen.areaMm2 > 0 && seen.visibleMm2 < seen.areaMm2 * 0.001)
      snags.push({
        code: 'hidden-layer',
        stage: 'layers',
        severity: 'caution',
        layer: layer.id,
        at: null,
        message: `Nothing of “${layer.name}” shows from the front: a plain sheet would do, or none.`,
      })
  }
  return snags
}
