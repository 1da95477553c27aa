import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ellipse, offset, rectangle, subtract, takesDisc, union, type Region } from '.'

const spot = fc.record({
  x: fc.integer({ min: 0, max: 100 }),
  y: fc.integer({ min: 0, max: 60 }),
  r: fc.integer({ min: 1, max: 22 }),
})

describe('a disc in a region', () => {
  it('finds room where drawing the outlines in leaves something', () => {
    fc.assert(
      fc.property(
        fc.array(spot, { maxLength: 5 }),
        fc.array(spot, { maxLength: 8 }),
        fc.double({ min: 0.2, max: 24, noNaN: true }),
        (blobs, holes, radius) => {
          const round = (list: typeof blobs) =>
            union(...list.map(({ x, y, r }): Region => [ellipse([x, y], r)]))
          const region = subtract(union([rectangle([0, 0], 70, 40)], round(blobs)), round(holes))
          expect(takesDisc(region, radius)).toBe(offset(region, -radius).length > 0)
        },
      ),
      { numRuns: 300 },
    )
  })

  it('finds none in nothing, and just fits where it is as wide', () => {
    expect(takesDisc([], 1)).toBe(false)
    expect(takesDisc([rectangle([0, 0], 10, 4)], 1.99)).toBe(true)
    expect(takesDisc([rectangle([0, 0], 10, 4)], 2.01)).toBe(false)
  })
})
