// What drawings at true size have in common.
import type { PDFPage } from '@cantoo/pdf-lib'
import { INK, type Typeface } from './typeface'

/** PDF points in a mm. */
export const PT_PER_MM = 72 / 25.4
/** A page of A4, points. */
export const A4 = { w: 210 * PT_PER_MM, h: 297 * PT_PER_MM }

/** Round what is drawn at true size, for the caption under it, and what a ruler is held to; mm. */
export const TRUE_SIZE = { marginMm: 8, captionMm: 9, barMm: 50 } as const

/** The caption under a drawing at true size, and the bar under that. */
export function drawFoot(page: PDFPage, type: Typeface, caption: string): void {
  const { marginMm, barMm } = TRUE_SIZE
  type.draw(page, caption, { x: marginMm * PT_PER_MM, y: 5 * PT_PER_MM, size: 6 })
  page.drawLine({
    start: { x: marginMm * PT_PER_MM, y: 3 * PT_PER_MM },
    end: { x: (marginMm + barMm) * PT_PER_MM, y: 3 * PT_PER_MM },
    thickness: 0.6,
    color: INK,
  })
}
