// What is done with a layer, and what the stack is laid on.
import { intersect, regionArea, union } from '../../../base/geometry'
import { isPressed, isStacked, layerRegion, type Layer, type Project } from '../../../project'
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

/** What the backmost layer is laid on: the bench where it carries all the others, else what the work lives on. */
export function groundOf({ mount }: Project, layers: readonly Layer[]): Ground {
  const [back, ...others] = layers.filter(isStacked).filter(({ pieces }) => pieces.length > 0)
  if (!back || mount.kind === 'topper' || mount.kind === 'garland') return 'bench'
  // Pins go in before what hides them lies on them.
  if (mount.kind === 'frame' && mount.back === 'fabric' && back.joint.kind === 'pins') return 'fabric'
  const all = union(others.flatMap(layerRegion))
  const carried =
    all.length === 0 || regionArea(intersect(all, outlinesOf(back))) >= CARRIED * regionArea(all)
  if (carried && back.pieces.length === 1) return 'bench'
  if (mount.kind === 'frame') return 'board'
  if (mount.kind === 'panel') return mount.surface
  return mount.kind === 'card' ? 'card' : 'bench in its place'
}

/** A layer without its openings: what lies over one is carried by the rim. */
const outlinesOf = (layer: Layer) => union(layerRegion(layer).map(({ outer }) => ({ outer, holes: [] })))
