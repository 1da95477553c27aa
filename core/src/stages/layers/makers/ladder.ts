// A ladder: one silhouette set in (or out) by equal steps, each step cut out of a full sheet, so that the openings step
// back to a plain backing. Insets are exact offsets of the silhouette itself, not of each other, so errors do not add up.
import {
  boxHeight,
  boxWidth,
  mapRegion,
  offset,
  pathToRegion,
  rectangle,
  regionArea,
  regionBox,
  subtract,
  translation,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { type LadderRecipe } from '../../../project'
import { BadInput } from '../../../base'
import { length, say, size, area } from '../../../base/units'
import { backingLayer } from '../backing'
import { makeLayer } from '../intake/intake'
import { joint, withoutSpecks, type Made } from './made'

/** Name of the layer with the silhouette as it is. */
export const SILHOUETTE = 'Silhouette'

/** The silhouette after so many steps (k, from 0), specks gone. */
export function ladderStep(
  shape: Region,
  recipe: Pick<LadderRecipe, 'direction' | 'corners' | 'stepMm' | 'speckMm2'>,
  k: number,
): Polygon[] {
  const mm = (recipe.direction === 'inset' ? -1 : 1) * k * recipe.stepMm
  return withoutSpecks(offset(shape, mm, recipe.corners === 'round' ? 'round' : 'miter'), recipe.speckMm2)
}

/** How many steps there are before an inset vanishes or an outset leaves the sheet. */
export function stepsThatFit(shape: Region, recipe: LadderRecipe): number {
  const fits = (k: number) => {
    const step = ladderStep(shape, recipe, k)
    if (step.length === 0) return false
    const b = regionBox(step)
    return boxWidth(b) < recipe.sheetWidthMm && boxHeight(b) < recipe.sheetHeightMm
  }
  let k = 0
  while (k < 60 && fits(k + 1)) k++
  return k
}

/** Layers of a ladder, back to front: full backing, the steps, the border. Throws BadInput. Needs the geometry loaded. */
export function makeLadder(recipe: LadderRecipe): Made {
  const { sheetWidthMm: w, sheetHeightMm: h } = recipe
  const drawn = pathToRegion(recipe.shape)
  const b = regionBox(drawn)
  if (boxWidth(b) >= w || boxHeight(b) >= h)
    throw new BadInput(
      say`the silhouette is ${size(boxWidth(b), boxHeight(b))}, the sheet ${size(w, h)}: make it smaller or the sheet larger`,
    )
  const shape = mapRegion(translation((w - b.minX - b.maxX) / 2, (h - b.minY - b.maxY) / 2), drawn)
  const fit = stepsThatFit(shape, recipe)
  if (fit === 0)
    throw new BadInput(
      recipe.direction === 'inset'
        ? say`the silhouette vanishes before the first step of ${length(recipe.stepMm, 2)}: take a smaller step, or steps outwards`
        : 'the first step outwards leaves the sheet: take a smaller step or a larger sheet',
    )
  const steps = Math.min(recipe.steps, fit)
  const remarks =
    steps < recipe.steps
      ? [
          `${recipe.steps} steps were asked for; ${fit} fit before ${recipe.direction === 'inset' ? 'the silhouette vanishes' : 'the sheet ends'}.`,
        ]
      : []
  const sheet = [rectangle([0, 0], w, h)]
  // The smallest opening lies at the back.
  const order = Array.from({ length: steps + 1 }, (_, k) => (recipe.direction === 'inset' ? steps - k : k))
  const openings = order.map((k) => ladderStep(shape, recipe, k))
  const layers = openings.map((opening, i) =>
    makeLayer(
      { id: `step-${order[i]}`, name: order[i] === 0 ? SILHOUETTE : `Step ${order[i]}` },
      subtract(sheet, opening),
      { ...joint(2), colour: grey(i, steps + 1) },
    ),
  )
  layers.unshift(backingLayer(sheet))
  if (recipe.borderMm > 0) {
    const inner = [
      rectangle([recipe.borderMm, recipe.borderMm], w - 2 * recipe.borderMm, h - 2 * recipe.borderMm),
    ]
    if (2 * recipe.borderMm >= Math.min(w, h))
      throw new BadInput('the border leaves no opening: make it narrower')
    layers.push(
      makeLayer({ id: 'border', name: 'Front border' }, subtract(sheet, inner), {
        role: 'border',
        numbered: false,
        ...joint(2),
        colour: '#e8e4d9',
      }),
    )
  }
  const islands = layers.reduce((n, layer) => n + layer.pieces.length - 1, 0)
  if (islands > 0)
    remarks.push(
      `${islands} loose ${islands === 1 ? 'bit' : 'bits'} stand free in the openings: keep and stick them, or bridge them.`,
    )
  return {
    layers,
    remarks,
    widthMm: w,
    heightMm: h,
    figures: [
      {
        name: 'Steps that fit',
        value: String(fit),
        basis:
          recipe.direction === 'inset' ? 'Until nothing of the silhouette is left' : 'Until the sheet ends',
      },
      {
        name: 'Smallest opening',
        value: say`${area(regionArea(openings[0]!))}`,
        basis: 'Of the step at the back',
      },
    ],
  }
}

/** Greys from pale at the back to dark in front, until papers are chosen. */
function grey(i: number, n: number): string {
  const v = Math.round(225 - (i / Math.max(1, n - 1)) * 150)
    .toString(16)
    .padStart(2, '0')
  return `#${v}${v}${v}`
}
