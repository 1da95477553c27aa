// A piece that stands before the stack, held by the inner frame: on two feet folded opposite ways, hung by a bar, or as a band
// that runs all round. What is folded is cut with it.
import {
  boxHeight,
  boxWidth,
  compose,
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
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { type Fold, type Layer, type SceneRecipe } from '../../../project'
import { BadInput, seededRandom } from '../../../base'
import { length, say, size, weight } from '../../../base/units'
import { makeLayer } from '../intake/intake'
import { bridgeFaces } from './bridge'
import type { Made } from './made'

/** Stiffness of card along its stiffer way (Pa), and how much lower a hand's touch asks for. */
const CARD_PA = 3e9
const SAFETY = 2
const GRAVITY = 9.81
/** Pieces of what stands are tied by strips of this width, mm. */
export const TIE_MM = 2
/** The two feet stand this far apart, mm. */
const SLIT_MM = 0.4

/**
 * How high card stands before it leans under its own weight (mm): Greenhill's column, (7.84 E I / w)^⅓ with I = t³/12 and the
 * weight w a strip of 1 m bears a metre; halved for safety.
 */
export function standsMm(thicknessMm: number, gsm: number): number {
  const t = thicknessMm / 1000
  const weight = (gsm / 1000) * GRAVITY
  return (Math.cbrt((7.837 * CARD_PA * (t ** 3 / 12)) / weight) * 1000) / SAFETY
}

/** A layer that stands, hangs or runs round. Throws BadInput. Needs the geometry loaded. */
export function makeScene(recipe: SceneRecipe): Made {
  const { frameDepthMm, fromPaneMm, thicknessMm, barMm } = recipe
  if (fromPaneMm + thicknessMm > frameDepthMm)
    throw new BadInput(
      say`${length(fromPaneMm)} from the pane is outside a frame ${length(frameDepthMm)} deep`,
    )
  if (recipe.hold === 'wraps') return band(recipe)
  const behind = heightOver(recipe)
  if (recipe.hold === 'stands' && (barMm > fromPaneMm || barMm > behind))
    throw new BadInput(
      say`feet of ${length(barMm)} need as much room before and behind the piece; there are ${length(fromPaneMm)} and ${length(behind)}`,
    )
  if (recipe.hold === 'hangs' && barMm > behind)
    throw new BadInput(say`a bar of ${length(barMm)} is longer than the ${length(behind)} behind the piece`)
  return recipe.hold === 'stands' ? standing(recipe) : hanging(recipe)
}

/** From the back of the frame to the back of the piece, mm. */
export const heightOver = ({ frameDepthMm, fromPaneMm, thicknessMm }: SceneRecipe): number =>
  frameDepthMm - fromPaneMm - thicknessMm

/** Held by the frame at its distance from the pane. */
export const tabbed = (recipe: SceneRecipe): Pick<Layer, 'joint'> => ({
  joint: { kind: 'tab', gapMm: heightOver(recipe), pinned: true },
})

/** What stands, its left upper corner at 0,0: pieces of it are tied to one. */
function figure(recipe: SceneRecipe): { region: Polygon[]; ties: number } {
  const { widthMm: w, heightMm: h } = recipe
  const own = recipe.shape === undefined ? houses(recipe) : pathToRegion(recipe.shape)
  if (own.length === 0) throw new BadInput('there is no shape that could stand')
  const b = regionBox(own)
  const fitted = mapRegion(
    compose(scaling(w / boxWidth(b), h / boxHeight(b)), translation(-b.minX, -b.minY)),
    own,
  )
  const { region, strips } = bridgeFaces(fitted, TIE_MM)
  return { region, ties: strips.length }
}

/** A row of gabled houses with lit windows. */
function houses({ seed, widthMm, heightMm }: SceneRecipe): Region {
  const random = seededRandom(seed)
  const n = Math.max(2, Math.round(widthMm / 30))
  const each = widthMm / n
  const parts = Array.from({ length: n }, (_, i) => {
    const wall = heightMm * (0.45 + 0.3 * random())
    const roof = heightMm * (0.15 + 0.1 * random())
    const [x0, x1, top] = [i * each, (i + 1) * each + 0.05, heightMm - wall]
    const gable = Float64Array.of(x0, heightMm, x0, top, (x0 + x1) / 2, top - roof, x1, top, x1, heightMm)
    const windows: Polygon[] = []
    const [cols, rows] = [2, Math.max(1, Math.floor(wall / 16))]
    for (let c = 0; c < cols; c++)
      for (let r = 0; r < rows; r++)
        windows.push(
          rectangle(
            [x0 + each * (0.2 + 0.38 * c), top + 4 + r * (wall / rows)],
            each * 0.22,
            (wall / rows) * 0.45,
          ),
        )
    return subtract([{ outer: gable, holes: [] }], windows)
  })
  return union(...parts)
}

/** On the floor: the strip under it is parted in the middle, one half folded forward, one back, so that it does not fall. */
function standing(recipe: SceneRecipe): Made {
  const { widthMm: w, heightMm: h, barMm } = recipe
  const half = (w - SLIT_MM) / 2
  const feet = [
    rectangle([0, h - JOIN_MM], half, barMm + JOIN_MM),
    rectangle([w - half, h - JOIN_MM], half, barMm + JOIN_MM),
  ]
  const folds: Fold[] = [
    { line: [0, h, half, h], way: 'up', deg: 90 },
    { line: [w - half, h, w, h], way: 'down', deg: 90 },
  ]
  return made(recipe, { bars: feet, folds }, 'Two feet under it, the left one folded forward, the right one back: glue both to the floor of the frame.') // prettier-ignore
}

/** From the ceiling: one bar along the upper edge, folded back. */
function hanging(recipe: SceneRecipe): Made {
  const { widthMm: w, barMm } = recipe
  const folds: Fold[] = [{ line: [0, 0, w, 0], way: 'down', deg: 90 }]
  return made(recipe, { bars: [rectangle([0, -barMm], w, barMm + JOIN_MM)], folds }, 'One bar along the upper edge, folded back to a right angle: glue it to the ceiling of the frame.') // prettier-ignore
}

/** Bars reach so far into what they hold, mm. */
export const JOIN_MM = 0.05

/** Strips where a figure touches its bar in less than a tie, such as the point of a gable: as deep as wide, and so far up the bar. */
const tiesTo = (bars: Region, region: Region, upMm: number): Polygon[] =>
  intersect(region, bars).flatMap((touch) => {
    const b = regionBox([touch])
    const left = (b.minX + b.maxX - TIE_MM) / 2
    return boxWidth(b) < TIE_MM ? [rectangle([left, b.maxY - upMm], TIE_MM, upMm + TIE_MM)] : []
  })

/** A figure at its place in the frame; it is cut with its bars, which are seen edge on once they are folded. */
function made(recipe: SceneRecipe, { bars, folds }: { bars: Polygon[]; folds: Fold[] }, how: string): Made {
  const { widthMm, heightMm, barMm, thicknessMm, gsm, hold, frameWidthMm, frameHeightMm } = recipe
  const { region, ties } = figure(recipe)
  const held = hold === 'hangs' ? tiesTo(bars, region, Math.min(TIE_MM, barMm)) : []
  // What touches its bars in no place is tied to them.
  const { region: cut, strips } = bridgeFaces(union(region, bars, held), Math.min(TIE_MM, barMm))
  const seen = intersect(cut, [rectangle([0, 0], widthMm, heightMm)])
  const put = translation((frameWidthMm - widthMm) / 2, hold === 'stands' ? frameHeightMm - heightMm : 0)
  const most = standsMm(thicknessMm, gsm)
  const tied = ties + held.length + strips.length
  const layer = makeLayer({ id: 'scene', name: 'Standing piece' }, mapRegion(put, seen), {
    role: 'accent',
    colour: '#2b2f3a',
    blanks: mapRegion(put, cut).map((face, i) => ({ id: `cut-${i + 1}`, path: polygonToPath(face) })),
    folds: folds.map((fold) => {
      const [x1, y1, x2, y2] = fold.line
      return { ...fold, line: [...mapPoint(put, x1, y1), ...mapPoint(put, x2, y2)] as Fold['line'] }
    }),
    numbered: false,
    ...tabbed(recipe),
  })
  const footMm = hold === 'stands' ? (widthMm - SLIT_MM) / 2 : widthMm
  return {
    layers: [layer],
    inPlace: true,
    remarks: [
      how,
      ...(tied > 0 ? [`${tied} ${tied === 1 ? 'strip ties' : 'strips tie'} what would stand alone.`] : []),
      ...(hold === 'stands' && heightMm > most
        ? [
            say`${length(heightMm)} is high for this card: it stands up to about ${length(most)} by itself. Take stiffer card, or glue a strip behind it.`,
          ]
        : []),
    ],
    widthMm,
    heightMm: heightMm + barMm,
    figures: [
      {
        name: 'Stands over the back',
        value: say`${length(heightOver(recipe))}`,
        basis: say`${length(recipe.frameDepthMm)} of depth less ${length(recipe.fromPaneMm)} from the pane and the card`,
      },
      {
        name: hold === 'stands' ? 'Two feet' : 'Bar',
        value: say`${size(footMm, barMm)}`,
        basis: 'Cut with it and folded to a right angle',
      },
      ...(hold === 'stands'
        ? [
            {
              name: 'This card stands up to',
              value: say`${length(most)}`,
              basis: say`(7.84 E t³/12 ÷ w)^⅓ with E 3 GPa, t ${length(thicknessMm, 2)}, ${weight(gsm)}, halved for safety`,
            },
          ]
        : []),
    ],
  }
}

/** All round the inside of the frame: cut as strips that a sheet holds, folded at the corners, closed by flaps. */
function band(recipe: SceneRecipe): Made {
  const { frameWidthMm: w, frameHeightMm: h, thicknessMm: t, barMm, flapMm, longestMm } = recipe
  const sides = [w - 2 * t, h - 2 * t, w - 2 * t, h - 2 * t]
  const strips: number[][] = [[]]
  for (const side of sides) {
    const last = strips.at(-1)!
    const sum = last.reduce((a, v) => a + v, 0)
    if (last.length > 0 && sum + side + flapMm > longestMm) strips.push([side])
    else last.push(side)
  }
  if (Math.max(...sides) + flapMm > longestMm)
    throw new BadInput(
      say`one side of the band with its flap is ${length(Math.max(...sides) + flapMm)}, longer than the ${length(longestMm)} that a sheet holds`,
    )
  const lengths = strips.map((own) => own.reduce((a, v) => a + v, 0) + flapMm)
  const top = (k: number) => h + 10 + k * (barMm + 4)
  const folds = strips.flatMap((own, k) => {
    let x = 0
    return own.map((side): Fold => {
      x += side
      return { line: [x, top(k), x, top(k) + barMm], way: 'up', deg: 90 }
    })
  })
  const layer = makeLayer(
    { id: 'band', name: 'Band' },
    subtract([rectangle([0, 0], w, h)], [rectangle([t, t], w - 2 * t, h - 2 * t)]),
    {
      role: 'accent',
      colour: '#2b2f3a',
      blanks: lengths.map((mm, k) => ({
        id: `strip-${k + 1}`,
        path: polygonToPath(rectangle([0, top(k)], mm, barMm)),
      })),
      folds,
      numbered: false,
      ...tabbed(recipe),
    },
  )
  return {
    layers: [layer],
    inPlace: true,
    remarks: [
      say`Fold at the corners, bring it into the frame ${length(recipe.fromPaneMm)} from the pane, and glue each flap behind the next strip’s end.`,
    ],
    widthMm: w,
    heightMm: h,
    figures: [
      {
        name: 'Band in all',
        value: say`${length(lengths.reduce((a, v) => a + v, 0))}`,
        basis: say`Round the inner frame of ${size(w, h)}, less the card at each corner, with ${strips.length} ${strips.length === 1 ? 'flap' : 'flaps'} of ${length(flapMm)}`,
      },
      { name: 'Strips', value: say`${strips.length}, ${length(barMm)} wide` },
    ],
  }
}
