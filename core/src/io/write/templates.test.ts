import { PDFDocument } from '@cantoo/pdf-lib'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { faces } from '../../../test/faces'
import { rectangle } from '../../base/geometry'
import { joinMarks, MARGIN_MM, OVERLAP_MM, PAGES, tilesOf, writeTiledTemplates } from './templates'

const pages = Object.keys(PAGES) as (keyof typeof PAGES)[]
const sheet = (widthMm: number, heightMm: number, ...boxes: [number, number, number, number][]) => ({
  title: 'Load 1',
  widthMm,
  heightMm,
  pieces: boxes.map(([x, y, w, h]) => ({
    layerName: 'a',
    folio: '1',
    shape: rectangle([x, y], w, h),
    lines: [],
  })),
  ways: [],
})

describe('templates tiled over pages', () => {
  it('cover all of a sheet, fit the page, overlap by one strip, and marks come over each other', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 900, noNaN: true }),
        fc.double({ min: 20, max: 900, noNaN: true }),
        fc.constantFrom(...pages),
        (widthMm, heightMm, name) => {
          const page = PAGES[name]
          const tiles = tilesOf({ widthMm, heightMm }, page)
          for (const { w, h } of tiles) {
            expect(w).toBeGreaterThan(0)
            expect(w).toBeLessThanOrEqual(page.widthMm - 2 * MARGIN_MM + 1e-9)
            expect(h).toBeLessThanOrEqual(page.heightMm - 2 * MARGIN_MM)
          }
          const last = tiles.at(-1)!
          expect(last.x + last.w).toBeCloseTo(widthMm, 9)
          expect(last.y + last.h).toBeCloseTo(heightMm, 9)
          for (const tile of tiles) {
            const next = tiles.find((other) => other.row === tile.row && other.column === tile.column + 1)
            if (!next) continue
            expect(tile.x + tile.w - next.x).toBeCloseTo(OVERLAP_MM, 9)
            const inSheet = (t: typeof tile) =>
              joinMarks(t, { widthMm, heightMm }).map(
                ([x, y]) => `${(t.x + x).toFixed(6)} ${(t.y + y).toFixed(6)}`,
              )
            const shared = inSheet(tile).filter((mark) => inSheet(next).includes(mark))
            expect(shared.length).toBeGreaterThanOrEqual(2)
          }
        },
      ),
      { numRuns: 200 },
    )
  })

  it('are printed at true size, on pages that hold something only', async () => {
    // A 305 mm sheet takes two by two pages of A4; a small piece in one corner needs one of them.
    const whole = await PDFDocument.load(
      await writeTiledTemplates([sheet(305, 305, [5, 5, 295, 295])], faces, { paper: 'a4', unit: 'mm' }),
    )
    expect(
      whole
        .getPages()
        .map((page) => [page.getWidth(), page.getHeight()].map((pt) => Math.round((pt * 25.4) / 72))),
    ).toEqual(Array.from({ length: 4 }, () => [210, 297]))
    const corner = await PDFDocument.load(
      await writeTiledTemplates([sheet(305, 305, [5, 5, 40, 40])], faces, { paper: 'letter', unit: 'in' }),
    )
    expect(corner.getPageCount()).toBe(1)
  })
})
