// A picture seen through a ring: the print, a clear pane under the ring where it is wanted, and the ring.
import {
  boxHeight,
  boxWidth,
  compose,
  fillRings,
  mapRegion,
  offset,
  pathToRegion,
  regionBox,
  regionRings,
  scaling,
  subtract,
  translation,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { BadInput } from '../../../base'
import { length, say, size } from '../../../base/units'
import { coveringMap, printDpi, type Layer, type WindowRecipe } from '../../../project'
import { makeLayer } from '../intake/intake'
import { FINE_DPI } from '../prints'
import { joint, type Made } from './made'

/** Papers of the starter drawer that a print and a clear pane are cut of. */
const PRINT_CARD = 'paper-print-card'
const CLEAR_PANE = 'paper-clear-pane'
/** Points round a drawn opening. */
const ROUND = 240
/** Its corners are rounded to this share of its shorter side. */
const CORNER = 0.18

/** Picture, pane and ring, back to front. Throws BadInput. Needs the geometry loaded. */
export function makeWindow(recipe: WindowRecipe): Made {
  const { ringMm, underMm, raisedMm, bleedMm, picture } = recipe
  if (underMm >= ringMm)
    throw new BadInput(
      say`a picture that reaches ${length(underMm)} under a ring ${length(ringMm)} wide stands out beside it: let it reach less, or take a wider ring`,
    )
  const opening = openingOf(recipe)
  const outside = filled(offset(opening, ringMm))
  const under = filled(offset(opening, underMm))
  const box = regionBox(outside)
  const toOrigin = translation(-box.minX, -box.minY)
  const put = (region: Region): Polygon[] => mapRegion(toOrigin, region)
  const underBox = regionBox(put(under))
  const map = picture && coveringMap(underBox, bleedMm, picture)
  const layers: Layer[] = [
    makeLayer({ id: 'window-picture', name: 'Picture' }, put(under), {
      role: 'printed',
      colour: '#ffffff',
      numbered: false,
      paperId: PRINT_CARD,
      ...joint(0),
      ...(picture && map && { print: { pictureId: picture.id, map, bleedMm } }),
    }),
    ...(recipe.pane === 'clear'
      ? [
          makeLayer({ id: 'window-pane', name: 'Clear pane' }, put(under), {
            colour: '#eaf1f2',
            numbered: false,
            paperId: CLEAR_PANE,
            ...joint(raisedMm),
          }),
        ]
      : []),
    makeLayer({ id: 'window-ring', name: 'Ring' }, put(subtract(outside, opening)), {
      role: 'border',
      colour: '#c9a24a',
      ...joint(recipe.pane === 'clear' ? 0 : raisedMm),
    }),
  ]
  return {
    part: 'Window',
    layers,
    remarks: [
      ...(recipe.pane === 'clear'
        ? ['Glue the pane under its ring first and let it set; then the two go on as one.']
        : []),
      ...(picture ? [] : ['No picture is chosen: a plain sheet waits for a photo to be stuck on.']),
      ...(map && printDpi(map) < FINE_DPI
        ? [`The picture comes out at ${Math.round(printDpi(map))} dpi: its grain shows under ${FINE_DPI}.`]
        : []),
    ],
    widthMm: boxWidth(box),
    heightMm: boxHeight(box),
    figures: [
      {
        name: 'Opening',
        value: say`${size(recipe.widthMm, recipe.heightMm)}`,
        basis: 'What is seen of the picture',
      },
      {
        name: 'Printed',
        value: say`${size(boxWidth(underBox) + 2 * bleedMm, boxHeight(underBox) + 2 * bleedMm)}`,
        basis: say`Opening, ${length(underMm)} under the ring and ${length(bleedMm)} of bleed all round`,
      },
      ...(map
        ? [
            {
              name: 'Fineness',
              value: `${Math.round(printDpi(map))} dpi`,
              basis: `The picture’s ${picture.pixelsWide} × ${picture.pixelsHigh} pixels at true size`,
            },
          ]
        : []),
    ],
  }
}

/** The opening, its box at 0,0 and as large as asked for. */
function openingOf(recipe: WindowRecipe): Polygon[] {
  const { widthMm, heightMm } = recipe
  const shape = unfitted(recipe)
  const b = regionBox(shape)
  return mapRegion(
    compose(scaling(widthMm / boxWidth(b), heightMm / boxHeight(b)), translation(-b.minX, -b.minY)),
    shape,
  )
}

function unfitted({ shape, own, widthMm, heightMm }: WindowRecipe): Polygon[] {
  switch (shape) {
    case 'own': {
      const region = own ? filled(pathToRegion(own)) : []
      if (region.length === 0) throw new BadInput('an opening of your own needs a shape: pick a layer first')
      return region
    }
    case 'heart':
      return around((t) => [
        16 * Math.sin(t) ** 3,
        -(13 * Math.cos(t) - 5 * Math.cos(2 * t) - 2 * Math.cos(3 * t) - Math.cos(4 * t)),
      ])
    case 'rounded': {
      const r = CORNER * Math.min(widthMm, heightMm)
      return around((t) => [
        Math.cos(t) * r + Math.sign(Math.cos(t)) * (widthMm / 2 - r),
        Math.sin(t) * r + Math.sign(Math.sin(t)) * (heightMm / 2 - r),
      ])
    }
    default:
      return around((t) => [Math.cos(t), Math.sin(t)])
  }
}

const around = (at: (t: number) => [number, number]): Polygon[] =>
  fillRings(
    [
      Float64Array.from(
        // Half a step off the axes, where a rounded corner turns into a side.
        Array.from({ length: ROUND }, (_, i) => at(((i + 0.5) * 2 * Math.PI) / ROUND)).flat(),
      ),
    ],
    'nonzero',
  )

/** A region without its holes. */
const filled = (region: Region): Polygon[] =>
  fillRings(
    regionRings(region).filter((ring) => region.some(({ outer }) => outer === ring)),
    'nonzero',
  )
