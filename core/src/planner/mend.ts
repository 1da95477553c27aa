// One press that mends a snag.
import { fitGaps } from '../stages/depth'
import { addBacking, bridgeLayer, gatherLayers, thickenLayer } from '../stages/layers'
import { fitDesign } from '../stages/measure'
import { assignNearest } from '../stages/paper'
import {
  assignPaper,
  dropPin,
  findLayer,
  removeLayer,
  setLayer,
  setPlan,
  takeOffCuts,
  takeSizes,
  type Mend,
  type Paper,
  type Project,
} from '../project'

/** Several mends, one after the other. */
export const mendAll = (project: Project, mends: readonly Mend[], stock: readonly Paper[]): Project =>
  mends.reduce((mended, mend) => mendProject(mended, mend, stock), project)

/** Applies a mend; a mend whose layer or paper is gone changes nothing. */
export function mendProject(project: Project, mend: Mend, stock: readonly Paper[]): Project {
  switch (mend.kind) {
    case 'fit-design':
      return fitDesign(project)
    case 'fit-gaps':
      return fitGaps(project)
    case 'set-joint':
      return setLayer(project, mend.layerId, { joint: { kind: mend.joint, gapMm: mend.gapMm, pinned: true } })
    case 'nearest-papers':
      return assignNearest(project, mend.layerIds, stock)
    case 'swap-paper': {
      const paper = stock.find((p) => p.id === mend.paperId)
      return paper ? assignPaper(project, [mend.layerId], paper, stock) : project
    }
    case 'drop-specks': {
      const layer = findLayer(project, mend.layerId)
      if (!layer) return project
      const pieces = layer.pieces.filter((piece) => !mend.pieceIds.includes(piece.id))
      return pieces.length > 0 ? setLayer(project, layer.id, { pieces }) : removeLayer(project, layer.id)
    }
    case 'set-opening':
      return project.mount.kind === 'frame'
        ? {
            ...project,
            mount: { ...project.mount, opening: { widthMm: mend.widthMm, heightMm: mend.heightMm } },
          }
        : project
    case 'merge-papers': {
      const paper = project.drawer.papers.find((p) => p.id === mend.paperId)
      return paper ? assignPaper(project, mend.layerIds, paper) : project
    }
    case 'take-off-cuts':
      return takeOffCuts(project, stock, mend.paperIds)
    case 'take-sizes':
      return takeSizes(project, stock, mend.paperIds)
    case 'drop-pin':
      return dropPin(project, mend)
    case 'thicken-layer':
      return thickenLayer(project, mend.layerId, mend.safeMm)
    case 'gather-layers':
      return gatherLayers(project, mend.layerIds)
    case 'add-backing':
      return addBacking(project)
    case 'bridge-layer':
      return bridgeLayer(project, mend.layerId, mend.safeMm)
    case 'set-thrift':
      return setPlan(project, { thrift: mend.thrift })
  }
}
