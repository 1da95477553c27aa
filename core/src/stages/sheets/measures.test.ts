import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ellipse, mapPolygon, rectangle, rotation } from '../../base/geometry'
import { MM_PER_INCH } from '../../base/units'
import { measureOf, measureWords, rulerLength } from './measures'

/** Inches that a ruler's words stand for, read back: “8 1/2 in less 0.008 in”. */
function readBack(words: string): number {
  const [, ruler, way, rest] = /^([\d/ ]+) in(?: (and|less) ([\d.]+) in)?$/.exec(words)!
  const inches = ruler!
    .split(' ')
    .map((part) => part.split('/').map(Number))
    .reduce((sum, [top, bottom = 1]) => sum + top! / bottom, 0)
  return inches * MM_PER_INCH + (way ? (way === 'and' ? 1 : -1) * Number(rest) * MM_PER_INCH : 0)
}

describe('measures', () => {
  it('of straight-edged parts are their sides, however they lie', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 300, noNaN: true }),
        fc.double({ min: 5, max: 300, noNaN: true }),
        fc.integer({ min: -44, max: 44 }),
        (w, h, deg) => {
          const found = measureOf(mapPolygon(rotation(deg), rectangle([3, 4], w, h)))
          expect(found).toMatchObject({ kind: 'rectangle', openings: [] })
          if (found?.kind !== 'rectangle') return
          expect(found.widthMm).toBeCloseTo(w, 6)
          expect(found.heightMm).toBeCloseTo(h, 6)
        },
      ),
    )
  })

  it('of a border are those of its opening too, and of what is left round it', () => {
    const border = { outer: rectangle([0, 0], 200, 150).outer, holes: [rectangle([20, 30], 150, 90).outer] }
    expect(measureOf(border)).toEqual({
      kind: 'rectangle',
      widthMm: 200,
      heightMm: 150,
      openings: [
        { kind: 'rectangle', widthMm: 150, heightMm: 90, leftMm: 20, rightMm: 30, topMm: 30, bottomMm: 30 },
      ],
    })
    expect(measureWords(measureOf(border)!, 'mm')[0]).toBe('200 mm wide, half 100 mm')
  })

  it('of discs are their diameters; of all else there are none', () => {
    const disc = measureOf(ellipse([50, 50], 12.7))
    expect(disc?.kind === 'circle' && disc.diameterMm).toBeCloseTo(25.4, 1)
    expect(measureWords(disc!, 'in')[0]).toMatch(/^circle of 1 in, half 1\/2 in$/)
    expect(measureOf(ellipse([50, 50], 12, 15))).toBeNull()
    const cut = { outer: Float64Array.of(0, 0, 60, 0, 60, 40, 30, 60, 0, 40), holes: [] }
    expect(measureOf(cut)).toBeNull()
    const wavy = { outer: rectangle([0, 0], 200, 150).outer, holes: [ellipse([60, 60], 20, 30).outer] }
    expect(measureOf(wavy)).toBeNull()
  })

  it('in inches are ruler fractions that say what they leave over', () => {
    expect(rulerLength(8.5 * MM_PER_INCH, 'in')).toBe('8 1/2 in')
    expect(rulerLength(3 * MM_PER_INCH + 0.5, 'in')).toBe('3 in and 0.02 in')
    fc.assert(
      fc.property(fc.double({ min: 1, max: 600, noNaN: true }), (mm) => {
        expect(Math.abs(readBack(rulerLength(mm, 'in')) - mm)).toBeLessThan(0.16)
      }),
    )
  })
})
