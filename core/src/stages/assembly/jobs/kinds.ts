// What is done with a layer, and what the stack is laid on.
import { intersect, rectangle, regionArea, regionBox, subtract, union } from '../../../base/geometry'
import { builtLayers, isPressed, isStacked, layerRegion, type Layer, type Project } from '../../../project'
import type { Ground } from '../task'

/** Whether it is folded: it is scored first. */
export const isFolded = (layer: Layer): boolean => layer.folds.length > 0

/** Whether hands curl, cup or roll it. */
export const isShaped = ({ shaping }: Layer): boolean => shaping.how !== 'flat'

/** Whether it is coloured by hand. */
export const isColoured = ({ tint }: Layer): boolean => tint !== null

/** What must be done with a layer before it is formed: it is coloured, and dry. */
export const afterColour = (layer: Layer): string[] =>
  isColoured(layer) ? [`colour-${layer.id}`, `coloured-${layer.id}`] : []

/** What is laid on each other when all is tried on dry. */
export const isInStack = (layer: Layer): boolean => isStacked(layer) || isPressed(layer)

/** So much of the other layers lies over a sheet that carries them. */
const CARRIED = 0.97

/** The backmost layer of the stack that has any card, and those over it. */
function backAndRest(layers: readonly Layer[]): [Layer | undefined, Layer[]] {
  const [back, ...rest] = layers.filter(isStacked).filter(({ pieces }) => pieces.length > 0)
  return [back, rest]
}

/** Whether the backmost layer of the stack is one sheet that carries nearly all the others. Needs the geometry loaded. */
export function backCarries(project: Project): boolean {
  const [back, others] = backAndRest(builtLayers(project))
  if (!back || back.pieces.length !== 1) return false
  const sheet = outlinesOf(back)
  // Mostly the boxes round the others lie on it, and no shape need be looked at.
  const isOnSheet = (layer: Layer): boolean => {
    const { minX, minY, maxX, maxY } = regionBox(layerRegion(layer))
    return subtract([rectangle([minX, minY], maxX - minX, maxY - minY)], sheet).length === 0
  }
  if (others.every(isOnSheet)) return true
  const all = union(others.flatMap(layerRegion))
  return regionArea(intersect(all, sheet)) >= CARRIED * regionArea(all)
}

/**
 * What the backmost layer is laid on: the bench where it carries all the others, else what the work lives on.
 * @param carried see backCarries
 */
export function groundOf({ mount }: Project, layers: readonly Layer[], carried: boolean): Ground {
  const [back] = backAndRest(layers)
  if (!back || mount.kind === 'topper' || mount.kind === 'garland') return 'bench'
  // Pins go in before what hides them lies on them.
  if (mount.kind === 'frame' && mount.back === 'fabric' && back.joint.kind === 'pins') return 'fabric'
  if (carried) return 'bench'
  if (mount.kind === 'frame') return 'board'
  if (mount.kind === 'panel') return mount.surface
  return mount.kind === 'card' ? 'card' : 'bench in its place'
}

/** A layer without its openings: what lies over one is carried by the rim. */
const outlinesOf = (layer: Layer) => union(layerRegion(layer).map(({ outer }) => ({ outer, holes: [] })))
