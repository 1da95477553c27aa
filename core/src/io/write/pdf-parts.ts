// What drawings at true size have in common.
import type { PDFPage } from '@cantoo/pdf-lib'
import { MM_PER_INCH, type Unit } from '../../base/units'
import { INK, type Typeface } from './typeface'

/** PDF points in a mm. */
export const PT_PER_MM = 72 / 25.4
/** A page of A4, points. */
export const A4 = { w: 210 * PT_PER_MM, h: 297 * PT_PER_MM }

/** Round what is drawn at true size, and for the caption under it; mm. */
export const TRUE_SIZE = { marginMm: 8, captionMm: 9 } as const

/** What a ruler is held to: its length, mm, and what the ruler says of it. */
export interface Bar {
  mm: number
  words: string
}

/** The bar for a maker's ruler. */
export const barFor = (unit: Unit): Bar =>
  unit === 'in' ? { mm: 2 * MM_PER_INCH, words: '2 in' } : { mm: 50, words: '50 mm' }

/** The caption under a drawing at true size, and the bar under that. */
export function drawFoot(
  page: PDFPage,
  type: Typeface,
  { caption, bar }: { caption: string; bar: Bar },
): void {
  const { marginMm } = TRUE_SIZE
  type.draw(page, caption, { x: marginMm * PT_PER_MM, y: 5 * PT_PER_MM, size: 6 })
  page.drawLine({
    start: { x: marginMm * PT_PER_MM, y: 3 * PT_PER_MM },
    end: { x: (marginMm + bar.mm) * PT_PER_MM, y: 3 * PT_PER_MM },
    thickness: 0.6,
    color: INK,
  })
}
