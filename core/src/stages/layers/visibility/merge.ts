// Several layers into one: the frontmost keeps its name, place and paper.
import { regionRings, fillRings, regionArea, subtract, union, type Polygon } from '../../../base/geometry'
import { builtLayers, colourOf, isStandOff, layerRegion, type Layer, type Project } from '../../../project'
import { groupBy } from '../../../base'
import { makeLayer } from '../intake/intake'
import { keptPieces } from '../kept-pieces'
import { isSeeThrough, type VisibleArea } from './shows'

/** Merges the layers into the frontmost of them. Fewer than two ids change nothing. Needs the geometry loaded. */
export function mergeLayers(project: Project, layerIds: readonly string[]): Project {
  const chosen = project.layers.filter((layer) => layerIds.includes(layer.id))
  if (chosen.length < 2 || chosen.some(isCutFlat)) return project
  const front = chosen[chosen.length - 1]!
  const faces = fillRings(
    chosen.flatMap((layer) => regionRings(layerRegion(layer))),
    'nonzero',
  )
  return inOne(project, layerIds, { front: { ...front, joint: chosen[0]!.joint }, faces })
}

/** What is cut flat and then rolled or folded cannot be made one with others. */
const isCutFlat = ({ blanks }: Layer): boolean => blanks.length > 0

/** From this share on a layer is what is seen of it: an outline (neighbours may cover half), a dot. Below, it is ground for others. */
const MOSTLY_SEEN = 0.4
/** Slivers under this area (mm²) are left by edges that lie upon each other. */
const SLIVER_MM2 = 0.05

/**
 * Layers of one colour that other colours part although most of each is seen, such as the outlines of a drawing that was
 * painted shape by shape: ids back to front, three or more at a time, most first. They could be one layer (`gatherLayers`).
 */
export function scattered(project: Project, visible: readonly VisibleArea[]): string[][] {
  const seen = new Map(visible.map((v) => [v.id, v.areaMm2 > 0 ? v.visibleMm2 / v.areaMm2 : 0]))
  const layers = builtLayers(project).filter((layer) => !isCutFlat(layer) && !isStandOff(layer))
  const groups = [...groupBy(layers, (layer) => `${layer.paperId} ${colourOf(project, layer)}`).values()]
  return groups
    .map((group) =>
      group.filter((layer, k) => k === group.length - 1 || (seen.get(layer.id) ?? 0) >= MOSTLY_SEEN),
    )
    .filter(
      (group) =>
        group.length > 2 && layers.indexOf(group.at(-1)!) - layers.indexOf(group[0]!) >= group.length,
    )
    .map((group) => group.map((layer) => layer.id))
    .toSorted((a, b) => b.length - a.length)
}

/**
 * Gathers layers into the frontmost of them: of the others, what the layers between leave to be seen. From straight ahead
 * all looks as before. Fewer than two ids change nothing. Needs the geometry loaded.
 */
export function gatherLayers(project: Project, layerIds: readonly string[]): Project {
  const layers = builtLayers(project)
  const chosen = layers.filter((layer) => layerIds.includes(layer.id))
  const front = chosen.at(-1)
  if (!front || chosen.length < 2 || chosen.some(isCutFlat)) return project
  let between: Polygon[] = []
  let gathered: Polygon[] = union(layerRegion(front))
  for (let i = layers.indexOf(front) - 1; i >= layers.indexOf(chosen[0]!); i--) {
    const region = layerRegion(layers[i]!)
    if (chosen.includes(layers[i]!)) gathered = union(gathered, subtract(region, between))
    else if (!isSeeThrough(project, layers[i]!)) between = union(between, region)
  }
  return inOne(project, layerIds, {
    front,
    faces: gathered.filter((face) => regionArea([face]) > SLIVER_MM2),
  })
}

/** The project with the faces as one layer in place of several; where these lay on the sheets no longer counts. */
function inOne(
  project: Project,
  layerIds: readonly string[],
  { front, faces }: { front: Layer; faces: readonly Polygon[] },
): Project {
  const { id, name, pieces } = front
  const others = project.layers.filter((layer) => layerIds.includes(layer.id) && layer.id !== id)
  const merged = keptPieces(
    pieces,
    makeLayer({ id, name }, faces).pieces,
    others.flatMap((layer) => layer.pieces),
  )
  const { layers, plan } = project
  return {
    ...project,
    layers: layers
      .filter((layer) => !others.includes(layer))
      .map((layer) => (layer.id === id ? { ...front, pieces: merged } : layer)),
    plan: { ...plan, pins: plan.pins.filter((pin) => !layerIds.includes(pin.layerId)) },
  }
}
