// Words set in lines: each glyph is moved along the line until it and its neighbour are joined by a safe width, dots and
// accents are moved or tied to the letter below, and the size is found at which the widest line fills the width.
import {
  boxWidth,
  compose,
  mapRegion,
  offset,
  polygonArea,
  regionBox,
  rotation,
  scaling,
  translation,
  union,
  type Box,
  type Polygon,
  type Region,
} from '../../../../base/geometry'
import { BadInput } from '../../../../base'
import { length, say, type Said } from '../../../../base/units'
import { aboutMiddle, type LetteringRecipe } from '../../../../project'
import { bridgeFaces, closestPoints } from '../bridge'
import { alternateGlyphs, glyphsOf, type Font, type PlacedGlyph } from '../font'
import { horizontalGap, type Joint } from './joints'

/** From line to line where letters stand apart, in parts of the font's size. */
const LINE_EM = 1.15
/** The size is found in a few rounds: joining draws letters together by lengths in mm, whatever the size. */
const SIZE_ROUNDS = 6
const SIZE_ERROR = 0.001

/** Fonts by their names. */
export type Fonts = ReadonlyMap<string, Font>

/** What words are set in, and how. */
export interface Setting {
  font: Font
  recipe: LetteringRecipe
  /** Those of lines and letters that differ. */
  fonts: Fonts
}

/** A letter where it stands. */
export interface Letter {
  line: number
  /** Which of its line, spaces counted. */
  at: number
  sign: string
  box: Box
}

/** Set words, mm, where their letters stand, and what was not possible. */
export interface Words {
  region: Polygon[]
  letters: Letter[]
  remarks: Said[]
}

/** All lines under each other, so large that the widest is as wide as asked for (mm). Throws BadInput. */
export function typeset(setting: Setting, widthMm: number): Words & { joints: Joint[] } {
  const { recipe } = setting
  const lines = recipe.text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
  if (lines.length === 0) throw new BadInput('there is nothing to set: type a word')
  let emMm = widthMm / Math.max(1, ...lines.map((line) => line.length * 0.5))
  const setAll = (em: number, one: Setting) => lines.map((line, i) => setLine(line, em, { ...one, line: i }))
  let set = setAll(emMm, setting)
  for (let round = 0; round < SIZE_ROUNDS; round++) {
    const widest = Math.max(...set.map((line) => boxWidth(regionBox(line.region))))
    if (!(widest > 0)) throw new BadInput('the font draws nothing for these words')
    if (Math.abs(widest / widthMm - 1) < SIZE_ERROR) break
    emMm *= widthMm / widest
    set = setAll(emMm, setting)
  }
  set = exactly(set, widthMm, { again: (joinMm) => setAll(emMm, { ...setting, recipe: { ...recipe, joinMm } }), joinMm: recipe.joinMm }) // prettier-ignore
  const remarks = [...new Set(set.flatMap((line) => line.remarks))]
  if (recipe.alternates && alternateGlyphs(setting.font).size === 0)
    remarks.push('This font has no alternate signs.')
  const stacked = stackLines(set, emMm, recipe)
  return {
    region: stacked.region,
    letters: stacked.letters,
    remarks: [...remarks, ...stacked.remarks],
    joints: set.flatMap((line) => line.joints),
  }
}

/** Joining moves letters by leaps, so that no size may give the width to a hair: what is left is scaled, joints made wider before. */
function exactly(
  set: Line[],
  widthMm: number,
  { again, joinMm }: { again: (joinMm: number) => Line[]; joinMm: number },
): Line[] {
  const widest = (lines: readonly Line[]) =>
    Math.max(...lines.map((line) => boxWidth(regionBox(line.region))))
  let own = set
  let factor = widthMm / widest(own)
  for (let k = 0; k < 3 && factor < 1 - 1e-6; k++) {
    own = again(joinMm / factor)
    const next = widthMm / widest(own)
    if (Math.abs(next / factor - 1) < 1e-4) break
    factor = next
  }
  factor = widthMm / widest(own)
  if (Math.abs(factor - 1) < 1e-9) return own
  const scaled = (region: Region) => mapRegion(scaling(factor), region)
  return own.map(({ region, letters, joints, remarks }) => ({
    region: scaled(region),
    letters: letters.map((letter) => ({
      ...letter,
      box: mapBox(
        letter.box,
        (v) => v * factor,
        (v) => v * factor,
      ),
    })),
    joints: joints.map(({ between, letters: [a, b] }) => ({ between, letters: [scaled(a), scaled(b)] })),
    remarks,
  }))
}

