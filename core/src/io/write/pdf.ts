// PDFs: 1:1 templates to cut by knife, and printed lists.
import { PDFDocument, type PDFPage } from '@cantoo/pdf-lib'
import { cuttingRings, lineToPath, num, type CutSheet } from './cut-sheet'
import { A4, INK, PT_PER_MM } from './pdf-parts'
import { Typeface, type Faces } from './typeface'

/** A page per sheet at true size, mirrored so that the lines end up on the back of the card. */
export async function writeTemplates(sheets: readonly CutSheet[], faces: Faces): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  const captions = sheets.map(
    (sheet) => `${sheet.title} – mirrored: lines go on the back. Check: this bar is 50 mm`,
  )
  const type = await Typeface.in(pdf, faces, captions)
  for (const [i, sheet] of sheets.entries()) {
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
    const caption = captions[i]!
    type.draw(page, caption, { x: 12, y: 6, size: 6 })
    const barX = 12 + type.width(caption, 6) + 6
    page.drawLine({
      start: { x: barX, y: 8 },
      end: { x: barX + 50 * PT_PER_MM, y: 8 },
      thickness: 0.6,
      color: INK,
    })
  }
  return pdf.save()
}

/** A part of a printed list; lines have a number, a text that is wrapped, and a figure at the right. */
export interface ListSection {
  heading: string
  lines: readonly { left: string; text: string; right?: string }[]
}

const MARGIN = 48
const LEADING = 13
/** Kept for the number at the left and the figure at the right. */
const BESIDE = 130

/** A printed list on A4 with headings, wrapped text and a box to tick before each line. */
export async function writeListPdf(
  title: string,
  sections: readonly ListSection[],
  faces: Faces,
): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  const texts = sections.flatMap(({ heading, lines }) => [heading, ...lines.map(({ text }) => text)])
  const type = await Typeface.in(pdf, faces, [title, ...texts])
  let page: PDFPage = pdf.addPage([A4.w, A4.h])
  let y = A4.h - MARGIN
  const need = (height: number) => {
    if (y - height > MARGIN) return
    page = pdf.addPage([A4.w, A4.h])
    y = A4.h - MARGIN
  }
  for (const line of type.wrap(title, 18, A4.w - 2 * MARGIN)) {
    type.draw(page, line, { x: MARGIN, y: y - 14, size: 18, bold: true })
    y -= 22
  }
  y -= 14
  for (const section of sections) {
    need(40)
    type.draw(page, section.heading, { x: MARGIN, y: y - 10, size: 12, bold: true })
    y -= 22
    for (const { left, text, right } of section.lines) {
      const wrapped = type.wrap(text, 10, A4.w - 2 * MARGIN - BESIDE)
      need(wrapped.length * LEADING + 4)
      page.drawRectangle({ x: MARGIN, y: y - 9, width: 8, height: 8, borderColor: INK, borderWidth: 0.6 })
      type.draw(page, left, { x: MARGIN + 14, y: y - 9, size: 10, bold: true })
      wrapped.forEach((line, i) =>
        type.draw(page, line, { x: MARGIN + 60, y: y - 9 - i * LEADING, size: 10 }),
      )
      if (right) type.draw(page, right, { x: A4.w - MARGIN - type.width(right, 10), y: y - 9, size: 10 })
      y -= wrapped.length * LEADING + 4
    }
    y -= 8
  }
  return pdf.save()
}
