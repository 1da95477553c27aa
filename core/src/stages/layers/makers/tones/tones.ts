// A picture in two to six tones or colours. Each layer is all that is as far from the back's tone as its own or farther, so it
// fills under everything above it and always has card to stand on. Outlines are contours of the smoothed picture.
import { contours } from 'd3-contour'
import {
  ellipse,
  fillRings,
  intersect,
  offset,
  rectangle,
  regionArea,
  simplify,
  subtract,
  union,
  type Polygon,
  type Region,
} from '../../../../base/geometry'
import { LIMITS, type Tie, type TonesRecipe } from '../../../../project'
import { BadInput } from '../../../../base'
import { area, length, say, type Said } from '../../../../base/units'
import { makeLayer } from '../../intake/intake'
import { tiesOf } from '../../ties'
import { bridgeFaces, stripRegion, type Strip } from '../bridge'
import { joint, withoutSpecks, type Made } from '../made'
import { pictureOf } from './picture'
import { withSpots, type Spot } from './spots'
import { stepsOf } from './steps'
import { greysCounted } from './thresholds'

/** A mat covers so much of the picture's edge, mm; its colour before a paper is chosen. */
const MAT_OVER_MM = 2
const MAT_COLOUR = '#f3efe4'

/** Layers of tones, back to front. Throws BadInput where the picture holds a single tone, or would be higher than any sheet. Needs the geometry loaded. */
export function makeTones(recipe: TonesRecipe): Made {
  const { widthMm, levels, matMm } = recipe
  const picture = pictureOf(recipe)
  const { w, h, mmPerPixel } = picture
  const heightMm = h * mmPerPixel
  const [, mostMm] = LIMITS.sizeMm
  if (heightMm + 2 * matMm > mostMm)
    throw new BadInput(
      say`at ${length(widthMm)} wide the picture would be more than ${length(mostMm)} high: make it narrower, or crop it`,
    )
  const counted = greysCounted(picture)
  const { fields, tints, thresholds } = stepsOf(picture, counted, recipe)
  const page: Region = [rectangle([0, 0], widthMm, heightMm)]
  const frame = cropRegion(recipe.crop, widthMm, heightMm)
  const sheet: Region = [rectangle([-matMm, -matMm], widthMm + 2 * matMm, heightMm + 2 * matMm)]
  const trace = contours().size([w, h]).smooth(true)
  const regions: Region[] = [frame]
  const ties: Strip[] = []
  /** Of each region those that were laid in it. */
  const laid: Tie[][] = [[]]
  const spots: Spot[] = []
  let below: Region = frame
  for (const { values, level } of fields) {
    const rings = trace
      .contour(Array.from(values), level)
      .coordinates.flat()
      .map((ring) => Float64Array.from(ring.flatMap(([x, y]) => [x! * mmPerPixel, y! * mmPerPixel])))
    const drawn = intersect(simplify(fillRings(rings, 'evenodd'), recipe.detailMm), page)
    const whole =
      recipe.spots === 'kept'
        ? withSpots(drawn, recipe.speckMm2, { picture, spots })
        : withoutSpecks(drawn, recipe.speckMm2)
    const own = intersect(whole, below)
    const strips = recipe.tieMm > 0 ? stripsFor(own, below, recipe.tieMm) : []
    ties.push(...strips)
    const asDrawn = strips.map((strip) => ({ ...strip, widthMm: recipe.tieMm }))
    laid.push(tiesOf(own, asDrawn, below))
    if (strips.length > 0)
      below = intersect(
        union(own, ...asDrawn.map((strip) => stripRegion(strip.from, strip.to, strip))),
        below,
      )
    else below = own
    regions.push(below)
  }
  // The full sheet at the back reaches under the mat.
  if (matMm > 0) regions[0] = sheet
  const layers = regions.flatMap((region, k) =>
    region.length === 0
      ? []
      : [
          makeLayer(
            { id: `tone-${k + 1}`, name: k === 0 ? 'Backing tone' : `Tone ${k + 1}` },
            region as Polygon[],
            {
              role: k === 0 ? 'backing' : 'plain',
              colour: tints[k]!.colour,
              paperId: tints[k]!.paperId ?? null,
              ties: laid[k]!,
              ...joint(k === 0 ? 0 : 1),
            },
          ),
        ],
  )
  if (layers.length < 2) throw new BadInput('the picture holds a single tone: there is nothing to part')
  const remarks = remarksOf({ asked: levels, given: layers.length, ties, spots })
  if (matMm > 0)
    layers.push(
      makeLayer({ id: 'mat', name: 'Mat' }, subtract(sheet, offset(frame, -MAT_OVER_MM)), {
        role: 'border',
        colour: MAT_COLOUR,
        ...joint(2),
      }),
    )
  return {
    layers,
    remarks,
    ties,
    spots,
    greys: Array.from(counted),
    widthMm: widthMm + 2 * matMm,
    heightMm: heightMm + 2 * matMm,
    figures: [
      thresholds
        ? {
            name: 'Thresholds',
            value: thresholds.map((t) => Math.round(t)).join(' · '),
            basis: recipe.thresholds.length
              ? 'Set by hand'
              : 'Least spread within the tones (multi-level Otsu, exact)',
          }
        : {
            name: 'Colours',
            value: tints.map(({ colour }) => colour).join(' · '),
            basis:
              recipe.by === 'papers'
                ? 'The papers of the drawer that lie nearest to the picture’s colours (k-medoids in Oklab)'
                : 'Least spread within the colours (k-means in Oklab)',
          },
      { name: 'Pieces', value: String(layers.reduce((n, l) => n + l.pieces.length, 0)) },
    ],
  }
}

