import { describe, expect, it } from 'vitest'
import { seededRandom } from '../../../base'
import { ellipse, rectangle } from '../../../base/geometry'
import { whyIllegal } from './exact/legal'
import type { NestInstance } from './instance'
import { Nester } from './nester'
import { Rivals } from './rivals'

/** Ellipses and boxes of some sizes, as many as fill most of a sheet. */
function pieces(count: number, seed: number): NestInstance {
  const random = seededRandom(seed)
  return {
    sheet: { w: 200, h: 200, margin: 5 },
    gap: 2,
    pieces: Array.from({ length: count }, (_, i) => {
      const [w, h] = [20 + 30 * random(), 15 + 20 * random()]
      const shape = i % 3 === 0 ? rectangle([0, 0], w, h) : ellipse([0, 0], w / 2, h / 2)
      return { id: `p${i}`, shape, qty: 1, turns: 'free' as const }
    }),
  }
}
const rivalsOf = (instance: NestInstance, { seconds }: { seconds: number }) =>
  new Rivals({ instance, seed: 3, seconds }, new Nester(instance, 3))

/** So many steps over the whole time, with what the best came to after each. */
function run(rivals: Rivals, steps: number): { scores: number[]; left: number[] } {
  const [scores, left]: [number[], number[]] = [[], []]
  for (let k = 0; k < steps; k++) {
    const before = rivals.best.score
    expect(rivals.step(k / steps)).toBe(rivals.best.score < before)
    scores.push(rivals.best.score)
    left.push(rivals.left)
  }
  return { scores, left }
}

describe('several searches of one layout', () => {
  const instance = pieces(22, 5)

  it('all have their turn, then the better half, then the best; what was found is never lost', () => {
    const { scores, left } = run(rivalsOf(instance, { seconds: 60 }), 200)
    expect(left[95]).toBe(4)
    expect(left[140]).toBe(2)
    expect(left[199]).toBe(1)
    expect(left).toEqual(left.slice(0, 20).concat(left.slice(20).toSorted((a, b) => b - a)))
    expect(scores).toEqual(scores.toSorted((a, b) => b - a))
  })

  it('give a layout that is legal and no larger than the first of each', () => {
    const rivals = rivalsOf(instance, { seconds: 60 })
    run(rivals, 120)
    const { placements } = rivals.best
    expect(placements).toHaveLength(22)
    for (const placed of placements)
      expect(
        whyIllegal(
          instance,
          placed,
          placements.filter((one) => one !== placed),
        ),
      ).toBeNull()
    for (const seed of [3, 3 + 104_729])
      expect(rivals.best.score).toBeLessThanOrEqual(new Nester(instance, seed).best.score)
  })

  it('come to the same from the same seed', () => {
    const [a, b] = [rivalsOf(instance, { seconds: 60 }), rivalsOf(instance, { seconds: 60 })]
    expect(run(a, 100)).toEqual(run(b, 100))
    expect(a.best).toEqual(b.best)
  })

  it('are one alone where there is little time: step for step what a nester does', () => {
    const alone = new Nester(instance, 3)
    const rivals = rivalsOf(instance, { seconds: 10 })
    for (let k = 0; k < 60; k++) {
      rivals.step(k / 60)
      alone.step()
      expect(rivals.left).toBe(1)
      expect(rivals.best).toEqual(alone.best)
    }
  })

  it('begin with what was found before', () => {
    const found = new Nester(instance, 8)
    for (let k = 0; k < 80; k++) found.step()
    const first = new Nester(instance, 3)
    first.offer(found.best)
    expect(new Rivals({ instance, seed: 3, seconds: 60 }, first).best.score).toBe(
      Math.min(first.best.score, found.best.score),
    )
  })
})
