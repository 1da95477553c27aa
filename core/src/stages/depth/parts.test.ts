// Foam builds, and rectangles held by a region, against plain counting.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { star } from '../../../test/arbitrary'
import {
  ellipse,
  intersect,
  mapPolygon,
  rectangle,
  regionArea,
  rotation,
  subtract,
} from '../../base/geometry'
import { emptyDrawer, starterFoams, type Foam } from '../../project'
import { Edges } from './pads/edges'
import { builds, footprints, gapChoices, nearestBuild } from './foam'

const foam = (thicknessMm: number, widthMm = 6): Foam => ({
  ...starterFoams[0]!,
  id: `f${widthMm}-${thicknessMm}`,
  name: '',
  widthMm,
  heightMm: widthMm,
  thicknessMm,
  perPack: 10,
  pricePerPack: 1,
  count: 10,
})

describe('foam', () => {
  it('of one size stacks to every sum of up to five, by the fewest pads', () => {
    const [size] = footprints([foam(1), foam(3)])
    const reach = builds(size!)
    expect(reach.map((b) => b.totalMm)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 15])
    expect(reach.find((b) => b.totalMm === 3)!.foams).toHaveLength(1)
    expect(reach.find((b) => b.totalMm === 6)!.foams.map((f) => f.thicknessMm)).toEqual([3, 3])
  })

  it('comes as near to a height as any stack does', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom(0.5, 1, 1.5, 2, 3), { minLength: 1, maxLength: 3 }),
        fc.double({ min: 0.4, max: 9, noNaN: true }),
        (list, heightMm) => {
          const [size] = footprints(list.map((t) => foam(t)))
          const sums = new Set([0])
          for (let k = 0; k < 5; k++)
            for (const s of [...sums]) for (const t of list) sums.add(Math.round((s + t) * 100) / 100)
          const build = nearestBuild(size!, heightMm)
          const best = Math.min(...builds(size!).map((b) => Math.abs(b.totalMm - heightMm)))
          if (build) expect(Math.abs(build.totalMm - heightMm)).toBeCloseTo(best, 9)
          else expect(Math.min(...list)).toBeGreaterThan(heightMm * 2)
          for (const b of builds(size!)) expect(sums.has(Math.round(b.totalMm * 100) / 100)).toBe(true)
        },
      ),
      { numRuns: 40 },
    )
  })

  it('is sorted by size, and offers the gaps that one pad or two give', () => {
    const sizes = footprints([foam(1, 5), foam(2, 12), foam(2, 5)])
    expect(sizes.map((s) => s.widthMm)).toEqual([12, 5])
    expect(gapChoices(emptyDrawer().foams).map((c) => c.gapMm)).toEqual([1, 2, 3, 4, 5, 6])
    expect(gapChoices(emptyDrawer().foams).find((c) => c.gapMm === 3)!.partsMm).toEqual([3])
  })
})

describe('a rectangle in a region', () => {
  const shapeOf = ([x, y]: readonly [number, number], { w, h }: { w: number; h: number }, deg: number) =>
    mapPolygon([1, 0, 0, 1, x, y], mapPolygon(rotation(deg), rectangle([-w / 2, -h / 2], w, h)))

  it('is held just where a boolean says that all of it lies inside', () => {
    const at = fc.double({ min: -22, max: 22, noNaN: true })
    fc.assert(
      fc.property(
        star(24),
        fc.array(
          fc.tuple(
            at,
            at,
            fc.double({ min: 1, max: 9, noNaN: true }),
            fc.double({ min: 1, max: 9, noNaN: true }),
            fc.double({ min: 0, max: 180, noNaN: true }),
          ),
          { minLength: 6, maxLength: 6 },
        ),
        (star0, list) => {
          const region = subtract([star0], [ellipse([3, 2], 2)])
          const edges = new Edges(region)
          for (const [x, y, w, h, deg] of list) {
            const inside = regionArea(intersect([shapeOf([x, y], { w, h }, deg)], region)) / (w * h)
            // Near misses are left to rounding.
            if (inside > 0.99999)
              expect(edges.holds({ x, y, widthMm: w * 0.96, heightMm: h * 0.96, rotation: deg })).toBe(true)
            if (inside < 0.995)
              expect(edges.holds({ x, y, widthMm: w, heightMm: h, rotation: deg })).toBe(false)
          }
        },
      ),
      { numRuns: 60 },
    )
  })

  it('is held by nothing where there is nothing', () =>
    expect(new Edges([]).holds({ x: 0, y: 0, widthMm: 1, heightMm: 1, rotation: 0 })).toBe(false))
})
