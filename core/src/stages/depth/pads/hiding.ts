// What hides pads: the layer's own card where it lets no light through; else what lies over it, from every side asked; and the lip.
import { wcagLuminance } from 'culori'
import {
  intersect,
  joinBoxes,
  offset,
  rectangle,
  regionArea,
  regionBox,
  subtract,
  union,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { fresh, type Memo } from '../../../base'
import {
  ASSUMED_PAPER,
  builtLayers,
  colourOf,
  isOnPane,
  layerRegion,
  openingRect,
  paperOf,
  thicknessOf,
  type Layer,
  type Project,
  isStandOff,
} from '../../../project'

/** A pad is seen through card that lets more of the light through. */
const SHOWS = 0.008
/** So many different ways through the cover are followed; thinner ones are taken to show. */
const MOST_PARTS = 40

/**
 * Share of the light that a layer's card lets through: a clear or veiled sheet always; card only with a lamp behind it, the less the
 * heavier and the darker it is (0.35 · e^(−gsm/90), times 0.15 for black to 1 for white: starting values of ours).
 */
export function transmission(project: Project, layer: Layer): number {
  const paper = paperOf(project, layer)
  const { finish, gsm } = paper ?? ASSUMED_PAPER
  if (finish === 'acetate') return 0.95
  if (finish === 'vellum') return 0.6
  if (!project.plan.litFromBehind || finish === 'mirror' || finish === 'chipboard') return 0
  return 0.35 * Math.exp(-gsm / 90) * (0.15 + 0.85 * wcagLuminance(colourOf(project, layer)))
}

/**
 * Where pads of a layer are hidden: null where its own card hides them everywhere; else under what stops the light above it, drawn
 * in by how far an eye at the viewing angle sees under it, and behind the frame's lip. Needs the geometry loaded.
 */
export function hidingRegion(project: Project, layerId: string, memo: Memo = fresh): Region | null {
  const through = throughOf(project, layerId)
  return through < SHOWS ? null : hiddenBelow(project, layerId, { through, memo })
}

/** Whether a layer's own card hides its pads everywhere. */
export const hidesItsOwn = (project: Project, layerId: string): boolean => throughOf(project, layerId) < SHOWS

/** Share of the light that a layer of the stack lets through; none of what is no layer of it. */
function throughOf(project: Project, layerId: string): number {
  const layer = stackOf(project).find(({ id }) => id === layerId)
  return layer ? transmission(project, layer) : 0
}

const stackOf = (project: Project): Layer[] =>
  builtLayers(project).filter((layer) => !isOnPane(layer) && layer.role !== 'cover' && !isStandOff(layer))

/**
 * What is hidden at a layer by those above it and the lip, where the layer itself lets so much through: 1 for what lies on it. Needs
 * the geometry loaded.
 */
export function hiddenBelow(
  project: Project,
  layerId: string,
  { through: own, memo }: { through: number; memo: Memo },
): Region {
  const layers = stackOf(project)
  const at = layers.findIndex((layer) => layer.id === layerId)
  if (at < 0) return []
  const tan = Math.tan((project.plan.viewingDeg * Math.PI) / 180)
  const above = layers.slice(at + 1)
  let heightMm = thicknessOf(project, layers[at]!)
  const covers = above.map((layer) => {
    heightMm += layer.joint.kind === 'foam' ? layer.joint.gapMm : 0
    const cover = { region: layerRegion(layer), through: transmission(project, layer), byMm: heightMm * tan }
    heightMm += thicknessOf(project, layer)
    return cover
  })
  const opening = openingRect(project)
  const named = covers.map(({ region, through, byMm }) => [region, through, byMm])
  const { mount } = project
  const depthMm = mount.kind === 'frame' ? mount.depthMm : 0
  return memo('cover of pads', [layerRegion(layers[at]!), own, named, opening?.outer, depthMm, tan], () => {
    const reach = joinBoxes([
      regionBox(layerRegion(layers[at]!)),
      ...covers.map(({ region }) => regionBox(region)),
    ])
    const all = [
      rectangle([reach.minX - 1, reach.minY - 1], reach.maxX - reach.minX + 2, reach.maxY - reach.minY + 2),
    ]
    const hidden = underCover(all, own, covers)
    // Past the lip an eye looks in by the whole depth of the frame.
    const lip = mount.kind === 'frame' && opening ? subtract(all, offset([opening], depthMm * tan)) : []
    return union(hidden, lip)
  })
}

interface Cover {
  region: Region
  through: number
  byMm: number
}

/** Parts of a region under which so much is stopped that nothing shows. */
function underCover(all: Region, own: number, covers: readonly Cover[]): Polygon[] {
  let parts: { region: Region; through: number }[] = [{ region: all, through: own }]
  let hidden: Polygon[] = []
  for (const { region, through, byMm } of covers) {
    const inside = byMm > 0 ? offset(region, -byMm) : region
    if (inside.length === 0) continue
    const next: typeof parts = []
    for (const part of parts) {
      const under = intersect(part.region, inside)
      if (under.length === 0) {
        next.push(part)
        continue
      }
      const left = part.through * through
      if (left < SHOWS) hidden = union(hidden, under)
      else next.push({ region: under, through: left })
      const bare = subtract(part.region, inside)
      if (bare.length > 0) next.push({ region: bare, through: part.through })
    }
    parts = next.toSorted((a, b) => regionArea(b.region) - regionArea(a.region)).slice(0, MOST_PARTS)
  }
  return hidden
}
