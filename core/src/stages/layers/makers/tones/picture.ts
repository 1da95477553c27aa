// The picture before it is parted into tones: contrast raised against its surroundings, made smooth, its background taken away.
import { type TonesRecipe } from '../../../../project'
import { BadInput } from '../../../../base'
import { fromBase64 } from './bytes'
import { blurred, edgesKept, raised } from './filters'
import { subjectOf } from './subject'

/** A picture, row by row. */
export interface Picture {
  w: number
  h: number
  /** Size of a pixel, mm. */
  mmPerPixel: number
  /** 0 to 255, one a pixel. */
  greys: Float64Array
  /** Red, green and blue, each 0 to 255, one a pixel; null where the picture came in greys. */
  colours: [Float64Array, Float64Array, Float64Array] | null
  /** 1 where it is background; null where all is kept. */
  background: Uint8Array | null
}

/** The picture of a recipe. Throws BadInput where it is damaged. */
export function pictureOf(recipe: TonesRecipe): Picture {
  const { pixelsWide: w, pixelsHigh: h } = recipe
  const bytes = fromBase64(recipe.greys)
  const rgb = recipe.colours ? fromBase64(recipe.colours) : null
  if (bytes.length !== w * h || (rgb && rgb.length !== 3 * w * h))
    throw new BadInput('the picture is damaged: its size and its pixels differ')
  const mmPerPixel = recipe.widthMm / w
  const channel = (c: number) => Float64Array.from({ length: w * h }, (_, i) => rgb![3 * i + c]!)
  const plain = {
    greys: Float64Array.from(bytes),
    colours: rgb ? ([channel(0), channel(1), channel(2)] as Picture['colours']) : null,
  }
  const { outline } = recipe
  const background = outline
    ? subjectOf({
        channels: plain.colours ?? [plain.greys],
        w,
        h,
        outline: outline.points.map((mm) => mm / mmPerPixel),
        loose: outline.looseMm / mmPerPixel,
      }).map((subject) => 1 - subject)
    : null
  const clear = (values: Float64Array) =>
    recipe.contrast > 0 ? raised(values, { width: w, height: h }, recipe.contrast) : values
  return {
    w,
    h,
    mmPerPixel,
    greys: clear(plain.greys),
    colours: plain.colours && (plain.colours.map(clear) as Picture['colours']),
    background,
  }
}

/** One channel smoothed as the recipe asks for. */
export function smoothed(values: Float64Array, picture: Picture, recipe: TonesRecipe): Float64Array {
  // Wider than the picture nothing is left to be smoothed.
  const radius = Math.min(recipe.smoothMm / picture.mmPerPixel, Math.max(picture.w, picture.h))
  return recipe.filter === 'edges'
    ? edgesKept(values, { width: picture.w, height: picture.h }, radius)
    : blurred(values, { width: picture.w, height: picture.h }, radius)
}
