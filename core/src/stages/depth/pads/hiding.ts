// What hides pads under card that they would show through.
import { union, type Region } from '../../../base/geometry'
import { fresh, type Memo } from '../../../base'
import { isSeeThrough } from '../../layers'
import {
  ASSUMED_PAPER,
  builtLayers,
  isTranslucent,
  layerRegion,
  paperOf,
  type Project,
} from '../../../project'

/**
 * Where pads under translucent card would show: null where the layer's own paper hides them, else the parts that opaque
 * layers further up cover. Back-lit stacks count thin card as translucent too.
 */
export function hidingRegion(project: Project, layerId: string, memo: Memo = fresh): Region | null {
  const layers = builtLayers(project)
  const at = layers.findIndex((layer) => layer.id === layerId)
  const shows = (k: number) => {
    const paper = paperOf(project, layers[k]!)
    return isTranslucent(paper) || (project.plan.litFromBehind && (paper ?? ASSUMED_PAPER).gsm < 200)
  }
  if (at < 0 || !shows(at)) return null
  const opaque = layers.filter((layer, k) => k > at && !shows(k) && !isSeeThrough(project, layer))
  const regions = opaque.map(layerRegion)
  return memo('cover of pads', regions, () => union(...regions))
}
