import { rgb } from '@cantoo/pdf-lib'

/** PDF points in a mm. */
export const PT_PER_MM = 72 / 25.4
/** A page of A4, points. */
export const A4 = { w: 210 * PT_PER_MM, h: 297 * PT_PER_MM }
/** Near-black, as on screen. */
export const INK = rgb(0.12, 0.13, 0.15)
