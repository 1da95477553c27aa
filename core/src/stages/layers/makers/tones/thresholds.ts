// The thresholds between the greys of a picture.
import { type TonesRecipe } from '../../../../project'
import { bestThresholds } from './otsu'
import type { Picture } from './picture'

/** How many of each grey a picture has, its background left out. */
export function greysCounted({ greys, background }: Picture): Float64Array {
  const bins = new Float64Array(256)
  for (let i = 0; i < greys.length; i++) if (!background?.[i]) bins[Math.round(greys[i]!)]!++
  return bins
}

/** The thresholds a recipe works with: the maker's, or the best for how many there are of each grey. */
export const thresholdsOf = (
  recipe: Pick<TonesRecipe, 'thresholds' | 'levels'>,
  counted: Float64Array,
): number[] =>
  recipe.thresholds.length === recipe.levels - 1
    ? recipe.thresholds.toSorted((a, b) => a - b)
    : bestThresholds(counted, recipe.levels)