function remarksOf({
  asked,
  given,
  ties,
  spots,
}: {
  asked: number
  given: number
  ties: readonly Strip[]
  spots: readonly Spot[]
}): Said[] {
  const remarks: Said[] = []
  if (given < asked)
    remarks.push(
      `${asked} tones were asked for; the picture gives ${given} after smoothing and dropping specks.`,
    )
  if (ties.length > 0)
    remarks.push(
      say`${ties.length} ${ties.length === 1 ? 'strip ties' : 'strips tie'} the pieces, ${length(Math.max(...ties.map((tie) => tie.lengthMm)), 0)} at the longest; each lies on the layer beneath and shows, for nothing in front covers more than the layer itself.`,
    )
  if (spots.length > 0) {
    const bright = spots.filter((spot) => spot.bright).length
    const what = [
      bright > 0 ? `${bright} bright` : '',
      spots.length > bright ? `${spots.length - bright} dark` : '',
    ].filter(Boolean)
    remarks.push(
      say`${what.join(' and ')} small ${spots.length === 1 ? 'spot stands' : 'spots stand'} out and ${spots.length === 1 ? 'is' : 'are'} kept though smaller than a speck (${area(Math.min(...spots.map((spot) => spot.areaMm2)))} and more): the light in an eye, a lamp.`,
    )
  }
  return remarks
}

/** Strips that make pieces one and stay on the layer beneath; one that would leave it is not laid. */
const stripsFor = (own: Region, below: Region, widthMm: number): Strip[] =>
  bridgeFaces(own, widthMm).strips.filter(
    ({ from, to }) =>
      regionArea(subtract(stripRegion(from, to, { widthMm }), below)) < 0.05 * widthMm * widthMm,
  )

function cropRegion(crop: TonesRecipe['crop'], w: number, h: number): Region {
  if (crop === 'oval') return [ellipse([w / 2, h / 2], w / 2, h / 2)]
  if (crop === 'none') return [rectangle([0, 0], w, h)]
  const r = Math.min(w, h) * 0.12
  const corners = [
    ellipse([r, r], r),
    ellipse([w - r, r], r),
    ellipse([w - r, h - r], r),
    ellipse([r, h - r], r),
  ]
  return fillRings(
    [
      ...corners.map((c) => c.outer),
      rectangle([r, 0], w - 2 * r, h).outer,
      rectangle([0, r], w, h - 2 * r).outer,
    ],
    'nonzero',
  )
}
