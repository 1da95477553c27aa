// Proof that a layout is legal, by another library and plain distances: no code of the engine's takes part.
import * as polyclip from 'polyclip-ts'
import { expect } from 'vitest'
import type { NestInstance, NestLayout, Placement } from '@feuillet/core/stages/sheets'
import type { Polygon, Ring } from '@feuillet/core/base/geometry'

type Point = [number, number]

function placed(shape: Polygon, p: Placement): Point[][] {
  const a = (p.rotation * Math.PI) / 180
  const turn = (ring: Ring): Point[] =>
    Array.from({ length: ring.length / 2 }, (_, i): Point => {
      const [x, y] = [ring[i * 2]!, ring[i * 2 + 1]!]
      return [x * Math.cos(a) - y * Math.sin(a) + p.x, x * Math.sin(a) + y * Math.cos(a) + p.y]
    })
  return [shape.outer, ...shape.holes].map(turn)
}

const areaOf = (geom: polyclip.Geom): number =>
  (geom as Point[][][]).reduce(
    (sum, rings) =>
      sum +
      rings.reduce((s, ring, k) => {
        const a =
          Math.abs(
            ring.reduce(
              (t, [x, y], i) =>
                t +
                ring[(i + ring.length - 1) % ring.length]![0] * y -
                x * ring[(i + ring.length - 1) % ring.length]![1],
              0,
            ),
          ) / 2
        return k === 0 ? s + a : s - a
      }, 0),
    0,
  )

function toSegment([px, py]: Point, [ax, ay]: Point, [bx, by]: Point): number {
  const [dx, dy] = [bx - ax, by - ay]
  const t = Math.max(0, Math.min(1, ((px - ax) * dx + (py - ay) * dy) / (dx * dx + dy * dy || 1)))
  return Math.hypot(px - ax - t * dx, py - ay - t * dy)
}

/** Least distance between the outlines of two placed shapes. */
function distance(a: Point[][], b: Point[][]): number {
  let least = Infinity
  const oneWay = (from: Point[][], to: Point[][]) => {
    for (const point of from.flat())
      for (const ring of to)
        for (let i = 0; i < ring.length; i++)
          least = Math.min(least, toSegment(point, ring[i]!, ring[(i + 1) % ring.length]!))
  }
  oneWay(a, b)
  oneWay(b, a)
  return least
}

const boxOf = (rings: Point[][]) => {
  const xs = rings[0]!.map((p) => p[0])
  const ys = rings[0]!.map((p) => p[1])
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] as const
}

/** Fails where a piece is missing, doubled, turned against its rule, in the rim, over another or nearer than the gap. */
export function expectLegal(instance: NestInstance, layout: NestLayout): void {
  const { sheet, gap, pieces } = instance
  const keys = layout.placements.map((p) => `${p.id}#${p.copy}`).toSorted()
  expect(keys).toEqual(
    pieces.flatMap((piece) => Array.from({ length: piece.qty }, (_, k) => `${piece.id}#${k}`)).toSorted(),
  )
  const shapes = layout.placements.map((p) => ({
    p,
    rings: placed(pieces.find((piece) => piece.id === p.id)!.shape, p),
  }))
  for (const { p, rings } of shapes) {
    const { turns } = pieces.find((piece) => piece.id === p.id)!
    if (turns === 'fixed') expect(p.rotation).toBe(0)
    if (turns === 'quarter') expect(Math.abs(p.rotation % 90)).toBe(0)
    if (p.sheet < 0) {
      const { outline, margin } = instance.offCuts![-1 - p.sheet]!
      const around = placed(outline, { ...p, x: 0, y: 0, rotation: 0 })
      expect(areaOf(polyclip.difference([rings], [around])), `${p.id} past the off-cut`).toBeLessThan(1e-3)
      expect(distance(rings, around), `${p.id} at the edge of the off-cut`).toBeGreaterThanOrEqual(
        margin - 0.02,
      )
      continue
    }
    const [x0, y0, x1, y1] = boxOf(rings)
    expect(Math.min(x0, y0)).toBeGreaterThanOrEqual(sheet.margin - 1e-6)
    expect(x1).toBeLessThanOrEqual(sheet.w - sheet.margin + 1e-6)
    expect(y1).toBeLessThanOrEqual(sheet.h - sheet.margin + 1e-6)
  }
  for (let i = 0; i < shapes.length; i++)
    for (let j = 0; j < i; j++) {
      const [a, b] = [shapes[i]!, shapes[j]!]
      if (a.p.sheet !== b.p.sheet) continue
      const [ba, bb] = [boxOf(a.rings), boxOf(b.rings)]
      if (ba[0] > bb[2] + gap || bb[0] > ba[2] + gap || ba[1] > bb[3] + gap || bb[1] > ba[3] + gap) continue
      expect(areaOf(polyclip.intersection([a.rings], [b.rings])), `${a.p.id} over ${b.p.id}`).toBeLessThan(
        1e-3,
      )
      expect(distance(a.rings, b.rings), `${a.p.id} beside ${b.p.id}`).toBeGreaterThanOrEqual(gap - 1e-3)
    }
}
