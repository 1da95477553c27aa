// Flags on a twine: cut flat, a flap folded over the twine or eyelets along it, in the order of their colours.
import {
  boxHeight,
  boxWidth,
  compose,
  ellipse,
  fillRings,
  mapRegion,
  offset,
  pathToRegion,
  rectangle,
  regionArea,
  regionBox,
  scaling,
  subtract,
  translation,
  union,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { type Fold, type GarlandRecipe } from '../../../project'
import { BadInput, groupBy } from '../../../base'
import { length, say, size, type Said } from '../../../base/units'
import { makeLayer } from '../intake/intake'
import { outlineWords, type Font } from './font'
import { joint, type Made } from './made'

/** Without a span to hang in, hooks are this share of what hangs apart. */
const SLACK = 0.96
/** A letter takes so much of its flag's width and height. */
const LETTER_SHARE = 0.5
const LETTER_COLOUR = '#25262a'

/** Colours of the flags from left to right. */
export function flagColours({ flags, colours, order }: GarlandRecipe): string[] {
  return Array.from({ length: flags }, (_, i) => {
    const k = order === 'mirrored' ? Math.min(i, flags - 1 - i) : i
    return colours[order === 'list' ? Math.min(k, colours.length - 1) : k % colours.length]!
  })
}

/** What a garland's twine measures, mm. */
export interface Twine {
  /** From the first flag's edge to the last one's. */
  hungMm: number
  /** With both ends: what is bought. */
  wholeMm: number
  /** From hook to hook. */
  spanMm: number
  /** How far the middle hangs under the hooks. */
  droopMm: number
}

/**
 * The twine of a garland. It droops as a chain does that hangs between hooks (a catenary): s = 2a sinh(L/2a) for what hangs,
 * a (cosh(L/2a) − 1) for the droop. Throws BadInput where the span is wider than what hangs.
 */
export function twineOf({ flags, flagWidthMm, gapMm, endsMm, spanMm }: GarlandRecipe): Twine {
  const hungMm = flags * flagWidthMm + (flags - 1) * gapMm
  const wholeMm = hungMm + 2 * endsMm
  const span = spanMm > 0 ? spanMm : hungMm * SLACK
  if (span > wholeMm)
    throw new BadInput(
      say`the hooks are ${length(span)} apart, and the twine with both ends is ${length(wholeMm)}: take longer ends or more flags`,
    )
  // Hooks wider apart than the flags reach take from the free ends.
  const hangs = Math.max(hungMm, span)
  return { hungMm, wholeMm, spanMm: span, droopMm: droop(hangs, span) }
}

function droop(hangs: number, span: number): number {
  if (hangs <= span * (1 + 1e-9)) return 0
  let [low, high] = [span * 1e-3, span * 1e4]
  for (let k = 0; k < 200; k++) {
    const a = Math.sqrt(low * high)
    // Longer chains belong to smaller a.
    if (2 * a * Math.sinh(Math.min(700, span / (2 * a))) > hangs) low = a
    else high = a
  }
  return low * (Math.cosh(span / (2 * low)) - 1)
}

/** Circles side by side along an edge: how many of about a width fit, and how wide each then is. */
export function scallops(
  edgeMm: number,
  wishedMm: number,
): { count: number; eachMm: number; leftMm: number } {
  const count = Math.max(1, Math.floor(edgeMm / wishedMm + 1e-9))
  return { count, eachMm: edgeMm / count, leftMm: Math.max(0, edgeMm - count * wishedMm) }
}

/** Circles along the edge of one flag, at the most. */
const MOST_SCALLOPS = 200

/** One flag with its upper left corner at 0,0. Throws BadInput. */
function flagShape(recipe: GarlandRecipe): Region {
  const { shape, flagWidthMm: w, flagHeightMm: h } = recipe
  const polygon = (...points: number[]) => fillRings([Float64Array.from(points)], 'nonzero')
  switch (shape) {
    case 'pennant':
      return polygon(0, 0, w, 0, w / 2, h)
    case 'swallowtail':
      return polygon(0, 0, w, 0, w, h, w / 2, h * 0.72, 0, h)
    case 'banner':
      return [rectangle([0, 0], w, h)]
    case 'scalloped': {
      const { count, eachMm } = scallops(w, recipe.scallopMm)
      if (count > MOST_SCALLOPS)
        throw new BadInput(
          say`circles of ${length(recipe.scallopMm, 2)} are more than ${MOST_SCALLOPS} along a flag of ${length(w)}: set them wider`,
        )
      const r = eachMm / 2
      return union(
        [rectangle([0, 0], w, h - r)],
        Array.from({ length: count }, (_, i) => ellipse([r + i * eachMm, h - r], r)),
      )
    }
    case 'round': {
      const r = w / 2
      return union([rectangle([0, 0], w, Math.max(0.1, h - r))], [ellipse([r, h - r], r)])
    }
    case 'own': {
      const own = recipe.own ? pathToRegion(recipe.own) : []
      if (own.length === 0) throw new BadInput('a flag of your own needs a shape: pick a layer first')
      const b = regionBox(own)
      return mapRegion(
        compose(scaling(w / boxWidth(b), h / boxHeight(b)), translation(-b.minX, -b.minY)),
        own,
      )
    }
  }
}

/** Flags in a row at their true distances, a layer of each colour. Throws BadInput. Needs the geometry loaded. */
export function makeGarland(recipe: GarlandRecipe, font?: Font): Made {
  const { flags, flagWidthMm: w, flagHeightMm: h, gapMm, fixing, flapMm, eyeletMm } = recipe
  const twine = twineOf(recipe)
  const shape = flagShape(recipe)
  const top = fixing === 'flap' ? flapMm : 0
  // The flap goes on as wide as the flag's own upper edge, drawn in a little so that it does not show.
  const cut =
    fixing === 'flap'
      ? union(mapRegion(translation(0, top), shape), [rectangle([1, 0], Math.max(1, w - 2), top + 0.5)])
      : subtract(
          shape,
          [eyeletMm * 1.5, w - eyeletMm * 1.5].map((x) => ellipse([x, eyeletMm * 1.5], eyeletMm / 2)),
        )
  const at = (i: number) => i * (w + gapMm)
  const colours = flagColours(recipe)
  const groups = groupBy(
    colours.map((colour, i) => ({ colour, i })),
    (flag) => flag.colour,
  )
  const layers = [...groups].map(([colour, list], k) =>
    makeLayer(
      {
        id: `flags-${k + 1}`,
        name: `Flags ${list.length > 4 ? `${k + 1}` : list.map(({ i }) => i + 1).join(', ')}`,
      },
      list.flatMap(({ i }) => mapRegion(translation(at(i), 0), cut)),
      {
        colour,
        folds:
          fixing === 'flap'
            ? list.map(({ i }): Fold => ({ line: [at(i), top, at(i) + w, top], way: 'down', deg: 180 }))
            : [],
        // They hang from the twine, and rest on nothing.
        joint: { kind: 'none', gapMm: 0, pinned: false },
      },
    ),
  )
  const letters = font && recipe.text.trim() ? lettersOn(recipe, font, top) : []
  if (letters.length > 0)
    layers.push(
      makeLayer({ id: 'letters', name: 'Letters' }, letters, {
        role: 'overlay',
        colour: LETTER_COLOUR,
        ...joint(0),
      }),
    )
  const remarks: Said[] = [
    `Write 1 to ${flags} on the backs before they leave the mat: the order is the list’s.`,
    ...(recipe.text.trim() && !font ? ['The letters wait for a font.'] : []),
  ]
  const { count, eachMm, leftMm } = scallops(w, recipe.scallopMm)
  return {
    layers,
    remarks,
    widthMm: twine.hungMm,
    heightMm: h + top,
    figures: [
      { name: 'Flags', value: say`${flags} of ${size(w, h)}` },
      {
        name: 'Twine to buy',
        value: say`${length(twine.wholeMm)}`,
        basis: say`${flags} flags, ${flags - 1} gaps of ${length(gapMm)}, and ${length(recipe.endsMm)} at either end`,
      },
      {
        name: 'Droop in the middle',
        value: say`${length(twine.droopMm)}`,
        basis: say`${length(Math.max(twine.hungMm, twine.spanMm))} of twine between hooks ${length(twine.spanMm)} apart, as a chain hangs (a catenary)`,
      },
      ...(recipe.shape === 'scalloped'
        ? [
            {
              name: 'Scallops',
              value: say`${count} of ${length(eachMm)}`,
              basis: say`${count} circles of ${length(recipe.scallopMm)} leave ${length(leftMm)}: shared among them`,
            },
          ]
        : []),
    ],
  }
}

/** A letter in the middle of each flag; flags whose letter is a blank have none. */
function lettersOn(recipe: GarlandRecipe, font: Font, top: number): Polygon[] {
  const { flagWidthMm: w, flagHeightMm: h, gapMm, flags } = recipe
  // A pennant narrows: its letter sits higher.
  const middle = recipe.shape === 'pennant' ? 0.36 : 0.5
  return [...recipe.text].slice(0, flags).flatMap((sign, i) => {
    if (!sign.trim()) return []
    const { region } = outlineWords(font, sign)
    const b = regionBox(region)
    if (regionArea(region) === 0) return []
    const factor = Math.min((w * LETTER_SHARE) / boxWidth(b), (h * LETTER_SHARE) / boxHeight(b))
    const put = compose(
      translation(i * (w + gapMm) + w / 2, top + h * middle),
      compose(scaling(factor), translation(-(b.minX + b.maxX) / 2, -(b.minY + b.maxY) / 2)),
    )
    return offset(mapRegion(put, region), 0.001)
  })
}
