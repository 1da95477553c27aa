import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { card, plate, stack } from '../../../test/stack'
import {
  boxHeight,
  boxWidth,
  regionArea,
  regionBox,
  regionContains,
  subtract,
  union,
} from '../../base/geometry'
import { rectangle } from '../../base/geometry'
import { layerRegion, pieceRegion, type Project } from '../../project'
import { partsWithin } from '../measure'
import { cutInParts } from './in-parts'

const REACH = { widthMm: 100, heightMm: 60 }
const boxesOf = (project: Project, id = 'sheet') =>
  project.layers.find((layer) => layer.id === id)!.pieces.map((piece) => regionBox(pieceRegion(piece)))

describe('pieces that are larger than what is cut of a sheet', () => {
  it('want as many parts as of sheets that lie side by side, whichever way these lie', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 300 }), fc.integer({ min: 1, max: 300 }), (widthMm, heightMm) => {
        const [across, down] = partsWithin({ widthMm, heightMm }, REACH)!
        // By counting how many sheets are laid until the side is passed.
        const counted = (mm: number, by: number) => {
          let n = 0
          for (let at = 0; at < mm; at += by) n++
          return n
        }
        const upright = counted(widthMm, 100) * counted(heightMm, 60)
        const turned = counted(widthMm, 60) * counted(heightMm, 100)
        expect(across * down).toBe(Math.min(upright, turned))
      }),
    )
  })

  it('are cut in parts that go on a sheet, and are the piece together', () => {
    const side = fc.integer({ min: 20, max: 330 })
    const hole = fc.tuple(side, side, fc.integer({ min: 5, max: 90 }), fc.integer({ min: 5, max: 90 }))
    fc.assert(
      fc.property(side, side, fc.array(hole, { maxLength: 3 }), (w, h, holes) => {
        const shape = subtract(
          [rectangle([0, 0], w, h)],
          holes.map(([x, y, hw, hh]) => rectangle([x, y], hw, hh)),
        )
        fc.pre(shape.length > 0)
        const project = stack('free', card('sheet', 0, shape))
        const next = cutInParts(project, 'sheet', REACH)
        for (const box of boxesOf(next)) {
          const sides = [boxWidth(box), boxHeight(box)].toSorted((a, b) => a - b)
          expect(sides[0]).toBeLessThanOrEqual(60.06)
          expect(sides[1]).toBeLessThanOrEqual(100.06)
        }
        const [before, after] = [layerRegion(project.layers[0]!), layerRegion(next.layers[0]!)]
        expect(regionArea(after)).toBeCloseTo(regionArea(before), 0)
        expect(regionArea(subtract(union(before), after))).toBeLessThan(0.5)
      }),
      { numRuns: 60 },
    )
  })

  it('have their seam where what lies in front hides it', () => {
    // In front lies a strip at 62 to 70 mm from the left; the middle is at 60, and shows.
    const project = stack('free', plate('sheet', 0, [0, 0, 120, 50]), plate('strip', 1, [62, 0, 8, 50]))
    const [a, b] = boxesOf(cutInParts(project, 'sheet', REACH)).toSorted((p, q) => p.minX - q.minX)
    expect(a!.maxX).toBe(b!.minX)
    expect(a!.maxX).toBeCloseTo(64, 6)
    // With nothing in front it is in the middle.
    const bare = boxesOf(cutInParts(stack('free', plate('sheet', 0, [0, 0, 120, 50])), 'sheet', REACH))
    expect(bare.map((box) => boxWidth(box))).toEqual([60, 60])
  })

  it('show as little of a seam as any place for it would', () => {
    const front = fc.array(
      fc.tuple(fc.nat(150), fc.nat(50), fc.integer({ min: 4, max: 40 }), fc.integer({ min: 4, max: 30 })),
      { minLength: 1, maxLength: 5 },
    )
    fc.assert(
      fc.property(front, (rects) => {
        const project = stack('free', plate('sheet', 0, [0, 0, 160, 50]), plate('front', 1, ...rects))
        const [first] = boxesOf(cutInParts(project, 'sheet', REACH)).toSorted((p, q) => p.minX - q.minX)
        const over = layerRegion(project.layers[1]!)
        // What shows along a line, point by point; a seam is hidden by what reaches past it on both sides.
        const along = (x: number) =>
          Array.from({ length: 100 }, (_, k) => k / 2 + 0.25).filter((y) => !regionContains(over, x, y))
            .length / 2
        const shows = (x: number) => Math.max(along(x - 1), along(x + 1))
        const others = Array.from({ length: 21 }, (_, k) => 60 + 2 * k)
        expect(shows(first!.maxX)).toBeLessThanOrEqual(Math.min(...others.map(shows)) + 1.5)
      }),
      { numRuns: 40 },
    )
  })

  it('stay whole where they go on a sheet, are folded, or would be in pieces beyond counting', () => {
    const small = stack('free', plate('sheet', 0, [0, 0, 60, 100]))
    expect(cutInParts(small, 'sheet', REACH)).toBe(small)
    const folded = stack('free', {
      ...plate('sheet', 0, [0, 0, 160, 100]),
      folds: [{ line: [80, 0, 80, 100], way: 'up', deg: 90 }],
    })
    expect(cutInParts(folded, 'sheet', REACH)).toBe(folded)
    const huge = stack('free', plate('sheet', 0, [0, 0, 4000, 4000]))
    expect(cutInParts(huge, 'sheet', REACH)).toBe(huge)
    for (const reach of [
      { widthMm: 0, heightMm: 60 },
      { widthMm: 100, heightMm: -3 },
    ])
      expect(partsWithin({ widthMm: 300, heightMm: 200 }, reach)).toBeNull()
  })
})
