// Figures and a few letters of single strokes, for a pen or a blade. None closes on itself, so that nothing drops out when they are cut.
import { mapRing, type Affine, type Point } from '../../../base/geometry'

/** Strokes on a field 4 wide and 6 high, y down. */
const DIGITS: readonly (readonly (readonly number[])[])[] = [
  [[2.6, 0.1, 4, 1.2, 4, 4.8, 2.6, 6, 1.4, 6, 0, 4.8, 0, 1.2, 1.4, 0.1]],
  [[0.8, 1.4, 2, 0, 2, 6]],
  [[0, 1.4, 1, 0, 3, 0, 4, 1.2, 4, 2.2, 0, 6, 4, 6]],
  [[0, 0, 4, 0, 1.8, 2.4, 3, 2.6, 4, 3.6, 4, 4.8, 3, 6, 1, 6, 0, 5]],
  [
    [2.4, 0, 0, 4.2, 4, 4.2],
    [3, 2.4, 3, 3.8],
    [3, 4.6, 3, 6],
  ],
  [[4, 0, 0.4, 0, 0.2, 2.4, 2.8, 2.2, 4, 3.4, 4, 4.8, 3, 6, 1, 6, 0, 5]],
  [[3.4, 0, 0.6, 2.6, 0, 4.2, 0.4, 5.4, 1.6, 6, 3, 6, 4, 5, 4, 3.8, 3, 2.9, 1.8, 2.9]],
  [[0, 0, 4, 0, 1.4, 6]],
  [
    [2.6, 2.6, 3.8, 1.6, 3.4, 0.4, 2, 0, 0.6, 0.4, 0.2, 1.6, 1.4, 2.6],
    [1.4, 3.3, 0, 4.3, 0.4, 5.6, 2, 6, 3.6, 5.6, 4, 4.3, 2.6, 3.3],
  ],
  [[0.6, 6, 3.4, 3.4, 4, 1.8, 3.6, 0.6, 2.4, 0, 1, 0, 0, 1, 0, 2.2, 1, 3.1, 2.2, 3.1]],
]
const LETTERS: Readonly<Record<string, readonly (readonly number[])[]>> = {
  A: [
    [0, 6, 2, 0, 4, 6],
    [1.6, 4.2, 2.4, 4.2],
  ],
  B: [
    [0, 0, 0, 6],
    [0.7, 0, 2.8, 0.2, 3.4, 1.4, 2.6, 2.7, 0.7, 2.7],
    [0.7, 3.4, 3, 3.5, 4, 4.6, 3, 6, 0.7, 6],
  ],
  C: [[4, 1, 3, 0, 1, 0, 0, 1.2, 0, 4.8, 1, 6, 3, 6, 4, 5]],
  D: [
    [0, 0, 0, 6],
    [0.7, 0, 2.6, 0, 4, 1.6, 4, 4.4, 2.6, 6, 0.7, 6],
  ],
  E: [
    [4, 0, 0, 0, 0, 6, 4, 6],
    [0.6, 3, 3, 3],
  ],
  F: [
    [4, 0, 0, 0, 0, 6],
    [0.6, 3, 3, 3],
  ],
}
const ADVANCE = 5.4
/** A roof over the figures that tells which way is up. */
const ROOF_MM = 1.6

/**
 * A number, with a letter from A to F before it or none, as open strokes within a circle about a point (mm); with `roof`, a
 * small angle above it points to the top of the design, for layers that look right the wrong way round.
 */
export function numberStrokes(
  text: string,
  { x, y }: Point,
  { radiusMm, roof = false }: { radiusMm: number; roof?: boolean },
): Float64Array[] {
  const signs = [...text].map((sign) => LETTERS[sign] ?? DIGITS[Number(sign)] ?? [])
  const width = (signs.length - 1) * ADVANCE + 4
  const height = 6 + (roof ? ROOF_MM + 0.8 : 0)
  const scale = (2 * radiusMm) / Math.hypot(width, height)
  const at = (dx: number, dy: number): Affine => [
    scale,
    0,
    0,
    scale,
    x + (dx - width / 2) * scale,
    y + (dy - height / 2) * scale,
  ]
  const top = height - 6
  const strokes = signs.flatMap((sign, k) =>
    sign.map((stroke) => mapRing(at(k * ADVANCE, top), Float64Array.from(stroke))),
  )
  if (roof) strokes.push(mapRing(at(width / 2, 0), Float64Array.of(-1.6, ROOF_MM, 0, 0, 1.6, ROOF_MM)))
  return strokes
}
