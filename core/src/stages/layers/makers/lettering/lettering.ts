// Words as one piece, on offset backings with small gaps filled, or cut out of full sheets.
import {
  boxHeight,
  boxWidth,
  mapRegion,
  offset,
  polygonArea,
  regionBox,
  regionCentroid,
  regionToPath,
  translation,
  type Box,
  type Polygon,
  type Region,
} from '../../../../base/geometry'
import { BadInput } from '../../../../base'
import { length, say, size, type Said } from '../../../../base/units'
import { ladderRecipeSchema, type Layer, type LetteringRecipe } from '../../../../project'
import { makeLayer } from '../../intake/intake'
import { bridgeFaces, closeGaps } from '../bridge'
import type { Font } from '../font'
import { makeLadder, SILHOUETTE } from '../ladder'
import { joint, type Made } from '../made'
import { weakestJoint, type Joint } from './joints'
import { droop, sagOf, stickPlaces } from '../../sticks'
import { typeset, type Fonts } from './typeset'

/** Words as layers, back to front: backings and words, or sheets they are cut out of. Throws BadInput. Needs the geometry loaded. */
export function makeLettering(recipe: LetteringRecipe, font: Font, fonts: Fonts = new Map()): Made {
  const backingMm = recipe.style === 'cut-out' ? 0 : recipe.backingMm
  const room = recipe.widthMm - 2 * backingMm * recipe.backingSteps
  if (!(room > 5)) throw new BadInput('the backing takes all of the width: make it smaller')
  const { region: words, letters, remarks, joints } = typeset({ font, recipe, fonts }, room)
  if (recipe.style === 'cut-out') return cutOut(words, recipe, remarks)
  // On a backing words may stand apart from each other; alone all must hang together, unless they are meant to be apart.
  const { region: joined, strips } =
    backingMm > 0 || recipe.style === 'apart'
      ? { region: words, strips: [] }
      : bridgeFaces(words, recipe.joinMm, { shape: recipe.bridge })
  if (recipe.style === 'apart' && backingMm === 0)
    remarks.push(`${joined.length} pieces stand free: stick them one by one, or give them a backing.`)
  if (strips.length > 0)
    remarks.push(
      `${strips.length} ${strips.length === 1 ? 'strip ties' : 'strips tie'} parts that do not touch otherwise.`,
    )
  const backings =
    backingMm > 0
      ? Array.from({ length: recipe.backingSteps }, (_, k) =>
          backing(joined, recipe, recipe.backingSteps - k),
        )
      : []
  const b = regionBox(backings[0] ?? joined)
  const lift = (region: Region): Polygon[] => mapRegion(translation(-b.minX, -b.minY), region)
  const all = [...backings.map(lift), lift(joined)]
  const sticks = stickPlaces(all[0]!, recipe)
  remarks.push(...sticks.remarks)
  return {
    layers: layersOf(all),
    letters: letters.map(({ box, ...letter }) => ({
      ...letter,
      box: {
        minX: box.minX - b.minX,
        maxX: box.maxX - b.minX,
        minY: box.minY - b.minY,
        maxY: box.maxY - b.minY,
      },
    })),
    remarks,
    widthMm: boxWidth(b),
    heightMm: boxHeight(b),
    sticks: sticks.at.map((x) => ({ x, topMm: regionCentroid(all[0]!).y, widthMm: recipe.stickMm })),
    figures: figuresOf({ recipe, box: b, joints, sheets: all, sticks: sticks.at }),
  }
}

const SHADES = ['#2f7682', '#5fa3ab', '#9cc6c6', '#cfe3e2']

/** Backings and words, back to front. */
const layersOf = (all: readonly Polygon[][]): Layer[] =>
  all.map((region, i) =>
    i === all.length - 1
      ? makeLayer({ id: 'words', name: 'Words' }, region, {
          role: 'overlay',
          numbered: false,
          colour: '#fbfaf5',
          ...joint(0),
        })
      : makeLayer({ id: `backing-${i + 1}`, name: all.length > 2 ? `Backing ${i + 1}` : 'Backing' }, region, {
          role: 'backing',
          colour: SHADES[i]!,
          ...joint(i === 0 ? 0 : 1),
        }),
  )

