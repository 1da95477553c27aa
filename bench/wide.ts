// Nesting instances of thirteen families, four of each, that the engine was not tuned on: sizes, gaps, sheets, turns and mixes of small and
// large are drawn anew for each seed.
import {
  ellipse,
  fillRings,
  mapPolygon,
  polygonArea,
  polygonBox,
  rectangle,
  rotation,
  scaling,
  smoothLine,
  subtract,
  type Polygon,
} from '@feuillet/core/base/geometry'
import { seededRandom } from '@feuillet/core/base'
import type { NestInstance, NestPiece, Turns } from '@feuillet/core/stages/sheets'
import { asPieces, courses, inTwo, polygon, type Point, type Random } from '../core/test/cut-up'
import { letters, silhouettes, type Family } from './instances'

const SHEETS = [
  { w: 304.8, h: 304.8, margin: 6.35 },
  { w: 297, h: 210, margin: 5 },
  { w: 200, h: 200, margin: 4 },
]

const between = (random: Random, least: number, most: number) => least + random() * (most - least)
const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!
const smooth = (points: Point[]): Polygon => fillRings([smoothLine(points, true, 0.05)], 'nonzero')[0]!
const many = <T>(count: number, make: (k: number) => T): T[] =>
  Array.from({ length: count }, (_, k) => make(k))
/** Points about the middle, as far out as `reach` says of the k-th. */
const round = (count: number, reach: (k: number) => number): Point[] =>
  many(count, (k) => {
    const a = (k / count) * 2 * Math.PI
    return [Math.cos(a) * reach(k), Math.sin(a) * reach(k)]
  })

/** A closed line that wanders about a circle. */
const blob = (random: Random, size: number) =>
  smooth(round(5 + Math.floor(random() * 6), () => size * between(random, 0.45, 1)))

const star = (random: Random, size: number) => {
  const inner = between(random, 0.35, 0.8)
  return polygon(round(2 * (4 + Math.floor(random() * 5)), (k) => (k % 2 === 0 ? size : size * inner)))
}

/** A crescent: a part of a ring. */
function crescent(random: Random, size: number): Polygon {
  const [from, arc, width] = [random() * 6, between(random, 1.2, 4.4), size * between(random, 0.15, 0.45)]
  const at = (k: number, r: number): Point => [
    Math.cos(from + (arc * k) / 16) * r,
    Math.sin(from + (arc * k) / 16) * r,
  ]
  return polygon([...many(17, (k) => at(k, size)), ...many(17, (k) => at(16 - k, size - width))])
}

/** A sheet cut by curved or straight lines into columns and rows, every piece shrunk by half the gap, with some of it left over. */
function puzzle(
  random: Random,
  options: { sheet: NestInstance['sheet']; gap: number; curved: boolean },
): Polygon[] {
  const { sheet, gap, curved } = options
  const [columns, rows] = [2 + Math.floor(random() * 6), 2 + Math.floor(random() * 5)]
  const scale = Math.sqrt(1 - random() * 0.2)
  const [w, h] = [(sheet.w - 2 * sheet.margin) * scale, (sheet.h - 2 * sheet.margin) * scale]
  const wave = curved ? 0.12 : 0
  const [phase, freq] = [random() * 6, between(random, 1, 3)]
  const nodes = many((rows + 1) * (columns + 1), (): Point => [random() - 0.5, random() - 0.5])
  const at = (u: number, v: number): Point => {
    // Between nodes the grid is bent by waves that are nothing at the sheet's edges.
    const [c, r] = [Math.min(columns - 1, Math.floor(u)), Math.min(rows - 1, Math.floor(v))]
    const [fu, fv] = [u - c, v - r]
    const shift = (k: 0 | 1) =>
      (1 - fv) * ((1 - fu) * node(c, r)[k] + fu * node(c + 1, r)[k]) +
      fv * ((1 - fu) * node(c, r + 1)[k] + fu * node(c + 1, r + 1)[k])
    const inside = Math.sin((Math.PI * u) / columns) * Math.sin((Math.PI * v) / rows)
    return [
      ((u + 0.35 * shift(0) + wave * inside * Math.sin(freq * v * 2 + phase)) / columns) * w,
      ((v + 0.35 * shift(1) + wave * inside * Math.sin(freq * u * 2 - phase)) / rows) * h,
    ]
  }
  const node = (c: number, r: number): Point =>
    c === 0 || r === 0 || c === columns || r === rows ? [0, 0] : nodes[r * (columns + 1) + c]!
  return many(columns * rows, (k) => {
    const [c, r] = [k % columns, Math.floor(k / columns)]
    const side = many(curved ? 8 : 1, (s) => s / (curved ? 8 : 1))
    const outline: Point[] = [
      ...side.map((s) => at(c + s, r)),
      ...side.map((s) => at(c + 1, r + s)),
      ...side.map((s) => at(c + 1 - s, r + 1)),
      ...side.map((s) => at(c, r + 1 - s)),
    ]
    const whole = polygon(outline)
    const b = polygonBox(whole)
    const [cx, cy] = [(b.minX + b.maxX) / 2, (b.minY + b.maxY) / 2]
    const [sx, sy] = [1 - gap / (b.maxX - b.minX), 1 - gap / (b.maxY - b.minY)]
    return mapPolygon(
      rotation(Math.floor(random() * 4) * 90),
      mapPolygon([sx, 0, 0, sy, -cx * sx, -cy * sy], whole),
    )
  })
}

