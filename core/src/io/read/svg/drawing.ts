import type { Box, Point, Region } from '../../../base/geometry'

/** One painted area. */
export interface PaintedShape {
  region: Region
  box: Box
  /** #rrggbb */
  colour: string
  /** Name of the top-level group it stands in; null where there is none with a name. */
  group: string | null
  /** Number of the top-level element that it stands in, in paint order; null where that is not known. */
  part: number | null
  /** What an element is filled with, card that a pen covers along a line, or what outlines alone hold. */
  drawnBy: 'fill' | 'pen' | 'outline'
}

/** A straight line to fold along. */
export interface FoldLine {
  line: [number, number, number, number]
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
  /** What one unit was taken for, mm, where the file does not say how large it is; null where it does. */
  unitMm: number | null
  /** Where the page's corner lies in the file's own coordinates, mm, y down; null where the file has a page. */
  cornerMm: Point | null
  /** Where things were left out, mm in the page. */
  leftAt: { what: string; at: Point }[]
  /** Dashed lines, for a fold each: x1, y1, x2, y2, mm in the page, with the group that they stand in. */
  folds: FoldLine[]
  /** What it holds and does not show, left out or not. */
  unseen: readonly Unseen[]
  /** Nothing but hairlines is drawn: whether they are outlines of pieces is the maker's to say. */
  linesOnly: boolean
}

/** Straight stretches of a line of points that bends by less than a degree, each longer than a millimetre. */
export function foldLines(points: ArrayLike<number>, closed: boolean, group: string | null): FoldLine[] {
  const out: FoldLine[] = []
  const n = points.length / 2
  const at = (i: number) => [points[(i % n) * 2]!, points[(i % n) * 2 + 1]!] as const
  let start = 0
  const end = closed ? n : n - 1
  for (let i = 0; i < end; i++) {
    const [x0, y0] = at(start)
    const [x1, y1] = at(i + 1)
    const [x2, y2] = at(i + 2)
    const turn = Math.abs((x1 - x0) * (y2 - y1) - (y1 - y0) * (x2 - x1))
    const goesOn = i + 1 < end && turn <= BEND * Math.hypot(x1 - x0, y1 - y0) * Math.hypot(x2 - x1, y2 - y1)
    if (goesOn) continue
    if (Math.hypot(x1 - x0, y1 - y0) > SHORTEST_FOLD_MM) out.push({ line: [x0, y0, x1, y1], group })
    start = i + 1
  }
  return out
}

/** Sine of a degree. */
const BEND = 0.0175
const SHORTEST_FOLD_MM = 1

/** Strokes thinner than this (mm) are lines for the blade, not card. */
export const HAIRLINE_MM = 0.2

/** What a drawing of nothing but hairlines means: the outlines of its pieces, or the thin lines it shows. */
export type Outlines = 'pieces' | 'lines'

/** What a drawing does not show: shapes that are switched off, and those that lie wholly outside the page. */
export type Unseen = 'hidden' | 'outside'

/** How a drawing is read. */
export interface ReadOptions {
  outlines?: Outlines
  /** Strokes from this width on (mm, at true size) are card; thinner ones are lines for the blade. */
  hairlineMm?: number
  /** What one unit is, mm, where the file does not say how large it is: a CSS pixel in an SVG, 1 mm in a DXF, if it is not given. */
  unitMm?: number
  /** What comes in though the drawing does not show it; where it shows nothing else, that comes in at any rate. */
  unseen?: readonly Unseen[]
  /** Outlines of words, thousandths of the em, baseline at 0, with their advance; without it text is left out. */
  outlineText?: (words: string) => { region: Region; advance: number }
  /** Told now and then which share of the drawing is read. */
  onProgress?: (share: number) => void
}
