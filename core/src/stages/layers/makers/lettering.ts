// Words as one piece. Each glyph is moved along the line until it and its neighbour are joined by a safe width: where
// the two, both drawn in by half that width, first touch, a disc of the width lies in both, so the joint is nowhere
// narrower. Dots and accents are moved or tied to the letter below; backings are offsets with small gaps filled.
import {
  boxHeight,
  boxWidth,
  intersect,
  mapRegion,
  offset,
  polygonArea,
  regionBox,
  regionCentroid,
  regionContains,
  regionRings,
  regionToPath,
  scaling,
  translation,
  union,
  type Box,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { ladderRecipeSchema, type LetteringRecipe } from '../../../project'
import { BadInput } from '../../../base'
import { formatMm } from '../../../base/units'
import { makeLayer } from '../intake/intake'
import { bridgeFaces, closeGaps, closestPoints } from './bridge'
import { alternateGlyphs, glyphsOf, type Font } from './font'
import { makeLadder, SILHOUETTE } from './ladder'
import { joint, type Made } from './made'

/** From line to line where letters stand apart, in parts of the font's size. */
const LINE_EM = 1.15

/** How far b must move left (mm) so that it first touches a; −Infinity where they never meet on one line. */
export function horizontalGap(a: Region, b: Region): number {
  const profile = (region: Region, right: boolean) => {
    const rings = regionRings(region)
    return (y: number): number => {
      let best = right ? -Infinity : Infinity
      for (const ring of rings)
        for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
          const [ay, by] = [ring[j + 1]!, ring[i + 1]!]
          if ((ay < y && by < y) || (ay > y && by > y)) continue
          const x =
            ay === by
              ? right
                ? Math.max(ring[j]!, ring[i]!)
                : Math.min(ring[j]!, ring[i]!)
              : ring[j]! + ((ring[i]! - ring[j]!) * (y - ay)) / (by - ay)
          best = right ? Math.max(best, x) : Math.min(best, x)
        }
      return best
    }
  }
  const rightOf = profile(a, true)
  const leftOf = profile(b, false)
  // The least gap lies at a vertex of one of the two.
  let gap = Infinity
  for (const ring of [...regionRings(a), ...regionRings(b)])
    for (let i = 1; i < ring.length; i += 2) gap = Math.min(gap, leftOf(ring[i]!) - rightOf(ring[i]!))
  return gap === Infinity ? -Infinity : gap
}

interface Joint {
  between: string
  /** The two letters where they stand. */
  letters: [Region, Region]
}

const JOINT_ROUNDS = 7

/** Width of the largest disc that lies in both of two letters that overlap: what holds them together, up to a most. */
function jointWidth([a, b]: Joint['letters'], mostMm: number): number {
  let [low, high] = [0, mostMm]
  for (let k = 0; k < JOINT_ROUNDS; k++) {
    const mid = (low + high) / 2
    if (intersect(offset(a, -mid / 2), offset(b, -mid / 2)).length > 0) low = mid
    else high = mid
  }
  return (low + high) / 2
}

/** The joint that gives way first, and how wide it is; null where nothing is joined. */
function weakestJoint(joints: readonly Joint[], joinMm: number): { between: string; widthMm: number } | null {
  const all = joints.map(({ between, letters }) => ({ between, widthMm: jointWidth(letters, joinMm * 3) }))
  return all.toSorted((a, b) => a.widthMm - b.widthMm)[0] ?? null
}

interface Line {
  region: Polygon[]
  joints: Joint[]
  remarks: string[]
}