/** Straight cuts through and through, lengths rounded to a tenth. */
function boxes(random: Random, { w, h, margin }: NestInstance['sheet'], gap: number): Polygon[] {
  const count = 8 + Math.floor(random() * 50)
  const list = [{ w: w - 2 * margin, h: h - 2 * margin }]
  while (list.length < count) {
    list.sort((a, b) => b.w * b.h - a.w * a.h)
    const r = list.shift()!
    const share = between(random, 0.3, 0.7)
    const cut = (length: number) => [length * share - gap / 2, length * (1 - share) - gap / 2] as const
    if (r.w > r.h) list.push(...cut(r.w).map((part) => ({ ...r, w: part })))
    else list.push(...cut(r.h).map((part) => ({ ...r, h: part })))
  }
  const tenth = (v: number) => Math.floor(v * 10) / 10
  return list.map((r) => rectangle([0, 0], tenth(r.w), tenth(r.h)))
}

/** Sizes of which a few are large and many small. */
const sizes = (random: Random, count: number) => {
  const ratio = between(random, 1.2, 7)
  return many(count, () => 10 * ratio ** (random() ** 2))
}

/** Pieces scaled so that together they take a share of one sheet, none larger than the sheet allows. */
function scaled(shapes: readonly Polygon[], sheet: NestInstance['sheet'], share: number): Polygon[] {
  const [w, h] = [sheet.w - 2 * sheet.margin, sheet.h - 2 * sheet.margin]
  const area = shapes.reduce((sum, shape) => sum + polygonArea(shape), 0)
  const longest = Math.max(
    ...shapes.map((shape) => {
      const b = polygonBox(shape)
      return Math.hypot(b.maxX - b.minX, b.maxY - b.minY)
    }),
  )
  const factor = Math.min(Math.sqrt((share * w * h) / area), (0.9 * Math.min(w, h)) / longest)
  return shapes.map((shape) => mapPolygon(scaling(factor), shape))
}

type Make = (
  random: Random,
  sheet: NestInstance['sheet'],
  gap: number,
) => { shapes: Polygon[]; exact?: boolean }

/** What may be cut up of a sheet so that all of it goes on one again, mm. */
function cutUp(random: Random, { w, h, margin }: NestInstance['sheet']): { w: number; h: number } {
  const scale = Math.sqrt(0.97 - random() * 0.17)
  return { w: (w - 2 * margin) * scale, h: (h - 2 * margin) * scale }
}

const smaller = (random: Random, parts: readonly Polygon[], gap: number) =>
  asPieces(random, parts, { gap, turns: 'quarter' }).map(({ shape }) => shape)

