// Sheets cut into pieces that fit together again: into columns and rows, in two again and again, or course by course like bricks.
import {
  compose,
  intersect,
  mapPolygon,
  offset,
  polygonArea,
  polygonBox,
  rectangle,
  rotation,
  subtract,
  translation,
  type Polygon,
} from '@feuillet/core/base/geometry'
import type { NestPiece, Turns } from '@feuillet/core/stages/sheets'

export type Random = () => number
export type Point = [x: number, y: number]

/** What is cut up, mm. */
interface Sheet {
  w: number
  h: number
}

/** A polygon by its corners, without holes. */
export const polygon = (points: readonly Point[]): Polygon => ({
  outer: Float64Array.from(points.flat()),
  holes: [],
})

/** Columns and rows whose corners wander, with sides that bend beside their way by a share of it. */
export function grid(
  random: Random,
  { w, h }: Sheet,
  { columns, rows, bend }: { columns: number; rows: number; bend: number },
): Polygon[] {
  const wander = (k: number, n: number) => (k > 0 && k < n ? (random() - 0.5) * 0.4 : 0)
  const nodes = Array.from({ length: rows + 1 }, (_, r) =>
    Array.from({ length: columns + 1 }, (_, c): Point => [
      ((c + wander(c, columns)) / columns) * w,
      ((r + wander(r, rows)) / rows) * h,
    ]),
  )
  const bends = Array.from({ length: 2 * (rows + 1) * (columns + 1) }, () => (random() - 0.5) * 2 * bend)
  /** Points from one node up to the next; the sheet's own edges are straight. */
  const cut = ([c1, r1]: Point, [c2, r2]: Point): Point[] => {
    const [[x1, y1], [x2, y2]] = [nodes[r1]![c1]!, nodes[r2]![c2]!]
    const across = r1 === r2
    const isEdge = across ? r1 === 0 || r1 === rows : c1 === 0 || c1 === columns
    const by = isEdge
      ? 0
      : bends[2 * (Math.min(r1, r2) * (columns + 1) + Math.min(c1, c2)) + (across ? 1 : 0)]!
    const back = c2 < c1 || r2 < r1 ? -1 : 1
    return Array.from({ length: 24 }, (_, k) => {
      const t = k / 24
      const out = by * back * Math.sin(Math.PI * t)
      return [x1 + t * (x2 - x1) + out * (y2 - y1), y1 + t * (y2 - y1) - out * (x2 - x1)]
    })
  }
  return Array.from({ length: columns * rows }, (_, k) => {
    const [c, r] = [k % columns, Math.floor(k / columns)]
    return polygon([
      ...cut([c, r], [c + 1, r]),
      ...cut([c + 1, r], [c + 1, r + 1]),
      ...cut([c + 1, r + 1], [c, r + 1]),
      ...cut([c, r + 1], [c, r]),
    ])
  })
}

/** The largest piece cut in two, again and again, at a slant, by lines that bend by a share of its narrow side. */
export function inTwo(
  random: Random,
  { w, h }: Sheet,
  { count, bend }: { count: number; bend: number },
): Polygon[] {
  const pieces = [rectangle([0, 0], w, h)]
  while (pieces.length < count) {
    pieces.sort((a, b) => polygonArea(b) - polygonArea(a))
    const [piece] = pieces
    const { minX, minY, maxX, maxY } = polygonBox(piece!)
    const [wide, high] = [maxX - minX, maxY - minY]
    const line = {
      x: minX + wide * (0.35 + 0.3 * random()),
      y: minY + high * (0.35 + 0.3 * random()),
      deg: (wide > high ? 90 : 0) + (random() - 0.5) * 50,
      bend: bend * Math.min(wide, high),
      wave: 1.2 * Math.min(wide, high) + 40,
      phase: 6 * random(),
    }
    const parts = [intersect([piece!], [beyond(line)]), subtract([piece!], [beyond(line)])]
    // Not where a line leaves next to nothing on one side, or comes in again.
    if (parts.every((part) => part.length === 1 && polygonArea(part[0]!) > 0.25 * polygonArea(piece!)))
      pieces.splice(0, 1, ...parts.flat())
  }
  return pieces
}

/** Courses between waved lines, each cut across at a slant, at other places than the one above. */
export function courses(
  random: Random,
  { w, h }: Sheet,
  { rows, bricks, wave }: { rows: number; bricks: number; wave: number },
): Polygon[] {
  const lines = Array.from({ length: rows - 1 }, (_, r) =>
    beyond({
      x: w / 2,
      y: (h * (r + 1 + (random() - 0.5) * 0.2)) / rows,
      deg: (random() - 0.5) * 6,
      bend: (wave * h) / rows,
      wave: 80 + 60 * random(),
      phase: 6 * random(),
    }),
  )
  return Array.from({ length: rows }, (_, r) => {
    let rest = [rectangle([0, 0], w, h)]
    if (r > 0) rest = intersect(rest, [lines[r - 1]!])
    if (r < rows - 1) rest = subtract(rest, [lines[r]!])
    const course: Polygon[] = []
    for (let c = 1; c < bricks; c++) {
      const along = (w * (c + (r % 2) * 0.4 + (random() - 0.5) * 0.4)) / bricks
      const cut = { x: along, y: (h * (r + 0.5)) / rows, deg: 90 + (random() - 0.5) * 30 }
      const left = beyond({ ...cut, bend: 0, wave: 1, phase: 0 })
      course.push(...intersect(rest, [left]))
      rest = subtract(rest, [left])
    }
    return [...course, ...rest]
  }).flat()
}

/** A line through a place, at an angle, that bends to both sides along waves; mm and degrees. */
interface Line {
  x: number
  y: number
  deg: number
  bend: number
  wave: number
  phase: number
}

/** Everything on one side of a line, as far as any sheet goes. */
function beyond({ x, y, deg, bend, wave, phase }: Line): Polygon {
  const [reach, step] = [600, 3]
  const line = Array.from({ length: (2 * reach) / step + 1 }, (_, k): Point => {
    const along = k * step - reach
    return [along, bend * Math.sin((along / wave) * 2 * Math.PI + phase)]
  })
  const side = polygon([...line, [reach, 2 * reach], [-reach, 2 * reach]])
  return mapPolygon(compose(translation(x, y), rotation(deg)), side)
}

/** Parts of a sheet as pieces: half the gap taken off all round, and turned as far as they may be turned back. */
export const asPieces = (
  random: Random,
  parts: readonly Polygon[],
  { gap, turns }: { gap: number; turns: Turns },
): NestPiece[] =>
  parts.map((part, k) => {
    const [smaller] = offset([part], -gap / 2, 'miter')
    const deg = turns === 'free' ? random() * 360 : turns === 'quarter' ? Math.floor(random() * 4) * 90 : 0
    return { id: `p${k}`, shape: mapPolygon(rotation(deg), smaller!), qty: 1, turns }
  })