/** One line of glyphs in mm, baseline at 0: joined, or as the font sets them. */
function setLine(font: Font, text: string, emMm: number, recipe: LetteringRecipe): Line {
  const scale = emMm / 1000
  const glyphs = glyphsOf(font, text, recipe.alternates).map((g) => ({
    ...g,
    region: mapRegion(scaling(scale), g.region),
    advance: g.advance * scale,
  }))
  if (recipe.style !== 'joined')
    return { region: union(...glyphs.map((g) => g.region)), joints: [], remarks: [] }
  const remarks: string[] = []
  const joints: Joint[] = []
  const half = recipe.joinMm / 2
  let whole: Polygon[] = []
  let last: { own: Region; core: Region; sign: string } | null = null
  let shift = 0
  for (const { sign, region: drawn } of glyphs) {
    if (drawn.length === 0) {
      // A space parts words: the next begins where it naturally would.
      last = null
      continue
    }
    const own = attachDots(drawn, recipe, sign)
    const core = offset(own, -half)
    if (core.length === 0)
      remarks.push(
        `“${sign}” is narrower than ${formatMm(recipe.joinMm)} mm everywhere: take a larger size, a bolder font or a smaller joint.`,
      )
    let placed = mapRegion(translation(shift, 0), own)
    if (last && last.core.length > 0 && core.length > 0) {
      const gap = horizontalGap(last.core, mapRegion(translation(shift, 0), core))
      // Script fonts already overlap enough: leave them as drawn.
      const move = gap > 0 ? -(gap + 0.01) : 0
      if (gap === -Infinity)
        remarks.push(`“${last.sign}” and “${sign}” share no height: nothing to join them at.`)
      else {
        shift += move
        placed = mapRegion(translation(shift, 0), own)
        joints.push({ between: `${last.sign}${sign}`, letters: [last.own, placed] })
      }
    }
    whole = union(whole, placed)
    last = { own: placed, core: mapRegion(translation(shift, 0), core), sign }
  }
  return { region: whole, joints, remarks }
}

