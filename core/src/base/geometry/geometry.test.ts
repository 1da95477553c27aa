import fc from 'fast-check'
import * as polyclip from 'polyclip-ts'
import { describe, expect, it } from 'vitest'
import { region, scribble, star } from '../../../test/arbitrary'
import {
  boxHeight,
  boxWidth,
  convexHull,
  cleanRing,
  clipToBox,
  ellipse,
  facesOf,
  fillRings,
  interiorPoint,
  intersect,
  isSimple,
  mapRegion,
  mapRing,
  offset,
  offsetPlain,
  pathToRegion,
  polygonArea,
  quickInteriorPoint,
  rectangle,
  regionArea,
  regionBox,
  regionCentroid,
  regionContains,
  regionPerimeter,
  regionToPath,
  ringContains,
  rotation,
  simplify,
  strokeRegion,
  subtract,
  translation,
  union,
  type Region,
  signedArea,
} from './index'

/** The same region for the oracle, an independent library. */
const toOracle = (r: Region): polyclip.Geom =>
  r.map((p) =>
    [p.outer, ...p.holes].map((ring) =>
      Array.from({ length: ring.length / 2 }, (_, i) => [ring[i * 2]!, ring[i * 2 + 1]!] as [number, number]),
    ),
  )

const ringArea = (ring: [number, number][]) =>
  ring.reduce((sum, [x, y], i) => {
    const [px, py] = ring[(i + ring.length - 1) % ring.length]!
    return sum + (px * y - x * py) / 2
  }, 0)
const oracleArea = (geom: [number, number][][][]) =>
  geom.reduce(
    (sum, [outer, ...holes]) =>
      sum + Math.abs(ringArea(outer!)) - holes.reduce((h, ring) => h + Math.abs(ringArea(ring)), 0),
    0,
  )

describe('booleans', () => {
  it('agree with an independent library on areas', () => {
    fc.assert(
      fc.property(region(), region(), (a, b) => {
        if (a.length === 0 || b.length === 0) return
        expect(regionArea(union(a, b))).toBeCloseTo(oracleArea(polyclip.union(toOracle(a), toOracle(b))), 1)
        expect(regionArea(intersect(a, b))).toBeCloseTo(
          oracleArea(polyclip.intersection(toOracle(a), toOracle(b))),
          1,
        )
        expect(regionArea(subtract(a, b))).toBeCloseTo(
          oracleArea(polyclip.difference(toOracle(a), toOracle(b))),
          1,
        )
      }),
      { numRuns: 80 },
    )
  })

  it('clip to a box as an intersection with it does', () => {
    const side = fc.integer({ min: 1, max: 70 })
    fc.assert(
      fc.property(
        region(),
        fc.integer({ min: -10, max: 90 }),
        fc.integer({ min: -10, max: 90 }),
        side,
        side,
        (r, x, y, w, h) => {
          const [quick, slow] = [
            clipToBox(r, { minX: x, minY: y, maxX: x + w, maxY: y + h }),
            intersect(r, [rectangle([x, y], w, h)]),
          ]
          expect(regionArea(subtract(quick, slow)) + regionArea(subtract(slow, quick))).toBeLessThan(0.05)
        },
      ),
      { numRuns: 80 },
    )
    expect(clipToBox([], { minX: 0, minY: 0, maxX: 9, maxY: 9 })).toEqual([])
  })

  it('sort rings that lie in each other into faces with holes, however deep and in whatever order', () => {
    const depth = fc.integer({ min: 1, max: 7 })
    fc.assert(
      fc.property(
        fc.array(depth, { minLength: 1, maxLength: 5 }),
        fc.integer({ min: 0, max: 999 }),
        (nests, mix) => {
          // Nests of squares side by side, each ring 3 mm inside the last.
          const rings = nests.flatMap((deep, k) =>
            Array.from(
              { length: deep },
              (_, d) => rectangle([60 * k + 3 * d, 3 * d], 50 - 6 * d, 50 - 6 * d).outer,
            ),
          )
          const shuffled = rings
            .map((ring, i) => ({ ring, at: (i * 7919 + mix) % 101 }))
            .toSorted((a, b) => a.at - b.at)
          const faces = facesOf(
            shuffled.map(({ ring }, i) =>
              i % 2
                ? ring
                : ring
                    .slice()
                    .reverse()
                    .map((_, j, all) => all[j % 2 ? j - 1 : j + 1]!),
            ),
          )
          expect(faces).toHaveLength(nests.reduce((sum, deep) => sum + Math.ceil(deep / 2), 0))
          expect(faces.reduce((sum, face) => sum + face.holes.length, 0)).toBe(
            nests.reduce((sum, deep) => sum + Math.floor(deep / 2), 0),
          )
          const wanted = nests.reduce(
            (sum, deep) =>
              sum +
              Array.from({ length: deep }, (_, d) => (d % 2 ? -1 : 1) * (50 - 6 * d) ** 2).reduce(
                (a, b) => a + b,
                0,
              ),
            0,
          )
          expect(regionArea(faces)).toBeCloseTo(wanted, 6)
        },
      ),
    )
  })

  it('lose and invent no card: both parts of a cut add up', () => {
    fc.assert(
      fc.property(region(), region(), (a, b) => {
        expect(regionArea(intersect(a, b)) + regionArea(subtract(a, b))).toBeCloseTo(regionArea(a), 1)
      }),
    )
  })

  it('survive points that are not finite, repeat, or make no ring', () => {
    const bad = Float64Array.of(0, 0, Number.NaN, 5, 10, 0, 10, 0, 10, 10, 0, 10)
    expect(regionArea(fillRings([bad, Float64Array.of(1, 1, 2, 2)], 'nonzero'))).toBeCloseTo(100, 3)
    expect(
      regionArea(fillRings([Float64Array.of(0, 0, 1e300, 5, 10, 0, 10, 10, 0, 10)], 'nonzero')),
    ).toBeCloseTo(100, 3)
    // A ring that is known to hang a library in wide use.
    expect(
      regionArea(fillRings([Float64Array.of(0, 0, 15, 0, 31, 0, -865, 0, -3317, 1467)], 'nonzero')),
    ).toBeGreaterThan(0)
  })
})

