import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectLegal } from '../../../../../test/legal-layout'
import { piece } from '../../../../../test/nest-piece'
import { ellipse, rectangle } from '../../../../base/geometry'
import { seededRandom } from '../../../../base'
import { BoxSearch } from './boxes'
import type { NestInstance, NestLayout, Turns } from '../instance'
import { Nester } from '../nester'

describe('boxes', () => {
  it('fit to the last hair', () => {
    const instance: NestInstance = {
      sheet: { w: 190, h: 190, margin: 0 },
      gap: 0,
      pieces: [piece('s', rectangle([0, 0], 95, 95), { qty: 4, turns: 'quarter' })],
    }
    expect(BoxSearch.suits(instance)).toBe(true)
    const nester = new Nester(instance, 1)
    for (let k = 0; k < 6; k++) nester.step()
    expect(nester.best.sheets).toBe(1)
    expectLegal(instance, nester.best)
  })

  it('fill a sheet to the last corner, as no order of laying does', () => {
    // Cut from one sheet by straight cuts across the larger part, with the gap between.
    const random = seededRandom(9)
    const rects = [{ w: 292, h: 292 }]
    while (rects.length < 20) {
      rects.sort((a, b) => b.w * b.h - a.w * a.h)
      const { w, h } = rects.shift()!
      const share = 0.3 + random() * 0.4
      if (w > h) rects.push({ w: w * share - 1, h }, { w: w * (1 - share) - 1, h })
      else rects.push({ w, h: h * share - 1 }, { w, h: h * (1 - share) - 1 })
    }
    const pieces = rects.map(({ w, h }, i) =>
      piece(`r${i}`, rectangle([0, 0], w, h), { qty: 1, turns: 'quarter' }),
    )
    const instance: NestInstance = { sheet: { w: 304, h: 304, margin: 6 }, gap: 2, pieces }
    const nester = new Nester(instance, 1)
    for (let k = 0; k < 2000 && nester.best.sheets > 1; k++) nester.step()
    expect(nester.best.sheets).toBe(1)
    expectLegal(instance, nester.best)
  })

  it('stay legal for any sizes and rules, and take no round shapes', () => {
    const side = fc.double({ min: 6, max: 120, noNaN: true })
    fc.assert(
      fc.property(
        fc.array(fc.tuple(side, side, fc.constantFrom<Turns>('free', 'quarter', 'fixed')), {
          minLength: 2,
          maxLength: 14,
        }),
        fc.double({ min: 0.2, max: 4, noNaN: true }),
        (sizes, gap) => {
          const instance: NestInstance = {
            sheet: { w: 140, h: 150, margin: 5 },
            gap,
            pieces: sizes.map(([w, h, turns], i) =>
              piece(`r${i}`, rectangle([3, -7], w, h), { qty: 1 + (i % 2), turns }),
            ),
          }
          const search = new BoxSearch(instance, seededRandom(3))
          let best: NestLayout = { placements: [], sheets: 99, score: 99, utilisation: 0 }
          for (let k = 0; k < 60; k++) {
            const layout = search.step(best)
            if (!layout) continue
            expect(layout.score).toBeLessThan(best.score)
            expectLegal(instance, layout)
            best = layout
          }
          expect(best.score).toBeLessThan(99)
        },
      ),
      { numRuns: 25 },
    )
    expect(
      BoxSearch.suits({
        sheet: { w: 100, h: 100, margin: 0 },
        gap: 1,
        pieces: [piece('d', ellipse([0, 0], 10))],
      }),
    ).toBe(false)
  })

  it('of many take a turn in several steps, and are all laid once it is over', () => {
    const random = seededRandom(5)
    const pieces = Array.from({ length: 400 }, (_, i) =>
      piece(`r${i}`, rectangle([0, 0], 12 + 30 * random(), 8 + 20 * random()), { turns: 'quarter' }),
    )
    const instance: NestInstance = { sheet: { w: 304, h: 304, margin: 6 }, gap: 2, pieces }
    const search = new BoxSearch(instance, seededRandom(1))
    let best: NestLayout = { placements: [], sheets: 99, score: 99, utilisation: 0 }
    const stepsOf: number[] = []
    // Orders, and some of a beam.
    for (let turn = 0; turn < 2; turn++) {
      let steps = 0
      do {
        best = search.step(best) ?? best
        steps++
      } while (search.underWay)
      stepsOf.push(steps)
    }
    expect(Math.min(...stepsOf)).toBeGreaterThan(3)
    expectLegal(instance, best)
  })
})
