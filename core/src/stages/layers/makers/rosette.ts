// A flower of one petal ring at falling sizes, two of each, every ring turned half a petal against the last; a centre
// rolled of a fringed strip; leaves to fold along the middle.
import {
  boxHeight,
  boxWidth,
  compose,
  ellipse,
  fillRings,
  mapPoint,
  mapRegion,
  pathToRegion,
  polygonToPath,
  rectangle,
  regionBox,
  rotation,
  scaleRegion,
  smoothLine,
  translation,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { MOST, type Layer, type RosetteRecipe } from '../../../project'
import { BadInput } from '../../../base'
import { length, say, sayAll, size } from '../../../base/units'
import { makeLayer } from '../intake/intake'
import { joint, type Made } from './made'

/** A rolled strip takes a little more than its card: air between the turns. */
const ROLL_AIR = 1.15
/** Diameter of the tool that a strip is rolled round, mm. */
const TOOL_MM = 2

/** Diameter (mm) that a strip of a length rolls to: the strip's area, with air, laid round the tool. */
export const rolledDiameter = (lengthMm: number, paperMm: number): number =>
  Math.sqrt((4 * lengthMm * paperMm * ROLL_AIR) / Math.PI + TOOL_MM ** 2)

/** Length (mm) of the strip that rolls to a diameter; 0 where the tool alone is as wide. */
export const stripLength = (diameterMm: number, paperMm: number): number =>
  Math.max(0, (Math.PI * (diameterMm ** 2 - TOOL_MM ** 2)) / (4 * paperMm * ROLL_AIR))

/** A leaf is folded lightly along its middle, degrees. */
const LEAF_DEG = 30

/** Reach of one petal, 0 to 1, over its width from −1 to 1. */
const reaches: Record<RosetteRecipe['petal'], (t: number) => number> = {
  round: (t) => 0.58 + 0.42 * Math.sqrt(1 - t * t),
  pointed: (t) => 0.5 + 0.5 * (1 - Math.abs(t)) ** 0.75,
  heart: (t) => 0.56 + 0.44 * Math.sqrt(1 - t * t) - 0.16 * Math.exp(-((t / 0.2) ** 2)),
  lobed: (t) => 0.56 + 0.36 * Math.sqrt(1 - t * t) + 0.08 * Math.cos(3 * Math.PI * t) * (1 - t * t),
}

/** One ring of so many petals about 0,0, reaching out to a radius, mm. */
export function petalRing(petal: RosetteRecipe['petal'], petals: number, radius: number): Polygon[] {
  const each = 48
  const points = Array.from({ length: petals * each }, (_, i) => {
    const a = (i / (petals * each)) * 2 * Math.PI
    const t = ((i % each) / each) * 2 - 1
    const r = radius * reaches[petal](t)
    return [r * Math.cos(a), r * Math.sin(a)] as const
  })
  return fillRings([smoothLine(points, true, 0.02)], 'nonzero')
}

function leaf(length: number): Polygon[] {
  const half = length * 0.24
  const points = Array.from({ length: 40 }, (_, i) => {
    const s = i < 20 ? i / 20 : (40 - i) / 20
    const y = half * Math.sin(Math.PI * s ** 0.85) * (i < 20 ? -1 : 1)
    return [s * length, y] as const
  })
  return fillRings([Float64Array.from(points.flat())], 'nonzero')
}

/** Diameter of each size of ring, the largest first. */
export const ringSizes = ({ diameterMm, sizes, fall, ratio, stepMm }: RosetteRecipe): number[] =>
  Array.from({ length: sizes }, (_, k) =>
    fall === 'ratio' ? diameterMm * ratio ** k : diameterMm - k * stepMm,
  )

/** Rings from the largest at the back to the smallest in front. Throws BadInput. Needs the geometry loaded. */
export function makeRosette(recipe: RosetteRecipe): Made {
  const { diameterMm, petals, curlMm } = recipe
  const radius = diameterMm / 2
  const across = ringSizes(recipe)
  const smallest = across.at(-1)!
  if (smallest < 8)
    throw new BadInput(
      say`the smallest ring would be ${length(smallest)} across, too small to handle: take fewer sizes or a slower fall`,
    )
  const drawn = recipe.shape === undefined ? null : pathToRegion(recipe.shape)
  const ring = (r: number): Polygon[] => {
    if (!drawn) return petalRing(recipe.petal, petals, r)
    const b = regionBox(drawn)
    const centred = mapRegion(translation(-(b.minX + b.maxX) / 2, -(b.minY + b.maxY) / 2), drawn)
    return scaleRegion(centred, (2 * r) / Math.max(boxWidth(b), boxHeight(b)))
  }
  const shades = (k: number) =>
    `#${[222 - k * 16, 120 - k * 9, 140 - k * 10].map((v) => Math.max(20, v).toString(16).padStart(2, '0')).join('')}`
  const place = (region: Region): Polygon[] => mapRegion(translation(radius, radius), region)
  const layers = across.flatMap((mm, k) =>
    [0, 1].map((second) => {
      const i = 2 * k + second
      // Every ring, of whichever size, is turned half a petal against the one beneath.
      const region = mapRegion(rotation((i * 180) / petals), ring(mm / 2))
      return makeLayer(
        { id: `ring-${i + 1}`, name: `Ring ${k + 1}${second ? ', second' : ''}` },
        place(region),
        {
          colour: shades(across.length - 1 - k),
          ...(curlMm > 0 && {
            shaping: { how: 'curl', riseMm: (curlMm * mm) / diameterMm, flatMm: mm * FLAT_SHARE },
          }),
          ...joint(0),
        },
      )
    }),
  )
  const leaves = recipe.leaves > 0 ? leavesOf(recipe, radius) : null
  if (leaves) layers.unshift(leaves)
  const strip = recipe.centreMm > 0 ? centreStrip(recipe) : null
  if (strip) layers.push(strip.layer)
  const box = regionBox(layers.flatMap((layer) => layer.pieces.flatMap((piece) => pathToRegion(piece.path))))
  return {
    layers,
    remarks: [
      ...(strip && strip.parts > 1
        ? [
            say`The strip is longer than the ${length(recipe.longestMm)} that a sheet holds: it is cut in ${strip.parts} parts and rolled on, one after the other.`,
          ]
        : []),
      ...(leaves ? ['Glue only the end of each leaf, under the ring.'] : []),
    ],
    widthMm: boxWidth(box),
    heightMm: boxHeight(box),
    figures: [
      { name: 'Rings', value: `${across.length * 2}, two of each size` },
      {
        name: 'Sizes across',
        value: sayAll(
          across.map((mm) => say`${length(mm)}`),
          ', ',
        ),
      },
      ...(strip
        ? [
            {
              name: 'Strip for the centre',
              value: say`${size(Math.round(strip.lengthMm), strip.widthMm)}`,
              basis: say`Rolls to ${length(recipe.centreMm)}: π (D² − d²) ÷ 4 t; ${recipe.strip === 'folded' ? 'folded lengthwise, t is twice the ' : 'single, t is the '}card of ${length(recipe.paperMm, 2)} with 15 % air, d a ${length(TOOL_MM)} tool`,
            },
            {
              name: say`A strip of ${length(300)} rolls to`,
              value: say`${length(rolledDiameter(300, rolledMm(recipe)))}`,
            },
          ]
        : []),
    ],
  }
}

/** Of a curled ring so much of its width stays flat, and is glued. */
const FLAT_SHARE = 0.45

/** Card that each turn of the roll adds, mm. */
const rolledMm = ({ strip, paperMm }: RosetteRecipe): number => (strip === 'folded' ? 2 : 1) * paperMm

/** A roll is wound of so many strips at the most. */
const MOST_STRIPS = 200

/** The fringed strip: cut flat, seen as the roll it becomes. */
function centreStrip(recipe: RosetteRecipe): {
  layer: Layer
  parts: number
  lengthMm: number
  widthMm: number
} {
  const { centreMm, fringeMm, fringeDepth, slitMm, diameterMm, longestMm } = recipe
  const lengthMm = stripLength(centreMm, rolledMm(recipe))
  const isFolded = recipe.strip === 'folded'
  const widthMm = isFolded ? 2 * fringeMm : fringeMm
  if (lengthMm < Math.PI * TOOL_MM)
    throw new BadInput(
      say`a roll of ${length(centreMm)} is less than one turn round the ${length(TOOL_MM)} tool: let it be larger, or take none with 0`,
    )
  const parts = Math.ceil(lengthMm / longestMm)
  if (parts > MOST_STRIPS)
    throw new BadInput(
      say`a roll of ${length(centreMm)} takes ${Math.round(parts)} strips of ${length(longestMm, 2)}, more than ${MOST_STRIPS}: let them be longer, or the roll smaller`,
    )
  const each = lengthMm / parts
  const cutIn = fringeMm * fringeDepth
  if (lengthMm / slitMm > MOST.folds)
    throw new BadInput(
      say`slits every ${length(slitMm, 2)} are more than ${MOST.folds} along a strip of ${length(lengthMm)}: set them wider`,
    )
  const top = (k: number) => diameterMm + 10 + k * (widthMm + 4)
  // Folded, the fringe is loops: slits run across the fold; single, they run in from one edge.
  const slits = Array.from({ length: parts }, (_, k) => {
    const [from, to] = isFolded
      ? [top(k) + fringeMm - cutIn, top(k) + fringeMm + cutIn]
      : [top(k), top(k) + cutIn]
    return Array.from({ length: Math.max(0, Math.ceil(each / slitMm) - 1) }, (_, i) => {
      const x = ((i + 1) * each) / Math.ceil(each / slitMm)
      return [x, from, x, to]
    })
  }).flat()
  const layer = makeLayer(
    { id: 'centre', name: 'Centre' },
    [ellipse([diameterMm / 2, diameterMm / 2], centreMm / 2)],
    {
      role: 'accent',
      colour: '#c9a13b',
      blanks: Array.from({ length: parts }, (_, k) => ({
        id: `strip-${k + 1}`,
        path: polygonToPath(rectangle([0, top(k)], each, widthMm)),
      })),
      slits,
      folds: isFolded
        ? Array.from({ length: parts }, (_, k) => ({
            line: [0, top(k) + fringeMm, each, top(k) + fringeMm],
            way: 'up',
            deg: 180,
          }))
        : [],
      shaping: { how: 'roll', riseMm: fringeMm, flatMm: 0 },
      numbered: false,
      ...joint(0),
    },
  )
  return { layer, parts, lengthMm, widthMm }
}

/** Leaves start so far from the flower's middle, in parts of its radius: under petals that lie flat, or under the middle of those that curl. */
const ROOT_SHARE = { flat: 0.45, curled: FLAT_SHARE / 2 } as const
/** As far as this card of the flower lies on them, which keeps them flat. */
const LYING_SHARE = { flat: 1, curled: FLAT_SHARE } as const
/** At the most so much of a leaf is under the flower. */
const MOST_UNDER = 0.65

/**
 * Leaves round the flower, each smaller than the last: folded along the middle, or with a slit whose edge is glued over the other. Under the
 * flower, where they are glued, they stay flat.
 */
function leavesOf(recipe: RosetteRecipe, radius: number): Layer {
  const { leaves, leafRatio, cupDeg, flapMm } = recipe
  const petals = recipe.curlMm > 0 ? 'curled' : 'flat'
  const root = radius * ROOT_SHARE[petals]
  const folds: Layer['folds'] = []
  const slits: number[][] = []
  const longest = radius * 0.9
  const faces = Array.from({ length: leaves }, (_, i) => {
    // Their tips reach as far, wherever they start.
    const length = longest * leafRatio ** i + radius * ROOT_SHARE.flat - root
    const under = Math.min(radius * LYING_SHARE[petals] - root, length * MOST_UNDER)
    const map = compose(
      translation(radius, radius),
      compose(rotation(25 + (i * 360) / leaves), translation(root, 0)),
    )
    const line = ([x1, y1]: readonly [number, number], [x2, y2]: readonly [number, number]) =>
      [...mapPoint(map, x1, y1), ...mapPoint(map, x2, y2)] as Layer['folds'][number]['line']
    if (recipe.leaf === 'folded')
      folds.push({ line: line([length, 0], [under, 0]), way: 'up', deg: LEAF_DEG })
    else slits.push(line([0, 0], [length * SLIT_SHARE, 0]))
    return mapRegion(map, leaf(length))
  }).flat()
  // The flap laid over the slit draws the sides together: the tip turns up about the slit's end.
  const rise = longest * (1 - SLIT_SHARE) * Math.sin((cupDeg * Math.PI) / 180)
  // What is glued reaches from the slit's start to under the flower's edge, and as far aside as the flap is wide.
  const flatEnd = Math.min(Math.hypot(radius * LYING_SHARE[petals] - root, flapMm), longest * MOST_FLAT)
  return makeLayer({ id: 'leaves', name: 'Leaves' }, faces, {
    role: 'accent',
    colour: '#6f8f5c',
    folds,
    slits,
    ...(recipe.leaf === 'cupped' && {
      shaping: { how: 'cup', riseMm: rise, flatMm: flatEnd },
    }),
    ...joint(0),
  })
}

/** Of a cupped leaf at the most so much stays flat. */
const MOST_FLAT = 0.85
/** A cupped leaf is slit along so much of its middle. */
const SLIT_SHARE = 0.4