/** One line of words, its baseline at 0, mm. */
export interface Line {
  region: Polygon[]
  letters: Letter[]
  joints: Joint[]
  remarks: Said[]
}

/** A box with its sides mapped. */
const mapBox = (
  { minX, maxX, minY, maxY }: Box,
  x: (v: number) => number,
  y: (v: number) => number,
): Box => ({
  minX: x(minX),
  maxX: x(maxX),
  minY: y(minY),
  maxY: y(maxY),
})

/** The font of a name. Throws BadInput where it is not at hand. */
function fontOf({ font, fonts }: Setting, name: string | undefined): Font {
  if (name === undefined) return font
  const found = fonts.get(name)
  if (!found) throw new BadInput(`the font “${name}” of a line or letter is not at hand: choose another`)
  return found
}

/** Glyphs of a line in mm where the font, the line's own settings and each letter's put them; baseline at 0. */
function glyphsOfLine(text: string, emMm: number, setting: Setting & { line: number }): PlacedGlyph[] {
  const { recipe, line } = setting
  const own = recipe.lines.find((one) => one.line === line)
  const of = (at: number) => recipe.letters.find((one) => one.line === line && one.at === at)
  const shapeAt = (at: number) => of(at)?.shape ?? 0
  const font = fontOf(setting, own?.font)
  const scale = (emMm / 1000) * (own?.size ?? 1)
  const wide = scale * (own?.stretch ?? 1)
  // Where the next letter begins, mm; and where the font began it, thousandths of the em.
  let pen = 0
  let before = 0
  return glyphsOf(font, text, { alternates: recipe.alternates, shapeAt }).map((glyph, at): PlacedGlyph => {
    const letter = of(at)
    const other =
      letter?.font !== undefined && glyph.sign !== ''
        ? glyphsOf(fontOf(setting, letter.font), glyph.sign, {
            alternates: '',
            shapeAt: () => letter.shape,
          })[0]
        : undefined
    const drawn = other?.region ?? mapRegion(translation(-before, 0), glyph.region)
    const advance = other?.advance ?? glyph.advance - before
    before = glyph.advance
    const { size = 1, stretch = 1, rightMm = 0, upMm = 0, turnDeg = 0 } = letter ?? {}
    const [across, down] = [wide * size * stretch, scale * size]
    const placed = mapRegion(compose(translation(pen + rightMm, -upMm), scaling(across, down)), drawn)
    pen += advance * across + rightMm
    return { ...glyph, region: turnedAbout(placed, turnDeg), advance: pen }
  })
}

/** A letter turned about the middle of its box. */
const turnedAbout = (region: Polygon[], deg: number): Polygon[] =>
  deg === 0 || region.length === 0 ? region : mapRegion(aboutMiddle(regionBox(region), rotation(deg)), region)

