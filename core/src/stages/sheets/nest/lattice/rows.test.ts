import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ellipse, polygonArea, rectangle, type Polygon } from '../../../../base/geometry'
import { seededRandom } from '../../../../base'
import { polygon, type Point } from '../../../../../test/cut-up'
import { atOnce } from '../parts'
import type { Turns } from '../instance'
import { behind, profileOf } from './profile'
import { filled, leastOf, packed } from './fill'
import { rowsOf } from './rows-search'
import type { Rows } from './rows'

const triangle = polygon([[0, 0], [20, 0], [10, 10 * Math.sqrt(3)]]) // prettier-ignore
const ell = polygon([[0, 0], [20, 0], [20, 10], [10, 10], [10, 20], [0, 20]]) // prettier-ignore
const plus = polygon([[10, 0], [20, 0], [20, 10], [30, 10], [30, 20], [20, 20], [20, 30], [10, 30], [10, 20], [0, 20], [0, 10], [10, 10]]) // prettier-ignore

const SHEET = { minX: 0, minY: 0, maxX: 400, maxY: 400 }
const rowsFor = (shape: Polygon, apart: number, turns: Turns = 'free', many = 200): Rows[] =>
  atOnce(rowsOf({ shape, plain: shape, turns, apart }, { many, within: SHEET }))
const densityOf = ({ members, period, pitch }: Rows, shape: Polygon) =>
  (members.length * polygonArea(shape)) / (period * pitch)
const densest = (rows: readonly Rows[], shape: Polygon) =>
  Math.max(...rows.map((one) => densityOf(one, shape)))

describe('copies in rows', () => {
  it('leave next to nothing of shapes that fill the plane', () => {
    for (const shape of [triangle, ell, plus]) {
      expect(densest(rowsFor(shape, 0), shape)).toBeGreaterThan(0.985)
      for (const one of rowsFor(shape, 0)) expect(densityOf(one, shape)).toBeLessThan(1 + 1e-6)
    }
  })

  it('of discs lie as in a honeycomb', () => {
    // Circles as far apart as their gap are circles that are wider by it, and those cover π / √12 of the plane (Thue).
    const [r, gap] = [12, 2]
    const cover = densest(rowsFor(ellipse([0, 0], r), gap), ellipse([0, 0], r))
    const best = ((Math.PI / Math.sqrt(12)) * r ** 2) / (r + gap / 2) ** 2
    expect(cover).toBeGreaterThan(0.985 * best)
    expect(cover).toBeLessThan(1.005 * best)
  })

  it('are turned no further than they may be', () => {
    const turns = (rule: Turns) =>
      new Set(rowsFor(triangle, 2, rule).flatMap(({ members }) => members.map(({ turn }) => turn % 360)))
    expect([...turns('fixed')]).toEqual([0])
    expect([...turns('quarter')].every((turn) => turn % 90 === 0)).toBe(true)
    // All alike leave a triangle's place between any two.
    expect(densest(rowsFor(triangle, 0, 'fixed'), triangle)).toBeCloseTo(0.5, 1)
  })
})

describe('profiles', () => {
  const star = fc
    .array(fc.double({ min: 3, max: 20, noNaN: true }), { minLength: 3, maxLength: 9 })
    .map((reaches) =>
      polygon(
        reaches.map((r, k): Point => {
          const angle = (k / reaches.length) * 2 * Math.PI
          return [r * Math.cos(angle), r * Math.sin(angle)]
        }),
      ),
    )

  it('never let outlines come too near', () => {
    fc.assert(
      fc.property(star, star, fc.integer({ min: -30, max: 30 }), (a, b, strips) => {
        const way = behind(profileOf(a.outer, 'x', 0.5), profileOf(b.outer, 'x', 0.5), strips)
        expect(way).toBeGreaterThanOrEqual(apartAt(a, b, strips * 0.5) - 1e-6)
      }),
      { numRuns: 60 },
    )
  })

  it('are too careful by what an edge gives way within two strips', () => {
    const diamond = polygon([[10, 0], [0, 10], [-10, 0], [0, -10]]) // prettier-ignore
    const profile = profileOf(diamond.outer, 'x', 0.5)
    for (let strips = -39; strips < 40; strips++) {
      const exact = 20 - Math.abs(strips * 0.5)
      expect(behind(profile, profile, strips)).toBeGreaterThanOrEqual(exact - 1e-9)
      expect(behind(profile, profile, strips)).toBeLessThanOrEqual(exact + 1 + 1e-9)
    }
    expect(behind(profile, profile, 42)).toBe(-Infinity)
  })
})