/** Parts of a glyph that stand apart, such as dots and accents, made one with its largest part. */
function attachDots(glyph: Region, recipe: LetteringRecipe, sign: string): Polygon[] {
  if (glyph.length < 2 || /["”“:;=%…]/.test(sign)) return [...glyph]
  const [body, ...rest] = glyph.toSorted((a, b) => polygonArea(b) - polygonArea(a))
  let whole: Polygon[] = [body!]
  for (const part of rest) {
    if (recipe.dots === 'strip') {
      whole = bridgeFaces([...whole, part], recipe.joinMm).region
      continue
    }
    // Moved along the shortest line until both, drawn in by half the joint, would touch.
    const near = whole
      .map((face) => closestPoints(part, face))
      .toSorted((a, b) => a.distance - b.distance)[0]!
    const reach = (near.distance + recipe.joinMm * 0.8) / (near.distance || 1)
    whole = union(
      whole,
      mapRegion(translation((near.to.x - near.from.x) * reach, (near.to.y - near.from.y) * reach), [part]),
    )
    if (whole.length > 1) whole = bridgeFaces(whole, recipe.joinMm).region
  }
  return whole
}

/** Words as layers, back to front: backings and words, or sheets they are cut out of. Throws BadInput. Needs the geometry loaded. */
export function makeLettering(recipe: LetteringRecipe, font: Font): Made {
  const lines = recipe.text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
  if (lines.length === 0) throw new BadInput('there is nothing to set: type a word')
  const backingMm = recipe.style === 'cut-out' ? 0 : recipe.backingMm
  const room = recipe.widthMm - 2 * backingMm * recipe.backingSteps
  if (!(room > 5)) throw new BadInput('the backing takes all of the width: make it smaller')
  // Joining draws letters together by lengths in mm, so the size that fits is found in a few rounds.
  let emMm = room / Math.max(1, ...lines.map((line) => line.length * 0.5))
  let set = lines.map((line) => setLine(font, line, emMm, recipe))
  for (let round = 0; round < 6; round++) {
    const widest = Math.max(...set.map((line) => boxWidth(regionBox(line.region))))
    if (!(widest > 0)) throw new BadInput('the font draws nothing for these words')
    if (Math.abs(widest / room - 1) < 0.001) break
    emMm *= room / widest
    set = lines.map((line) => setLine(font, line, emMm, recipe))
  }
  const remarks = [...new Set(set.flatMap((line) => line.remarks))]
  if (recipe.alternates && alternateGlyphs(font).size === 0) remarks.push('This font has no alternate signs.')
  const words = stackLines(
    set.map((line) => line.region),
    emMm,
    recipe,
    remarks,
  )
  if (recipe.style === 'cut-out') return cutOut(words, recipe, remarks)
  // On a backing words may stand apart; alone they must hang together, unless they are meant to be apart.
  const { region: joined, strips } =
    backingMm > 0 || recipe.style === 'apart'
      ? { region: words, strips: [] }
      : bridgeFaces(words, recipe.joinMm)
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
  const sticks = stickPlaces(all[0]!, recipe, remarks)
  const shades = ['#2f7682', '#5fa3ab', '#9cc6c6', '#cfe3e2']
  const layers = all.map((region, i) =>
    i === all.length - 1
      ? makeLayer('words', 'Words', region, {
          role: 'overlay',
          numbered: false,
          colour: '#fbfaf5',
          ...joint(0),
        })
      : makeLayer(`backing-${i + 1}`, backings.length > 1 ? `Backing ${i + 1}` : 'Backing', region, {
          role: 'backing',
          colour: shades[i]!,
          ...joint(i === 0 ? 0 : 1),
        }),
  )
  const joints = set.flatMap((line) => line.joints)
  const weakest = weakestJoint(joints, recipe.joinMm)
  const overhang = droop(lift(joined), sticks)
  return {
    layers,
    remarks,
    widthMm: boxWidth(b),
    heightMm: boxHeight(b),
    sticks: sticks.map((x) => ({ x, topMm: regionCentroid(all[0]!).y, widthMm: recipe.stickMm })),
    figures: [
      { name: 'Size', value: `${formatMm(boxWidth(b))} × ${formatMm(boxHeight(b))} mm` },
      {
        name: 'Letter joints',
        value: joints.length ? `${joints.length} of ${formatMm(recipe.joinMm, 2)} mm or more` : 'none',
        basis: 'Narrowest card between neighbours: letters drawn in by half the joint still touch',
      },
      ...(weakest
        ? [
            {
              name: 'Weakest joint',
              value: `“${weakest.between}”, ${formatMm(weakest.widthMm)} mm`,
              basis: 'The widest disc that lies in both letters there',
            },
          ]
        : []),
      { name: 'Pieces of the words', value: String(joined.length) },
      {
        name: 'Longest free reach',
        value: `${formatMm(overhang, 0)} mm`,
        basis: sticks.length
          ? 'From the nearest stick to the farthest end of the words: where they droop most'
          : 'From the centre of mass to the farthest end of the words',
      },
      {
        name: 'Sag of that reach',
        value: `${formatMm(sagMm(overhang, all.length * SHEET_MM))} mm`,
        basis: `A strip of smooth card held level at one end and bent by its own weight, ${all.length} ${all.length === 1 ? 'sheet' : 'sheets'} of ${SHEET_MM} mm thick; upright it is less`,
      },
      ...sticks.map((x, i) => ({
        name: `Stick ${i + 1}`,
        value: `${formatMm(x)} mm from the left`,
        basis: 'Below the centre of mass, on card as wide as the stick',
      })),
    ],
  }
}

/** Words cut out of full sheets, by steps that go outwards: the words themselves at the back. */
function cutOut(words: Region, recipe: LetteringRecipe, remarks: string[]): Made {
  const [wide, high] = [boxWidth(regionBox(words)), boxHeight(regionBox(words))]
  if (wide >= recipe.sheetWidthMm || high >= recipe.sheetHeightMm)
    throw new BadInput(
      `the words are ${formatMm(wide)} × ${formatMm(high)} mm, the sheet ${formatMm(recipe.sheetWidthMm)} × ${formatMm(recipe.sheetHeightMm)} mm: make them smaller or the sheet larger`,
    )
  const made = makeLadder(
    ladderRecipeSchema.parse({
      kind: 'ladder',
      shape: regionToPath(words),
      direction: 'outset',
      steps: recipe.cutSteps,
      stepMm: recipe.cutStepMm,
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

/** Lines under each other, as close as the font's height times the line gap, each tied to the one above if it does not touch. */
function stackLines(
  lines: readonly Region[],
  emMm: number,
  recipe: LetteringRecipe,
  remarks: string[],
): Polygon[] {
  let y = 0
  let whole: Polygon[] = []
  const half = recipe.joinMm / 2
  lines.forEach((line, i) => {
    const b = regionBox(line)
    const centred = mapRegion(translation(-(b.minX + b.maxX) / 2, 0), line)
    if (i > 0 && recipe.style !== 'joined') y += emMm * LINE_EM * recipe.lineGap
    else if (i > 0) {
      // Moved up until the two lines, drawn in by half the joint, touch.
      const turned = (r: Region) => mapRegion([0, 1, 1, 0, 0, 0], offset(r, -half))
      const gap = horizontalGap(turned(whole), turned(mapRegion(translation(0, y + emMm * 2), centred)))
      const touching = gap === -Infinity ? y + emMm : y + emMm * 2 - gap - 0.01
      y = Math.max(touching, 0) + (recipe.lineGap - 1) * emMm * 0.5
      if (recipe.lineGap > 1) remarks.push('The lines stand apart: strips tie them.')
    }
    whole = union(whole, mapRegion(translation(0, y), centred))
  })
  return whole
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

/** Where sticks go: evenly about the centre of mass, where card reaches the lower edge (mm from the left). */
function stickPlaces(region: Region, recipe: LetteringRecipe, remarks: string[]): number[] {
  if (recipe.sticks === 0) return []
  const b = regionBox(region)
  const centre = regionCentroid(region)
  const wanted =
    recipe.sticks === 1 ? [centre.x] : [centre.x - boxWidth(b) * 0.22, centre.x + boxWidth(b) * 0.22]
  const at: number[] = []
  for (const x of wanted) {
    // The nearest place at which card as wide as the stick, and twice as high, reaches down past the centre of mass.
    const solid = (px: number) =>
      [-0.5, 0, 0.5].every((k) =>
        columnSolid(region, px + k * recipe.stickMm, centre.y, b, recipe.stickMm * 2),
      )
    const shifts = Array.from(
      { length: 120 },
      (_, k) => ((k % 2 ? 1 : -1) * Math.ceil(k / 2) * boxWidth(b)) / 240,
    )
    const found = shifts.map((s) => x + s).find(solid)
    if (found === undefined)
      remarks.push(
        'No column of card below the centre of mass is wide enough for a stick: widen the backing.',
      )
    else at.push(found)
  }
  return at
}

/** Whether card stands at least `runMm` high at the lower edge of a column, and reaches below a height. */
function columnSolid(region: Region, x: number, belowY: number, box: Box, runMm: number): boolean {
  const step = 0.5
  let y = box.maxY
  while (y > box.minY && !regionContains(region, x, y)) y -= step
  if (y <= belowY) return false
  const foot = y
  while (y > box.minY && regionContains(region, x, y)) y -= step
  return foot - y >= runMm
}

/** Longest way from what holds the words to their farthest end. */
function droop(words: Region, sticks: readonly number[]): number {
  const b = regionBox(words)
  const holds = sticks.length > 0 ? sticks : [regionCentroid(words).x]
  return Math.max(...[b.minX, b.maxX].map((end) => Math.min(...holds.map((x) => Math.abs(x - end)))))
}

/** Smooth 216 gsm, where no paper is chosen yet, mm. */
const SHEET_MM = 0.29
/** Of card: kg/m³ and Pa. The stiffness is a middle value; damp card is softer. */
const DENSITY = 745
const STIFFNESS = 2.5e9

/** How far the end of a level strip of card sinks under its own weight: 3/2 · ρ g L⁴ / (E t²), mm. */
export function sagMm(reachMm: number, thicknessMm: number): number {
  const [l, t] = [reachMm / 1000, thicknessMm / 1000]
  return (1000 * 1.5 * DENSITY * 9.81 * l ** 4) / (STIFFNESS * t ** 2)
}
