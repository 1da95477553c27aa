// PDFs of printed lists.
import { PDFDocument, type PDFPage } from '@cantoo/pdf-lib'
import { A4 } from './pdf-parts'
import { drawPicture, type SmallPicture } from './pictures'
import { INK, Typeface, type Faces } from './typeface'

/** A part of a printed list; lines have a number, a text that is wrapped, a figure at the right, and a picture where there is one. */
export interface ListSection {
  heading: string
  lines: readonly { left: string; text: string; right?: string; picture?: SmallPicture | null }[]
}

const MARGIN = 48
const LEADING = 13
/** Kept for the number at the left and the figure at the right. */
const BESIDE = 130
/** Side of a picture, and where the text beside it begins. */
const PICTURE = 58
const PICTURE_ROOM = 66

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
    // Where some lines of a part have a picture, all leave room for one.
    const room = section.lines.some(({ picture }) => picture) ? PICTURE_ROOM : 0
    for (const { left, text, right, picture } of section.lines) {
      const wrapped = type.wrap(text, 10, A4.w - 2 * MARGIN - BESIDE - room)
      const height = Math.max(wrapped.length * LEADING, picture ? PICTURE + 4 : 0) + 4
      need(height)
      if (picture) drawPicture(page, picture, { x: MARGIN + 54, y, width: PICTURE, height: PICTURE })
      page.drawRectangle({ x: MARGIN, y: y - 9, width: 8, height: 8, borderColor: INK, borderWidth: 0.6 })
      type.draw(page, left, { x: MARGIN + 14, y: y - 9, size: 10, bold: true })
      wrapped.forEach((line, i) =>
        type.draw(page, line, { x: MARGIN + 60 + room, y: y - 9 - i * LEADING, size: 10 }),
      )
      if (right) type.draw(page, right, { x: A4.w - MARGIN - type.width(right, 10), y: y - 9, size: 10 })
      y -= height
    }
    y -= 8
  }
  return pdf.save()
}
