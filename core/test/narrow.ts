// Shapes whose narrowest strip is known from how they are made: for tests of what finds weak places. Lengths in mm.
import {
  ellipse,
  fillRings,
  intersect,
  mapRegion,
  offset,
  rectangle,
  rotation,
  subtract,
  translation,
  union,
  type Polygon,
  type Region,
} from '../src/base/geometry'

/** A shape whose narrow places are all as wide as asked for, by `k` of a family's variants; nothing else in it is narrower than 2 mm. */
export type Family = (widthMm: number, k: number) => Polygon[]

const around = (count: number, part: (i: number) => Region): Polygon[] =>
  union(...Array.from({ length: count }, (_, i) => mapRegion(rotation((360 * i) / count), part(i))))

/** Inner corners rounded off. */
const closed = (region: Region, mm: number) => offset(offset(region, mm), -mm)
const moved = (x: number, y: number, region: Region) => mapRegion(translation(x, y), region)
const ring = (outer: number, inner: number) => subtract([ellipse([0, 0], outer)], [ellipse([0, 0], inner)])

export const FAMILIES: Record<string, Family> = {
  'wheel of spokes': (w, k) => {
    const count = 2 + (k % 11)
    return union(
      ring(40, 34),
      [ellipse([0, 0], 6)],
      around(count, () => [rectangle([5, -w / 2], 30, w)]),
    )
  },
  lattice: (w, k) => {
    const n = 3 + (k % 3)
    const cell = 10
    const side = n * cell + (n - 1) * w
    const holes = Array.from({ length: n * n }, (_, i) =>
      rectangle([(i % n) * (cell + w), Math.floor(i / n) * (cell + w)], cell, cell),
    )
    return subtract([rectangle([-6, -6], side + 12, side + 12)], holes)
  },
  'window cross': (w, k) => {
    const size = 30 + (k % 5) * 6
    return union(
      subtract([rectangle([-6, -6], size + 12, size + 12)], [rectangle([0, 0], size, size)]),
      [rectangle([size / 2 - w / 2, -1], w, size + 2)],
      [rectangle([-1, size / 2 - w / 2], size + 2, w)],
    )
  },
  'thin ring': (w, k) => ring(8 + (k % 7) * 5, 8 + (k % 7) * 5 - w),
  'rows of slots': (w, k) => {
    const slots = Array.from({ length: 4 + (k % 6) }, (_, i) => rectangle([6 + i * (4 + w), 8], 4, 24))
    return subtract([rectangle([0, 0], 12 + slots.length * (4 + w), 40)], slots)
  },
  'short neck': (w, k) => {
    const long = [0.5, 1, 3, 0.2][k % 4]!
    return union(
      [rectangle([-20, -12], 20, 24)],
      [rectangle([long, -9], 16, 18)],
      [rectangle([-0.5, -w / 2 + (k % 3)], long + 1, w)],
    )
  },
  'overlap at a corner': (w, k) => {
    // The strip is the diagonal of the overlap.
    const o = w / Math.SQRT2
    return union([rectangle([-20 - (k % 4), -20], 20 + (k % 4) + o, 20 + o)], [rectangle([0, 0], 18, 22)])
  },
  bites: (w, k) => {
    const r = 3 + (k % 5)
    return subtract(
      [rectangle([-30, -10 - r], 60, 20 + 2 * r)],
      union(
        [ellipse([0, -w / 2 - r], r)],
        [rectangle([-r, -40], 2 * r, 40 - w / 2 - r)],
        [ellipse([0, w / 2 + r], r)],
        [rectangle([-r, w / 2 + r], 2 * r, 40)],
      ),
    )
  },
  tail: (w, k) => union([rectangle([-20, -10], 20, 20)], [rectangle([-1, (k % 5) - 2], 31 + (k % 3) * 5, w)]),
  'opening near an edge': (w, k) =>
    subtract(
      [rectangle([0, 0], 50, 40)],
      [ellipse([10 + w + (k % 4) * 3, 7 + w], 7, 7), rectangle([30, w], 10, 12)],
    ),
  'strip with rounded corners': (w, k) =>
    closed(
      union([rectangle([-20, -12], 20, 24)], [rectangle([12, -9], 16, 18)], [rectangle([-1, -w / 2], 14, w)]),
      0.5 + (k % 4),
    ),
  'tapered strip': (w, k) =>
    union(
      [rectangle([-20, -12], 20, 24)],
      [rectangle([15, -9], 16, 18)],
      fillRings(
        [Float64Array.of(-1, -3 - (k % 3), 15, -w / 2, 16, -w / 2, 16, w / 2, 15, w / 2, -1, 3)],
        'nonzero',
      ),
    ),
  'curved strip': (w, k) =>
    union(
      intersect(ring(20 + (k % 4) * 5, 20 + (k % 4) * 5 - w), [rectangle([0, -60], 60, 120)]),
      [rectangle([-12, 10], 14, 30)],
      [rectangle([-12, -40], 14, 30)],
    ),
  'eyelet in a lobe': (w, k) => {
    const r = 2 + (k % 5)
    return subtract(union([rectangle([0, -15], 30, 30)], [ellipse([-2, 0], r + w + 0.001)]), [
      ellipse([-2, 0], r),
    ])
  },
}

