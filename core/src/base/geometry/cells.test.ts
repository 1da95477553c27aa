import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  cellsOf,
  ellipse,
  frameOver,
  intersect,
  rectangle,
  regionArea,
  regionBox,
  regionContains,
  subtract,
  surelyCommonMm2,
  union,
  type Region,
} from '.'

const spot = fc.record({
  x: fc.double({ min: 0, max: 100, noNaN: true }),
  y: fc.double({ min: 0, max: 60, noNaN: true }),
  r: fc.double({ min: 1, max: 22, noNaN: true }),
})
/** Card of discs and a plate, with round openings. */
const region = fc
  .tuple(fc.array(spot, { maxLength: 5 }), fc.array(spot, { maxLength: 8 }))
  .map(([blobs, holes]): Region => {
    const round = (list: typeof blobs) => union(...list.map(({ x, y, r }): Region => [ellipse([x, y], r)]))
    return subtract(union([rectangle([0, 0], 70, 40)], round(blobs)), round(holes))
  })
  .filter((shape) => shape.length > 0)

describe('a region on cells', () => {
  it('holds a whole cell in all of it, and a middle where it says so', () => {
    fc.assert(
      fc.property(region, fc.integer({ min: 3, max: 14 }), (shape, along) => {
        const frame = frameOver(regionBox(shape), along)
        const { inside, whole } = cellsOf(shape, frame)
        const { minX, minY, pitch, cols } = frame
        whole.forEach((isWhole, k) => {
          const [x, y] = [minX + (k % cols) * pitch, minY + Math.floor(k / cols) * pitch]
          if (isWhole)
            expect(regionArea(intersect([rectangle([x, y], pitch, pitch)], shape))).toBeCloseTo(pitch ** 2, 2)
          expect(inside[k] === 1).toBe(regionContains(shape, x + pitch / 2, y + pitch / 2))
        })
      }),
      { numRuns: 60 },
    )
  })

  it('has no more surely in common with another than it has, and nearly all of it on fine cells', () => {
    fc.assert(
      fc.property(region, region, (a, b) => {
        const common = regionArea(intersect(a, b))
        const surely = (along: number) => {
          const frame = frameOver(regionBox(a), along)
          return surelyCommonMm2(cellsOf(a, frame), cellsOf(b, frame), frame)
        }
        expect(surely(12)).toBeLessThanOrEqual(common + 0.01)
        expect(surely(48)).toBeLessThanOrEqual(common + 0.01)
        expect(surely(400)).toBeGreaterThan(common * 0.8 - 40)
      }),
      { numRuns: 100 },
    )
  })
})
