// Glyph outlines of a font as card.
import opentype, { type Font } from 'opentype.js'
import { fillRings, flattenCubic, regionToPath, type Polygon } from '../../../base/geometry'
import { BadInput } from '../../../base'

/** Curves of glyphs keep to this (in thousandths of the em). */
const TOLERANCE = 0.6

export type { Font }

/** A font from the bytes of a TTF, OTF or WOFF file. Throws BadInput. */
export function readFont(bytes: Uint8Array): Font {
  try {
    const font = opentype.parse(
      bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer,
    )
    if (!(font.unitsPerEm > 0) || font.glyphs.length === 0) throw new Error()
    return font
  } catch {
    throw new BadInput('this is not a TTF, OTF or WOFF font that can be read')
  }
}

/** A sign with its outline and advance, thousandths of the em. */
export interface PlacedGlyph {
  sign: string
  /** Outline at its natural place on the line, thousandths of the em, baseline at 0, y down. */
  region: Polygon[]
  /** Where the next glyph would naturally begin. */
  advance: number
}

/**
 * The glyphs of a line of text with the font's own substitutions and kerning. Signs the font lacks throw BadInput.
 * @param alternates signs to draw in their first other shape, `*` for all
 * @param shapeAt which other shape (from 1) the n-th glyph takes, 0 for its own
 */
export function glyphsOf(
  font: Font,
  text: string,
  { alternates = '', shapeAt = () => 0 }: { alternates?: string; shapeAt?: (at: number) => number } = {},
): PlacedGlyph[] {
  try {
    return placeGlyphs(font, text, { alternates, shapeAt })
  } catch (error) {
    // Glyphs are read when they are first asked for: a damaged one shows only now.
    throw error instanceof BadInput ? error : new BadInput('the font is damaged where these signs are drawn')
  }
}

function placeGlyphs(
  font: Font,
  text: string,
  { alternates, shapeAt }: { alternates: string; shapeAt: (at: number) => number },
): PlacedGlyph[] {
  const scale = 1000 / font.unitsPerEm
  const others = alternates ? alternateGlyphs(font) : new Map<number, number>()
  const wanted = (glyph: opentype.Glyph) =>
    alternates === '*' ||
    (glyph.unicode !== undefined && alternates.includes(String.fromCodePoint(glyph.unicode)))
  const glyphs = shaped(font, text).map((glyph, at) => {
    const shape = shapeAt(at)
    const other = shape > 0 ? otherShapes(font, glyph.index)[shape - 1] : undefined
    if (other !== undefined) return font.glyphs.get(other)
    return wanted(glyph) && others.has(glyph.index) ? font.glyphs.get(others.get(glyph.index)!) : glyph
  })
  const missing = [...text].filter((sign) => sign.trim() && font.charToGlyphIndex(sign) === 0)
  if (missing.length > 0)
    throw new BadInput(`the font has no sign for ${[...new Set(missing)].map((s) => `“${s}”`).join(', ')}`)
  let x = 0
  const signs = [...text]
  return glyphs.map((glyph, i) => {
    const path = glyph.getPath(x, 0, 1000)
    const kern = i + 1 < glyphs.length ? kerning(font, glyph, glyphs[i + 1]!) * scale : 0
    x += (glyph.advanceWidth ?? 0) * scale + kern
    return {
      sign:
        signs.length === glyphs.length ? signs[i]! : glyph.unicode ? String.fromCodePoint(glyph.unicode) : '',
      region: fillRings(ringsOf(path.commands), 'nonzero'),
      advance: x,
    }
  })
}

/** Glyphs with the font's own substitutions; sign by sign where its tables are of a kind that cannot be read. */
function shaped(font: Font, text: string): opentype.Glyph[] {
  try {
    return font.stringToGlyphs(text)
  } catch {
    return [...text].map((sign) => font.charToGlyph(sign))
  }
}

function kerning(font: Font, a: opentype.Glyph, b: opentype.Glyph): number {
  try {
    return font.getKerningValue(a, b)
  } catch {
    return 0
  }
}

