// What shows of each layer from straight ahead: the layer less all that lies above it, inside the opening.
import {
  intersect,
  mapRegion,
  regionArea,
  regionToPath,
  subtract,
  translation,
  union,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { groupBy } from '../../../base'
import { builtLayers, layerRegion, paperOf, windowOf, type Layer, type Project } from '../../../project'

/** How much shows of a layer. */
export interface VisibleArea {
  id: string
  areaMm2: number
  visibleMm2: number
}

/** The same with the outline of what shows. */
export interface Visible extends VisibleArea {
  visiblePath: string
}

/** Clear sheets hide nothing of what is below them. */
export const isSeeThrough = (project: Project, layer: Layer): boolean =>
  paperOf(project, layer)?.finish === 'acetate'

/** Card at a height: a piece, or a part of one that lies or rises otherwise than the rest. */
export interface CardAt {
  layerId: string
  region: Region
  /** Its upper side over the board, mm. */
  topMm: number
}

/** Where the eye stands: so many degrees off straight ahead, towards a direction on the picture (0 right, 90 down). */
export interface Slant {
  angleDeg: number
  towardsDeg: number
  /** All card at the heights where it comes to lie: what lies high moves by height × tan of the angle. */
  cards: readonly CardAt[]
  /** Of the glazing, mm. */
  openingMm: number
}

/** Visible areas, back to front, straight ahead or from a slant (paths then lie as that eye sees them). Needs the geometry loaded. */
export function shows(project: Project, slant?: Slant): Visible[] {
  return slant ? fromAside(project, slant) : straightAhead(project)
}

function straightAhead(project: Project): Visible[] {
  const opening = windowOf(project)
  const window: Region | null = opening && [opening]
  let above: Polygon[] = []
  const out: Visible[] = []
  for (const layer of builtLayers(project).toReversed()) {
    const region = union(layerRegion(layer))
    const { areaMm2, seen } = seenOf(region, window, above)
    out.unshift({ id: layer.id, areaMm2, visibleMm2: regionArea(seen), visiblePath: regionToPath(seen) })
    if (!isSeeThrough(project, layer)) above = union(above, region)
  }
  return out
}

/** What lies higher hides what lies lower, piece by piece: a leaf that hangs low is not where the rest of its layer is. */
function fromAside(project: Project, { angleDeg, towardsDeg, cards, openingMm }: Slant): Visible[] {
  const opening = windowOf(project)
  const tan = Math.tan((angleDeg * Math.PI) / 180)
  const way = (towardsDeg * Math.PI) / 180
  const moved = (region: Region, heightMm: number): Region =>
    mapRegion(translation(-heightMm * tan * Math.cos(way), -heightMm * tan * Math.sin(way)), region)
  const window: Region | null = opening && moved([opening], openingMm)
  const layers = builtLayers(project)
  const placeOf = new Map(layers.map((layer, i) => [layer.id, i]))
  const clear = new Set(layers.filter((layer) => isSeeThrough(project, layer)).map(({ id }) => id))
  const seenOfLayer = new Map<string, Polygon[]>()
  let above: Polygon[] = []
  for (const group of highestFirst(cards, placeOf)) {
    const { layerId, topMm } = group[0]!
    const region = union(moved(union(group.flatMap((card) => card.region)), topMm))
    const { seen } = seenOf(region, window, above)
    seenOfLayer.set(layerId, [...(seenOfLayer.get(layerId) ?? []), ...seen])
    if (!clear.has(layerId)) above = union(above, region)
  }
  return layers.map((layer) => {
    const seen = seenOfLayer.get(layer.id) ?? []
    return {
      id: layer.id,
      areaMm2: regionArea(union(layerRegion(layer))),
      visibleMm2: regionArea(seen),
      visiblePath: regionToPath(seen),
    }
  })
}

/** Card of one layer at one height together, the highest first; of equals what is laid later. */
function highestFirst(cards: readonly CardAt[], placeOf: ReadonlyMap<string, number>): CardAt[][] {
  const known = cards.filter(({ layerId }) => placeOf.has(layerId))
  return [...groupBy(known, ({ layerId, topMm }) => `${layerId} ${topMm}`).values()].toSorted(
    ([a], [b]) => b!.topMm - a!.topMm || placeOf.get(b!.layerId)! - placeOf.get(a!.layerId)!,
  )
}

/** What is seen of a region (a union) through a window, less what lies in front of it. */
export function seenOf(
  region: Region,
  window: Region | null,
  above: Region,
): { areaMm2: number; seen: Polygon[] } {
  const inside = window ? intersect(region, window) : region
  return { areaMm2: regionArea(region), seen: subtract(inside, above) }
}
