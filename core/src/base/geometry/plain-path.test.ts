import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ellipse, pathToRegion, plainPath, rectangle, regionArea, subtract } from './index'

const points = (d: string) => d.split(/[ML]/).length - 1

describe('a path as fine as the screen', () => {
  it('has a few points where the shape is drawn small, and looks the same', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 80, noNaN: true }),
        fc.double({ min: 0.02, max: 0.8, noNaN: true }),
        (r, near) => {
          const disc = ellipse([0, 0], r)
          const drawn = pathToRegion(plainPath(disc, near))
          // Nothing strays farther than it may.
          expect(Math.abs(regionArea(drawn) - regionArea([disc]))).toBeLessThan(2 * Math.PI * r * near + 1e-3)
        },
      ),
      { numRuns: 40 },
    )
    expect(points(plainPath(ellipse([0, 0], 40), 4.8))).toBeLessThan(
      points(plainPath(ellipse([0, 0], 40), 0.001)),
    )
  })

  it('keeps corners and openings', () => {
    const [frame] = subtract([rectangle([0, 0], 50, 40)], [rectangle([10, 10], 20, 20)])
    expect(regionArea(pathToRegion(plainPath(frame!, 0.4)))).toBeCloseTo(50 * 40 - 400, 6)
  })
})
