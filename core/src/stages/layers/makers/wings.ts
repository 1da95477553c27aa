// A pair of wings cut in one from one half and its mirror: the body lies flat and is glued, the wings are folded up.
import {
  boxHeight,
  boxWidth,
  compose,
  fillRings,
  intersect,
  mapRegion,
  pathToRegion,
  rectangle,
  regionBox,
  scaling,
  smoothLine,
  translation,
  union,
  type Region,
} from '../../../base/geometry'
import { type WingsRecipe } from '../../../project'
import { BadInput } from '../../../base'
import { length, say } from '../../../base/units'
import { makeLayer } from '../intake/intake'
import { joint, type Made } from './made'

/** Right wings about a box 1 wide and 1 high, their root at the left. */
const WINGS: Record<'gull' | 'butterfly', readonly (readonly [number, number])[]> = {
  gull: [[0, 0.42], [0.2, 0.12], [0.48, 0], [0.78, 0.1], [1, 0.34], [0.8, 0.36], [0.6, 0.44], [0.38, 0.62], [0.16, 0.86], [0, 1]], // prettier-ignore
  butterfly: [[0, 0.36], [0.18, 0.1], [0.5, 0], [0.86, 0.03], [1, 0.18], [0.92, 0.4], [0.66, 0.5], [0.84, 0.64], [0.8, 0.86], [0.52, 1], [0.22, 0.86], [0, 0.62]], // prettier-ignore
}

const INTO_BODY = 0.12

/** Wings with their folds. Throws BadInput. Needs the geometry loaded. */
export function makeWings(recipe: WingsRecipe): Made {
  const { spanMm, heightMm, bodyMm, deg } = recipe
  const wingMm = (spanMm - bodyMm) / 2
  if (wingMm < 3)
    throw new BadInput(
      say`a body of ${length(bodyMm)} leaves no wings in a span of ${length(spanMm)}: take a narrower body`,
    )
  const half = halfOf(recipe)
  const b = regionBox(half)
  // A drawn wing reaches a little into the body, so that it is folded along more of its height.
  const into = recipe.wing === 'own' ? 0 : INTO_BODY
  const wide = wingMm / (1 - into)
  const right = mapRegion(
    compose(
      translation(spanMm / 2 + bodyMm / 2 - wide * into, 0),
      compose(scaling(wide / boxWidth(b), heightMm / boxHeight(b)), translation(-b.minX, -b.minY)),
    ),
    half,
  )
  const left = mapRegion([-1, 0, 0, 1, spanMm, 0], right)
  const [top, bottom] = rootOf(right, spanMm / 2 + bodyMm / 2)
  const body = [rectangle([spanMm / 2 - bodyMm / 2 - 0.05, top], bodyMm + 0.1, bottom - top)]
  const middle = spanMm / 2
  const own = (wing: Region, from: number) =>
    intersect(wing, [rectangle([from, -1], middle + 1, heightMm + 2)])
  const whole = union(own(left, -1), body, own(right, middle))
  if (whole.length !== 1)
    throw new BadInput('the wing does not reach its left side along enough of its height to be folded there')
  const fold = (x: number) => ({
    line: [x, top, x, bottom] as [number, number, number, number],
    way: 'up' as const,
    deg,
  })
  const tip = wingMm * Math.sin((deg * Math.PI) / 180)
  return {
    layers: [
      makeLayer({ id: 'wings', name: 'Wings' }, whole, {
        role: 'accent',
        colour: '#e9e6df',
        folds: [fold(spanMm / 2 - bodyMm / 2), fold(spanMm / 2 + bodyMm / 2)],
        ...joint(0),
      }),
    ],
    remarks: ['Glue the body only: between the two folds.'],
    widthMm: spanMm,
    heightMm,
    figures: [
      {
        name: 'Tips rise by',
        value: say`${length(tip)}`,
        basis: say`${length(wingMm)} of wing turned up by ${Math.round(deg)}°`,
      },
      {
        name: 'Glued',
        value: say`${length(bodyMm)} × ${length(bottom - top)}`,
        basis: 'The body between the folds',
      },
      {
        name: 'Seen from the front',
        value: say`${length(bodyMm + 2 * wingMm * Math.cos((deg * Math.PI) / 180))}`,
        basis: 'Across, once the wings are up',
      },
    ],
  }
}

function halfOf({ wing, own }: WingsRecipe): Region {
  if (wing === 'own') {
    const half = own ? pathToRegion(own) : []
    if (half.length === 0) throw new BadInput('a wing of your own needs a shape: pick a layer first')
    return half
  }
  return fillRings([smoothLine(WINGS[wing], true, 0.002)], 'nonzero')
}

/** How high a wing reaches along its root, just inside it. */
function rootOf(wing: Region, x: number): [number, number] {
  const near = wing.flatMap(({ outer }) => {
    const ys: number[] = []
    for (let i = 0, j = outer.length - 2; i < outer.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [outer[j]!, outer[j + 1]!, outer[i]!, outer[i + 1]!]
      const at = x + 0.3
      if ((ax - at) * (bx - at) < 0) ys.push(ay + ((at - ax) / (bx - ax)) * (by - ay))
    }
    return ys
  })
  return near.length < 2 ? [0, 0] : [Math.min(...near), Math.max(...near)]
}
