// Words set in lines: each glyph is moved along the line until it and its neighbour are joined by a safe width, dots and
// accents are moved or tied to the letter below, and the size is found at which the widest line fills the width.
import {
  boxWidth,
  mapRegion,
  offset,
  polygonArea,
  regionBox,
  scaling,
  translation,
  union,
  type Polygon,
  type Region,
} from '../../../../base/geometry'
import { BadInput } from '../../../../base'
import { length, say, type Said } from '../../../../base/units'
import type { LetteringRecipe } from '../../../../project'
import { bridgeFaces, closestPoints } from '../bridge'
import { alternateGlyphs, glyphsOf, type Font } from '../font'
import { horizontalGap, type Joint } from './joints'

/** From line to line where letters stand apart, in parts of the font's size. */
const LINE_EM = 1.15
/** The size is found in a few rounds: joining draws letters together by lengths in mm, whatever the size. */
const SIZE_ROUNDS = 6
const SIZE_ERROR = 0.001

/** What words are set in, and how. */
export interface Setting {
  font: Font
  recipe: LetteringRecipe
}

/** Set words, mm, and what was not possible. */
export interface Words {
  region: Polygon[]
  remarks: Said[]
}

/** All lines under each other, so large that the widest is as wide as asked for (mm). Throws BadInput. */
export function typeset(setting: Setting, widthMm: number): Words & { joints: Joint[] } {
  const { font, recipe } = setting
  const lines = recipe.text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
  if (lines.length === 0) throw new BadInput('there is nothing to set: type a word')
  let emMm = widthMm / Math.max(1, ...lines.map((line) => line.length * 0.5))
  let set = lines.map((line) => setLine(line, emMm, setting))
  for (let round = 0; round < SIZE_ROUNDS; round++) {
    const widest = Math.max(...set.map((line) => boxWidth(regionBox(line.region))))
    if (!(widest > 0)) throw new BadInput('the font draws nothing for these words')
    if (Math.abs(widest / widthMm - 1) < SIZE_ERROR) break
    emMm *= widthMm / widest
    set = lines.map((line) => setLine(line, emMm, setting))
  }
  set = exactly(set, widthMm, (joinMm) => lines.map((line) => setLine(line, emMm, { font, recipe: { ...recipe, joinMm } })), recipe.joinMm) // prettier-ignore
  const remarks = [...new Set(set.flatMap((line) => line.remarks))]
  if (recipe.alternates && alternateGlyphs(font).size === 0) remarks.push('This font has no alternate signs.')
  const stacked = stackLines(
    set.map((line) => line.region),
    emMm,
    recipe,
  )
  return {
    region: stacked.region,
    remarks: [...remarks, ...stacked.remarks],
    joints: set.flatMap((line) => line.joints),
  }
}

/** Joining moves letters by leaps, so that no size may give the width to a hair: what is left is scaled, joints made wider before. */
function exactly(set: Line[], widthMm: number, again: (joinMm: number) => Line[], joinMm: number): Line[] {
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
  return own.map(({ region, joints, remarks }) => ({
    region: scaled(region),
    joints: joints.map(({ between, letters: [a, b] }) => ({ between, letters: [scaled(a), scaled(b)] })),
    remarks,
  }))
}

/** One line of words, its baseline at 0, mm. */
export interface Line {
  region: Polygon[]
  joints: Joint[]
  remarks: Said[]
}

/** One line of glyphs in mm, baseline at 0: joined, or as the font sets them. */
function setLine(text: string, emMm: number, { font, recipe }: Setting): Line {
  const scale = emMm / 1000
  const glyphs = glyphsOf(font, text, recipe.alternates).map((g) => ({
    ...g,
    region: mapRegion(scaling(scale), g.region),
    advance: g.advance * scale,
  }))
  if (recipe.style !== 'joined')
    return { region: union(...glyphs.map((g) => g.region)), joints: [], remarks: [] }
  const remarks: Said[] = []
  const joints: Joint[] = []
  const half = recipe.joinMm / 2
  let whole: Polygon[] = []
  let word: Polygon[] = []
  const wordEnds = () => {
    // A font of outlines has no card as wide as the joint: what its letters leave apart is tied.
    whole = union(whole, word.length > 1 ? bridgeFaces(word, recipe.joinMm).region : word)
    word = []
  }
  let last: { own: Region; core: Region; sign: string } | null = null
  let shift = 0
  for (const { sign, region: drawn } of glyphs) {
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
    last = { own: placed, core: mapRegion(translation(shift, 0), core), sign }
  }
  wordEnds()
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

/** Lines under each other, as close as the font's height times the line gap, each tied to the one above if it does not touch. */
function stackLines(lines: readonly Region[], emMm: number, recipe: LetteringRecipe): Words {
  const remarks: Said[] = []
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
  return { region: whole, remarks }
}
