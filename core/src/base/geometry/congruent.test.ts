import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { star } from '../../../test/arbitrary'
import {
  compose,
  ellipse,
  isCongruent,
  mapPolygon,
  rectangle,
  regionToPath,
  rotation,
  subtract,
  translation,
  type Affine,
  type Polygon,
} from '.'

const pathOf = (shape: Polygon) => regionToPath([shape])
const mirror: Affine = [-1, 0, 0, 1, 0, 0]
const moves = fc.record({
  deg: fc.double({ min: 0, max: 360, noNaN: true }),
  x: fc.double({ min: -300, max: 300, noNaN: true }),
  y: fc.double({ min: -300, max: 300, noNaN: true }),
})
/** An L with two openings of unlike size: it has no symmetry. */
const hook = subtract(
  [{ outer: Float64Array.of(0, 0, 30, 0, 30, 12, 14, 12, 14, 50, 0, 50), holes: [] }],
  [ellipse([7, 40], 3), ellipse([7, 28], 4)],
)[0]!

describe('what was cut still fits', () => {
  it('where it was moved and turned', () => {
    fc.assert(
      fc.property(fc.oneof(star(40), fc.constant(hook)), moves, (shape, { deg, x, y }) => {
        const moved = mapPolygon(compose(translation(x, y), rotation(deg)), shape)
        expect(isCongruent(pathOf(shape), pathOf(moved))).toBe(true)
      }),
    )
  })

  it('not where it was mirrored, sized, or lost an opening', () => {
    expect(isCongruent(pathOf(hook), pathOf(mapPolygon(mirror, hook)))).toBe(false)
    expect(isCongruent(pathOf(hook), pathOf(mapPolygon([1.01, 0, 0, 1.01, 0, 0], hook)))).toBe(false)
    const bare = { ...hook, holes: hook.holes.slice(1) }
    expect(isCongruent(pathOf(hook), pathOf(bare))).toBe(false)
  })

  it('not where a corner or an opening moved by more than can be seen', () => {
    fc.assert(
      fc.property(star(40), fc.nat(), fc.double({ min: 0.2, max: 3, noNaN: true }), (shape, k, mm) => {
        const outer = shape.outer.slice()
        outer[k % outer.length]! += mm
        expect(isCongruent(pathOf(shape), pathOf({ outer, holes: [] }))).toBe(false)
      }),
    )
    const frame = (x: number) => subtract([rectangle([0, 0], 40, 30)], [rectangle([x, 8], 10, 10)])[0]!
    expect(isCongruent(pathOf(frame(8)), pathOf(frame(8)))).toBe(true)
    expect(isCongruent(pathOf(frame(8)), pathOf(frame(8.5)))).toBe(false)
  })
})
