// The way of pen and blade over one sheet: marks first, then inner cuts before outer and small before large, with short
// travel between, each started away from points.
import {
  boxHeight,
  boxWidth,
  interiorPoint,
  polygonRings,
  ringBox,
  ringContains,
  type Box,
  type Polygon,
  type Ring,
} from '../../../base/geometry'
import type { Marks } from '../../layers'

/** A piece where it lies on a sheet, with what is drawn and scored on it. */
interface Laid {
  shape: Polygon
  marks: Marks
}

/** A line of the tool on the sheet, mm. */
export interface Stroke {
  kind: 'number' | 'place' | 'fold' | 'slit' | 'cut'
  /** A closed ring (the first point not repeated) or an open line, mm from the sheet's corner. */
  line: Float64Array
  closed: boolean
  /** Which of the load's pieces, from 0. */
  piece: number
}

/** All lines of a load in their order, and how far the tool travels, mm. */
export interface CutPath {
  strokes: Stroke[]
  /** With the tool lifted, from the sheet's lower left corner on. */
  travelMm: number
  /** The same in the order in which the pieces lie in the list. */
  plainTravelMm: number
}

/** Size classes, mm across: cuts of a smaller class come before all of a larger. */
const CLASSES = [15, 60, Infinity]
/** Turns sharper than this (radians) are points, where no cut should start. */
const POINT = Math.PI / 6
/** A straight edge longer than this may be started in its middle, mm. */
const LONG_MM = 4
const WINDOW = 60
const ROUNDS = 12

/** Orders everything that is drawn, scored and cut of a sheet. `heightMm` is the sheet's. */
export function cutPath(
  pieces: readonly Laid[],
  heightMm: number,
  numbers: 'drawn' | 'cut' | 'none',
): CutPath {
  const cutNumbers = numbers === 'cut'
  const open = (kind: Stroke['kind'], pick: (piece: Laid) => readonly Float64Array[]) =>
    pieces.flatMap((owner, piece) =>
      pick(owner).map((line): Stroke => ({ kind, line, closed: false, piece })),
    )
  const plain = [
    ...open('place', (p) => p.marks.places),
    ...open('number', (p) => p.marks.number),
    ...open('fold', (p) => p.marks.folds),
    ...open('slit', (p) => p.marks.slits),
    ...pieces.flatMap((owner, piece) =>
      polygonRings(owner.shape)
        .toReversed()
        .map((line): Stroke => ({ kind: 'cut', line, closed: true, piece })),
    ),
  ]
  const start = { x: 0, y: heightMm }
  const rings = plain
    .filter((s) => s.kind === 'cut')
    .map((stroke) => ({ stroke, box: ringBox(stroke.line), before: [] as number[] }))
  const groups: Stroke[][] = []
  for (const kind of cutNumbers
    ? (['place', 'fold', 'number', 'slit'] as const)
    : (['place', 'number', 'fold', 'slit'] as const))
    groups.push(plain.filter((s) => s.kind === kind))
  const across = (b: Box) => Math.hypot(boxWidth(b), boxHeight(b))
  CLASSES.forEach((limit, k) =>
    groups.push(
      ...byDepth(rings.filter(({ box }) => across(box) < limit && across(box) >= (CLASSES[k - 1] ?? 0))),
    ),
  )
  const strokes: Stroke[] = []
  let at = start
  for (const group of groups) {
    const ordered = shortWay(group, at)
    for (const stroke of ordered) {
      const moved = startedNear(stroke, at)
      strokes.push(moved)
      at = endOf(moved)
    }
  }
  return { strokes, travelMm: travel(strokes, start), plainTravelMm: travel(plain, start) }
}

interface RingBox {
  stroke: Stroke
  box: Box
}

/** Groups such that every ring that lies inside another comes in an earlier group. */
function byDepth(rings: readonly RingBox[]): Stroke[][] {
  const points = rings.map(({ stroke }) => interiorPoint(stroke.line))
  const depth = rings.map((inner, i) =>
    rings.reduce(
      (n, outer, k) =>
        n +
        Number(
          k !== i &&
            holds(outer.box, inner.box) &&
            larger(outer, inner) &&
            ringContains(outer.stroke.line, points[i]!.x, points[i]!.y),
        ),
      0,
    ),
  )
  const deepest = Math.max(0, ...depth)
  return Array.from({ length: deepest + 1 }, (_, d) =>
    rings.filter((_, i) => depth[i] === deepest - d).map(({ stroke }) => stroke),
  )
}

const holds = (a: Box, b: Box) => a.minX <= b.minX && a.minY <= b.minY && a.maxX >= b.maxX && a.maxY >= b.maxY
const larger = (a: RingBox, b: RingBox) =>
  boxWidth(a.box) * boxHeight(a.box) > boxWidth(b.box) * boxHeight(b.box)

