// PDFs of what is printed on a sheet before it is cut: pictures clipped to what is inked, with the marks that the cut goes by.
import {
  clipEvenOdd,
  closePath,
  concatTransformationMatrix,
  drawObject,
  endPath,
  lineTo,
  moveTo,
  PDFDocument,
  popGraphicsState,
  pushGraphicsState,
  type PDFImage,
} from '@cantoo/pdf-lib'
import { BadInput } from '../../base'
import { regionRings, type Affine, type Region } from '../../base/geometry'
import { lineToPath, type CutSheet } from './cut-sheet'
import type { Unit } from '../../base/units'
import { barFor, PT_PER_MM } from './pdf-parts'
import { INK, Typeface, type Faces } from './typeface'

/** A picture on a sheet: its file, where its pixels go (mm from the sheet's top left corner, y down), and what is inked. */
export interface InkedPicture {
  picture: {
    id: string
    name: string
    type: 'image/jpeg' | 'image/png'
    data: string
    pixelsHigh: number
    pixelsWide: number
  }
  map: Affine
  inked: Region
}

/** One page, as large as the sheet, at true size. Throws BadInput where a picture cannot be read. */
export async function writePrintSheet(
  sheet: Pick<CutSheet, 'title' | 'widthMm' | 'heightMm' | 'marks'>,
  prints: readonly InkedPicture[],
  { faces, unit }: { faces: Faces; unit: Unit },
): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  const bar = barFor(unit)
  const caption = `${sheet.title}. Print at 100 %: this bar is ${bar.words}. Cut by the corner marks`
  const type = await Typeface.in(pdf, faces, [caption])
  const page = pdf.addPage([sheet.widthMm * PT_PER_MM, sheet.heightMm * PT_PER_MM])
  const top = page.getHeight()
  const images = new Map<string, PDFImage>()
  for (const { picture, map, inked } of prints) {
    let image = images.get(picture.id)
    if (!image) images.set(picture.id, (image = await embed(pdf, picture)))
    const name = page.node.newXObject('Picture', image.ref)
    page.pushOperators(
      pushGraphicsState(),
      ...regionRings(inked).flatMap((ring) => [
        ...Array.from({ length: ring.length / 2 }, (_, i) => {
          const to = i === 0 ? moveTo : lineTo
          return to(ring[i * 2]! * PT_PER_MM, top - ring[i * 2 + 1]! * PT_PER_MM)
        }),
        closePath(),
      ]),
      clipEvenOdd(),
      endPath(),
      concatTransformationMatrix(...imageMatrix(map, picture, top)),
      drawObject(name),
      popGraphicsState(),
    )
  }
  for (const mark of sheet.marks ?? [])
    page.drawSvgPath(lineToPath(mark), {
      x: 0,
      y: top,
      scale: PT_PER_MM,
      borderColor: INK,
      borderWidth: 0.25,
    })
  const at = { x: 6 * PT_PER_MM, y: 2 * PT_PER_MM }
  type.draw(page, caption, { ...at, size: 5 })
  const barX = at.x + type.width(caption, 5) + 6
  page.drawLine({
    start: { x: barX, y: at.y + 1.5 },
    end: { x: barX + bar.mm * PT_PER_MM, y: at.y + 1.5 },
    thickness: 0.6,
    color: INK,
  })
  return pdf.save()
}

/** The map of a picture's unit square, its foot at 0, to points with y up. */
function imageMatrix(
  [a, b, c, d, e, f]: Affine,
  { pixelsWide: w, pixelsHigh: h }: InkedPicture['picture'],
  top: number,
): [number, number, number, number, number, number] {
  const k = PT_PER_MM
  return [a * w * k, -b * w * k, -c * h * k, d * h * k, (c * h + e) * k, top - (d * h + f) * k]
}

async function embed(pdf: PDFDocument, { type, data, name }: InkedPicture['picture']): Promise<PDFImage> {
  try {
    return await (type === 'image/png' ? pdf.embedPng(data) : pdf.embedJpg(data))
  } catch {
    throw new BadInput(`the picture “${name}” cannot be read: bring it in again`)
  }
}