/** How far b, lowered, must be moved along x so that no line along x meets it before it has left a. */
function apartAt(a: Polygon, b: Polygon, lower: number): number {
  const spanAt = ({ outer }: Polygon, y: number) => {
    const xs: number[] = []
    for (let i = 0, j = outer.length - 2; i < outer.length; j = i, i += 2) {
      const [x1, y1, x2, y2] = [outer[j]!, outer[j + 1]!, outer[i]!, outer[i + 1]!]
      if (y1 > y !== y2 > y) xs.push(x1 + ((x2 - x1) * (y - y1)) / (y2 - y1))
    }
    return xs
  }
  let most = -Infinity
  for (let y = -20; y <= 20; y += 0.013)
    most = Math.max(most, Math.max(...spanAt(a, y)) - Math.min(...spanAt(b, y - lower)))
  return most
}

describe('a sheet', () => {
  it('takes all copies of its rows that lie within it, and no others', () => {
    const random = seededRandom(5)
    const found = [ell, triangle, plus].flatMap((shape) => rowsFor(shape, 2).slice(0, 4))
    for (const rows of found) {
      const within = { minX: 10, minY: 20, maxX: 60 + random() * 200, maxY: 70 + random() * 200 }
      const spots = filled(rows, within)
      // All copies of the endless rows, by one of them.
      const from = spots[0]!
      const origin = rows.members.find(({ turn }) => turn === from.turn)!
      const all: Point[] = []
      for (let row = -30; row < 30; row++)
        for (let n = -80; n < 80; n++)
          for (const { x, y, box } of rows.members) {
            const dx = from.x - origin.x + x + n * rows.period + row * rows.shift
            const dy = from.y - origin.y + y + row * rows.pitch
            const isAcross = box.minX + dx >= within.minX - 1e-6 && box.maxX + dx <= within.maxX + 1e-6
            const isAlong = box.minY + dy >= within.minY - 1e-6 && box.maxY + dy <= within.maxY + 1e-6
            if (isAcross && isAlong) all.push([dx, dy])
          }
      const key = ([x, y]: Point) => `${x.toFixed(3)} ${y.toFixed(3)}`
      expect(new Set(spots.map(({ x, y }) => key([x, y])))).toEqual(new Set(all.map(key)))
    }
  })

  it('that is cut straight gives up as little as so many copies need', () => {
    const spots = filled(rowsFor(rectangle([0, 0], 30, 10), 0, 'fixed')[0]!, { ...SHEET, maxX: 90, maxY: 60 })
    expect(spots).toHaveLength(18)
    const ten = { many: 10, within: { ...SHEET, maxX: 90, maxY: 60 } }
    // Four rows of three, or two columns of six.
    expect(leastOf(spots, { ...ten, ways: 'both' }).share).toBeCloseTo(2 / 3, 6)
    expect(leastOf(spots, { ...ten, ways: 'height' }).share).toBeCloseTo(4 / 6, 6)
    expect(leastOf(spots, { ...ten, many: 4, ways: 'both' }).share).toBeCloseTo(1 / 3, 6)
  })

  it('takes others beside rows where there is room', () => {
    const rows = rowsFor(rectangle([0, 0], 50, 20), 0, 'quarter')
    // Two across, and what is left takes them upright: by columns of one width five fewer.
    const within = { minX: 0, minY: 0, maxX: 120.5, maxY: 100.5 }
    const spots = atOnce(packed(rows, within, 0))
    expect(spots).toHaveLength(12)
    for (const { box } of spots) expect(Math.max(box.maxX, box.maxY + 20)).toBeLessThan(within.maxX)
  })
})
