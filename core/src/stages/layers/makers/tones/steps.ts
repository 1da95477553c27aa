// From picture to steps: for each layer in front of the back a field of values, and the level from which on the layer has card.
import type { TonesRecipe } from '../../../../project'
import { blurred } from './filters'
import { paletteOf, type Tint } from './palette'
import { smoothed, type Picture } from './picture'
import { thresholdsOf } from './thresholds'

/** What tells the layers of a picture apart. */
export interface Steps {
  /** Of each layer in front of the back: it has card where its field is over its level. */
  fields: { values: Float64Array; level: number }[]
  /** Of each layer, the back first. */
  tints: Tint[]
  /** Greys between tones; null where they are told apart by colour. */
  thresholds: number[] | null
}

/** Masks are softened by so many pixels, so that their outlines do not show them. */
const SOFT = 0.8

/** The steps of a recipe's picture, of which so many pixels of each grey were counted. */
export const stepsOf = (picture: Picture, counted: Float64Array, recipe: TonesRecipe): Steps =>
  recipe.by !== 'greys' && picture.colours ? byColour(picture, recipe) : byGrey(picture, counted, recipe)

function byGrey(picture: Picture, counted: Float64Array, recipe: TonesRecipe): Steps {
  const thresholds = thresholdsOf(recipe, counted)
  const fromLight = recipe.back === 'light'
  const values = smoothed(picture.greys, picture, recipe)
  const ends = [0, ...thresholds, 256]
  const middle = (tone: number) => {
    const k = fromLight ? thresholds.length - tone : tone
    return k === 0 ? 0 : k === thresholds.length ? 255 : (ends[k]! + ends[k + 1]!) / 2
  }
  paint(picture, recipe, (i, tone, share) => {
    values[i] = values[i]! * (1 - share) + middle(tone) * share
  })
  // Contours enclose high values: the greys are turned over where dark lies in front.
  const own = fromLight ? values.map((v) => 255 - v) : values
  const levels = fromLight ? thresholds.map((t) => 255 - t).toReversed() : thresholds
  const means = ends.slice(1).map((to, k) => meanGrey(counted, ends[k]!, to))
  return {
    fields: levels.map((level) => ({ values: own, level: level + 1e-6 })),
    tints: (fromLight ? means.toReversed() : means).map((grey) => ({ colour: hex(grey) })),
    thresholds,
  }
}

function byColour(picture: Picture, recipe: TonesRecipe): Steps {
  const channels = picture.colours!.map((channel) => smoothed(channel, picture, recipe))
  const choices = recipe.by === 'papers' && recipe.papers.length > 1 ? recipe.papers : null
  const { tints, places } = paletteOf(channels, { skip: picture.background, n: recipe.levels, choices })
  const last = tints.length - 1
  const rank = recipe.back === 'light' ? places : places.map((place) => last - place)
  paint(picture, recipe, (i, tone, share) => {
    if (share >= 0.5) rank[i] = Math.min(last, tone)
  })
  return {
    fields: tints.slice(1).map((_, k) => ({
      values: blurred(
        Float64Array.from(rank, (r) => (r > k ? 1 : 0)),
        { width: picture.w, height: picture.h },
        SOFT,
      ),
      level: 0.5,
    })),
    tints: recipe.back === 'light' ? tints : tints.toReversed(),
    thresholds: null,
  }
}

/** Goes over all that is not left to the picture: the background, which belongs to the back, and strokes of the brush. */
function paint(
  { w, h, mmPerPixel, background }: Picture,
  { strokes }: TonesRecipe,
  put: (pixel: number, tone: number, share: number) => void,
): void {
  background?.forEach((on, i) => on && put(i, 0, 1))
  for (const { tone, widthMm, points } of strokes) {
    const radius = widthMm / 2 / mmPerPixel
    const shares = new Map<number, number>()
    for (let k = 0; k + 1 < points.length; k += 2) {
      const [bx, by] = [points[k]! / mmPerPixel, points[k + 1]! / mmPerPixel]
      const [ax, ay] = k === 0 ? [bx, by] : [points[k - 2]! / mmPerPixel, points[k - 1]! / mmPerPixel]
      const [dx, dy] = [bx - ax, by - ay]
      const within = (low: number, high: number, most: number) =>
        [Math.max(0, Math.floor(low - radius - 1)), Math.min(most - 1, Math.ceil(high + radius + 1))] as const
      const [x0, x1] = within(Math.min(ax, bx), Math.max(ax, bx), w)
      const [y0, y1] = within(Math.min(ay, by), Math.max(ay, by), h)
      for (let y = y0; y <= y1; y++)
        for (let x = x0; x <= x1; x++) {
          const [px, py] = [x + 0.5, y + 0.5]
          const t = Math.max(0, Math.min(1, ((px - ax) * dx + (py - ay) * dy) / (dx * dx + dy * dy || 1)))
          const share = Math.min(1, radius + 0.5 - Math.hypot(px - ax - t * dx, py - ay - t * dy))
          if (share > (shares.get(y * w + x) ?? 0)) shares.set(y * w + x, share)
        }
    }
    for (const [i, share] of shares) put(i, tone - 1, share)
  }
}

const hex = (grey: number): string => '#' + Math.round(grey).toString(16).padStart(2, '0').repeat(3)

function meanGrey(counted: Float64Array, from: number, to: number): number {
  let [sum, n] = [0, 0]
  counted.forEach((count, grey) => {
    if (grey < from || grey >= to) return
    sum += grey * count
    n += count
  })
  return n ? sum / n : (from + to) / 2
}
