import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { planFair, type AtHand, type Candidate, type FairGoal } from './index'

const candidate = fc.record({
  bringsEach: fc.integer({ min: -3, max: 25 }),
  minutesEach: fc.integer({ min: 5, max: 60 }),
  red: fc.constantFrom(0, 0.25, 0.5, 1, 1.5),
  blue: fc.constantFrom(0, 0.5, 1),
  pads: fc.integer({ min: 0, max: 12 }),
  frames: fc.constantFrom(0, 1, 2),
  most: fc.constantFrom(null, 2, 3),
})

const worthOf = (goal: FairGoal, one: Candidate): number =>
  goal === 'profit' ? one.bringsEach : Object.values(one.sheetsEach).reduce((a, b) => a + b, 0)

/** The best of all numbers that fit, tried one by one. */
function bruteForce(list: readonly Candidate[], atHand: AtHand, goal: FairGoal): number {
  let best = -Infinity
  const counts = list.map(() => 0)
  const fits = () => {
    const total = (of: (one: Candidate) => number) =>
      list.reduce((sum, one, k) => sum + counts[k]! * of(one), 0)
    return (
      total((one) => one.minutesEach) <= atHand.minutes + 1e-9 &&
      ['red', 'blue'].every((id) => total((one) => one.sheetsEach[id] ?? 0) <= atHand.sheets[id]! + 1e-9) &&
      total((one) => one.padsEach['p'] ?? 0) <= atHand.pads['p']! + 1e-9 &&
      total((one) => one.thingsEach['f'] ?? 0) <= atHand.things['f']! + 1e-9
    )
  }
  const walk = (k: number) => {
    if (k === list.length) {
      if (fits()) best = Math.max(best, list.reduce((sum, one, i) => sum + counts[i]! * worthOf(goal, one), 0)) // prettier-ignore
      return
    }
    for (let n = list[k]!.least; n <= (list[k]!.most ?? 9); n++) {
      counts[k] = n
      walk(k + 1)
    }
    counts[k] = 0
  }
  walk(0)
  return best
}

describe('for a fair', () => {
  it('the numbers are as good as the best of all that fit', () => {
    fc.assert(
      fc.property(
        fc.array(candidate, { minLength: 1, maxLength: 3 }),
        fc.integer({ min: 30, max: 240 }),
        fc.integer({ min: 0, max: 4 }),
        fc.integer({ min: 0, max: 5 }),
        fc.constantFrom<FairGoal>('profit', 'left-overs'),
        (raw, minutes, sheets, frames, goal) => {
          const list = raw.map((one, k): Candidate => ({
            id: `p${k}`,
            name: `P${k}`,
            bringsEach: one.bringsEach,
            minutesEach: one.minutesEach,
            // Something always bounds it, so that all numbers can be tried.
            sheetsEach: { red: one.red, blue: one.blue },
            padsEach: { p: one.pads },
            thingsEach: { f: one.frames },
            least: 0,
            most: one.most ?? 9,
          }))
          const atHand = { sheets: { red: sheets, blue: 3 }, pads: { p: 30 }, things: { f: frames }, minutes }
          const plan = planFair(list, atHand, goal)
          const worth = list.reduce((sum, one, k) => sum + plan.counts[k]!.count * worthOf(goal, one), 0)
          expect(worth).toBeCloseTo(bruteForce(list, atHand, goal), 4)
          expect(plan.minutes).toBeLessThanOrEqual(minutes)
          for (const id of ['red', 'blue'])
            expect(plan.sheets[id] ?? 0).toBeLessThanOrEqual(atHand.sheets[id as 'red'] + 1e-6)
        },
      ),
      { numRuns: 80 },
    )
  })

  it('says what runs out first, and when the least asked for does not fit', () => {
    const one: Candidate = { id: 'a', name: 'A', bringsEach: 5, minutesEach: 30, sheetsEach: { red: 1 }, padsEach: {}, thingsEach: {}, least: 0, most: null } // prettier-ignore
    const atHand = { sheets: { red: 3 }, pads: {}, things: {}, minutes: 600 }
    expect(planFair([one], atHand, 'profit')).toMatchObject({ counts: [{ count: 3 }], brings: 15, limits: ['sheet red'] }) // prettier-ignore
    const framed = { ...one, thingsEach: { oak: 1 } }
    expect(planFair([framed], { ...atHand, things: { oak: 2 } }, 'profit')).toMatchObject({ counts: [{ count: 2 }], things: { oak: 2 }, limits: ['thing oak'] }) // prettier-ignore
    expect(() => planFair([{ ...one, least: 4 }], atHand, 'profit')).toThrow(/more than/)
    expect(() => planFair([], atHand, 'profit')).toThrow(/at least one/)
  })
})
