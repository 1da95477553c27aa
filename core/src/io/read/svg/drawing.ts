import type { Box, Point, Region } from '../../../base/geometry'

/** One painted area. */
export interface PaintedShape {
  region: Region
  box: Box
  /** #rrggbb */
  colour: string
  /** Name of the top-level group it stands in; null where there is none with a name. */
  group: string | null
}

/** What is not drawn, and how often it came. */
export interface LeftOut {
  what: string
  count: number
}

/** A drawing as it paints: shapes in paint order, mm of the page, y down. */
export interface Drawing {
  shapes: PaintedShape[]
  leftOut: LeftOut[]
  widthMm: number
  heightMm: number
  /** Where things were left out, mm in the page. */
  leftAt: { what: string; at: Point }[]
  /** Nothing but hairlines is drawn: whether they are outlines of pieces is the maker's to say. */
  linesOnly: boolean
}

/** Strokes thinner than this (mm) are lines for the blade, not card. */
export const HAIRLINE_MM = 0.2

/** What a drawing of nothing but hairlines means: the outlines of its pieces, or the thin lines it shows. */
export type Outlines = 'pieces' | 'lines'

/** How a drawing is read. */
export interface ReadOptions {
  outlines?: Outlines
  /** Strokes from this width on (mm, at true size) are card; thinner ones are lines for the blade. */
  hairlineMm?: number
  /** Outlines of words, thousandths of the em, baseline at 0, with their advance; without it text is left out. */
  outlineText?: (words: string) => { region: Region; advance: number }
  /** Told now and then which share of the drawing is read. */
  onProgress?: (share: number) => void
}
