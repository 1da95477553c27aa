import { describe, expect, it } from 'vitest'
import { shareInSight } from './print-page'

const seen = ({
  clientHeight,
  scrollHeight,
  clientWidth = 300,
  scrollWidth = 300,
}: {
  clientHeight: number
  scrollHeight: number
  clientWidth?: number
  scrollWidth?: number
}) => shareInSight({ clientHeight, scrollHeight, clientWidth, scrollWidth })

describe('how much of what scrolls is in sight', () => {
  it('is all of it where nothing is hidden, a rounded pixel left aside', () => {
    expect(seen({ clientHeight: 400, scrollHeight: 400 })).toBe(1)
    expect(seen({ clientHeight: 400, scrollHeight: 401 })).toBe(1)
    expect(seen({ clientHeight: 400, scrollHeight: 120 })).toBe(1)
  })

  it('is the part along the side of which less is', () => {
    expect(seen({ clientHeight: 399, scrollHeight: 800 })).toBeCloseTo(0.5, 9)
    // Columns that do not fit stand beside those that do.
    expect(seen({ clientHeight: 400, scrollHeight: 400, clientWidth: 299, scrollWidth: 1200 })).toBeCloseTo(
      0.25,
      9,
    )
    expect(seen({ clientHeight: 0, scrollHeight: 0, clientWidth: 0, scrollWidth: 0 })).toBe(1)
  })
})
