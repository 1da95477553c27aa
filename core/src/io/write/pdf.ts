// PDFs: 1:1 templates to cut by knife, and printed lists.
import { PDFDocument, StandardFonts, type PDFFont, type PDFPage } from '@cantoo/pdf-lib'
import { cuttingRings, lineToPath, num, type CutSheet } from './cut-sheet'
import { A4, INK, plain, PT_PER_MM } from './pdf-parts'

/** A page per sheet at true size, mirrored so that the lines end up on the back of the card. */
export async function writeTemplates(sheets: readonly CutSheet[]): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  const font = await pdf.embedFont(StandardFonts.Helvetica)
  for (const sheet of sheets) {
    const page = pdf.addPage([sheet.widthMm * PT_PER_MM, sheet.heightMm * PT_PER_MM])
    for (const piece of sheet.pieces) {
      const d = cuttingRings(piece.shape)
        .map((ring) => {
          let s = ''
          for (let i = 0; i < ring.length; i += 2)
            s += `${i === 0 ? 'M' : 'L'}${num(sheet.widthMm - ring[i]!)} ${num(ring[i + 1]!)}`
          return s + 'Z'
        })
        .join('')
      page.drawSvgPath(d, { x: 0, y: page.getHeight(), scale: PT_PER_MM, borderColor: INK, borderWidth: 0.2 })
      for (const { kind, line } of piece.lines) {
        const mirrored = line.map((v, i) => (i % 2 === 0 ? sheet.widthMm - v : v))
        const dash = kind === 'fold' ? { borderDashArray: [2 * PT_PER_MM, PT_PER_MM] } : {}
        page.drawSvgPath(lineToPath(mirrored), {
          x: 0,
          y: page.getHeight(),
          scale: PT_PER_MM,
          borderColor: INK,
          borderWidth: 0.25,
          ...dash,
        })
      }
    }
    const caption = `${sheet.title} - mirrored: lines go on the back. Check: this bar is 50 mm`
    page.drawText(plain(caption), { x: 12, y: 6, size: 6, font, color: INK })
    const barX = 12 + font.widthOfTextAtSize(plain(caption), 6) + 6
    page.drawLine({
      start: { x: barX, y: 8 },
      end: { x: barX + 50 * PT_PER_MM, y: 8 },
      thickness: 0.6,
      color: INK,
    })
  }
  return pdf.save()
}

export interface ListSection {
  heading: string
  lines: readonly { left: string; text: string; right?: string }[]
}

/** A printed list on A4 with headings, wrapped text and a box to tick before each line. */
export async function writeListPdf(title: string, sections: readonly ListSection[]): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  const font = await pdf.embedFont(StandardFonts.Helvetica)
  const bold = await pdf.embedFont(StandardFonts.HelveticaBold)
  const margin = 48
  let page: PDFPage = pdf.addPage([A4.w, A4.h])
  let y = A4.h - margin
  const need = (height: number) => {
    if (y - height > margin) return
    page = pdf.addPage([A4.w, A4.h])
    y = A4.h - margin
  }
  page.drawText(plain(title), { x: margin, y: y - 14, size: 18, font: bold, color: INK })
  y -= 36
  for (const section of sections) {
    need(40)
    page.drawText(plain(section.heading), { x: margin, y: y - 10, size: 12, font: bold, color: INK })
    y -= 22
    for (const line of section.lines) {
      const wrapped = wrap(plain(line.text), font, 10, A4.w - 2 * margin - 130)
      need(wrapped.length * 13 + 4)
      page.drawRectangle({ x: margin, y: y - 9, width: 8, height: 8, borderColor: INK, borderWidth: 0.6 })
      page.drawText(plain(line.left), { x: margin + 14, y: y - 9, size: 10, font: bold, color: INK })
      wrapped.forEach((text, i) =>
        page.drawText(text, { x: margin + 60, y: y - 9 - i * 13, size: 10, font, color: INK }),
      )
      if (line.right)
        page.drawText(plain(line.right), {
          x: A4.w - margin - font.widthOfTextAtSize(plain(line.right), 10),
          y: y - 9,
          size: 10,
          font,
          color: INK,
        })
      y -= wrapped.length * 13 + 4
    }
    y -= 8
  }
  return pdf.save()
}

function wrap(text: string, font: PDFFont, size: number, width: number): string[] {
  const lines: string[] = []
  let line = ''
  for (const word of text.split(/\s+/)) {
    const longer = line ? `${line} ${word}` : word
    if (line && font.widthOfTextAtSize(longer, size) > width) {
      lines.push(line)
      line = word
    } else line = longer
  }
  return line ? [...lines, line] : lines.length > 0 ? lines : ['']
}
