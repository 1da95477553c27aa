import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { asPieces, grid } from '../../../../../test/cut-up'
import { expectLegal } from '../../../../../test/legal-layout'
import { seededRandom } from '../../../../base'
import { mapPolygon, polygonBox, rectangle, translation, type Polygon } from '../../../../base/geometry'
import type { NestInstance, NestLayout, Placement, Turns } from '../instance'
import { Nester } from '../nester'
import { Press } from './press'
import { PuzzleSearch } from './puzzle-search'
import { grownOutline, isStraight, misfit, sidesOf } from './sides'

interface Cut {
  columns: number
  rows: number
  seed: number
  turns: Turns
  /** How far cuts bend beside their way, as a share of it. */
  bend: number
}

const SHEET = { w: 304.8, h: 304.8, margin: 6.35 }
const GAP = 2
/** The share of the cuttable sheet's sides that is cut up. */
const SCALE = 0.97

const CUT_UP = { w: (SHEET.w - 2 * SHEET.margin) * SCALE, h: (SHEET.h - 2 * SHEET.margin) * SCALE }

/** A sheet that is cut into columns and rows by bent lines. */
function cutUp({ seed, turns, ...cut }: Cut): NestInstance {
  const random = seededRandom(seed)
  return { sheet: SHEET, gap: GAP, pieces: asPieces(random, grid(random, CUT_UP, cut), { gap: GAP, turns }) }
}

/** The first layout that putting together alone gives. */
function solved(instance: NestInstance): NestLayout | null {
  const search = new PuzzleSearch(instance, seededRandom(1))
  let layout: NestLayout | null = null
  while (!layout && !search.done) layout = search.step()
  return layout
}

const read = (shape: Polygon) => sidesOf(grownOutline(shape, GAP)!, { deg: 35, reachMm: 5 })!

const anyCut = fc.record<Cut>({
  columns: fc.integer({ min: 2, max: 5 }),
  rows: fc.integer({ min: 2, max: 4 }),
  seed: fc.integer({ min: 1, max: 1e6 }),
  turns: fc.constantFrom('free', 'quarter', 'fixed'),
  bend: fc.constantFrom(0, 0.06, 0.12),
})

describe('the sides of a piece', () => {
  it('begin at its corners, in the order of the outline, as it was before half the gap was taken off', () => {
    const { sides, angles } = read(rectangle([5, 5], 40, 20))
    expect(sides.map(({ length }) => Math.round(length * 100) / 100).toSorted()).toEqual([22, 22, 42, 42])
    for (const deg of angles) expect(deg).toBeCloseTo(90, 6)
    expect(sides.every((side) => isStraight(side, 1e-6))).toBe(true)
    sides.forEach(({ x2, y2 }, k) => {
      const next = sides[(k + 1) % 4]!
      expect([x2, y2]).toEqual([next.x1, next.y1])
    })
  })

  it('are the same from both sides of a cut', () => {
    const { pieces } = cutUp({ columns: 2, rows: 2, seed: 5, turns: 'free', bend: 0.12 })
    const parts = pieces.map(({ shape }) => read(shape))
    // Each of the four pieces has two sides along cuts, and none but their own neighbours' are like them.
    const like = parts.map((part, i) =>
      part.sides.map((side) =>
        parts.flatMap((other, j) => {
          const found = other.sides.some((its) => {
            const { lengthMm, bulgeMm } = misfit(side, its)
            return lengthMm < 0.1 && bulgeMm < 0.1 && !isStraight(side, 0.6)
          })
          return i !== j && found ? [j] : []
        }),
      ),
    )
    const neighbours = like.map((ofPart) => ofPart.flat().toSorted((a, b) => a - b))
    expect(neighbours).toEqual([
      [1, 2],
      [0, 3],
      [0, 3],
      [1, 2],
    ])
  })
})

