// Layers that go on under those in front of them. Many drawings are painted like a mosaic, each colour let in beside the next: as card
// nothing of it has anything to stand on, and all of it is one level.
import {
  intersect,
  offset,
  regionArea,
  regionPerimeter,
  signedArea,
  union,
  type Polygon,
  type Region,
} from '../../base/geometry'
import { designLayers, isOnPane, layerRegion, type Layer, type Project } from '../../project'
import { reshaped } from './reshaped'
import type { VisibleArea } from './visibility/shows'

/** Gaps between neighbours up to this wide come of how a drawing was traced, mm: both go up to the middle of it. */
const SEAM_MM = 0.3
/** Slivers under this area (mm²) come of rounding. */
const SLIVER_MM2 = 0.05
/** So much of each layer lies on those behind it at the most where colours are let in beside each other… */
const ON_OTHERS = 0.05
/** …and of all their edges so much lies along a neighbour's at least. */
const ALONG = 0.25
/** What shows of layers that are not on each other, where the frame's lip hides no more than usual. */
const SHOWS = 0.7

/** Layers that can go on under others: those of the stack that are cut as they are seen. */
const fillable = (project: Project): Layer[] =>
  designLayers(project).filter(
    (layer) => layer.blanks.length === 0 && layer.pieces.length > 0 && !isOnPane(layer),
  )

/**
 * Ids of layers that lie beside each other like a mosaic, edge along edge and none on another; none where they do not.
 * Needs the geometry loaded.
 */
export function mosaicOf(project: Project, shown: readonly VisibleArea[]): string[] {
  const layers = fillable(project)
  if (layers.length < 2 || project.mount.kind === 'garland') return []
  const sum = (list: readonly number[]) => list.reduce((all, one) => all + one, 0)
  const [seen, whole] = [sum(shown.map((one) => one.visibleMm2)), sum(shown.map((one) => one.areaMm2))]
  if (seen < SHOWS * whole) return []
  const regions = layers.map(layerRegion)
  if (regions.some(liesOnOthers())) return []
  const apart = sum(regions.map((region) => regionPerimeter(union(region))))
  const together = regionPerimeter(closed(regions.flat()))
  return apart - together >= ALONG * apart ? layers.map(({ id }) => id) : []
}

/** Whether a layer lies on those that were asked of before it, by more than edges that overlap a little. */
function liesOnOthers(): (region: Region) => boolean {
  let behind: Polygon[] = []
  return (region) => {
    const isOn = regionArea(intersect(region, behind)) > ON_OTHERS * regionArea(region)
    behind = union(behind, region)
    return isOn
  }
}

/**
 * The project with layers going on under all that lies in front of them, as far as that is in one piece with them; openings that nothing in
 * front fills stay. Needs the geometry loaded.
 */
export function fillUnder(project: Project, layerIds: readonly string[]): Project {
  const chosen = new Set(layerIds)
  let front: Polygon[] = []
  return fillable(project).reduceRight((next, layer) => {
    const own = layerRegion(layer)
    const all = front.length > 0 && chosen.has(layer.id) ? reaching(own, closed([...own, ...front])) : null
    front = union(front, all ?? own)
    return all && regionArea(all) > regionArea(union(own)) + SLIVER_MM2
      ? reshaped(next, layer, { region: all })
      : next
  }, project)
}

/** A region without the seams between faces that lie beside each other. */
function closed(region: Region): Polygon[] {
  const grown = offset(region, SEAM_MM / 2, 'miter')
  return union(offset(grown, -SEAM_MM / 2, 'miter'), region)
}

/** Those faces of a region that a layer has card in, without slivers left open. */
const reaching = (own: Region, region: readonly Polygon[]): Polygon[] =>
  region
    .filter((face) => regionArea(intersect([face], own)) > SLIVER_MM2)
    .map(({ outer, holes }) => ({ outer, holes: holes.filter((hole) => -signedArea(hole) > SLIVER_MM2) }))