/** One line of glyphs in mm, baseline at 0: joined, or as the font sets them. */
function setLine(text: string, emMm: number, setting: Setting & { line: number }): Line {
  const { recipe, line } = setting
  const glyphs = glyphsOfLine(text, emMm, setting)
  const letters: Letter[] = []
  const stands = (at: number, sign: string, region: Region) =>
    letters.push({ line, at, sign, box: regionBox(region) })
  if (recipe.style !== 'joined') {
    glyphs.forEach(({ sign, region }, at) => region.length > 0 && stands(at, sign, region))
    return { region: union(...glyphs.map((g) => g.region)), letters, joints: [], remarks: [] }
  }
  const remarks: Said[] = []
  const joints: Joint[] = []
  const half = recipe.joinMm / 2
  let whole: Polygon[] = []
  let word: Polygon[] = []
  const wordEnds = () => {
    // A font of outlines has no card as wide as the joint: what its letters leave apart is tied.
    whole = union(
      whole,
      word.length > 1 ? bridgeFaces(word, recipe.joinMm, { shape: recipe.bridge }).region : word,
    )
    word = []
  }
  let last: { own: Region; core: Region; sign: string } | null = null
  let shift = 0
  for (const [at, { sign, region: drawn }] of glyphs.entries()) {
    if (drawn.length === 0) {
      // A space parts words: the next begins where it naturally would.
      last = null
      wordEnds()
      continue
    }
    const own = attachDots(drawn, recipe, sign)
    const core = offset(own, -half)
    if (core.length === 0)
      remarks.push(
        say`“${sign}” is narrower than ${length(recipe.joinMm)} everywhere: take a larger size, a bolder font or a smaller joint.`,
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
    word = union(word, placed)
    stands(at, sign, placed)
    last = { own: placed, core: mapRegion(translation(shift, 0), core), sign }
  }
  wordEnds()
  return { region: whole, letters, joints, remarks }
}

/** Parts of a glyph that stand apart, such as dots and accents, made one with its largest part. */
function attachDots(glyph: Region, recipe: LetteringRecipe, sign: string): Polygon[] {
  if (glyph.length < 2 || /["”“:;=%…]/.test(sign)) return [...glyph]
  const [body, ...rest] = glyph.toSorted((a, b) => polygonArea(b) - polygonArea(a))
  let whole: Polygon[] = [body!]
  for (const part of rest) {
    if (recipe.dots === 'strip') {
      whole = bridgeFaces([...whole, part], recipe.joinMm, { shape: recipe.bridge }).region
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
    if (whole.length > 1) whole = bridgeFaces(whole, recipe.joinMm, { shape: recipe.bridge }).region
  }
  return whole
}

/** Lines under each other, as close as the font's height times the line gap, each tied to the one above if it does not touch. */
function stackLines(lines: readonly Line[], emMm: number, recipe: LetteringRecipe): Words {
  const remarks: Said[] = []
  const letters: Letter[] = []
  let y = 0
  let whole: Polygon[] = []
  const half = recipe.joinMm / 2
  lines.forEach(({ region: line, letters: own }, i) => {
    const b = regionBox(line)
    const { rightMm = 0, upMm = 0 } = recipe.lines.find((one) => one.line === i) ?? {}
    const byX = rightMm - (b.minX + b.maxX) / 2
    const centred = mapRegion(translation(byX, 0), line)
    if (i > 0 && recipe.style !== 'joined') y += emMm * LINE_EM * recipe.lineGap
    else if (i > 0) {
      // Moved up until the two lines, drawn in by half the joint, touch.
      const turned = (r: Region) => mapRegion([0, 1, 1, 0, 0, 0], offset(r, -half))
      const gap = horizontalGap(turned(whole), turned(mapRegion(translation(0, y + emMm * 2), centred)))
      const touching = gap === -Infinity ? y + emMm : y + emMm * 2 - gap - 0.01
      y = Math.max(touching, 0) + (recipe.lineGap - 1) * emMm * 0.5
      if (recipe.lineGap > 1) remarks.push('The lines stand apart: strips tie them.')
    }
    const byY = y - upMm
    whole = union(whole, mapRegion(translation(0, byY), centred))
    for (const letter of own)
      letters.push({
        ...letter,
        box: mapBox(
          letter.box,
          (v) => v + byX,
          (v) => v + byY,
        ),
      })
  })
  return { region: whole, letters, remarks }
}
