// Nesting instances by family, made by a seeded generator.
import { readdirSync, readFileSync } from 'node:fs'
import { readDrawing } from '@feuillet/core/io/read'
import {
  ellipse,
  fillRings,
  mapPolygon,
  polygonArea,
  polygonBox,
  rectangle,
  rotation,
  scaling,
  simplify,
  smoothLine,
  subtract,
  union,
  type Polygon,
} from '@feuillet/core/base/geometry'
import { demo } from '@feuillet/core/demo'
import { seededRandom } from '@feuillet/core/base'
import { paperRuns, type NestInstance, type NestPiece } from '@feuillet/core/stages/sheets'
import { piece } from '../core/test/nest-piece'

export interface Family {
  name: string
  instance: NestInstance
}

const SHEET = { w: 304.8, h: 304.8, margin: 6.35 }

function petals(): NestPiece[] {
  return [62, 54, 46, 38, 30].map((reach, i) => {
    const points = Array.from({ length: 12 }, (_, k): [number, number] => {
      const a = (k / 12) * 2 * Math.PI
      const r = k % 2 === 0 ? reach : reach * 0.55
      return [Math.cos(a) * r, Math.sin(a) * r]
    })
    return piece(`ring-${i}`, fillRings([smoothLine(points, true, 0.05)], 'nonzero')[0]!, {
      qty: i < 2 ? 1 : 2,
    })
  })
}

function mixed(count: number, seed: number): NestPiece[] {
  const random = seededRandom(seed)
  return Array.from({ length: count }, (_, i) => {
    const size = 8 + random() * 26
    const kind = i % 4
    if (kind === 0) return piece(`p${i}`, rectangle([0, 0], size, 6 + random() * 20))
    if (kind === 1) return piece(`p${i}`, ellipse([0, 0], size / 2, size / 3))
    const corners = kind === 2 ? 3 : 7
    const points = Array.from({ length: corners }, (_, k): [number, number] => {
      const a = (k / corners) * 2 * Math.PI
      const r = size * (0.5 + random() * 0.5) * 0.8
      return [Math.cos(a) * r, Math.sin(a) * r]
    })
    return piece(`p${i}`, { outer: Float64Array.from(points.flat()), holes: [] })
  })
}

/** Frames whose openings take the small pieces. */
function frames(): NestPiece[] {
  const frame = subtract([rectangle([0, 0], 140, 140)], [rectangle([14, 14], 112, 112)])[0]!
  return [
    piece('frame', frame, { qty: 4, turns: 'quarter' }),
    piece('disc', ellipse([0, 0], 25), { qty: 16 }),
    piece('strip', rectangle([0, 0], 50, 8), { qty: 8 }),
  ]
}

/** Rectangles cut from one sheet by random straight cuts, with the gap between them. */
function guillotine(count: number, seed: number, gap: number): NestPiece[] {
  const random = seededRandom(seed)
  const rects = [{ x: 0, y: 0, w: SHEET.w - 2 * SHEET.margin, h: SHEET.h - 2 * SHEET.margin }]
  while (rects.length < count) {
    rects.sort((a, b) => b.w * b.h - a.w * a.h)
    const r = rects.shift()!
    const share = 0.3 + random() * 0.4
    if (r.w > r.h)
      rects.push({ ...r, w: r.w * share - gap / 2 }, { ...r, x: 0, w: r.w * (1 - share) - gap / 2 })
    else rects.push({ ...r, h: r.h * share - gap / 2 }, { ...r, h: r.h * (1 - share) - gap / 2 })
  }
  return rects.map((r, i) => piece(`r${i}`, rectangle([0, 0], r.w, r.h), { qty: 1, turns: 'quarter' }))
}

const onSheet = (name: string, pieces: NestPiece[], gap = 2): Family => ({
  name,
  instance: { sheet: SHEET, gap, pieces },
})

/** Pieces scaled so that together they take a share of a sheet's cuttable area. */
function scaledTo(pieces: NestPiece[], share: number): NestPiece[] {
  const room = (SHEET.w - 2 * SHEET.margin) * (SHEET.h - 2 * SHEET.margin)
  const factor = Math.sqrt((share * room) / pieces.reduce((sum, p) => sum + p.qty * polygonArea(p.shape), 0))
  return pieces.map((p) => ({ ...p, shape: mapPolygon(scaling(factor), p.shape) }))
}