describe('offsets', () => {
  it('of a square are exact with sharp corners and rounded by quarter circles', () => {
    const square = [rectangle([0, 0], 40, 30)]
    expect(regionArea(offset(square, 5, 'miter'))).toBeCloseTo(50 * 40, 2)
    expect(regionArea(offset(square, 5))).toBeCloseTo(40 * 30 + 5 * 2 * 70 + Math.PI * 25, 0)
    expect(regionArea(offset(square, -5))).toBeCloseTo(30 * 20, 2)
    expect(offset(square, -15.1)).toEqual([])
  })

  it('outwards keep every point of the shape, inwards nothing outside it', () => {
    fc.assert(
      fc.property(star(), fc.double({ min: 0.5, max: 6, noNaN: true }), (shape, mm) => {
        expect(regionArea(subtract([shape], offset([shape], mm)))).toBeLessThan(0.01)
        expect(regionArea(subtract(offset([shape], -mm), [shape]))).toBeLessThan(0.01)
      }),
      { numRuns: 60 },
    )
  })

  it('grow holes when the card shrinks', () => {
    const ring = subtract([rectangle([0, 0], 40, 40)], [rectangle([10, 10], 20, 20)])
    expect(regionArea(offset(ring, -2, 'miter'))).toBeCloseTo(36 * 36 - 24 * 24, 2)
  })
})

