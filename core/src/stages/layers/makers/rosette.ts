// A flower of one petal ring at falling sizes, two of each, every ring turned half a petal against the last; a centre
// rolled of a fringed strip; leaves to fold along the middle.
import {
  boxHeight,
  boxWidth,
  fillRings,
  compose,
  mapPoint,
  mapRegion,
  pathToRegion,
  regionBox,
  rotation,
  scaleRegion,
  smoothLine,
  translation,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { type Layer, type RosetteRecipe } from '../../../project'
import { BadInput } from '../../../base'
import { length, say, size } from '../../../base/units'
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

/** One ring of petals about 0,0, reaching out to a radius. */
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

/** Rings from the largest at the back to the smallest in front. Throws BadInput. Needs the geometry loaded. */
export function makeRosette(recipe: RosetteRecipe): Made {
  const { diameterMm, sizes, ratio, petals } = recipe
  const radius = diameterMm / 2
  const smallest = diameterMm * ratio ** (sizes - 1)
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
  const layers = Array.from({ length: sizes * 2 }, (_, i) => {
    const k = Math.floor(i / 2)
    // Every ring, of whichever size, is turned half a petal against the one beneath.
    const region = mapRegion(rotation((i * 180) / petals), ring(radius * ratio ** k))
    return makeLayer(`ring-${i + 1}`, `Ring ${k + 1}${i % 2 ? ', second' : ''}`, place(region), {
      colour: shades(sizes - 1 - k),
      ...joint(i % 2 === 0 && i > 0 ? 2 : 0),
    })
  })
  if (recipe.leaves > 0) {
    const length = radius * 0.9
    const folds: Layer['folds'] = []
    const leaves = Array.from({ length: recipe.leaves }, (_, i) => {
      const map = compose(
        translation(radius, radius),
        compose(rotation(25 + (i * 360) / recipe.leaves), translation(radius * 0.45, 0)),
      )
      folds.push({
        line: [...mapPoint(map, 0, 0), ...mapPoint(map, length, 0)],
        way: 'up',
        deg: LEAF_DEG,
      })
      return mapRegion(map, leaf(length))
    }).flat()
    layers.unshift(
      makeLayer('leaves', 'Leaves', leaves, { role: 'accent', colour: '#6f8f5c', folds, ...joint(0) }),
    )
  }
  const strip = recipe.centreMm > 0 ? stripLength(recipe.centreMm, recipe.paperMm) : 0
  const box = regionBox(layers.flatMap((layer) => layer.pieces.flatMap((piece) => pathToRegion(piece.path))))
  return {
    layers,
    remarks: [
      ...(strip > 0
        ? [
            say`Cut a strip ${length(recipe.fringeMm)} wide with a trimmer, snip one edge into a fringe, and roll it round a ${length(TOOL_MM)} tool.`,
          ]
        : []),
      ...(recipe.leaves > 0
        ? ['Score each leaf along its middle and fold it lightly; glue only the end under the ring.']
        : []),
    ],
    widthMm: boxWidth(box),
    heightMm: boxHeight(box),
    figures: [
      { name: 'Rings', value: `${sizes * 2}, two of each size` },
      { name: 'Smallest ring', value: say`${length(smallest)}` },
      ...(strip > 0
        ? [
            {
              name: 'Strip for the centre',
              value: say`${size(Math.round(strip), recipe.fringeMm)}`,
              basis: say`Rolls to ${length(recipe.centreMm)}: π (D² − d²) ÷ 4 t, card of ${length(recipe.paperMm, 2)} with 15 % air`,
            },
            {
              name: say`A strip of ${length(300)} rolls to`,
              value: say`${length(rolledDiameter(300, recipe.paperMm))}`,
            },
          ]
        : []),
    ],
  }
}
