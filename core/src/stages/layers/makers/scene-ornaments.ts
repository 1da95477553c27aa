// Ornaments in the corners and at the sides of the inner frame, behind the pane: each is glued to the frame by bars along its straight
// edges, folded back to right angles. What is folded is cut with it. Lengths in mm.
import {
  boxHeight,
  boxWidth,
  compose,
  ellipse,
  intersect,
  mapPoint,
  mapRegion,
  pathToRegion,
  polygonToPath,
  rectangle,
  regionBox,
  scaling,
  subtract,
  translation,
  union,
  type Affine,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import type { Fold, SceneRecipe } from '../../../project'
import { BadInput } from '../../../base'
import { length, say, size } from '../../../base/units'
import { makeLayer } from '../intake/intake'
import { bridgeFaces } from './bridge'
import type { Made } from './made'
import { heightOver, JOIN_MM, tabbed, TIE_MM } from './scene'

/** Where an ornament sits, and the bars that hold it there. */
interface Seat {
  /** Seen from the front: at the right it is mirrored, at the bottom turned over. */
  right: boolean
  low: boolean
  bars: 'both edges' | 'side'
}

const corner = (low: boolean, right: boolean): Seat => ({ low, right, bars: 'both edges' })
const side = (right: boolean): Seat => ({ low: false, right, bars: 'side' })

const SEATS: Record<SceneRecipe['places'], readonly Seat[]> = {
  'upper corners': [corner(false, false), corner(false, true)],
  'lower corners': [corner(true, false), corner(true, true)],
  'four corners': [corner(false, false), corner(false, true), corner(true, false), corner(true, true)],
  'upper left': [corner(false, false)],
  'upper right': [corner(false, true)],
  'lower left': [corner(true, false)],
  'lower right': [corner(true, true)],
  'both sides': [side(false), side(true)],
  'left side': [side(false)],
  'right side': [side(true)],
}

/** A fan for the upper left corner, or half of one for the left side: rings of card and spokes, its straight edges at 0. */
function fan({ widthMm: w, heightMm: h }: SceneRecipe, half: boolean): Region {
  const middle = half ? h / 2 : 0
  const disc = (share: number) => [ellipse([0, middle], w * share, (half ? h / 2 : h) * share)]
  const rings = union(
    subtract(disc(1), disc(0.86)),
    subtract(disc(0.62), disc(0.5)),
    subtract(disc(0.28), disc(0)),
  )
  const spokes = (half ? [-60, -30, 0, 30, 60] : [15, 45, 75]).map((deg) => {
    const t = (deg * Math.PI) / 180
    const [ux, uy] = [Math.cos(t) * w, Math.sin(t) * (half ? h / 2 : h)]
    const mm = Math.hypot(ux, uy)
    const [nx, ny] = [(-uy / mm) * (w * 0.03), (ux / mm) * (w * 0.03)]
    const [x, y] = [ux * 0.93, middle + uy * 0.93]
    return [
      {
        outer: Float64Array.of(nx, middle + ny, -nx, middle - ny, x - nx, y - ny, x + nx, y + ny),
        holes: [],
      },
    ]
  })
  // A rim along the straight edges carries the bars.
  const rim = w * 0.1
  const rims = half
    ? [[rectangle([0, 0], rim, h)]]
    : [[rectangle([0, 0], w, rim)], [rectangle([0, 0], rim, h)]]
  return intersect(union(rings, ...spokes, ...rims), intersect(disc(1), [rectangle([0, 0], w, h)]))
}

/** Ornaments glued to the inner frame. Throws BadInput. Needs the geometry loaded. */
export function makeOrnaments(recipe: SceneRecipe): Made {
  const { widthMm: w, heightMm: h, barMm, frameWidthMm, frameHeightMm } = recipe
  const seats = SEATS[recipe.places]
  const behind = heightOver(recipe)
  if (barMm > behind)
    throw new BadInput(say`a bar of ${length(barMm)} is longer than the ${length(behind)} behind the piece`)
  const both = (pick: (seat: Seat) => boolean) => seats.some(pick) && seats.some((seat) => !pick(seat))
  if (
    w * (both(({ right }) => right) ? 2 : 1) > frameWidthMm ||
    h * (both(({ low }) => low) ? 2 : 1) > frameHeightMm
  )
    throw new BadInput(
      say`ornaments of ${size(w, h)} do not fit beside each other into the inner frame of ${size(frameWidthMm, frameHeightMm)}`,
    )
  const isSide = seats[0]!.bars === 'side'
  const own = recipe.shape === undefined ? fan(recipe, isSide) : fitted(pathToRegion(recipe.shape), w, h)
  if (own.length === 0) throw new BadInput('there is no shape that could be set there')
  const bars = [
    rectangle([-barMm, 0], barMm + JOIN_MM, h),
    ...(isSide ? [] : [rectangle([0, -barMm], w, barMm + JOIN_MM)]),
  ]
  const lines = [[0, 0, 0, h], ...(isSide ? [] : [[0, 0, w, 0]])] as Fold['line'][]
  // What stands alone is tied, and what touches no bar is tied to one.
  const tied = bridgeFaces(own, TIE_MM)
  const { region: cut, strips } = bridgeFaces(union(tied.region, bars), Math.min(TIE_MM, barMm))
  const ties = tied.strips.length + strips.length
  const seen = intersect(cut, [rectangle([0, 0], w, h)])
  const puts = seats.map((seat): Affine => {
    const top = isSide ? (frameHeightMm - h) / 2 : 0
    const [sx, x] = seat.right ? [-1, frameWidthMm] : [1, 0]
    const [sy, y] = seat.low ? [-1, frameHeightMm] : [1, top]
    return compose(translation(x, y), scaling(sx, sy))
  })
  const layer = makeLayer(
    { id: 'ornaments', name: isSide ? 'Side ornaments' : 'Corner ornaments' },
    puts.flatMap((put) => mapRegion(put, seen)),
    {
      role: 'accent',
      colour: '#2b2f3a',
      blanks: puts.flatMap((put, k) =>
        mapRegion(put, cut).map((face, i) => ({ id: `cut-${k + 1}-${i + 1}`, path: polygonToPath(face) })),
      ),
      folds: puts.flatMap((put) =>
        lines.map(([x1, y1, x2, y2]): Fold => ({
          line: [...mapPoint(put, x1, y1), ...mapPoint(put, x2, y2)] as Fold['line'],
          way: 'down',
          deg: 90,
        })),
      ),
      numbered: false,
      ...tabbed(recipe),
    },
  )
  const n = seats.length
  return {
    layers: [layer],
    inPlace: true,
    remarks: [
      isSide
        ? 'A bar along the outer edge, folded back to a right angle: glue it to the side of the frame.'
        : 'Bars along both straight edges, folded back to right angles: glue them to the side and to the floor or ceiling of the frame.',
      ...(ties > 0 ? [`${ties} ${ties === 1 ? 'strip ties' : 'strips tie'} what would stand alone.`] : []),
    ],
    widthMm: frameWidthMm,
    heightMm: frameHeightMm,
    figures: [
      { name: 'Ornaments', value: say`${n} of ${size(w, h)}` },
      {
        name: 'Stands over the back',
        value: say`${length(behind)}`,
        basis: say`${length(recipe.frameDepthMm)} of depth less ${length(recipe.fromPaneMm)} from the pane and the card`,
      },
      {
        name: 'Bars',
        value: isSide
          ? say`${n} of ${size(h, barMm)}`
          : say`${n} of ${size(w, barMm)}, ${n} of ${size(h, barMm)}`,
        basis: 'Cut with them and folded to right angles',
      },
    ],
  }
}

function fitted(shape: Region, w: number, h: number): Polygon[] {
  if (shape.length === 0) return []
  const b = regionBox(shape)
  return mapRegion(compose(scaling(w / boxWidth(b), h / boxHeight(b)), translation(-b.minX, -b.minY)), shape)
}
