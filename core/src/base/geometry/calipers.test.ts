// A shape between four walls, at any turn.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { star } from '../../../test/arbitrary'
import { boxHeight, boxWidth, convexHull, mapPolygon, mapRing, rectangle, ringBox, rotation, turnWithin } from './index' // prettier-ignore

/** How far a shape stands out of a room at the best of its turns, looked at every hundredth of a degree, mm; negative where it has air. */
function leastOver(points: Float64Array, w: number, h: number): number {
  let least = Infinity
  for (let k = 0; k < 18_000; k++) {
    const b = ringBox(mapRing(rotation(k / 100), points))
    least = Math.min(least, Math.max(boxWidth(b) - w, boxHeight(b) - h))
  }
  return least
}

describe('a turn at which a shape fits', () => {
  it('is found for just the strips that have one, as looking at every turn says', () => {
    const length = fc.double({ min: 190, max: 360, noNaN: true })
    const width = fc.double({ min: 2, max: 40, noNaN: true })
    const drawn = fc.integer({ min: 0, max: 359 })
    let across = 0
    fc.assert(
      fc.property(length, width, drawn, (l, w, deg) => {
        const { outer } = mapPolygon(rotation(deg), rectangle([0, 0], l, w))
        const over = leastOver(outer, 285, 198)
        fc.pre(Math.abs(over) > 0.05)
        const turn = turnWithin(convexHull(outer), 285, 198)
        expect(turn !== null).toBe(over < 0)
        if (turn === null) return
        if (l > 285) across++
        const b = ringBox(mapRing(rotation(turn), outer))
        expect(boxWidth(b)).toBeLessThanOrEqual(285)
        expect(boxHeight(b)).toBeLessThanOrEqual(198)
      }),
      { numRuns: 60 },
    )
    expect(across).toBeGreaterThan(0)
  })

  it('is found for any shape, with the air that looking at every turn finds', () =>
    fc.assert(
      fc.property(star(100), fc.double({ min: 60, max: 200, noNaN: true }), ({ outer }, w) => {
        const over = leastOver(outer, w, 150)
        fc.pre(Math.abs(over) > 0.05)
        expect(turnWithin(convexHull(outer), w, 150) !== null).toBe(over < 0)
      }),
      { numRuns: 40 },
    ))
})
