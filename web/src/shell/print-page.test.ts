import { describe, expect, it } from 'vitest'
import { shareInSight } from './print-page'

const seen = (clientHeight: number, scrollHeight: number, clientWidth = 300, scrollWidth = 300) =>
  shareInSight({ clientHeight, scrollHeight, clientWidth, scrollWidth })

describe('how much of what scrolls is in sight', () => {
  it('is all of it where nothing is hidden, a rounded pixel left aside', () => {
    expect(seen(400, 400)).toBe(1)
    expect(seen(400, 401)).toBe(1)
    expect(seen(400, 120)).toBe(1)
  })

  it('is the part along the side of which less is', () => {
    expect(seen(399, 800)).toBeCloseTo(0.5, 9)
    // Columns that do not fit stand beside those that do.
    expect(seen(400, 400, 299, 1200)).toBeCloseTo(0.25, 9)
    expect(seen(0, 0, 0, 0)).toBe(1)
  })
})
