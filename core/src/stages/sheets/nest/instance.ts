import type { Polygon } from '../../../base/geometry'

/** How a piece may be turned: at will, by quarters, not at all. */
export type Turns = 'free' | 'quarter' | 'fixed'

/** A shape to lay, so many times. */
export interface NestPiece {
  id: string
  shape: Polygon
  qty: number
  turns: Turns
  /** Pieces that belong together, such as those of a layer. */
  group?: string
  /** Whether the group must lie on one sheet, or on sheets that no other group shares. */
  sharing?: 'one-sheet' | 'own-sheets'
}

/**
 * A placement turns the piece's points about the origin (degrees, clockwise on screen), then moves them by x, y (mm).
 * Whole sheets are numbered from 0; off-cut k is sheet −1 − k.
 */
export interface Placement {
  id: string
  copy: number
  sheet: number
  x: number
  y: number
  rotation: number
}

/** A left-over sheet of any outline, holes included; its box begins at 0,0. */
export interface OffCutSheet {
  id: string
  outline: Polygon
  /** Kept free along its edges, mm. */
  margin: number
}

/** What is to be laid on which sheets. Lengths in mm. */
export interface NestInstance {
  /** Sheet in mm; `margin` is the rim the blade cannot reach. */
  sheet: { w: number; h: number; margin: number }
  /** Least distance between pieces, mm. */
  gap: number
  pieces: readonly NestPiece[]
  /** Used before any whole sheet is cut into, in this order. */
  offCuts?: readonly OffCutSheet[]
  /** Placements that must stay as they are. */
  pinned?: readonly Placement[]
}

/** Where everything lies. */
export interface NestLayout {
  placements: Placement[]
  /** Whole sheets. */
  sheets: number
  /** (sheets − 1) + share of the last sheet's cuttable area that one straight cut takes away to keep the rest whole. */
  score: number
  /** Card in pieces as a share of the sheets and off-cuts used. */
  utilisation: number
}