describe('measures', () => {
  it('of a shape made plainer are those of the plainer shape', () => {
    fc.assert(
      fc.property(region(), fc.double({ min: -4, max: 4, noNaN: true }), (a, mm) => {
        const [once, twice] = [
          offsetPlain(a, mm, { toleranceMm: 0.5, join: 'miter' }),
          offset(simplify(a, 0.5), mm, 'miter'),
        ]
        expect(regionArea(once)).toBeCloseTo(regionArea(twice), 1)
        expect(regionArea(subtract(once, offset(twice, 0.02)))).toBeCloseTo(0, 2)
      }),
    )
    expect(offsetPlain([], 1, { toleranceMm: 0.5 })).toEqual([])
  })

  it('do not change when a shape is turned and moved', () => {
    fc.assert(
      fc.property(star(), fc.double({ min: -360, max: 360, noNaN: true }), (shape, deg) => {
        const moved = mapRegion(translation(7, -3), mapRegion(rotation(deg), [shape]))
        expect(regionArea(moved)).toBeCloseTo(polygonArea(shape), 6)
        expect(regionPerimeter(moved)).toBeCloseTo(regionPerimeter([shape]), 6)
      }),
    )
  })

  it('find a point inside any ring', () => {
    fc.assert(
      fc.property(star(), fc.integer({ min: 0, max: 3 }), ({ outer }, quarter) => {
        const ring = mapRing(rotation(quarter * 90 + 7), outer)
        for (const find of [interiorPoint, quickInteriorPoint]) {
          const { x, y } = find(ring)
          expect(ringContains(ring, x, y)).toBe(true)
        }
      }),
    )
    // Corners at the very heights that are scanned, and a strip that hardly any line meets.
    for (const ring of [
      Float64Array.of(0, 0, 10, 4.877, 0, 10, 2, 4.877),
      Float64Array.of(0, 0, 100, 0, 100, 0.001),
      Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10, 0, 7.129, 8, 7.129, 8, 2.913, 0, 2.913),
    ]) {
      const { x, y } = quickInteriorPoint(ring)
      expect(ringContains(ring, x, y)).toBe(true)
    }
  })

  it('of hulls: they hold all points, and are made of some of them, be they few or many', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 60 })), {
          minLength: 3,
          maxLength: 30,
        }),
        fc.constantFrom(1, 12, 40),
        (few, times) => {
          // Many of them: each again and again, nearer and nearer to one place.
          const points = Array.from({ length: times }, (_, k) =>
            few.map(([x, y]) => [30 + (x - 30) / (k + 1), 30 + (y - 30) / (k + 1)] as const),
          ).flat()
          const hull = convexHull(points.flat())
          const known = new Set(points.map(String))
          for (let a = 0; a < hull.length; a += 2) {
            const [ax, ay] = [hull[a]!, hull[a + 1]!]
            const [bx, by] = [hull[(a + 2) % hull.length]!, hull[(a + 3) % hull.length]!]
            expect(known.has(`${ax},${ay}`)).toBe(true)
            const outside = ([x, y]: readonly [number, number]) =>
              (bx - ax) * (y - ay) < (by - ay) * (x - ax) - 1e-9
            expect(points.some(outside)).toBe(false)
          }
        },
      ),
    )
  })

  it('call a ring simple where no two of its edges meet, as comparing all with all says', () => {
    const meet = (a: number[], b: number[]) => {
      const side = (p: number[], q: number[], r: number[]) =>
        Math.sign((q[0]! - p[0]!) * (r[1]! - p[1]!) - (q[1]! - p[1]!) * (r[0]! - p[0]!))
      const [p, q, r, s] = [a.slice(0, 2), a.slice(2), b.slice(0, 2), b.slice(2)]
      const apart = [0, 1].some(
        (k) =>
          Math.max(p[k]!, q[k]!) < Math.min(r[k]!, s[k]!) || Math.max(r[k]!, s[k]!) < Math.min(p[k]!, q[k]!),
      )
      return !apart && side(p, q, r) * side(p, q, s) <= 0 && side(r, s, p) * side(r, s, q) <= 0
    }
    const outlines = fc.oneof(
      scribble(12).map((points) => points.flat()),
      star().map(({ outer }) => [...outer]),
    )
    fc.assert(
      fc.property(outlines, (flat) => {
        const ring = cleanRing(flat)
        if (!ring) return
        const n = ring.length / 2
        const edges = Array.from({ length: n }, (_, i) => {
          const k = (i + 1) % n
          return [ring[2 * i]!, ring[2 * i + 1]!, ring[2 * k]!, ring[2 * k + 1]!]
        })
        const crossed = edges.some((a, i) =>
          edges.some((b, k) => {
            if (k <= i) return false
            if (k === i + 1 || (i === 0 && k === n - 1)) {
              const [first, then] = k === i + 1 ? [a, b] : [b, a]
              const [dx, dy, ex, ey] = [first[2]! - first[0]!, first[3]! - first[1]!, then[2]! - then[0]!, then[3]! - then[1]!] // prettier-ignore
              return dx * ey === dy * ex && dx * ex + dy * ey <= 0
            }
            return meet(a, b)
          }),
        )
        expect(isSimple(ring)).toBe(!crossed)
        if (crossed) return
        const faces = fillRings([ring], 'evenodd')
        expect(faces).toHaveLength(1)
        expect(polygonArea(faces[0]!)).toBeCloseTo(Math.abs(signedArea(ring)), 2)
      }),
      { numRuns: 300 },
    )
  })

  it('put the centre of mass of an L where its two arms balance', () => {
    const l = union([rectangle([0, 0], 10, 40)], [rectangle([10, 30], 20, 10)])
    const { x, y } = regionCentroid(l)
    expect(x).toBeCloseTo((400 * 5 + 200 * 20) / 600, 4)
    expect(y).toBeCloseTo((400 * 20 + 200 * 35) / 600, 4)
  })

  it('turn by quarters exactly', () => {
    const b = regionBox(mapRegion(rotation(90), [rectangle([0, 0], 30, 10)]))
    expect([b.minX, b.minY, boxWidth(b), boxHeight(b)]).toEqual([-10, 0, 10, 30])
  })
})

