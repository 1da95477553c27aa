import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectLegal } from '../../../../../test/legal-layout'
import { rectangle } from '../../../../base/geometry'
import { seededRandom } from '../../../../base'
import { BlockSearch } from './blocks'
import { BoxSearch } from './boxes'
import type { NestInstance, Turns } from '../instance'
import { Nester } from '../nester'

const SHEET = { w: 304.8, h: 304.8, margin: 6.35 }
const GAP = 2

/** A sheet cut up by straight cuts, the largest part always next, its lengths rounded down to a step. */
function cutUp(
  count: number,
  seed: number,
  { turns, step = 0 }: { turns: Turns; step?: number },
): NestInstance {
  const random = seededRandom(seed)
  const parts = [{ w: SHEET.w - 2 * SHEET.margin, h: SHEET.h - 2 * SHEET.margin }]
  while (parts.length < count) {
    parts.sort((a, b) => b.w * b.h - a.w * a.h)
    const { w, h } = parts.shift()!
    const share = 0.3 + random() * 0.4
    if (w > h) parts.push({ w: w * share - GAP / 2, h }, { w: w * (1 - share) - GAP / 2, h })
    else parts.push({ w, h: h * share - GAP / 2 }, { w, h: h * (1 - share) - GAP / 2 })
  }
  const rounded = (v: number) => (step > 0 ? Math.floor(v / step) * step : v)
  return {
    sheet: SHEET,
    gap: GAP,
    pieces: parts.map(({ w, h }, i) => ({
      id: `r${i}`,
      shape: rectangle([0, 0], rounded(w), rounded(h)),
      qty: 1,
      turns,
    })),
  }
}

const solve = (instance: NestInstance, steps: number) => {
  const nester = new Nester(instance, 1)
  for (let k = 0; k < steps && nester.best.score > 1; k++) nester.step()
  return nester.best
}

describe('what straight cuts made of a sheet', () => {
  it.each([
    ['quarter', 40, 0],
    ['quarter', 40, 0.01],
    ['quarter', 40, 0.1],
    ['quarter', 70, 0.1],
    ['fixed', 30, 0],
    ['free', 25, 0.001],
  ] as const)('is put together again, turns %s, %i pieces, rounded to %d mm', (turns, count, step) => {
    for (const seed of [1, 2, 3]) {
      const instance = cutUp(count, seed, { turns, step })
      const best = solve(instance, 400)
      expect(best.score).toBeLessThanOrEqual(1 + 1e-9)
      expect(best.placements).toHaveLength(count)
      expectLegal(instance, best)
      if (turns === 'fixed') for (const p of best.placements) expect(p.rotation).toBe(0)
    }
  })

  it('is not looked for among very many boxes', () => {
    const of = (qty: number): NestInstance => ({
      sheet: SHEET,
      gap: GAP,
      pieces: [{ id: 'tag', shape: rectangle([0, 0], 20, 30), qty, turns: 'quarter' }],
    })
    const suits = (qty: number) => BlockSearch.suits(new BoxSearch(of(qty), seededRandom(1)).boxes)
    expect([suits(300), suits(301)]).toEqual([true, false])
  })

  it('is legal with whatever else there is, each piece once', () => {
    const size = fc.tuple(
      fc.integer({ min: 20, max: 140 }),
      fc.integer({ min: 20, max: 140 }),
      fc.integer({ min: 1, max: 4 }),
    )
    fc.assert(
      fc.property(
        fc.array(size, { minLength: 2, maxLength: 8 }),
        fc.constantFrom<Turns>('quarter', 'fixed'),
        fc.integer({ min: 1, max: 99 }),
        (sizes, turns, seed) => {
          const instance: NestInstance = {
            sheet: SHEET,
            gap: GAP,
            pieces: sizes.map(([w, h, qty], i) => ({
              id: `c${i}`,
              shape: rectangle([0, 0], w, h),
              qty,
              turns,
            })),
          }
          const random = seededRandom(seed)
          const worst = { ...new Nester(instance, 1, { ways: 'orders' }).best, score: 99 }
          const search = new BlockSearch(instance, new BoxSearch(instance, random).boxes, random)
          for (let k = 0; k < 12 && !search.done; k++) {
            const layout = search.step(worst)
            if (!layout) continue
            expectLegal(instance, layout)
            expect(layout.placements.map((p) => `${p.id}#${p.copy}`).toSorted()).toEqual(
              worst.placements.map((p) => `${p.id}#${p.copy}`).toSorted(),
            )
          }
        },
      ),
      { numRuns: 25 },
    )
  })
})