/** Nearest next, then stretches turned round where that shortens the way (2-opt, Croes 1958, in a window). */
function shortWay(group: readonly Stroke[], from: { x: number; y: number }): Stroke[] {
  const rest = new Set(group)
  const order: Stroke[] = []
  let at = from
  while (rest.size > 0) {
    let best: Stroke | undefined
    let least = Infinity
    for (const stroke of rest) {
      const away = Math.hypot(stroke.line[0]! - at.x, stroke.line[1]! - at.y)
      if (away < least) {
        least = away
        best = stroke
      }
    }
    rest.delete(best!)
    order.push(best!)
    at = endOf(best!)
  }
  // Closed cuts end where they start, so that a stretch may be run backwards at no cost.
  if (order.some((stroke) => !stroke.closed)) return order
  const x = (k: number) => (k < 0 ? from.x : order[k]!.line[0]!)
  const y = (k: number) => (k < 0 ? from.y : order[k]!.line[1]!)
  const gap = (a: number, b: number) => (b >= order.length ? 0 : Math.hypot(x(a) - x(b), y(a) - y(b)))
  for (let round = 0, better = true; better && round < ROUNDS; round++) {
    better = false
    for (let i = 0; i < order.length - 1; i++)
      for (let j = i + 1; j < Math.min(order.length, i + WINDOW); j++)
        if (gap(i - 1, j) + gap(i, j + 1) < gap(i - 1, i) + gap(j, j + 1) - 1e-6) {
          order.splice(i, j - i + 1, ...order.slice(i, j + 1).reverse())
          better = true
        }
  }
  return order
}

/** The same cut begun at the nearest place that is no point; open lines begin at their nearer end. */
function startedNear(stroke: Stroke, at: { x: number; y: number }): Stroke {
  const { line } = stroke
  const n = line.length
  const away = (x: number, y: number) => Math.hypot(x - at.x, y - at.y)
  if (!stroke.closed) {
    if (away(line[0]!, line[1]!) <= away(line[n - 2]!, line[n - 1]!)) return stroke
    const turned = new Float64Array(n)
    for (let i = 0; i < n; i += 2) turned.set([line[n - 2 - i]!, line[n - 1 - i]!], i)
    return { ...stroke, line: turned }
  }
  let best = { index: 0, middle: false, cost: Infinity }
  for (let i = 0; i < n; i += 2) {
    const [x, y] = [line[i]!, line[i + 1]!]
    const [nx, ny] = [line[(i + 2) % n]!, line[(i + 3) % n]!]
    const length = Math.hypot(nx - x, ny - y)
    const corner = turnAt(line, i) > POINT ? 1e4 : 0
    if (corner + away(x, y) < best.cost) best = { index: i, middle: false, cost: corner + away(x, y) }
    if (length > LONG_MM && away((x + nx) / 2, (y + ny) / 2) < best.cost)
      best = { index: i, middle: true, cost: away((x + nx) / 2, (y + ny) / 2) }
  }
  const turned: number[] = []
  const first = best.middle ? best.index + 2 : best.index
  if (best.middle)
    turned.push(
      (line[best.index]! + line[(best.index + 2) % n]!) / 2,
      (line[best.index + 1]! + line[(best.index + 3) % n]!) / 2,
    )
  for (let i = 0; i < n; i += 2) turned.push(line[(first + i) % n]!, line[(first + i + 1) % n]!)
  return { ...stroke, line: Float64Array.from(turned) }
}

/** How far the outline turns at a point (radians). */
export function turnAt(ring: Ring, i: number): number {
  const n = ring.length
  const ax = ring[i]! - ring[(i - 2 + n) % n]!
  const ay = ring[i + 1]! - ring[(i - 1 + n) % n]!
  const bx = ring[(i + 2) % n]! - ring[i]!
  const by = ring[(i + 3) % n]! - ring[i + 1]!
  return Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by))
}

const endOf = ({ line, closed }: Stroke) =>
  closed ? { x: line[0]!, y: line[1]! } : { x: line.at(-2)!, y: line.at(-1)! }

function travel(strokes: readonly Stroke[], from: { x: number; y: number }): number {
  let at = from
  let sum = 0
  for (const stroke of strokes) {
    sum += Math.hypot(stroke.line[0]! - at.x, stroke.line[1]! - at.y)
    at = endOf(stroke)
  }
  return sum
}

/** The way of a stroke as the tool goes it: closed rings come back to their start and go on by the overcut. */
export function strokeWay(stroke: Stroke, overcutMm: number): Float64Array {
  if (!stroke.closed) return stroke.line
  const { line } = stroke
  const out = [...line, line[0]!, line[1]!]
  let rest = overcutMm
  for (let i = 0; i < line.length && rest > 1e-9; i += 2) {
    const [x, y] = [line[i]!, line[i + 1]!]
    const [nx, ny] = [line[(i + 2) % line.length]!, line[(i + 3) % line.length]!]
    const length = Math.hypot(nx - x, ny - y)
    const part = Math.min(1, rest / (length || 1))
    out.push(x + (nx - x) * part, y + (ny - y) * part)
    rest -= length
  }
  return Float64Array.from(out)
}