interface Measured {
  recipe: LetteringRecipe
  box: Box
  joints: readonly Joint[]
  /** Backings and words. */
  sheets: readonly Region[]
  /** From the left, mm. */
  sticks: readonly number[]
}

/** What the maker sees of words before they are put on the stack. */
function figuresOf({ recipe, box: b, joints, sheets, sticks }: Measured): Made['figures'] {
  const weakest = weakestJoint(joints, recipe.joinMm)
  const overhang = droop(sheets.at(-1)!, sticks)
  const sheetMm = recipe.paperMm
  return [
    { name: 'Size', value: say`${size(boxWidth(b), boxHeight(b))}` },
    {
      name: 'Letter joints',
      value: joints.length ? say`${joints.length} of ${length(recipe.joinMm, 2)} or more` : 'none',
      basis: 'Narrowest card between neighbours: letters drawn in by half the joint still touch',
    },
    ...(weakest
      ? [
          {
            name: 'Weakest joint',
            value: say`“${weakest.between}”, ${length(weakest.widthMm)}`,
            basis: 'The widest disc that lies in both letters there',
          },
        ]
      : []),
    { name: 'Pieces of the words', value: String(sheets.at(-1)!.length) },
    {
      name: 'Longest free reach',
      value: say`${length(overhang, 0)}`,
      basis: sticks.length
        ? 'From the nearest stick to the farthest end of the words: where they droop most'
        : 'From the centre of mass to the farthest end of the words',
    },
    {
      name: 'Sag of that reach',
      value: say`${length(sagOf(sheets[0]!, sticks, sheets.length * sheetMm))}`,
      basis: say`Held level and bent by its own weight, as wide as the ${sheets.length > 1 ? 'backing' : 'words'} at each place, ${sheets.length} ${sheets.length === 1 ? 'sheet' : 'sheets'} of ${length(sheetMm, 2)}; upright it is less`,
    },
    ...sticks.map((x, i) => ({
      name: `Stick ${i + 1}`,
      value: say`${length(x)} from the left`,
      basis: 'Below the centre of mass, on card as wide as the stick',
    })),
  ]
}

/** An offset backing with gaps and pin-holes filled. */
function backing(words: Region, recipe: LetteringRecipe, step: number): Polygon[] {
  const grown = closeGaps(offset(words, recipe.backingMm * step), recipe.fillGapsMm)
  const filled = grown.map((face) => ({
    outer: face.outer,
    holes: face.holes.filter((hole) => -polygonArea({ outer: hole, holes: [] }) > recipe.fillGapsMm ** 2 * 4),
  }))
  return filled.length > 1
    ? bridgeFaces(filled, Math.max(recipe.joinMm * 2, recipe.backingMm)).region
    : filled
}

/** Words cut out of full sheets, by steps that go outwards: the words themselves at the back. */
function cutOut(words: Region, recipe: LetteringRecipe, remarks: Said[]): Made {
  const [wide, high] = [boxWidth(regionBox(words)), boxHeight(regionBox(words))]
  if (wide >= recipe.sheetWidthMm || high >= recipe.sheetHeightMm)
    throw new BadInput(
      say`the words are ${size(wide, high)}, the sheet ${size(recipe.sheetWidthMm, recipe.sheetHeightMm)}: make them smaller or the sheet larger`,
    )
  const made = makeLadder(
    ladderRecipeSchema.parse({
      kind: 'ladder',
      shape: regionToPath(words),
      direction: 'outset',
      steps: recipe.cutSteps,
      stepMm: recipe.cutStepMm,
      corners: recipe.corners,
      sheetWidthMm: recipe.sheetWidthMm,
      sheetHeightMm: recipe.sheetHeightMm,
    }),
  )
  return {
    ...made,
    layers: made.layers.map((layer) => (layer.name === SILHOUETTE ? { ...layer, name: 'Words' } : layer)),
    remarks: [...remarks, ...made.remarks],
  }
}
