/** A closed ring as x0, y0, x1, y1, …; mm, y down; the first point is not repeated. */
export type Ring = Float64Array

/** One connected face of card: an outer ring with positive area and holes with negative area. */
export interface Polygon {
  readonly outer: Ring
  readonly holes: readonly Ring[]
}

/** Any number of faces that do not overlap each other. */
export type Region = readonly Polygon[]

/** An axis-parallel box in mm. Empty where minX > maxX. */
export interface Box {
  minX: number
  minY: number
  maxX: number
  maxY: number
}

/** A point, mm, y down. */
export interface Point {
  x: number
  y: number
}