const MAKES: Record<string, Make> = {
  'straight puzzle': (random, sheet, gap) => ({
    shapes: puzzle(random, { sheet, gap, curved: false }),
    exact: true,
  }),
  'curved puzzle': (random, sheet, gap) => ({
    shapes: puzzle(random, { sheet, gap, curved: true }),
    exact: true,
  }),
  boxes: (random, sheet, gap) => ({ shapes: boxes(random, sheet, gap), exact: true }),
  blobs: (random) => ({ shapes: sizes(random, 12 + Math.floor(random() * 50)).map((s) => blob(random, s)) }),
  stars: (random) => ({ shapes: sizes(random, 10 + Math.floor(random() * 40)).map((s) => star(random, s)) }),
  crescents: (random) => ({
    shapes: sizes(random, 10 + Math.floor(random() * 30)).map((s) => crescent(random, s)),
  }),
  mixed: (random) => ({
    shapes: sizes(random, 40 + Math.floor(random() * 80)).map((s) =>
      pick(random, [
        () => rectangle([0, 0], 2 * s, s * between(random, 0.3, 2)),
        () => ellipse([0, 0], s, s * between(random, 0.4, 1)),
        () => blob(random, s),
        () => polygon(round(3 + Math.floor(random() * 5), () => s * between(random, 0.5, 1))),
      ])(),
    ),
  }),
  silhouettes: (random) => {
    const all = silhouettes().map(({ shape }) => shape)
    return {
      shapes: sizes(random, 12 + Math.floor(random() * 30)).map((s) =>
        mapPolygon(scaling(s / 30), pick(random, all)),
      ),
    }
  },
  letters: (random) => {
    const all = letters().map(({ shape }) => shape)
    return {
      shapes: sizes(random, 12 + Math.floor(random() * 30)).map((s) =>
        mapPolygon(scaling(s / 30), pick(random, all)),
      ),
    }
  },
  'rings and fillings': (random) => ({
    shapes: sizes(random, 16 + Math.floor(random() * 30)).map((s, k) => {
      const disc = ellipse([0, 0], s, s * between(random, 0.6, 1))
      if (k % 3 > 0) return mapPolygon(scaling(between(random, 0.3, 0.7)), disc)
      const rim = between(random, 0.55, 0.85)
      return subtract([disc], [mapPolygon(scaling(rim), disc)])[0]!
    }),
  }),
  'cut in two': (random, sheet, gap) => {
    const cut = { count: 6 + Math.floor(random() * 35), bend: pick(random, [0, 0, 0.06, 0.1]) }
    return { shapes: smaller(random, inTwo(random, cutUp(random, sheet), cut), gap), exact: true }
  },
  bricks: (random, sheet, gap) => {
    const cut = {
      rows: 2 + Math.floor(random() * 5),
      bricks: 2 + Math.floor(random() * 5),
      wave: pick(random, [0, 0, 0.1, 0.15]),
    }
    return { shapes: smaller(random, courses(random, cutUp(random, sheet), cut), gap), exact: true }
  },
  copies: (random) => {
    const drawn = [...silhouettes(), ...letters()].map(({ shape }) => mapPolygon(scaling(1 / 3), shape))
    const kind = () =>
      pick(random, [
        () => blob(random, 10),
        () => star(random, 10),
        () => crescent(random, 10),
        () => polygon(round(3 + Math.floor(random() * 4), () => between(random, 5, 10))),
        () => pick(random, drawn),
      ])()
    return {
      shapes: many(1 + Math.floor(random() * 3), () => {
        const shape = mapPolygon(scaling(between(random, 0.6, 1.6)), kind())
        return many(6 + Math.floor(70 * random() ** 1.5), () => shape)
      }).flat(),
    }
  },
}

/** Four instances of each of thirteen families. Needs the geometry loaded. */
export const wide = (from = 1000): Family[] =>
  Object.entries(MAKES).flatMap(([name, make], f) =>
    many(4, (k): Family => {
      const random = seededRandom(from + 17 * f + k)
      const sheet = pick(random, SHEETS)
      const gap = pick(random, [1, 1.5, 2, 3, 4])
      const turns: Turns = pick(random, ['free', 'free', 'quarter', 'fixed'])
      const { shapes, exact } = make(random, sheet, gap)
      const share = pick(random, [0.35, 0.6, 0.9, 1.4, 2.2])
      const pieces = (exact ? shapes : scaled(shapes, sheet, share)).map((shape, i): NestPiece => {
        const b = polygonBox(shape)
        return {
          id: `p${i}`,
          shape: mapPolygon([1, 0, 0, 1, -b.minX, -b.minY], shape),
          qty: 1,
          turns: exact && turns === 'fixed' ? 'quarter' : turns,
        }
      })
      return { name: `${name} ${k + 1}`, instance: { sheet, gap, pieces } }
    }),
  )