describe('pieces of one sheet', () => {
  it('are put together again on it, whichever way they were turned', () => {
    fc.assert(
      fc.property(anyCut, (cut) => {
        const instance = cutUp(cut)
        const layout = solved(instance)!
        expect(layout.sheets).toBe(1)
        expectLegal(instance, layout)
      }),
      { numRuns: 15, seed: 7 },
    )
  }, 120_000)

  it('then take no more than what was cut up, which no other way comes near', () => {
    const instance = cutUp({ columns: 5, rows: 5, seed: 3, turns: 'free', bend: 0.1 })
    const nester = new Nester(instance, 1)
    const others = nester.best.score
    for (let k = 0; k < 400 && nester.best.score > SCALE; k++) nester.step()
    expect(nester.best.score).toBeLessThan(SCALE + 0.003)
    expect(others).toBeGreaterThan(1.1)
    expectLegal(instance, nester.best)
  }, 60_000)

  it('are told from others at once', () => {
    const random = seededRandom(9)
    const loose = (k: number) => {
      const outer = Array.from({ length: 12 }, (_, i) => {
        const [a, r] = [(i / 12) * 2 * Math.PI, 20 + 18 * random()]
        return [r * Math.cos(a), r * Math.sin(a)]
      })
      return {
        id: `q${k}`,
        shape: { outer: Float64Array.from(outer.flat()), holes: [] },
        qty: 1,
        turns: 'free' as const,
      }
    }
    const instance = { sheet: SHEET, gap: GAP, pieces: Array.from({ length: 28 }, (_, k) => loose(k)) }
    expect(PuzzleSearch.suits(instance)).toBe(true)
    const search = new PuzzleSearch(instance, seededRandom(1))
    let steps = 0
    for (; !search.done; steps++) expect(search.step()).toBeNull()
    expect(steps).toBeLessThan(100)
  })

  it('are no puzzle where they are too few, too many, or cover more than a sheet', () => {
    const instance = cutUp({ columns: 3, rows: 3, seed: 1, turns: 'free', bend: 0 })
    expect(PuzzleSearch.suits(instance)).toBe(true)
    expect(PuzzleSearch.suits({ ...instance, pieces: instance.pieces.slice(0, 3) })).toBe(false)
    expect(PuzzleSearch.suits({ ...instance, pieces: instance.pieces.map((p) => ({ ...p, qty: 2 })) })).toBe(
      false,
    )
  })
})

describe('pressing', () => {
  const square = (k: number): { id: string; shape: Polygon; qty: number; turns: Turns } => ({
    id: `s${k}`,
    shape: rectangle([0, 0], 40, 40),
    qty: 1,
    turns: 'fixed',
  })
  const instance: NestInstance = { sheet: SHEET, gap: GAP, pieces: [0, 1, 2, 3].map(square) }
  const at = (k: number, x: number, y: number): Placement => ({
    id: `s${k}`,
    copy: 0,
    sheet: 0,
    x,
    y,
    rotation: 0,
  })

  it('brings pieces together to the gap one way, each step legal and smaller', () => {
    const placements = [at(0, 10, 10), at(1, 70, 20), at(2, 12, 90), at(3, 80, 110)]
    const press = new Press(instance, { placements, axis: 'rows' })
    let low = Infinity
    while (!press.done) {
      const now = press.step()
      if (!now) continue
      expectLegal(instance, { placements: now, sheets: 1, score: 1, utilisation: 1 })
      const down = Math.max(...now.map(({ y }) => y + 40))
      expect(down).toBeLessThan(low)
      low = down
    }
    // Two rows of 40 with a gap between.
    expect(low).toBeGreaterThanOrEqual(SHEET.margin + 82)
    expect(low).toBeLessThan(SHEET.margin + 82.2)
  })

  it('draws apart what lies over each other a little', () => {
    const placements = [at(0, 10, 10), at(1, 47, 10), at(2, 10, 48), at(3, 47, 47)]
    const press = new Press(instance, { placements, axis: 'columns' })
    let last: Placement[] | null = null
    while (!press.done) last = press.step() ?? last
    expectLegal(instance, { placements: last!, sheets: 1, score: 1, utilisation: 1 })
    const boxes = last!.map(({ x, y }) =>
      polygonBox(mapPolygon(translation(x, y), rectangle([0, 0], 40, 40))),
    )
    expect(Math.max(...boxes.map(({ maxX }) => maxX))).toBeLessThan(SHEET.margin + 82.2)
  })

  it('gives nothing where more lies there than the sheet takes', () => {
    const pieces = Array.from({ length: 64 }, (_, k) => square(k))
    const placements = pieces.map((_, k) => at(k, (k % 8) * 42, Math.floor(k / 8) * 42))
    const press = new Press({ ...instance, pieces }, { placements, axis: 'rows' })
    const found: unknown[] = []
    while (!press.done) found.push(press.step())
    expect(found.every((one) => one === null)).toBe(true)
  })
})
