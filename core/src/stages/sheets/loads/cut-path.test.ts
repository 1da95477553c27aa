import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { star } from '../../../../test/arbitrary'
import { demo } from '../../../demo'
import {
  ellipse,
  mapPolygon,
  perimeter,
  rectangle,
  ringContains,
  subtract,
  type Polygon,
} from '../../../base/geometry'
import { results } from '../../../../test/results'
import { cutPath, strokeWay, turnAt } from './cut-path'
import type { LaidPiece } from './loads'

const laid = (shape: Polygon, k: number): LaidPiece => ({
  layerId: 'a',
  pieceId: `p${k}`,
  folio: '1',
  layerName: 'a',
  guestId: null,
  placement: { id: `a/p${k}`, copy: 0, sheet: 0, x: 0, y: 0, rotation: 0 },
  shape,
  marks: { number: [], folds: [], slits: [], places: [] },
  loose: false,
  numbered: false,
  printed: false,
})
const grid = (shapes: readonly Polygon[]) =>
  shapes.map((shape, k) =>
    laid(mapPolygon([1, 0, 0, 1, 40 + (k % 4) * 70, 40 + Math.floor(k / 4) * 70], shape), k),
  )

describe('the way of the blade', () => {
  it('cuts every outline once, at full length, whatever the shapes', () => {
    fc.assert(
      fc.property(fc.array(star(28), { minLength: 1, maxLength: 10 }), (shapes) => {
        const pieces = grid(shapes)
        const { strokes, travelMm } = cutPath(pieces, 300, 'drawn')
        expect(strokes.map((s) => s.piece).toSorted((a, b) => a - b)).toEqual(pieces.map((_, k) => k))
        for (const { line, piece } of strokes)
          expect(perimeter(line)).toBeCloseTo(perimeter(pieces[piece]!.shape.outer), 6)
        expect(travelMm).toBeGreaterThan(0)
      }),
      { numRuns: 25 },
    )
  })

  it('cuts what lies inside before what is round it, also in the opening of another piece', () => {
    const frame = subtract([rectangle([0, 0], 100, 100)], [rectangle([10, 10], 80, 80)])[0]!
    const ring = subtract([ellipse([50, 50], 30)], [ellipse([50, 50], 25)])[0]!
    const { strokes } = cutPath(
      [laid(frame, 0), laid(ring, 1), laid(rectangle([40, 40], 20, 20), 2)],
      200,
      'drawn',
    )
    expect(strokes).toHaveLength(5)
    strokes.forEach(({ line }, i) => {
      for (const later of strokes.slice(i + 1))
        expect(ringContains(line, later.line[0]!, later.line[1]!)).toBe(false)
    })
  })

  it('cuts small pieces before large ones, and travels less than piece by piece', () => {
    for (const load of results(demo('bon-voyage')).loads) {
      const cuts = load.path.strokes.filter((s) => s.kind === 'cut').map((s) => perimeter(s.line))
      const firstLarge = cuts.findIndex((mm) => mm > 400)
      if (firstLarge >= 0) for (const mm of cuts.slice(firstLarge)) expect(mm).toBeGreaterThan(45)
      expect(load.path.travelMm).toBeLessThanOrEqual(load.path.plainTravelMm + 1e-6)
    }
  })

  it('starts away from points where the outline has a straight or smooth stretch', () => {
    const { strokes } = cutPath(
      grid([rectangle([-20, -20], 40, 40), ellipse([0, 0], 25), rectangle([-10, -30], 20, 60)]),
      300,
      'drawn',
    )
    for (const { line } of strokes) expect(turnAt(line, 0)).toBeLessThan(Math.PI / 6)
  })

  it('goes on past the start by the overcut', () => {
    const stroke = { kind: 'cut' as const, line: rectangle([0, 0], 1, 10).outer, closed: true, piece: 0 }
    expect([...strokeWay(stroke, 1.5)].slice(-6)).toEqual([0, 0, 1, 0, 1, 0.5])
    expect([...strokeWay(stroke, 0)].slice(-2)).toEqual([0, 0])
  })
})
