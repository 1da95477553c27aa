// Strips to print and stick to the corners of the sheets: what each load is and wants.
import { PDFDocument, rgb } from '@cantoo/pdf-lib'
import { boxHeight, boxWidth, polygonBox, polygonRings, type Polygon } from '../../base/geometry'
import { lineToPath } from './cut-sheet'
import { A4, PT_PER_MM } from './pdf-parts'
import { INK, Typeface, type Faces } from './typeface'

/** What is printed for one sheet. */
export interface SheetTag {
  /** What is asked for at the machine, in large figures. */
  tag: string
  colour: string
  title: string
  lines: readonly string[]
  /** Small pictures of what must not get lost, drawn to one size. */
  keep: readonly Polygon[]
}

const TAG = { w: 92 * PT_PER_MM, h: 34 * PT_PER_MM }
const EDGE = 12 * PT_PER_MM
/** Beside the colour, pt: where the words stand, and how many lines of them there is room for. */
const WORDS = { left: 74, w: TAG.w - 80, top: 30, line: 9.8, size: 8.2, most: 7 }
/** Pictures of what must not get lost stand below the colour, pt. */
const KEEP = { left: 8, top: 58, side: 16, pitch: 19, abreast: 3, most: 6 }

/** Tags, two in a row, with cut lines between them. */
export async function writeTags(tags: readonly SheetTag[], faces: Faces): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  const texts = tags.flatMap(({ tag, title, lines }) => [tag, title, ...lines, '…'])
  const type = await Typeface.in(pdf, faces, texts)
  const rows = Math.floor((A4.h - 2 * EDGE) / TAG.h)
  tags.forEach((tag, i) => {
    const k = i % (rows * 2)
    const page = k === 0 ? pdf.addPage([A4.w, A4.h]) : pdf.getPage(pdf.getPageCount() - 1)
    const x = EDGE + (k % 2) * TAG.w
    const top = A4.h - EDGE - Math.floor(k / 2) * TAG.h
    page.drawRectangle({
      x,
      y: top - TAG.h,
      width: TAG.w,
      height: TAG.h,
      borderColor: INK,
      borderWidth: 0.4,
      borderDashArray: [3, 3],
    })
    const [r, g, b] = [1, 3, 5].map((at) => parseInt(tag.colour.slice(at, at + 2), 16) / 255) as [
      number,
      number,
      number,
    ]
    page.drawRectangle({
      x: x + 6,
      y: top - 46,
      width: 60,
      height: 40,
      color: rgb(r, g, b),
      borderColor: INK,
      borderWidth: 0.6,
    })
    const size = Math.min(22, 52 / Math.max(1, type.width(tag.tag, 1, true)))
    type.draw(page, tag.tag, {
      x: x + 10,
      y: top - 33,
      size,
      bold: true,
      colour: 0.3 * r + 0.59 * g + 0.11 * b > 0.55 ? INK : rgb(1, 1, 1),
    })
    const title = type.wrap(tag.title, 11, WORDS.w - 12)[0]!
    type.draw(page, title === tag.title ? title : `${title} …`, {
      x: x + WORDS.left,
      y: top - 18,
      size: 11,
      bold: true,
    })
    const lines = tag.lines.flatMap((line) => type.wrap(line, WORDS.size, WORDS.w))
    lines.slice(0, WORDS.most).forEach((line, n) => {
      const isCut = n === WORDS.most - 1 && lines.length > WORDS.most
      const y = top - WORDS.top - n * WORDS.line
      type.draw(page, isCut ? `${line} …` : line, { x: x + WORDS.left, y, size: WORDS.size })
    })
    tag.keep.slice(0, KEEP.most).forEach((shape, n) => {
      const box = polygonBox(shape)
      const scale = KEEP.side / Math.max(boxWidth(box), boxHeight(box), 1)
      const d = polygonRings(shape)
        .map((ring) => lineToPath(ring.map((v, at) => v - (at % 2 === 0 ? box.minX : box.minY))) + 'Z')
        .join('')
      page.drawSvgPath(d, {
        x: x + KEEP.left + (n % KEEP.abreast) * KEEP.pitch,
        y: top - KEEP.top - Math.floor(n / KEEP.abreast) * KEEP.pitch,
        scale,
        borderColor: INK,
        borderWidth: 0.5 / scale,
      })
    })
    if (tag.keep.length > 0)
      type.draw(page, `keep ${tag.keep.length}`, { x: x + KEEP.left, y: top - KEEP.top + 3, size: 7 })
  })
  if (tags.length === 0) pdf.addPage([A4.w, A4.h])
  return pdf.save()
}
