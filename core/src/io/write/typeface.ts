// The letters of a PDF: the application's own face, and where it lacks signs the next one that has them, so that names in any
// script print as they are.
import fontkit from '@pdf-lib/fontkit'
import type { PDFDocument, PDFFont, PDFPage } from '@cantoo/pdf-lib'
import { INK } from './pdf-parts'

/** Faces as TTF files. They are handed in: whoever writes a PDF knows where its files lie. */
export interface Faces {
  regular: Uint8Array
  bold: Uint8Array
  /** Tried in this order for what the others lack; asked for only where something is lacking. */
  others: () => Promise<Uint8Array[]>
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
  font: PDFFont
  text: string
}

interface Face {
  font: PDFFont
  signs: ReadonlySet<number>
}

/** Stands for a sign that no face has. */
const MISSING = '\u25a1'

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
    const embed = async (bytes: Uint8Array): Promise<Face> => {
      const font = await pdf.embedFont(bytes, { subset: false })
      return { font, signs: new Set(font.getCharacterSet()) }
    }
    const regular = await embed(faces.regular)
    const bold = await embed(faces.bold)
    const others: Face[] = []
    const all = [...new Set([...texts].join(''))].map((sign) => sign.codePointAt(0)!)
    const lacks = () =>
      all.some((code) => code > 0x20 && ![regular, ...others].some(({ signs }) => signs.has(code)))
    if (lacks()) for (const bytes of await faces.others()) if (lacks()) others.push(await embed(bytes))
    return new Typeface([regular, ...others], [bold, ...others])
  }

  width(text: string, size: number, bold = false): number {
    return this.runs(text, bold).reduce((sum, run) => sum + run.font.widthOfTextAtSize(run.text, size), 0)
  }

  draw(page: PDFPage, text: string, { x, y, size, bold = false, colour = INK }: Line): void {
    let at = x
    for (const run of this.runs(text, bold)) {
      page.drawText(run.text, { x: at, y, size, font: run.font, color: colour })
      at += run.font.widthOfTextAtSize(run.text, size)
    }
  }

  /** Lines no wider than a width, broken between words. */
  wrap(text: string, size: number, width: number): string[] {
    const lines: string[] = []
    let line = ''
    for (const word of text.split(/\s+/)) {
      const longer = line ? `${line} ${word}` : word
      if (line && this.width(longer, size) > width) {
        lines.push(line)
        line = word
      } else line = longer
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
      // Spaces and marks stay with what stands before them.
      if (last && (sign === ' ' || /\p{M}/u.test(sign))) {
        last.text += sign
        continue
      }
      const face = faces.find(({ signs }) => signs.has(code))
      const font = (face ?? faces.at(-1)!).font
      const drawn = face || sign === ' ' ? sign : MISSING
      if (last?.font === font) last.text += drawn
      else runs.push({ font, text: drawn })
    }
    return runs
  }
}
