// Curves become chords: a handful of helpers to draw outlines by code and to read them from files.
import type { Polygon, Ring } from './types'

/** A cubic Bézier: its start, its two control points, its end. */
export type Cubic = readonly [Place, Place, Place, Place]
type Place = readonly [x: number, y: number]

/** Points of a cubic Bézier after its start, to within the tolerance (mm); pushes x, y pairs onto `out`. */
export function flattenCubic(
  out: number[],
  [[x0, y0], [x1, y1], [x2, y2], [x3, y3]]: Cubic,
  tolerance: number,
): void {
  // Wang's bound: this many even steps keep every chord within the tolerance.
  const bend = Math.max(
    Math.hypot(x0 - 2 * x1 + x2, y0 - 2 * y1 + y2),
    Math.hypot(x1 - 2 * x2 + x3, y1 - 2 * y2 + y3),
  )
  const steps = Math.min(400, Math.max(1, Math.ceil(Math.sqrt((0.75 * bend) / tolerance))))
  for (let k = 1; k < steps; k++) {
    const t = k / steps
    const s = 1 - t
    const a = s * s * s
    const b = 3 * s * s * t
    const c = 3 * s * t * t
    const d = t * t * t
    out.push(a * x0 + b * x1 + c * x2 + d * x3, a * y0 + b * y1 + c * y2 + d * y3)
  }
  out.push(x3, y3)
}

/** A circle or ellipse whose chords stray at most 0.01 mm. */
export function ellipse([cx, cy]: readonly [number, number], rx: number, ry = rx): Polygon {
  const r = Math.max(rx, ry, 0.1)
  const n = Math.max(16, Math.ceil(Math.PI / Math.acos(Math.max(-1, 1 - 0.01 / r))))
  const ring = new Float64Array(n * 2)
  for (let i = 0; i < n; i++) {
    const a = (i / n) * 2 * Math.PI
    ring[i * 2] = cx + rx * Math.cos(a)
    ring[i * 2 + 1] = cy + ry * Math.sin(a)
  }
  return { outer: ring, holes: [] }
}

/** A smooth line through the given points (Catmull–Rom); closed lines return to the first point. */
export function smoothLine(
  points: readonly (readonly [number, number])[],
  closed = false,
  tolerance = 0.03,
): Ring {
  const n = points.length
  const at = (i: number) => (closed ? points[((i % n) + n) % n]! : points[Math.max(0, Math.min(n - 1, i))]!)
  const out: number[] = [points[0]![0], points[0]![1]]
  for (let i = 0; i < (closed ? n : n - 1); i++) {
    const [p0, p1, p2, p3] = [at(i - 1), at(i), at(i + 1), at(i + 2)]
    flattenCubic(
      out,
      [
        [p1[0], p1[1]],
        [p1[0] + (p2[0] - p0[0]) / 6, p1[1] + (p2[1] - p0[1]) / 6],
        [p2[0] - (p3[0] - p1[0]) / 6, p2[1] - (p3[1] - p1[1]) / 6],
        [p2[0], p2[1]],
      ],
      tolerance,
    )
  }
  if (closed) out.length -= 2
  return Float64Array.from(out)
}
