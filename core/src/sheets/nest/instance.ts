import type { Polygon } from '../../geometry'

export type Turns = 'free' | 'quarter' | 'fixed'

export interface NestPiece {
  id: string
  shape: Polygon
  qty: number
  turns: Turns
}

/** A placement turns the piece's points about the origin (degrees, clockwise on screen), then moves them by x, y (mm). */
export interface Placement {
  id: string
  copy: number
  sheet: number
  x: number
  y: number
  rotation: number
}

export interface NestInstance {
  /** Sheet in mm; `margin` is the rim the blade cannot reach. */
  sheet: { w: number; h: number; margin: number }
  /** Least distance between pieces, mm. */
  gap: number
  pieces: readonly NestPiece[]
  /** Placements that must stay as they are. */
  pinned?: readonly Placement[]
}

export interface NestLayout {
  placements: Placement[]
  sheets: number
  /** (sheets − 1) + share of the last sheet's cuttable area that one straight cut takes away to keep the rest whole. */
  score: number
  /** Card in pieces as a share of the sheets used. */
  utilisation: number
}
