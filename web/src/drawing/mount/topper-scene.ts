// A topper where it will stand: over the cake or cupcake that was typed, with its sticks standing in it.
import type { Box } from '@feuillet/core/base/geometry'
import type { Mount } from '@feuillet/core/project'
import type { StickPlace } from '@feuillet/core/stages/depth'

/** Height of a topper that is not drawn yet, against its width. */
const TOPPER_HIGH = 0.4
/** How far a stick reaches up behind the topper, as a share of its height. */
const BEHIND = 0.3

export interface TopperScene {
  /** Where the topper is or will be. */
  topper: Box
  cake: Box
  isCupcake: boolean
  /** Middle of each stick and how wide it is; it reaches from behind the topper into the cake. */
  sticks: { x: number; widthMm: number; fromY: number; toY: number }[]
  /** All of it. */
  box: Box
}

/** The scene of a topper; `design` is what is drawn of it, if anything is. Lengths in mm. */
export function topperScene(
  mount: Extract<Mount, { kind: 'topper' }>,
  design: Box | null,
  /** Where the sticks go, as it was computed; spread evenly where that is not known. */
  known: readonly StickPlace[] = [],
): TopperScene {
  const { widthMm, cake: baked, sticks, stick } = mount
  const topper = design ?? { minX: 0, minY: 0, maxX: widthMm, maxY: widthMm * TOPPER_HIGH }
  const [w, h] = [topper.maxX - topper.minX, topper.maxY - topper.minY]
  const middle = (topper.minX + topper.maxX) / 2
  const top = topper.maxY + stick.aboveMm
  const cake = {
    minX: middle - baked.diameterMm / 2,
    maxX: middle + baked.diameterMm / 2,
    minY: top,
    maxY: top + baked.heightMm,
  }
  const places = sticks === 1 ? [0.5] : Array.from({ length: sticks }, (_, i) => (i + 1) / (sticks + 1))
  const toY = top + stick.inMm
  return {
    topper,
    cake,
    isCupcake: baked.kind === 'cupcake',
    sticks:
      known.length > 0
        ? known.map(({ x, widthMm: wide, headMm }) => ({ x, widthMm: wide, fromY: headMm, toY }))
        : places.map((share) => ({
            x: topper.minX + w * share,
            widthMm: stick.widthMm,
            fromY: topper.maxY - h * BEHIND,
            toY,
          })),
    box: {
      minX: Math.min(topper.minX, cake.minX),
      maxX: Math.max(topper.maxX, cake.maxX),
      minY: topper.minY,
      maxY: Math.max(cake.maxY, sticks > 0 ? toY : 0),
    },
  }
}
