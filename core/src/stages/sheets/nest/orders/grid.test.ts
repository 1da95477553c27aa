// The grid against a plain table of cells.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { star } from '../../../../../test/arbitrary'
import {
  boxHeight,
  boxWidth,
  mapPolygon,
  polygonBox,
  rectangle,
  regionContains,
  type Polygon,
} from '../../../../base/geometry'
import { nearest } from '../exact/clearance'
import { SheetGrid } from './grid'
import { makeMask, type Mask } from './mask'

const COLS = 60
const ROWS = 50

const atOrigin = (shape: Polygon): Polygon => {
  const b = polygonBox(shape)
  return mapPolygon([1, 0, 0, 1, -b.minX, -b.minY], shape)
}

/** A ring with its edges in parts, some of them bent a little. */
const inParts = (ring: Float64Array, parts: number): Float64Array =>
  Float64Array.from({ length: ring.length * parts }, (_, i) => {
    const [k, part, xy] = [2 * Math.floor(i / 2 / parts), Math.floor(i / 2) % parts, i % 2]
    const [a, b] = [ring[k + xy]!, ring[(k + 2 + xy) % ring.length]!]
    return a + ((b - a) * part) / parts - (part % 3 === 1 ? 0.02 : 0) * (a - 9)
  })

const maskOf = (shape: Polygon, cell = 1): Mask => {
  const b = polygonBox(shape)
  return makeMask(shape, { cell, widthMm: boxWidth(b), heightMm: boxHeight(b) })
}

function* cellsOf(mask: Mask): Generator<[number, number]> {
  for (let r = 0; r < mask.rows; r++)
    for (let i = mask.start[r]!; i < mask.start[r + 1]!; i += 2)
      for (let x = mask.runs[i]!; x <= mask.runs[i + 1]!; x++) yield [x, r]
}

describe('masks', () => {
  it('hold every cell that the shape touches', () => {
    fc.assert(
      fc.property(star(12), (drawn) => {
        const shape = atOrigin(drawn)
        const cells = new Set([...cellsOf(maskOf(shape))].map(([x, y]) => `${x} ${y}`))
        for (let x = 0.05; x < 24; x += 0.35)
          for (let y = 0.05; y < 24; y += 0.35)
            if (regionContains([shape], x, y))
              expect(cells.has(`${Math.floor(x)} ${Math.floor(y)}`)).toBe(true)
        const { outer } = shape
        for (let i = 0; i < outer.length; i += 2)
          expect(
            cells.has(
              `${Math.min(Math.floor(outer[i]!), Math.ceil(boxWidth(polygonBox(shape))) - 1)} ${Math.min(Math.floor(outer[i + 1]!), Math.ceil(boxHeight(polygonBox(shape))) - 1)}`,
            ),
          ).toBe(true)
      }),
      { numRuns: 40 },
    )
  })

  it('grown, hold what comes within that of the shape, and next to nothing else', () => {
    fc.assert(
      fc.property(
        star(8),
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.constantFrom(0.3, 1),
        fc.constantFrom(1, 40),
        (drawn, grow, cell, parts) => {
          const at = atOrigin(drawn)
          const shape = { ...at, outer: inParts(at.outer, parts) }
          const b = polygonBox(shape)
          const [widthMm, heightMm] = [boxWidth(b) + 2 * grow, boxHeight(b) + 2 * grow]
          const map = [1, 0, 0, 1, grow, grow] as const
          const mask = makeMask(shape, { cell, map, grow, widthMm, heightMm })
          const cells = new Set([...cellsOf(mask)].map(([x, y]) => `${x} ${y}`))
          expect(mask.cells).toBe(cells.size)
          for (let x = 0; x < widthMm / cell; x++)
            for (let y = 0; y < heightMm / cell; y++) {
              const square = rectangle([x * cell - grow, y * cell - grow], cell, cell)
              const away = nearest(square, shape, grow + 1)?.mm ?? Infinity
              if (cells.has(`${x} ${y}`)) expect(away).toBeLessThanOrEqual(grow + cell / 20 + 1e-6)
              else expect(away).toBeGreaterThanOrEqual(grow - 1e-6)
            }
        },
      ),
      { numRuns: 30 },
    )
  })

  it('are finer on a finer grid: less card is lost along the edges', () => {
    const shape = atOrigin({ outer: Float64Array.of(0, 0, 20, 3, 12, 22), holes: [] })
    const area = (cell: number) => [...cellsOf(maskOf(shape, cell))].length * cell * cell
    expect(area(0.25)).toBeLessThan(area(0.5))
    expect(area(0.5)).toBeLessThan(area(1))
  })
})

