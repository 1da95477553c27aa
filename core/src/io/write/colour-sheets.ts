// PDFs at true size that say where a layer is coloured by hand: what shows and the bleed round it, the darker edge, dots.
import { FillRule, PDFDocument, rgb } from '@cantoo/pdf-lib'
import { boxHeight, boxWidth, regionBox, regionRings, type Region } from '../../base/geometry'
import { lineToPath } from './cut-sheet'
import type { Unit } from '../../base/units'
import { barFor, drawFoot, PT_PER_MM, TRUE_SIZE } from './pdf-parts'
import { channels } from './pictures'
import { INK, Typeface, type Faces } from './typeface'

/** A layer to be coloured, seen from the front. mm, y down. */
export interface ColourSheet {
  title: string
  card: Region
  wash: Region
  washColour: string
  edge: Region
  edgeColour: string
  dots: readonly (readonly [number, number])[]
}

const { marginMm: MARGIN_MM, captionMm: CAPTION_MM } = TRUE_SIZE
const DOT_MM = 0.5

/** One page a layer, each as large as its layer asks for. */
export async function writeColourSheets(
  sheets: readonly ColourSheet[],
  faces: Faces,
  unit: Unit,
): Promise<Uint8Array> {
  const bar = barFor(unit)
  const pdf = await PDFDocument.create()
  const captions = sheets.map(
    ({ title }) =>
      `${title}, from the front, at true size: colour up to the dots and over the edges. Bar ${bar.words}`,
  )
  const type = await Typeface.in(pdf, faces, captions)
  sheets.forEach(({ card, wash, washColour, edge, edgeColour, dots }, i) => {
    const b = regionBox(card)
    const wide = Math.max(boxWidth(b), bar.mm) + 2 * MARGIN_MM
    const page = pdf.addPage([wide * PT_PER_MM, (boxHeight(b) + 2 * MARGIN_MM + CAPTION_MM) * PT_PER_MM])
    const at = {
      x: (MARGIN_MM - b.minX) * PT_PER_MM,
      y: page.getHeight() - (MARGIN_MM - b.minY) * PT_PER_MM,
      scale: PT_PER_MM,
    }
    const pathOf = (region: Region) =>
      regionRings(region)
        .map((ring) => `${lineToPath(ring)}Z`)
        .join('')
    const fill = (region: Region, colour: string, opacity: number) => {
      if (region.length > 0)
        page.drawSvgPath(pathOf(region), {
          ...at,
          color: rgb(...channels(colour)),
          opacity,
          fillRule: FillRule.EvenOdd,
        })
    }
    fill(wash, washColour, 0.35)
    fill(edge, edgeColour, 0.6)
    page.drawSvgPath(pathOf(card), { ...at, borderColor: INK, borderWidth: 0.2 })
    for (const [x, y] of dots)
      page.drawCircle({
        x: at.x + x * PT_PER_MM,
        y: at.y - y * PT_PER_MM,
        size: (DOT_MM / 2) * PT_PER_MM,
        color: INK,
      })
    drawFoot(page, type, { caption: captions[i]!, bar })
  })
  return pdf.save()
}
