import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { star } from '../../../../../test/arbitrary'
import { expectLegal } from '../../../../../test/legal-layout'
import {
  ellipse,
  mapPolygon,
  polygonBox,
  rectangle,
  subtract,
  translation,
  type Polygon,
} from '../../../../base/geometry'
import { seededRandom } from '../../../../base'
import { nearest } from './clearance'
import { makeField } from '../overlap/field'
import { overlapOf } from '../../../../../test/overlap'
import type { NestInstance, NestLayout, Placement } from '../instance'
import { atOnce } from '../parts'
import { PlainPieces } from './plain-pieces'
import { settle, tidied } from './settle'
import { wayTo } from './slide'
import { summarise } from '../summary'

const placed = (shape: Polygon) => ({ shape, box: polygonBox(shape) })
const moved = (shape: Polygon, dx: number, dy: number) => mapPolygon(translation(dx, dy), shape)

/** A round outline of many corners that waves. */
const blossom = (random: () => number): Polygon => {
  const [petals, phase] = [3 + Math.floor(random() * 9), random() * 6]
  const outer = Array.from({ length: 300 }, (_, k) => {
    const a = (k / 300) * 2 * Math.PI
    const r = 22 + 5 * Math.sin(petals * a + phase)
    return [r * Math.cos(a), r * Math.sin(a)]
  })
  return { outer: Float64Array.from(outer.flat()), holes: [] }
}

describe('the way a piece may go', () => {
  const far = fc.double({ min: -30, max: 30, noNaN: true })

  it('ends the gap away from what is in the way, and nowhere before', () => {
    fc.assert(
      fc.property(
        star(9),
        star(9),
        far,
        fc.constantFrom([-1, 0], [1, 0], [0, -1], [0, 1]),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (a, b, aside, way, gap) => {
          const [dx, dy] = way as [number, number]
          // b stands 200 mm off along the way.
          const other = moved(b, dx * 200 + Math.abs(dy) * aside, dy * 200 + Math.abs(dx) * aside)
          const mm = wayTo(placed(a), [placed(other)], { dx, dy, gap, most: 400 })
          const at = (t: number) => nearest(moved(a, dx * t, dy * t), other, gap + 1)?.mm ?? Infinity
          if (mm === 400) for (let t = 0; t <= 400; t += 5) expect(at(t)).toBeGreaterThanOrEqual(gap - 1e-6)
          else {
            expect(at(mm)).toBeCloseTo(gap, 5)
            for (let k = 0; k < 20; k++) expect(at((mm * k) / 20)).toBeGreaterThanOrEqual(gap - 1e-6)
          }
        },
      ),
      { numRuns: 60 },
    )
  })

  it('is none for what is too near already, and free for what goes away', () => {
    const [a, b] = [placed(rectangle([0, 0], 10, 10)), placed(rectangle([11, 0], 10, 10))]
    expect(wayTo(a, [b], { dx: 1, dy: 0, gap: 2, most: 50 })).toBe(0)
    expect(wayTo(a, [b], { dx: -1, dy: 0, gap: 2, most: 50 })).toBe(50)
    // Past what stands beside the way, though not within the gap of it.
    expect(wayTo(a, [placed(rectangle([5, 13], 10, 10))], { dx: 1, dy: 0, gap: 2, most: 50 })).toBe(50)
  })
})

describe('closing gaps', () => {
  const tidy = (instance: NestInstance, layout: NestLayout, trials: number) =>
    atOnce(
      tidied(new PlainPieces(instance), layout, { random: seededRandom(1), trials, mayMove: () => true }),
    )
  const scattered = (shapes: Polygon[], gap: number): { instance: NestInstance; placements: Placement[] } => {
    const side = 20 + shapes.length * 75
    return {
      instance: {
        sheet: { w: side, h: side, margin: 5 },
        gap,
        pieces: shapes.map((shape, i) => ({ id: `s${i}`, shape, qty: 1, turns: 'quarter' as const })),
      },
      placements: shapes.map((_, i) => ({
        id: `s${i}`,
        copy: 0,
        sheet: 0,
        x: 45 + i * 75,
        y: 45 + ((i * 7) % shapes.length) * 75,
        rotation: 0,
      })),
    }
  }

  it('keeps a layout legal, and moves pieces up and to the left only', () => {
    fc.assert(
      fc.property(
        fc.array(star(11), { minLength: 2, maxLength: 5 }),
        fc.double({ min: 0.1, max: 4, noNaN: true }),
        (shapes, gap) => {
          const { instance, placements } = scattered(shapes, gap)
          const after = settle(instance, placements, new Set(placements.map((p) => `${p.id}#0`)))
          expectLegal(instance, summarise(instance, after))
          after.forEach((p, i) => {
            expect(p.x).toBeLessThanOrEqual(placements[i]!.x + 1e-9)
            expect(p.y).toBeLessThanOrEqual(placements[i]!.y + 1e-9)
          })
          const better = tidy(instance, summarise(instance, placements), 20)
          if (better) expectLegal(instance, better)
        },
      ),
      { numRuns: 25 },
    )
  })

  it('keeps outlines of many corners within the rim, which slide as plainer ones', () => {
    const random = seededRandom(5)
    let moved = 0
    for (let k = 0; k < 12; k++) {
      const shapes = Array.from({ length: 4 }, () => blossom(random))
      const { instance, placements } = scattered(shapes, 2)
      const turned = placements.map((p) => ({ ...p, rotation: 360 * random() }))
      const free = { ...instance, pieces: instance.pieces.map((piece) => ({ ...piece, turns: 'free' as const })) } // prettier-ignore
      const better = tidy(free, summarise(free, turned), 20)
      if (better) moved++
      expectLegal(free, better ?? summarise(free, turned))
    }
    expect(moved).toBeGreaterThan(8)
  })

  it('drops what reaches far into a bay where it fits, and leaves what is pinned', () => {
    const frame = subtract([rectangle([0, 0], 100, 100)], [rectangle([30, 30], 40, 70)])[0]!
    const instance: NestInstance = {
      sheet: { w: 110, h: 200, margin: 5 },
      gap: 2,
      pieces: [
        { id: 'bay', shape: frame, qty: 1, turns: 'fixed' },
        { id: 'bar', shape: rectangle([0, 0], 30, 60), qty: 1, turns: 'quarter' },
      ],
    }
    const placements: Placement[] = [
      { id: 'bay', copy: 0, sheet: 0, x: 5, y: 5, rotation: 0 },
      { id: 'bar', copy: 0, sheet: 0, x: 5, y: 110, rotation: 0 },
    ]
    const layout = summarise(instance, placements)
    const better = tidy(instance, layout, 60)!
    expect(better.score).toBeCloseTo(100 / 190, 2)
    expectLegal(instance, better)
    expect(tidy({ ...instance, pinned: placements }, layout, 60)).toBeNull()
  })
})

describe('the measure of overlap', () => {
  it('is larger the more a piece lies over one of its own kind, up to right upon it', () => {
    const disc = makeField(ellipse([0, 0], 25), 2)
    const at = (x: number) =>
      overlapOf([disc, { x, y: 0, cos: 1, sin: 0 }], [disc, { x: 0, y: 0, cos: 1, sin: 0 }], 2)
    expect(at(53)).toBe(0)
    for (const [near, far] of [
      [0, 12],
      [12, 25],
      [25, 40],
      [40, 51],
    ] as const)
      expect(at(near)).toBeGreaterThan(at(far))
  })
})
