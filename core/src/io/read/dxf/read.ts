// A DXF drawing as closed shapes, one per layer (or per colour, where all lies on one layer). Lines, arcs and splines that
// meet end to end are chained to rings; what stays open is left out and said so.
import {
  compose,
  fillRings,
  mapRegion,
  regionBox,
  ringBox,
  rotation,
  scaling,
  smoothLine,
  translation,
  type Affine,
  type Ring,
} from '../../../base/geometry'
import { BadInput } from '../../../base'
import { numberOf, numbersOf, parseDxf, textOf, type DxfEntity } from '../../dxf-pairs'
import type { Drawing, LeftOut } from '../svg/read'

/** Ends nearer than this (mm) are one point. */
const JOIN_MM = 0.02
const TOLERANCE_MM = 0.01
const MAX_ENTITIES = 200_000
const MAX_DEPTH = 12
/** Coordinates beyond this are damage, not drawing. */
const MOST = 1e6

/** mm per drawing unit by $INSUNITS. */
const UNITS: Record<number, number> = {
  0: 1,
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: 25.4e-6,
  9: 0.0254,
  10: 914.4,
  14: 100,
}

/** The first seven colours by index; others by the number's own spread of hues. */
const COLOURS: Record<number, string> = {
  1: '#d03a3a',
  2: '#d9b93a',
  3: '#3a9a4a',
  4: '#3a9ab0',
  5: '#3a55b0',
  6: '#a03a9a',
  7: '#3a3d42',
  8: '#808080',
  9: '#c0c0c0',
}
const colourOf = (index: number): string =>
  COLOURS[index] ??
  `#${[0, 1, 2].map((k) => (90 + ((index * (37 + k * 29)) % 130)).toString(16).padStart(2, '0')).join('')}`

interface Curve {
  points: number[]
  closed: boolean
  layer: string
  colour: number
}

interface XY {
  x: number
  y: number
  bulge?: number
}

/** Reads a DXF file (text). Shapes lie in mm, y down, from the top left of all that is drawn. Throws BadInput. */
export function readDxf(text: string): Drawing {
  const file = parseDxf(text)
  const unit = UNITS[file.insUnits] ?? 1
  const left = new Map<string, number>()
  const curves: Curve[] = []
  let count = 0
  const take = (entities: readonly DxfEntity[], map: Affine, depth: number) => {
    for (const entity of entities) {
      if (++count > MAX_ENTITIES)
        throw new BadInput(`the drawing has more than ${MAX_ENTITIES.toLocaleString('en')} parts`)
      if (entity.type === 'INSERT') {
        const block = file.blocks.get(textOf(entity, 2) ?? '')
        if (block && depth < MAX_DEPTH)
          take(block.entities, compose(map, insertMap(entity, block.base)), depth + 1)
        continue
      }
      const drawn = flatten(entity)
      if (!drawn) {
        left.set(entity.type.toLowerCase(), (left.get(entity.type.toLowerCase()) ?? 0) + 1)
        continue
      }
      const mapped: number[] = []
      for (let i = 0; i + 1 < drawn.points.length; i += 2) {
        const [x, y] = [drawn.points[i]!, drawn.points[i + 1]!]
        if (Math.abs(x) < MOST && Math.abs(y) < MOST)
          mapped.push(map[0] * x + map[2] * y + map[4], map[1] * x + map[3] * y + map[5])
      }
      const layer = textOf(entity, 8) ?? '0'
      const own = numberOf(entity, 62, 256)
      curves.push({
        points: mapped,
        closed: drawn.closed,
        layer,
        colour: own > 0 && own < 256 ? own : (file.layerColours.get(layer) ?? 7),
      })
    }
  }
  take(file.entities, scaling(unit, -unit), 0)
  const byName = new Set(curves.map((curve) => curve.layer)).size > 1
  const groups = new Map<string, Curve[]>()
  for (const curve of curves) {
    const key = byName ? curve.layer : String(curve.colour)
    groups.set(key, [...(groups.get(key) ?? []), curve])
  }
  const shapes = [...groups].flatMap(([key, list]) => {
    const { rings, open } = chain(list)
    if (open > 0) left.set('open line', (left.get('open line') ?? 0) + open)
    const region = fillRings(rings, 'evenodd')
    return region.length === 0
      ? []
      : [{ region, box: regionBox(region), colour: colourOf(list[0]!.colour), group: byName ? key : null }]
  })
  if (shapes.length === 0) throw new BadInput('the drawing holds no closed shapes that can be cut')
  const all = regionBox(shapes.flatMap((s) => s.region))
  const move = translation(-all.minX, -all.minY)
  return {
    shapes: shapes.map((s) => {
      const region = mapRegion(move, s.region)
      return { ...s, region, box: regionBox(region) }
    }),
    leftOut: [...left].map(([what, n]): LeftOut => ({ what, count: n })),
    widthMm: all.maxX - all.minX,
    heightMm: all.maxY - all.minY,
    leftAt: [],
    linesOnly: false,
  }
}

function insertMap(entity: DxfEntity, base: XY): Affine {
  const scale = scaling(numberOf(entity, 41, 1), numberOf(entity, 42, 1))
  return compose(
    translation(numberOf(entity, 10), numberOf(entity, 20)),
    compose(rotation(numberOf(entity, 50)), compose(scale, translation(-base.x, -base.y))),
  )
}

const radians = (deg: number): number => (deg * Math.PI) / 180

