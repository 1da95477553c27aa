import { describe, expect, it } from 'vitest'
import { Attempt } from './attempt'
import type { Separator } from './separator'
import { Tries } from './tries'

const measures = { count: 20, side: 10 }

/** Sweeps that an attempt lasts whose overlaps add up to what is listed, the last of it again and again; what was asked of the separator. */
function last(totals: readonly number[], { settles = false, of = measures } = {}) {
  const asked: string[] = []
  const separator = {
    total: 0,
    note: () => asked.push('note'),
    putBack: () => asked.push('back'),
  }
  const attempt = new Attempt(of, settles)
  for (let sweep = 1; sweep < 1000; sweep++) {
    separator.total = totals[Math.min(sweep, totals.length) - 1]!
    if (!attempt.goesOn(separator as unknown as Separator)) return { sweeps: sweep, asked }
  }
  throw new Error('an attempt never ends')
}

describe('an attempt', () => {
  it('ends after three sweeps where far too much overlaps, after fifteen where too much does', () => {
    expect(last([41]).sweeps).toBe(3)
    expect(last([41, 34]).sweeps).toBe(6)
    expect(last([16]).sweeps).toBe(15)
  })

  it('has time to settle where a sheet was given up, or where many pieces lie', () => {
    expect(last([40], { settles: true }).sweeps).toBe(15)
    expect(last([47], { of: { count: 120, side: 10 } }).sweeps).toBe(10)
  })

  it('goes back to its lowest twice, a third of its patience each, and is over at the third time', () => {
    const { sweeps, asked } = last([5])
    expect(asked).toEqual(['note', 'back', 'back'])
    // The first sweep is the new low; then three times as many as a third of the patience and one.
    expect(sweeps).toBe(1 + 3 * 21)
  })

  it('goes on for as long as it gets lower, up to a most', () => {
    const falling = Array.from({ length: 400 }, (_, k) => 10 * 0.97 ** k)
    expect(last(falling).sweeps).toBe(301)
  })
})

describe('tries', () => {
  const next = (tries: Tries, times: number) =>
    Array.from({ length: times }, () => {
      tries.failed()
      return `${tries.way} ${+tries.bite.toFixed(4)}`
    })

  it('take ever less until all failed once, then small bites from both sides, and now and then a sheet', () => {
    const tries = new Tries()
    expect(next(tries, 3)).toEqual(['rows 0.03', 'rows 0.015', 'rows 0.0075'])
    expect(tries.isStuck).toBe(false)
    expect(next(tries, 8)).toEqual(
      ['rows 0.02', 'columns 0.02', 'fewer 0.02', 'rows 0.005', 'columns 0.005', 'rows 0.005', 'columns 0.005', 'fewer 0.02'], // prettier-ignore
    )
    expect(tries.isStuck).toBe(true)
    expect(next(tries, 2)).toEqual(['rows 0.01', 'columns 0.01'])
  })

  it('ask for more after a success, and begin to fail anew on another layout', () => {
    const tries = new Tries()
    next(tries, 7)
    tries.succeeded()
    tries.onAnother()
    expect([tries.way, +tries.bite.toFixed(4), tries.isStuck]).toEqual(['rows', 0.007, false])
    for (let k = 0; k < 20; k++) tries.succeeded()
    expect(tries.bite).toBe(0.1)
  })
})
