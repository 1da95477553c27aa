import { polygonRings, type Polygon, type Ring } from '../../base/geometry'

/** What a line is for: cut out, cut in as a slit, scored for a fold, a number, a cross where another piece goes. */
export type LineKind = 'cut' | 'slit' | 'fold' | 'number' | 'place'

/** One way of the tool: closed rings come back to their start. */
export interface ToolWay {
  kind: LineKind
  /** x0, y0, x1, y1, … */
  line: Float64Array
}

/** One sheet as the cutter gets it: everything in mm from the sheet's top left corner, y down. */
export interface CutSheet {
  title: string
  widthMm: number
  heightMm: number
  /** In cutting order: what lies inside comes before what is round it. */
  pieces: readonly {
    layerName: string
    folio: string
    shape: Polygon
    lines: readonly { kind: Exclude<LineKind, 'cut'>; line: Float64Array }[]
  }[]
  /** Marks that a printed sheet is cut by: they are on the print, and not cut. */
  marks?: readonly Float64Array[]
  /** The way of the tool over the whole sheet, in order, for machines that follow it as it stands. */
  ways: readonly ToolWay[]
}

/** Rings of a piece in cutting order: openings before the outline, so that nothing moves before it is done. */
export const cuttingRings = (shape: Polygon): Ring[] => polygonRings(shape).toReversed()

/** A length as it is written into files: mm to a thousandth. */
export const num = (mm: number): string => String(Math.round(mm * 1000) / 1000)

/** An open line as path data. */
export function lineToPath(line: ArrayLike<number>): string {
  let d = ''
  for (let i = 0; i < line.length; i += 2) d += `${i === 0 ? 'M' : 'L'}${num(line[i]!)} ${num(line[i + 1]!)}`
  return d
}