/** A shape turned and put somewhere, as nothing on a sheet lies by the axes. */
export const somewhere = (region: Region, deg: number): Polygon[] =>
  moved(60, 45, mapRegion(rotation(deg), region))

const star = (points: number, outer: number, inner: number): Polygon[] =>
  fillRings(
    [
      Float64Array.from(
        Array.from({ length: points * 2 }, (_, i) => {
          const r = i % 2 ? inner : outer
          const a = (Math.PI * i) / points
          return [r * Math.cos(a), r * Math.sin(a)]
        }).flat(),
      ),
    ],
    'nonzero',
  )

/** Shapes with points, corners, small bumps and wide strips, in which nothing is weak. */
export const SOUND: Record<string, (k: number) => Polygon[]> = {
  star: (k) => star(5 + (k % 8), 30, 12 + (k % 3)),
  'leaf with points': (k) => {
    const r = 40 + (k % 5) * 8
    return lens(r, r * 0.75)
  },
  gear: (k) => {
    const n = 12 + (k % 9)
    return union(
      [ellipse([0, 0], 24)],
      around(n, () => [rectangle([22, -1.6], 6, 3.2)]),
    )
  },
  'plate with small bumps': (k) =>
    union(
      [rectangle([0, 0], 50, 30)],
      ...Array.from({ length: 6 }, (_, i) => [rectangle([5 + i * 7, 29], 0.4 + 0.1 * (k % 6), 1.2)]),
    ),
  'plate with nicks': (k) =>
    subtract(
      [rectangle([0, 0], 50, 30)],
      Array.from({ length: 6 }, (_, i) => rectangle([5 + i * 7, 29], 0.5 + 0.1 * (k % 5), 2)),
    ),
  scallops: (k) =>
    union(
      [ellipse([0, 0], 20)],
      around(9 + (k % 9), () => [ellipse([20, 0], 7)]),
    ),
  'frame of a window': (k) => subtract([rectangle([0, 0], 60, 60)], [rectangle([2 + (k % 4), 2], 52, 54)]),
  triangle: (k) => fillRings([Float64Array.of(0, 0, 40, 0, 3 * (k % 12), 14)], 'nonzero'),
}

const lens = (r: number, d: number): Polygon[] => {
  const half = Math.sqrt(r * r - d * d)
  const side = (sign: number) =>
    Array.from({ length: 40 }, (_, i) => {
      const y = -half + (2 * half * i) / 39
      return [sign * (Math.sqrt(Math.max(0, r * r - y * y)) - d), y]
    })
  return fillRings([Float64Array.from([...side(1), ...side(-1).toReversed()].flat())], 'nonzero')
}