interface Substitutions {
  getFeature(
    tag: string,
    script: string,
    language: string,
  ): { sub: number | number[]; by: number | number[] }[] | undefined
}

/** Other shapes of glyphs that the font offers (stylistic alternates), by glyph index; empty where it has none. */
export function alternateGlyphs(font: Font): Map<number, number> {
  const { substitution } = font as unknown as { substitution: Substitutions }
  const out = new Map<number, number>()
  const feature = (tag: string) => {
    try {
      return substitution.getFeature(tag, 'latn', 'dflt') ?? []
    } catch {
      return []
    }
  }
  for (const tag of ['salt', 'ss01'])
    for (const { sub, by } of feature(tag)) {
      const other = Array.isArray(by) ? by[0] : by
      if (typeof sub === 'number' && other !== undefined && !out.has(sub)) out.set(sub, other)
    }
  return out
}

/** Features of a font that offer other shapes of a glyph, by how common they are. */
const SHAPES = ['salt', ...Array.from({ length: 20 }, (_, k) => `ss${String(k + 1).padStart(2, '0')}`), 'swsh', 'cswh', 'titl', 'hist'] // prettier-ignore

/** All other shapes that a font offers of a glyph, by their glyph indices. */
export function otherShapes(font: Font, index: number): number[] {
  const { substitution } = font as unknown as { substitution: Substitutions }
  const out = new Set<number>()
  for (const tag of SHAPES) {
    let subs: ReturnType<Substitutions['getFeature']>
    try {
      subs = substitution.getFeature(tag, 'latn', 'dflt')
    } catch {
      subs = undefined
    }
    for (const { sub, by } of subs ?? [])
      if (sub === index) for (const other of Array.isArray(by) ? by : [by]) out.add(other)
  }
  return [...out]
}

/** The shapes of a sign as path data (thousandths of the em, baseline at 0, y down): its own first, then each other one. */
export function shapesOf(font: Font, sign: string): string[] {
  const own = font.charToGlyph(sign)
  return [own, ...otherShapes(font, own.index).map((index) => font.glyphs.get(index))].map((glyph) =>
    regionToPath(fillRings(ringsOf(glyph.getPath(0, 0, 1000).commands), 'nonzero')),
  )
}

type Commands = ReturnType<Font['getPath']>['commands']

function ringsOf(commands: Commands): Float64Array[] {
  const rings: Float64Array[] = []
  let points: number[] = []
  let [x, y] = [0, 0]
  const close = () => {
    if (points.length >= 6) rings.push(Float64Array.from(points))
    points = []
  }
  for (const c of commands) {
    if (c.type === 'Z') {
      close()
      continue
    }
    if (c.type === 'M') {
      close()
      points.push(c.x, c.y)
    } else if (c.type === 'L') points.push(c.x, c.y)
    else if (c.type === 'Q')
      flattenCubic(
        points,
        [
          [x, y],
          [x + ((c.x1 - x) * 2) / 3, y + ((c.y1 - y) * 2) / 3],
          [c.x + ((c.x1 - c.x) * 2) / 3, c.y + ((c.y1 - c.y) * 2) / 3],
          [c.x, c.y],
        ],
        TOLERANCE,
      )
    else
      flattenCubic(
        points,
        [
          [x, y],
          [c.x1, c.y1],
          [c.x2, c.y2],
          [c.x, c.y],
        ],
        TOLERANCE,
      )
    ;[x, y] = [c.x, c.y]
  }
  close()
  return rings
}

/** Words as outlines (thousandths of the em, baseline at 0) with their advance, for text in drawings. Signs the font lacks are passed over. */
export function outlineWords(font: Font, words: string): { region: Polygon[]; advance: number } {
  const known = [...words].filter((sign) => !sign.trim() || font.charToGlyphIndex(sign) !== 0).join('')
  const glyphs = glyphsOf(font, known)
  return { region: glyphs.flatMap((g) => g.region), advance: glyphs.at(-1)?.advance ?? 0 }
}