/** Points of an entity in its own units; null for what is no outline. */
function flatten(entity: DxfEntity): { points: number[]; closed: boolean } | null {
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
        points: arc(centre.x, centre.y, numberOf(entity, 40), 0, 2 * Math.PI).slice(0, -2),
        closed: true,
      }
    case 'ARC': {
      const from = radians(numberOf(entity, 50))
      const to = radians(numberOf(entity, 51))
      return {
        points: arc(centre.x, centre.y, numberOf(entity, 40), from, to > from ? to : to + 2 * Math.PI),
        closed: false,
      }
    }
    case 'ELLIPSE':
      return ellipseOf(
        centre,
        at(11, 21),
        numberOf(entity, 40, 1),
        numberOf(entity, 41),
        numberOf(entity, 42, 2 * Math.PI),
      )
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

/** Points along a circle, chords within the tolerance (as if units were mm or larger). */
function arc(cx: number, cy: number, r: number, from: number, to: number): number[] {
  const step = 2 * Math.acos(Math.max(0.9, 1 - TOLERANCE_MM / Math.max(Math.abs(r), TOLERANCE_MM * 2)))
  const n = Math.max(2, Math.min(20_000, Math.ceil(Math.abs(to - from) / step) || 2))
  return Array.from({ length: n + 1 }, (_, i) => from + ((to - from) * i) / n).flatMap((a) => [
    cx + r * Math.cos(a),
    cy + r * Math.sin(a),
  ])
}

function polyline(vertices: readonly XY[], closed: boolean): { points: number[]; closed: boolean } | null {
  if (!vertices || vertices.length < 2) return null
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
    const [cx, cy] = [mx - (h * (b.y - a.y)) / chord, my + (h * (b.x - a.x)) / chord]
    const start = Math.atan2(a.y - cy, a.x - cx)
    points.push(...arc(cx, cy, Math.abs(r), start, start + angle).slice(2, -2))
  }
  return { points, closed }
}

function ellipseOf(
  c: XY,
  major: XY,
  ratio: number,
  from: number,
  end: number,
): { points: number[]; closed: boolean } {
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
function splineOf(entity: DxfEntity, closed: boolean): { points: number[]; closed: boolean } | null {
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
  return { points, closed }
}

/** Closed rings of curves; open ones are joined end to end where their ends meet. */
function chain(curves: readonly Curve[]): { rings: Ring[]; open: number } {
  const rings: Ring[] = []
  const open: number[][] = []
  const meets = (ax: number, ay: number, bx: number, by: number) => Math.hypot(ax - bx, ay - by) <= JOIN_MM
  for (const { points, closed } of curves) {
    const n = points.length
    if (n >= 6 && (closed || meets(points[0]!, points[1]!, points[n - 2]!, points[n - 1]!)))
      rings.push(Float64Array.from(points))
    else if (n >= 4) open.push(points)
  }
  // Ends by the cell of a grid, so that large drawings chain in time.
  const cell = (x: number, y: number) => `${Math.round(x / (JOIN_MM * 4))} ${Math.round(y / (JOIN_MM * 4))}`
  const ends = new Map<string, Set<number>>()
  const note = (i: number) => {
    const p = open[i]!
    for (const [x, y] of [
      [p[0]!, p[1]!],
      [p.at(-2)!, p.at(-1)!],
    ] as const)
      for (const [dx, dy] of [
        [0, 0],
        [1, 0],
        [0, 1],
        [1, 1],
      ] as const) {
        // prettier-ignore
        const key = cell(x + (dx - 0.5) * JOIN_MM * 4, y + (dy - 0.5) * JOIN_MM * 4)
        ends.set(key, (ends.get(key) ?? new Set()).add(i))
      }
  }
  open.forEach((_, i) => note(i))
  const used = new Set<number>()
  let lost = 0
  for (let i = 0; i < open.length; i++) {
    if (used.has(i)) continue
    used.add(i)
    const line = [...open[i]!]
    for (;;) {
      const [x, y] = [line.at(-2)!, line.at(-1)!]
      if (line.length >= 8 && meets(line[0]!, line[1]!, x, y)) break
      let next = -1
      let back = false
      for (const [dx, dy] of [
        [0, 0],
        [1, 0],
        [0, 1],
        [1, 1],
      ] as const) {
        // prettier-ignore
        for (const j of ends.get(cell(x + (dx - 0.5) * JOIN_MM * 4, y + (dy - 0.5) * JOIN_MM * 4)) ?? []) {
          if (used.has(j)) continue
          const p = open[j]!
          if (meets(p[0]!, p[1]!, x, y)) [next, back] = [j, false]
          else if (meets(p.at(-2)!, p.at(-1)!, x, y)) [next, back] = [j, true]
          if (next >= 0) break
        }
        if (next >= 0) break
      }
      if (next < 0) break
      used.add(next)
      const p = open[next]!
      if (back) for (let k = p.length - 4; k >= 0; k -= 2) line.push(p[k]!, p[k + 1]!)
      else line.push(...p.slice(2))
    }
    const closed = line.length >= 8 && meets(line[0]!, line[1]!, line.at(-2)!, line.at(-1)!)
    const b = ringBox(Float64Array.from(line))
    if (closed && b.maxX - b.minX > 0 && b.maxY - b.minY > 0) rings.push(Float64Array.from(line))
    else lost++
  }
  return { rings, open: lost }
}
