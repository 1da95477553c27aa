// Entities of a DXF drawing as lines of points, in the units of the drawing.
import { smoothLine } from '../../../base/geometry'
import type { Outline } from '../chain'
import { numberOf, numbersOf, type DxfEntity } from '../../dxf-pairs'

/** Chords lie within this of a circle (mm, as if units were mm or larger). */
const TOLERANCE_MM = 0.01

interface XY {
  x: number
  y: number
  bulge?: number
}

const radians = (deg: number): number => (deg * Math.PI) / 180

/** Points of an entity in its own units; null for what is no outline. */
export function outlineOf(entity: DxfEntity): Outline | null {
  const at = (x: number, y: number): XY => ({ x: numberOf(entity, x), y: numberOf(entity, y) })
  const centre = at(10, 20)
  const closed = (numberOf(entity, 70) & 1) === 1
  switch (entity.type) {
    case 'LINE':
      return { points: [centre.x, centre.y, numberOf(entity, 11), numberOf(entity, 21)], closed: false }
    case 'LWPOLYLINE':
      return polyline(lightVertices(entity), closed)
    case 'POLYLINE':
      return polyline(
        entity.vertices.map((v) => ({ x: numberOf(v, 10), y: numberOf(v, 20), bulge: numberOf(v, 42) })),
        closed,
      )
    case 'CIRCLE':
      return {
        points: arc({ centre, radius: numberOf(entity, 40), from: 0, to: 2 * Math.PI }).slice(0, -2),
        closed: true,
      }
    case 'ARC': {
      const from = radians(numberOf(entity, 50))
      const to = radians(numberOf(entity, 51))
      return {
        points: arc({ centre, radius: numberOf(entity, 40), from, to: to > from ? to : to + 2 * Math.PI }),
        closed: false,
      }
    }
    case 'ELLIPSE':
      return ellipseOf({
        centre,
        major: at(11, 21),
        ratio: numberOf(entity, 40, 1),
        from: numberOf(entity, 41),
        end: numberOf(entity, 42, 2 * Math.PI),
      })
    case 'SPLINE':
      return splineOf(entity, closed)
    default:
      return null
  }
}

/** Vertices of a light polyline: each 10 begins one, 42 gives its bulge. */
function lightVertices(entity: DxfEntity): XY[] {
  const out: XY[] = []
  for (const [code, value] of entity.pairs) {
    const v = Number(value)
    if (code === 10) out.push({ x: Number.isFinite(v) ? v : 0, y: 0 })
    const last = out.at(-1)
    if (!last || !Number.isFinite(v)) continue
    if (code === 20) last.y = v
    if (code === 42) last.bulge = v
  }
  return out
}

interface Arc {
  centre: XY
  radius: number
  /** Radians. */
  from: number
  to: number
}

/** Points along a circle, chords within the tolerance (as if units were mm or larger). */
function arc({ centre, radius, from, to }: Arc): number[] {
  const step = 2 * Math.acos(Math.max(0.9, 1 - TOLERANCE_MM / Math.max(Math.abs(radius), TOLERANCE_MM * 2)))
  const n = Math.max(2, Math.min(20_000, Math.ceil(Math.abs(to - from) / step) || 2))
  return Array.from({ length: n + 1 }, (_, i) => from + ((to - from) * i) / n).flatMap((a) => [
    centre.x + radius * Math.cos(a),
    centre.y + radius * Math.sin(a),
  ])
}

function polyline(vertices: readonly XY[], closed: boolean): Outline | null {
  if (vertices.length < 2) return null
  const points: number[] = []
  const n = vertices.length
  for (let i = 0; i < n; i++) {
    const a = vertices[i]!
    points.push(a.x, a.y)
    const b = vertices[(i + 1) % n]!
    if (!a.bulge || (!closed && i === n - 1)) continue
    // A bulge is the tangent of a quarter of the arc's angle, positive to the left.
    const angle = 4 * Math.atan(a.bulge)
    const chord = Math.hypot(b.x - a.x, b.y - a.y)
    if (chord === 0) continue
    const r = chord / (2 * Math.sin(angle / 2))
    const h = r * Math.cos(angle / 2)
    const [mx, my] = [(a.x + b.x) / 2, (a.y + b.y) / 2]
    const centre = { x: mx - (h * (b.y - a.y)) / chord, y: my + (h * (b.x - a.x)) / chord }
    const start = Math.atan2(a.y - centre.y, a.x - centre.x)
    for (const value of arc({ centre, radius: Math.abs(r), from: start, to: start + angle }).slice(2, -2))
      points.push(value)
  }
  return { points, closed }
}

interface EllipseArc {
  centre: XY
  /** From the centre to the end of the longer axis. */
  major: XY
  ratio: number
  /** Radians. */
  from: number
  end: number
}

function ellipseOf({ centre: c, major, ratio, from, end }: EllipseArc): Outline {
  const to = end > from ? end : end + 2 * Math.PI
  const whole = to - from > 2 * Math.PI - 1e-6
  const n = 180
  const points = Array.from({ length: whole ? n : n + 1 }, (_, i) => from + ((to - from) * i) / n).flatMap(
    (t) => [
      c.x + Math.cos(t) * major.x - Math.sin(t) * major.y * ratio,
      c.y + Math.cos(t) * major.y + Math.sin(t) * major.x * ratio,
    ],
  )
  return { points, closed: whole }
}

/** A B-spline by de Boor's rule; a spline of fit points alone as a smooth line through them. */
function splineOf(entity: DxfEntity, closed: boolean): Outline | null {
  const pairUp = (xs: number[], ys: number[]): XY[] =>
    xs.slice(0, ys.length).map((x, i) => ({ x, y: ys[i]! }))
  const control = pairUp(numbersOf(entity, 10), numbersOf(entity, 20))
  const fit = pairUp(numbersOf(entity, 11), numbersOf(entity, 21))
  const knots = numbersOf(entity, 40)
  const degree = Math.max(1, Math.min(10, Math.round(numberOf(entity, 71, 3))))
  if (control.length <= degree || knots.length < control.length + degree + 1)
    return fit.length > 2
      ? {
          points: [
            ...smoothLine(
              fit.map((p) => [p.x, p.y] as const),
              closed,
            ),
          ],
          closed,
        }
      : null
  return { points: deBoor(control, knots, degree), closed }
}

/** Points along a B-spline. */
function deBoor(control: readonly XY[], knots: readonly number[], degree: number): number[] {
  const n = Math.min(4000, control.length * 16)
  const [first, last] = [knots[degree]!, knots[control.length]!]
  const points: number[] = []
  for (let i = 0; i <= n; i++) {
    const t = first + ((last - first) * i) / n
    let k = degree
    while (k < control.length - 1 && t >= knots[k + 1]!) k++
    const d = Array.from({ length: degree + 1 }, (_, j) => ({ ...control[k - degree + j]! }))
    for (let r = 1; r <= degree; r++)
      for (let j = degree; j >= r; j--) {
        const low = knots[k - degree + j]!
        const span = knots[j + 1 + k - r]! - low
        const a = span === 0 ? 0 : (t - low) / span
        d[j] = { x: d[j - 1]!.x * (1 - a) + d[j]!.x * a, y: d[j - 1]!.y * (1 - a) + d[j]!.y * a }
      }
    points.push(d[degree]!.x, d[degree]!.y)
  }
  return points
}