describe('places on a sheet', () => {
  it('are the lowest, then leftmost that are free, as a table of cells says', () => {
    fc.assert(
      fc.property(fc.array(star(9), { minLength: 2, maxLength: 9 }), (shapes) => {
        const grid = new SheetGrid(COLS, ROWS)
        const table = new Uint8Array(COLS * ROWS)
        for (const drawn of shapes) {
          const mask = maskOf(atOrigin(drawn))
          const cells = [...cellsOf(mask)]
          const [w, h] = [Math.max(...cells.map((c) => c[0])) + 1, mask.rows]
          let wanted = -1
          search: for (let y = 0; y <= ROWS - h; y++)
            for (let x = 0; x <= COLS - w; x++)
              if (cells.every(([cx, cy]) => !table[(y + cy) * COLS + x + cx])) {
                wanted = y * COLS + x
                break search
              }
          const found = grid.findPlace(mask, { maxX: COLS - w, maxY: ROWS - h })
          expect(found).toBe(wanted)
          if (found < 0) continue
          const [x, y] = [found % COLS, Math.floor(found / COLS)]
          for (const [cx, cy] of cells) table[(y + cy) * COLS + x + cx] = 1
          grid.take(mask, x, y)
        }
      }),
      { numRuns: 60 },
    )
  })

  it('are told right whatever was taken before, over each other and over the edge', () => {
    const box = (w: number, h: number) => maskOf(rectangle([0, 0], w - 0.5, h - 0.5))
    const taken = fc.tuple(star(12), fc.integer({ min: -9, max: COLS }), fc.integer({ min: -9, max: ROWS }))
    fc.assert(
      fc.property(
        fc.array(taken, { minLength: 1, maxLength: 12 }),
        fc.integer({ min: 1, max: COLS }),
        fc.integer({ min: 1, max: 4 }),
        (list, w, h) => {
          const grid = new SheetGrid(COLS, ROWS)
          const table = new Uint8Array(COLS * ROWS)
          for (const [drawn, x, y] of list) {
            const mask = maskOf(atOrigin(drawn))
            grid.take(mask, x, y)
            for (const [cx, cy] of cellsOf(mask))
              if (x + cx >= 0 && x + cx < COLS && y + cy >= 0 && y + cy < ROWS)
                table[(y + cy) * COLS + x + cx] = 1
          }
          expect(grid.free).toBe(table.filter((cell) => cell === 0).length)
          const isFree = (x: number, y: number) => {
            for (let r = 0; r < h; r++)
              for (let c = 0; c < w; c++) if (table[(y + r) * COLS + x + c]) return false
            return true
          }
          let wanted = -1
          search: for (let y = 0; y <= ROWS - h; y++)
            for (let x = 0; x <= COLS - w; x++)
              if (isFree(x, y)) {
                wanted = y * COLS + x
                break search
              }
          expect(grid.findPlace(box(w, h), { maxX: COLS - w, maxY: ROWS - h })).toBe(wanted)
        },
      ),
      { numRuns: 200 },
    )
  })

  it('are none where the sheet is full', () => {
    const grid = new SheetGrid(10, 10)
    const all = maskOf({ outer: Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10), holes: [] })
    grid.take(all, 0, 0)
    expect(
      grid.findPlace(maskOf({ outer: Float64Array.of(0, 0, 1, 0, 1, 1, 0, 1), holes: [] }), {
        maxX: 9,
        maxY: 9,
      }),
    ).toBe(-1)
  })
})
