import { describe, expect, it } from 'vitest'
import { rectangle } from '../../../base/geometry'
import { Effort } from './effort'
import type { NestInstance } from './instance'

/** A sheet of 100 × 100 mm of which pieces take a share. */
const taking = (share: number): NestInstance => ({
  sheet: { w: 100, h: 100, margin: 0 },
  gap: 0,
  pieces: [{ id: 'a', shape: rectangle([0, 0], 100, 100 * share), qty: 1, turns: 'free' }],
})

/** Steps of 10 ms that each layout was given of a thousand, where `saves` says what a step brings its score to. */
function shares(effort: Effort, count: number, saves: (k: number, step: number) => number): number[] {
  const given = new Array<number>(count).fill(0)
  for (let step = 0; step < 1000; step++) {
    const k = effort.next()
    given[k]!++
    effort.note(k, 10, saves(k, given[k]!))
  }
  return given
}

describe('the time of a search over several papers', () => {
  it('does not go to what cannot get any smaller', () => {
    const effort = new Effort([
      { instance: taking(0.8), layout: { score: 0.8 } },
      { instance: taking(0.5), layout: { score: 0.8 } },
    ])
    const [full, loose] = shares(effort, 2, () => 0.8)
    // Only what goes round in turn: one in four of all, over two.
    expect(full).toBeLessThan(140)
    expect(loose).toBeGreaterThan(850)
  })

  it('goes to what keeps getting smaller, and leaves it once it no longer does', () => {
    const layouts = [0, 1, 2].map(() => ({ instance: taking(0.3), layout: { score: 1 } }))
    const gaining = shares(new Effort(layouts), 3, (k, step) => (k === 1 ? 1 - 0.0005 * step : 1))
    expect(gaining[1]).toBeGreaterThan(600)
    const stuck = shares(new Effort(layouts), 3, (k, step) => (k === 1 ? 1 - 0.0005 * Math.min(50, step) : 1))
    expect(stuck[1]).toBeLessThan(gaining[1]!)
    for (const given of stuck) expect(given).toBeGreaterThan(150)
  })

  it('is even where nothing tells them apart, and more where a sheet is larger', () => {
    const same = shares(
      new Effort([0, 1].map(() => ({ instance: taking(0.3), layout: { score: 0.9 } }))),
      2,
      () => 0.9,
    )
    expect(Math.abs(same[0]! - same[1]!)).toBeLessThan(100)
    const large: NestInstance = {
      ...taking(0.3),
      sheet: { w: 200, h: 200, margin: 0 },
      pieces: [{ id: 'a', shape: rectangle([0, 0], 200, 60), qty: 1, turns: 'free' }],
    }
    const [small, wide] = shares(
      new Effort([
        { instance: taking(0.3), layout: { score: 0.9 } },
        { instance: large, layout: { score: 0.9 } },
      ]),
      2,
      () => 0.9,
    )
    expect(wide).toBeGreaterThan(small! * 1.5)
  })

  it('follows the card in the pieces less that of the off-cuts', () => {
    const withOffCut: NestInstance = {
      ...taking(0.4),
      offCuts: [{ id: 'rest', outline: rectangle([0, 0], 100, 40), margin: 0 }],
    }
    const [done, open] = shares(
      new Effort([
        { instance: withOffCut, layout: { score: 0 } },
        { instance: taking(0.4), layout: { score: 0.7 } },
      ]),
      2,
      (k) => (k === 0 ? 0 : 0.7),
    )
    expect(done).toBeLessThan(140)
    expect(open).toBeGreaterThan(850)
  })
})
