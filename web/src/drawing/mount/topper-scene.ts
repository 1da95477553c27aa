// A topper where it will stand: over a cake or cupcake that gives the eye its size.
import type { Box } from '@feuillet/core/base/geometry'
import { MM_PER_INCH } from '@feuillet/core/base/units'

/** Cakes as they are baked, by diameter; the first is a cupcake. */
const CAKES_MM = [50, 6 * MM_PER_INCH, 8 * MM_PER_INCH, 10 * MM_PER_INCH, 12 * MM_PER_INCH]
/** A cake is this much wider than what stands on it, a cupcake about as wide. */
const CAKE_SHARE = 1.15
const CUPCAKE_SHARE = 0.8
/** Height of a cake against its width, and of a cupcake. */
const CAKE_HIGH = 0.42
const CUPCAKE_HIGH = 0.9
/** What is free between the topper and the icing, and how deep sticks go in, in parts of the cake's height. */
const FREE = 0.25
const DEEP = 0.45
/** Height of a topper that is not drawn yet, against its width. */
const TOPPER_HIGH = 0.4

export interface TopperScene {
  /** Where the topper is or will be. */
  topper: Box
  cake: Box
  isCupcake: boolean
  /** Middle of each stick; it reaches from inside the topper into the cake. */
  sticks: { x: number; fromY: number; toY: number }[]
  /** All of it. */
  box: Box
}

/** The scene of a topper of a width (mm) with sticks; `design` is what is drawn of it, if anything is. */
export function topperScene(widthMm: number, sticks: number, design: Box | null): TopperScene {
  const topper = design ?? { minX: 0, minY: 0, maxX: widthMm, maxY: widthMm * TOPPER_HIGH }
  const [w, h] = [topper.maxX - topper.minX, topper.maxY - topper.minY]
  const [cupcake, ...cakes] = CAKES_MM as [number, ...number[]]
  const isCupcake = w * CUPCAKE_SHARE <= cupcake
  const across = isCupcake ? cupcake : (cakes.find((mm) => mm >= w * CAKE_SHARE) ?? w * CAKE_SHARE)
  const high = across * (isCupcake ? CUPCAKE_HIGH : CAKE_HIGH)
  const middle = (topper.minX + topper.maxX) / 2
  const top = topper.maxY + (isCupcake ? cupcake : high) * FREE
  const cake = { minX: middle - across / 2, maxX: middle + across / 2, minY: top, maxY: top + high }
  const places = sticks === 1 ? [0.5] : Array.from({ length: sticks }, (_, i) => (i + 1) / (sticks + 1))
  return {
    topper,
    cake,
    isCupcake,
    sticks: places.map((share) => ({
      x: topper.minX + w * share,
      fromY: topper.maxY - h * 0.3,
      toY: top + high * DEEP,
    })),
    box: {
      minX: Math.min(topper.minX, cake.minX),
      maxX: Math.max(topper.maxX, cake.maxX),
      minY: topper.minY,
      maxY: cake.maxY,
    },
  }
}