/** Outlines of public-domain drawings, holes and all. */
export function silhouettes(): NestPiece[] {
  const folder = new URL('../core/test/drawings/', import.meta.url)
  return readdirSync(folder)
    .filter((file) => file.endsWith('.svg'))
    .flatMap((file) => {
      const { shapes } = readDrawing(file, readFileSync(new URL(file, folder)))
      const [largest] = union(...shapes.map((s) => s.region)).toSorted(
        (a, b) => polygonArea(b) - polygonArea(a),
      )
      if (!largest) return []
      const b = polygonBox(largest)
      const factor = 60 / Math.max(b.maxX - b.minX, b.maxY - b.minY)
      return [piece(file, simplify([mapPolygon(scaling(factor), largest)], 0.05)[0]!, { qty: 1 })]
    })
}

export const letters = (): NestPiece[] =>
  paperRuns(demo('bon-voyage')).flatMap(({ instance }) =>
    instance.pieces.map((p) => ({ ...p, qty: 3, turns: 'free' as const })),
  )

/** Jigsaw: a sheet cut by wavy lines into columns and rows, each piece shrunk by half the gap, then turned at random. */
function jigsaw({
  columns,
  rows,
  seed,
  slack,
  gap,
}: {
  columns: number
  rows: number
  seed: number
  slack: number
  gap: number
}): NestPiece[] {
  const random = seededRandom(seed)
  const scale = Math.sqrt(1 - slack)
  const [w, h] = [(SHEET.w - 2 * SHEET.margin) * scale, (SHEET.h - 2 * SHEET.margin) * scale]
  const inner = (k: number, n: number) => k > 0 && k < n
  const nodes = Array.from({ length: rows + 1 }, (_, r) =>
    Array.from({ length: columns + 1 }, (_, c): [number, number] => [
      (c / columns) * w + (inner(c, columns) ? ((random() - 0.5) * 0.35 * w) / columns : 0),
      (r / rows) * h + (inner(r, rows) ? ((random() - 0.5) * 0.35 * h) / rows : 0),
    ]),
  )
  const out: NestPiece[] = []
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const corners = [nodes[r]![c]!, nodes[r]![c + 1]!, nodes[r + 1]![c + 1]!, nodes[r + 1]![c]!]
      // Inner edges give way by half the gap; the sheet's own edges stay.
      const shrunk = corners.map(([x, y], k): [number, number] => {
        const [sx, sy] = [k === 0 || k === 3 ? 1 : -1, k < 2 ? 1 : -1]
        return [
          x + (inner(sx > 0 ? c : c + 1, columns) ? sx * gap * 0.62 : 0),
          y + (inner(sy > 0 ? r : r + 1, rows) ? sy * gap * 0.62 : 0),
        ]
      })
      const shape: Polygon = { outer: Float64Array.from(shrunk.flat()), holes: [] }
      const turned = mapPolygon(rotation(Math.floor(random() * 4) * 90), shape)
      const b = polygonBox(turned)
      out.push(piece(`j${r}-${c}`, mapPolygon([1, 0, 0, 1, -b.minX, -b.minY], turned)))
    }
  return out
}

/** All families at their stated sizes. Needs the geometry loaded. */
export const families = (): Family[] => [
  onSheet('jigsaw 12', jigsaw({ columns: 4, rows: 3, seed: 1, slack: 0, gap: 2 })),
  onSheet('jigsaw 25', jigsaw({ columns: 5, rows: 5, seed: 2, slack: 0, gap: 2 })),
  onSheet('jigsaw 50', jigsaw({ columns: 10, rows: 5, seed: 3, slack: 0, gap: 2 })),
  onSheet('jigsaw 25, a fifth of slack', jigsaw({ columns: 5, rows: 5, seed: 4, slack: 0.2, gap: 2 })),
  onSheet('rectangles 40', guillotine(40, 5, 2)),
  onSheet('rosette', petals()),
  onSheet('letters', letters()),
  onSheet('frames', frames()),
  onSheet('silhouettes, 60 %', scaledTo(silhouettes(), 0.6)),
  onSheet('120 mixed', mixed(120, 6)),
  onSheet('120 mixed, 1.2 sheets', scaledTo(mixed(120, 7), 1.2)),
  onSheet(
    '120 mixed, 1.2, quarter turns',
    scaledTo(mixed(120, 8), 1.2).map((p) => ({ ...p, turns: 'quarter' as const })),
  ),
]
