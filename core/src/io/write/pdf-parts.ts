import { rgb } from '@cantoo/pdf-lib'

export const PT_PER_MM = 72 / 25.4
export const A4 = { w: 210 * PT_PER_MM, h: 297 * PT_PER_MM }
export const INK = rgb(0.12, 0.13, 0.15)
