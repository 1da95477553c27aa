import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { topperScene } from './topper-scene'

describe('a topper where it will stand', () => {
  it('stands over the middle of a cake, its sticks in both', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 320, noNaN: true }),
        fc.integer({ min: 0, max: 4 }),
        (width, count) => {
          const { topper, cake, isCupcake, sticks, box } = topperScene(width, count, null)
          expect((cake.minX + cake.maxX) / 2).toBeCloseTo((topper.minX + topper.maxX) / 2, 6)
          expect(cake.minY).toBeGreaterThan(topper.maxY)
          expect(sticks).toHaveLength(count)
          for (const { x, fromY, toY } of sticks) {
            expect(x).toBeGreaterThan(topper.minX)
            expect(x).toBeLessThan(topper.maxX)
            expect(fromY).toBeLessThan(topper.maxY)
            expect(toY).toBeGreaterThan(cake.minY)
            expect(toY).toBeLessThan(cake.maxY)
          }
          if (!isCupcake) expect(cake.maxX - cake.minX).toBeGreaterThanOrEqual(width)
          expect(box.maxY).toBe(cake.maxY)
        },
      ),
    )
  })

  it('is a cupcake under a small one, and the design’s own place where one is drawn', () => {
    expect(topperScene(50, 1, null).isCupcake).toBe(true)
    const { cake, isCupcake } = topperScene(150, 2, { minX: 10, minY: 0, maxX: 160, maxY: 80 })
    expect(isCupcake).toBe(false)
    expect([cake.minX, cake.maxX]).toEqual([expect.closeTo(85 - 101.6, 6), expect.closeTo(85 + 101.6, 6)])
  })
})
