/** Lengths that differ by less count as equal, mm. */
export const TOLERANCE_MM = 0.05
