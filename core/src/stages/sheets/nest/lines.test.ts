import { describe, expect, it } from 'vitest'
import type { NestLayout } from './instance'
import { Lines } from './lines'

const layout = (score: number): NestLayout => ({ placements: [], sheets: 1, score, utilisation: 0 })

describe('what a search goes on from', () => {
  it('is the best that was made of it', () => {
    const lines = new Lines(layout(2))
    lines.take(layout(1.8))
    lines.take(layout(1.9))
    expect(lines.base.score).toBe(1.8)
  })

  it('is another layout at once where that is much better, and later where it is a little', () => {
    const much = new Lines(layout(2))
    much.takeOther(layout(1.6), 5)
    much.turn(5, false)
    expect(much.base.score).toBe(1.6)
    const little = new Lines(layout(2))
    little.takeOther(layout(1.9), 5)
    const turnedAt = Array.from({ length: 400 }, (_, k) => k + 5).find((steps) => {
      little.turn(steps, false)
      return little.base.score < 2
    })
    // A lead of 5 % is enough once 15 % have come down to a third.
    expect(turnedAt).toBe(5 + 80)
  })

  it('goes over when it is stuck, and comes back when the other comes no further', () => {
    const lines = new Lines(layout(2))
    lines.takeOther(layout(2.02), 0)
    lines.turn(10, false)
    expect(lines.base.score).toBe(2)
    lines.turn(20, true)
    expect(lines.base.score).toBe(2.02)
    lines.turn(30, false)
    lines.turn(40, true)
    expect(lines.base.score).toBe(2)
    lines.takeOther(layout(1.95), 50)
    expect(lines.base.score).toBe(1.95)
  })

  it('leaves what is much worse by then', () => {
    const lines = new Lines(layout(2))
    lines.takeOther(layout(1.99), 0)
    lines.take(layout(1.8))
    lines.turn(20, true)
    expect(lines.base.score).toBe(1.8)
  })
})
