// Made-up shapes for property tests.
import fc from 'fast-check'
import { fillRings, rectangle, union, type Polygon, type Region } from '@feuillet/core/base/geometry'

const point = (limit: number) =>
  fc.tuple(fc.integer({ min: 0, max: limit }), fc.integer({ min: 0, max: limit }))

/** Any closed scribble, crossings and all. */
export const scribble = (limit = 100): fc.Arbitrary<[number, number][]> =>
  fc.array(point(limit), { minLength: 3, maxLength: 9 })

/** A sound region made of a scribble. */
export const region = (limit = 100): fc.Arbitrary<Polygon[]> =>
  scribble(limit).map((points) => fillRings([Float64Array.from(points.flat())], 'nonzero'))

/** A star around 0,0: one connected face with bays. */
export const star = (radius = 20): fc.Arbitrary<Polygon> =>
  fc.array(fc.double({ min: 0.35, max: 1, noNaN: true }), { minLength: 5, maxLength: 12 }).map((reach) => ({
    outer: Float64Array.from(
      reach.flatMap((share, i) => {
        const angle = (i / reach.length) * 2 * Math.PI
        return [Math.cos(angle) * share * radius, Math.sin(angle) * share * radius]
      }),
    ),
    holes: [],
  }))

/** A few rectangles in one region. */
export const blocks = (limit = 100): fc.Arbitrary<Region> =>
  fc
    .array(
      fc.tuple(point(limit), fc.integer({ min: 4, max: limit / 2 }), fc.integer({ min: 4, max: limit / 2 })),
      { minLength: 1, maxLength: 4 },
    )
    .map((list) => union(list.map(([[x, y], w, h]) => rectangle([x, y], w, h))))
