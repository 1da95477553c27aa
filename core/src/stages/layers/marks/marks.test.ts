import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { card, plate, stack } from '../../../../test/stack'
import {
  ellipse,
  lineInside,
  polygonContains,
  rectangle,
  regionContains,
  subtract,
} from '../../../base/geometry'
import { cutLayers, layerRegion, setLayer, setPlan } from '../../../project'
import { soundnessOf } from '../nodes'
import { soundness } from '../soundness/index'
import { centreMarks, noMarks, numberStrokes, pieceMarks } from './index'

describe('figures of single strokes', () => {
  it('stay within their circle and never close on themselves', () => {
    for (const roof of [false, true])
      for (const n of [...Array(10).keys(), 10, 28, 96, 100])
        for (const line of numberStrokes(String(n), { x: 5, y: -3 }, { radiusMm: 2, roof })) {
          for (let i = 0; i < line.length; i += 2)
            expect(Math.hypot(line[i]! - 5, line[i + 1]! + 3)).toBeLessThanOrEqual(2 + 1e-9)
          expect(Math.hypot(line[0]! - line.at(-2)!, line[1]! - line.at(-1)!)).toBeGreaterThan(0.1)
        }
  })

  it('differ from one number to the next', () => {
    const drawn = Array.from({ length: 30 }, (_, n) =>
      numberStrokes(String(n), { x: 0, y: 0 }, { radiusMm: 2 })
        .map((line) => line.join())
        .join('|'),
    )
    expect(new Set(drawn).size).toBe(30)
  })
})

describe('stretches of a line inside a shape', () => {
  it('lie inside, and hold all of the line that does', () => {
    const ring = subtract([ellipse([0, 0], 30)], [rectangle([-10, -10], 20, 20)])[0]!
    fc.assert(
      fc.property(
        fc.tuple(...Array.from({ length: 4 }, () => fc.double({ min: -40, max: 40, noNaN: true }))),
        ([x1, y1, x2, y2]) => {
          const parts = lineInside(ring, [x1!, y1!], [x2!, y2!])
          const whole = Math.hypot(x2! - x1!, y2! - y1!)
          const sum = parts.reduce((s, [a, b, c, d]) => s + Math.hypot(c! - a!, d! - b!), 0)
          const steps = 4000
          let inside = 0
          for (let k = 0; k < steps; k++) {
            const t = (k + 0.5) / steps
            if (polygonContains(ring, x1! + (x2! - x1!) * t, y1! + (y2! - y1!) * t)) inside++
          }
          expect(Math.abs(sum - (whole * inside) / steps)).toBeLessThan(0.1)
        },
      ),
      { numRuns: 60 },
    )
  })
})

describe('marks of pieces', () => {
  const base = setLayer(
    stack(
      'card',
      plate('back', 0, [0, 0, 100, 100]),
      plate('field', 2, [10, 10, 80, 80]),
      plate('boat', 0, [30, 40, 25, 12]),
    ),
    'back',
    {
      role: 'backing',
    },
  )
  const marksOf = (project: typeof base) =>
    pieceMarks(
      project,
      project.layers.map((layer) => soundness(project, layer, { safeMm: 1.2 })),
    )

  it('bear a number where the layer above hides it, and none on backing sheets unless asked', () => {
    const marks = marksOf(base)
    expect([...marks.keys()]).toEqual(['field/p1'])
    const boat = layerRegion(base.layers[2]!)
    for (const line of marks.get('field/p1')!.number)
      for (let i = 0; i < line.length; i += 2) expect(regionContains(boat, line[i]!, line[i + 1]!)).toBe(true)
    expect(marksOf(setLayer(base, 'back', { numbered: true })).get('back/p1')!.number.length).toBeGreaterThan(
      0,
    )
    expect(marksOf(setPlan(base, { numbers: 'none' })).size).toBe(0)
    expect(marksOf(setLayer(base, 'field', { numbered: false })).size).toBe(0)
  })

  it('put crosses on the card beneath, hidden by the piece that goes there', () => {
    const marks = marksOf(setPlan(base, { placeMarks: true }))
    expect(marks.get('field/p1')!.places).toHaveLength(2)
    for (const line of marks.get('field/p1')!.places)
      expect(regionContains(layerRegion(base.layers[2]!), line[0]!, line[1]!)).toBe(true)
    expect(marks.get('back/p1')!.places).toHaveLength(2)
    expect(noMarks().places).toEqual([])
  })

  it('end fold lines at the edge of the piece', () => {
    const [fold] = marksOf(
      setLayer(base, 'boat', { folds: [{ line: [0, 46, 100, 46], way: 'up', deg: 30 }] }),
    ).get('boat/p1')!.folds
    expect([...fold!].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([30, 46, 55, 46])
  })
})

describe('centre marks', () => {
  const roses = setPlan(
    stack(
      'card',
      plate('back', 0, [0, 0, 100, 100]),
      card('ring', 1, subtract([ellipse([50, 50], 40)], [ellipse([50, 50], 20)])),
      card('bud', 1, [ellipse([50, 50], 30)]),
      card('heart', 1, [ellipse([50, 50], 8)]),
    ),
    { alignment: 'centre-mark', numbers: 'none' },
  )

  it('are put where a layer’s middle goes, hidden by it; an open middle has none', () => {
    const found = centreMarks(roses)
    expect([...found.keys()]).toEqual(['bud', 'heart'])
    // Under the bud the ring is open: its middle goes over the back.
    expect(found.get('bud')).toEqual({ underId: 'back', at: { x: 50, y: 50 } })
    expect(found.get('heart')!.underId).toBe('bud')
    expect(centreMarks(setPlan(roses, { alignment: 'by-eye' })).size).toBe(0)
  })

  it('are drawn and cut with the layer that bears them', () => {
    const drawn = pieceMarks(roses, soundnessOf(roses))
    expect([...drawn.keys()].toSorted()).toEqual(['back/p1', 'bud/p1'])
    const cross = drawn.get('bud/p1')!.places.map((line) => Array.from(line, (v) => Math.round(v * 10) / 10))
    expect(cross).toEqual([
      [48.5, 50, 51.5, 50],
      [50, 48.5, 50, 51.5],
    ])
  })
})

describe('what is cut in the mirror', () => {
  it('lies mirrored on the sheet, marks and all; the drawing stays as it is seen', () => {
    const flag = [{ outer: Float64Array.of(10, 10, 40, 10, 10, 30), holes: [] }]
    const project = setLayer(stack('card', plate('back', 0, [0, 0, 60, 60]), card('film', 0, flag)), 'film', {
      lives: 'behind-pane',
      cutMirrored: true,
      folds: [{ line: [15, 10, 15, 40], way: 'up', deg: 20 }],
    })
    const cut = cutLayers(project).find(({ id }) => id === 'film')!.layer
    // The upright side, at the left as it is seen, is at the right.
    expect(cut.pieces[0]!.path).toContain('40 30')
    expect(layerRegion(project.layers[1]!)).toEqual(flag)
    const [fold] = pieceMarks(project, soundnessOf(project)).get('film/p1')!.folds
    expect(fold![0]).toBeCloseTo(35, 6)
  })
})
