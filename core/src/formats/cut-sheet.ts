import { polygonRings, type Polygon, type Ring } from '../geometry'

/** One sheet as the cutter gets it: everything in mm from the sheet's top left corner, y down. */
export interface CutSheet {
  title: string
  widthMm: number
  heightMm: number
  pieces: readonly { layerName: string; folio: number; shape: Polygon }[]
}

/** Rings of a piece in cutting order: openings before the outline, so that nothing moves before it is done. */
export const cuttingRings = (shape: Polygon): Ring[] => polygonRings(shape).toReversed()

export const num = (mm: number): string => String(Math.round(mm * 1000) / 1000)