describe('path data', () => {
  it('comes back as the same card', () => {
    fc.assert(
      fc.property(region(), (r) => {
        // Points are rounded to 0.001 mm: the outline moves by half of that at most.
        expect(Math.abs(regionArea(pathToRegion(regionToPath(r))) - regionArea(r))).toBeLessThanOrEqual(
          0.001 * regionPerimeter(r) + 1e-6,
        )
      }),
    )
  })

  it('keeps islands in holes in islands apart', () => {
    const nested = [
      'M0 0L50 0L50 50L0 50Z',
      'M5 5L45 5L45 45L5 45Z',
      'M10 10L40 10L40 40L10 40Z',
      'M15 15L35 15L35 35L15 35Z',
    ].join('')
    const faces = pathToRegion(nested)
    expect(faces.map((f) => f.holes.length)).toEqual([1, 1])
    expect(regionArea(faces)).toBe(2500 - 1600 + 900 - 400)
    expect(regionContains(faces, 25, 25)).toBe(false)
    expect(regionContains(faces, 12, 12)).toBe(true)
  })

  it('refuses other commands by name', () => {
    expect(() => pathToRegion('M0 0C1 1 2 2 3 3Z')).toThrow(/“C”/)
  })
})

describe('strokes and simplification', () => {
  it('cover width times length with flat ends', () => {
    const line = { points: Float64Array.of(0, 0, 50, 0), closed: false }
    expect(regionArea(strokeRegion([line], { widthMm: 4 }))).toBeCloseTo(200, 2)
    expect(regionArea(strokeRegion([line], { widthMm: 4, cap: 'round', join: 'round' }))).toBeCloseTo(
      200 + Math.PI * 4,
      0,
    )
  })

  it('drop points but hardly any card', () => {
    const disc = [ellipse([0, 0], 30)]
    const coarse = simplify(disc, 0.05)
    expect(coarse[0]!.outer.length).toBeLessThan(disc[0]!.outer.length * 0.7)
    expect(Math.abs(regionArea(coarse) / regionArea(disc) - 1)).toBeLessThan(0.005)
  })

  it('fill no more of a scribble by even-odd than by non-zero', () => {
    fc.assert(
      fc.property(scribble(), (points) => {
        const ring = Float64Array.from(points.flat())
        const even = regionArea(fillRings([ring], 'evenodd'))
        expect(even).toBeLessThanOrEqual(regionArea(fillRings([ring], 'nonzero')) + 0.01)
      }),
    )
  })
})
