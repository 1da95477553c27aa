// The letters of a PDF: the application's own face, where it lacks signs the next one that has them, so that names in any script
// print as they are. The large faces of Han and hangul are not embedded, which would make a list of a page ten megabytes: what is
// written in them is drawn as outlines.
import fontkit, { type Font } from '@pdf-lib/fontkit'
import { rgb, type PDFDocument, type PDFFont, type PDFPage } from '@cantoo/pdf-lib'

/** Near-black, as on screen. */
export const INK = rgb(0.12, 0.13, 0.15)

/** Faces as TTF or OTF files. They are handed in: whoever writes a PDF knows where its files lie. */
export interface Faces {
  regular: Uint8Array
  bold: Uint8Array
  /** Tried in this order for what the others lack, embedded; each asked for only where the ones before it do not do. */
  others: readonly (() => Promise<Uint8Array>)[]
  /** Tried after those, drawn as outlines. */
  drawn: readonly (() => Promise<Uint8Array>)[]
}

type Colour = typeof INK

/** Where a line begins (points from the page's lower left) and how large it is. */
export interface Line {
  x: number
  y: number
  size: number
  bold?: boolean
  colour?: Colour
}

interface Run {
  face: Face
  text: string
}

/** Writes a stretch of text whose signs it has. Lengths in points from the page's lower left. */
interface Face {
  has: (code: number) => boolean
  width: (text: string, size: number) => number
  draw: (page: PDFPage, text: string, at: Required<Line>) => void
}

const embedded = (font: PDFFont): Face => {
  const signs = new Set(font.getCharacterSet())
  return {
    has: (code) => signs.has(code),
    width: (text, size) => font.widthOfTextAtSize(text, size),
    draw: (page, text, { x, y, size, colour }) => page.drawText(text, { x, y, size, font, color: colour }),
  }
}

const outlined = (font: Font): Face => ({
  has: (code) => font.hasGlyphForCodePoint(code),
  width: (text, size) => (font.layout(text).advanceWidth * size) / font.unitsPerEm,
  draw: (page, text, { x, y, size, colour }) => {
    const scale = size / font.unitsPerEm
    let at = x
    for (const glyph of font.layout(text).glyphs) {
      const path = upright(glyph.path.toSVG())
      if (path) page.drawSvgPath(path, { x: at, y, scale, color: colour, borderWidth: 0 })
      at += glyph.advanceWidth * scale
    }
  },
})

/** Path data of a face, whose y goes up, for a page that takes it with y down. */
const upright = (path: string): string => {
  let isY = false
  return path.replace(/[A-Za-z]|-?[\d.]+(?:e-?\d+)?/g, (part) => {
    if (/^[A-Za-z]$/.test(part)) {
      isY = false
      return part
    }
    const out = isY ? `${-Number(part)} ` : `${part} `
    isY = !isY
    return out
  })
}

/** Stands for a sign that no face has. */
const MISSING = '\u25a1'

/** Signs with the marks that belong to them. */
const SIGNS = new Intl.Segmenter()

/** Draws and measures texts of a PDF. */
export class Typeface {
  private constructor(
    private readonly regular: readonly Face[],
    private readonly bold: readonly Face[],
  ) {}

  /** Embeds what the texts need. `texts` are all that will be drawn. */
  static async in(pdf: PDFDocument, faces: Faces, texts: Iterable<string>): Promise<Typeface> {
    pdf.registerFontkit(fontkit)
    // Whole, not as subsets: those break off on some faces.
    const embed = async (bytes: Uint8Array) => embedded(await pdf.embedFont(bytes, { subset: false }))
    const regular = await embed(faces.regular)
    const bold = await embed(faces.bold)
    const others: Face[] = []
    const all = [...new Set([...texts].join(''))].map((sign) => sign.codePointAt(0)!)
    const lacks = () =>
      all.some((code) => code > 0x20 && ![regular, ...others].some((face) => face.has(code)))
    for (const bytes of faces.others) if (lacks()) others.push(await embed(await bytes()))
    for (const bytes of faces.drawn) if (lacks()) others.push(outlined(fontkit.create(await bytes())))
    return new Typeface([regular, ...others], [bold, ...others])
  }

  width(text: string, size: number, bold = false): number {
    return this.runs(text, bold).reduce((sum, run) => sum + run.face.width(run.text, size), 0)
  }

  draw(page: PDFPage, text: string, { x, y, size, bold = false, colour = INK }: Line): void {
    let at = x
    for (const run of this.runs(text, bold)) {
      run.face.draw(page, run.text, { x: at, y, size, bold, colour })
      at += run.face.width(run.text, size)
    }
  }

  /** Lines no wider than a width, broken between words; within one where it is wider by itself. */
  wrap(text: string, size: number, width: number): string[] {
    const fits = (line: string) => this.width(line, size) <= width
    const lines: string[] = []
    let line = ''
    for (const word of text.split(/\s+/)) {
      if (fits(line ? `${line} ${word}` : word)) {
        line = line ? `${line} ${word}` : word
        continue
      }
      if (line) lines.push(line)
      line = ''
      for (const { segment } of SIGNS.segment(word)) {
        if (line && !fits(line + segment)) {
          lines.push(line)
          line = ''
        }
        line += segment
      }
    }
    return line || lines.length === 0 ? [...lines, line] : lines
  }

  /** Stretches of a text, each in the first face that has its signs. */
  private runs(text: string, bold: boolean): Run[] {
    const faces = bold ? this.bold : this.regular
    const runs: Run[] = []
    for (const sign of text.replace(/[\s\p{C}]+/gu, ' ')) {
      const code = sign.codePointAt(0)!
      const last = runs.at(-1)
      // Marks stay with what stands before them.
      if (last && /\p{M}/u.test(sign)) {
        last.text += sign
        continue
      }
      const known = faces.find(({ has }) => has(code))
      const face = known ?? faces.find(({ has }) => has(MISSING.codePointAt(0)!)) ?? faces[0]!
      const drawn = known || sign === ' ' ? sign : MISSING
      if (last?.face === face) last.text += drawn
      else runs.push({ face, text: drawn })
    }
    return runs
  }
}
