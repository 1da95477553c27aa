// Small drawings beside the lines of a PDF: shapes in their colours, fitted into a place. mm, y down.
import { FillRule, rgb, type PDFPage } from '@cantoo/pdf-lib'
import { boxHeight, boxWidth, regionRings, simplify, type Box, type Region } from '../../base/geometry'
import { lineToPath } from './cut-sheet'
import { INK } from './typeface'

/** What is drawn, the hindmost first. */
export interface SmallPicture {
  box: Box
  shapes: readonly {
    region: Region
    colour: string
    /** Paler than it is: what is only beneath. */ pale?: boolean
  }[]
}

/** Outlines this little astray are not seen in a picture of a few cm (mm). */
const STRAY_MM = 0.25
const PALER = 0.3

/** The red, green and blue of #rrggbb, 0 to 1. */
export const channels = (hex: string): [number, number, number] => {
  const value = Number.parseInt(hex.slice(1), 16)
  return [(value >> 16) / 255, ((value >> 8) & 255) / 255, (value & 255) / 255]
}

/** Draws a picture into a place of a page: its upper left corner and size in points. Needs the geometry loaded. */
export function drawPicture(
  page: PDFPage,
  { box, shapes }: SmallPicture,
  { x, y, width, height }: { x: number; y: number; width: number; height: number },
): void {
  const scale = Math.min(width / Math.max(1e-6, boxWidth(box)), height / Math.max(1e-6, boxHeight(box)))
  const left = x + (width - boxWidth(box) * scale) / 2 - box.minX * scale
  const top = y - (height - boxHeight(box) * scale) / 2 + box.minY * scale
  for (const { region, colour, pale = false } of shapes) {
    const d = regionRings(simplify(region, Math.max(STRAY_MM, boxWidth(box) / 600)))
      .map((ring) => `${lineToPath(ring)}Z`)
      .join('')
    if (d === '') continue
    page.drawSvgPath(d, {
      x: left,
      y: top,
      scale,
      color: rgb(...channels(colour)),
      opacity: pale ? PALER : 1,
      borderColor: INK,
      borderOpacity: pale ? PALER : 0.8,
      borderWidth: 0.35 / scale,
      fillRule: FillRule.EvenOdd,
    })
  }
}
