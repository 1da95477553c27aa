import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { batchTimes, learn, SHRINK, type Measured } from './learning'

const of = (ratio: number, counts: boolean | null = null): Measured => ({
  oursMin: 4,
  minutes: 4 * ratio,
  counts,
})

describe('learning', () => {
  it('believes nothing of nothing, a little of one, nearly all of many', () => {
    expect(learn([]).factor).toBe(1)
    expect(learn([], 1.4).factor).toBeCloseTo(1.4, 12)
    // One of twice the time: the fourth root of 2, since 1 is believed as if it had been seen three times.
    expect(learn([of(2)]).factor).toBeCloseTo(2 ** (1 / (1 + SHRINK)), 12)
    expect(learn(Array.from({ length: 60 }, () => of(1.5))).factor).toBeCloseTo(1.5, 1)
  })

  it('finds the pace of a maker however wild single times are', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.6, max: 2.2, noNaN: true }),
        fc.array(fc.double({ min: -0.12, max: 0.12, noNaN: true }), { minLength: 20, maxLength: 40 }),
        fc.array(fc.constantFrom(0.05, 8, 12, 30), { maxLength: 5 }),
        (pace, noise, wild) => {
          const seen = [...noise.map((e) => of(pace * Math.exp(e))), ...wild.map((r) => of(r))]
          const { factor, odd, n } = learn(seen)
          expect(Math.abs(Math.log(factor / pace))).toBeLessThan(0.25)
          expect(odd.length).toBe(wild.length)
          expect(n).toBe(noise.length)
        },
      ),
      { numRuns: 60 },
    )
  })

  it('asks about what is odd, and does as it is told', () => {
    const seen = [1, 1.05, 0.95, 1.02, 0.98].map((r) => of(r))
    const odd = of(4)
    expect(learn([...seen, odd]).odd).toEqual([odd])
    expect(learn([...seen, of(4, true)]).n).toBe(6)
    expect(learn([...seen, of(1, false)]).n).toBe(5)
    // Of two that differ as widely none is odd: there is no middle yet.
    expect(learn([of(1), of(3)]).odd).toEqual([])
  })

  it('of a batch adds up each one’s time, a doubling by a doubling', () => {
    expect(batchTimes(1, 0.92)).toBe(1)
    expect(batchTimes(2, 0.8)).toBeCloseTo(1.8, 12)
    expect(batchTimes(4, 0.8)).toBeCloseTo(1 + 0.8 + 0.8 ** Math.log2(3) + 0.64, 12)
    expect(batchTimes(20, 1)).toBe(20)
  })
})
