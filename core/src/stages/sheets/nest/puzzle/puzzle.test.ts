import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectLegal } from '../../../../../test/legal-layout'
import { seededRandom } from '../../../../base'
import {
  mapPolygon,
  offset,
  polygonBox,
  rectangle,
  rotation,
  translation,
  type Polygon,
} from '../../../../base/geometry'
import type { NestInstance, NestLayout, Placement, Turns } from '../instance'
import { Nester } from '../nester'
import { Press } from './press'
import { PuzzleSearch } from './puzzle-search'
import { isStraight, misfit, partOf } from './sides'

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

/** A sheet that is cut into columns and rows by bent lines, each piece made smaller by half the gap all round and turned. */
function cutUp({ columns, rows, seed, turns, bend }: Cut): NestInstance {
  const random = seededRandom(seed)
  const [w, h] = [(SHEET.w - 2 * SHEET.margin) * SCALE, (SHEET.h - 2 * SHEET.margin) * SCALE]
  const wander = (k: number, n: number) => (k > 0 && k < n ? (random() - 0.5) * 0.4 : 0)
  const nodes = Array.from({ length: rows + 1 }, (_, r) =>
    Array.from({ length: columns + 1 }, (_, c) => [
      ((c + wander(c, columns)) / columns) * w,
      ((r + wander(r, rows)) / rows) * h,
    ]),
  )
  const bends = Array.from({ length: 2 * (rows + 1) * (columns + 1) }, () => (random() - 0.5) * 2 * bend)
  /** Points from one node up to the next; the sheet's own edges are straight. */
  const cut = ([c1, r1]: [number, number], [c2, r2]: [number, number]): [number, number][] => {
    const [[x1, y1], [x2, y2]] = [nodes[r1]![c1]!, nodes[r2]![c2]!] as [number[], number[]]
    const across = r1 === r2
    const isEdge = across ? r1 === 0 || r1 === rows : c1 === 0 || c1 === columns
    const by = isEdge
      ? 0
      : bends[2 * (Math.min(r1, r2) * (columns + 1) + Math.min(c1, c2)) + (across ? 1 : 0)]!
    const back = c2 < c1 || r2 < r1 ? -1 : 1
    return Array.from({ length: 24 }, (_, k) => {
      const t = k / 24
      const out = by * back * Math.sin(Math.PI * t)
      return [x1! + t * (x2! - x1!) + out * (y2! - y1!), y1! + t * (y2! - y1!) - out * (x2! - x1!)]
    })
  }
  const pieces = Array.from({ length: columns * rows }, (_, k) => {
    const [c, r] = [k % columns, Math.floor(k / columns)]
    const outline = [
      ...cut([c, r], [c + 1, r]),
      ...cut([c + 1, r], [c + 1, r + 1]),
      ...cut([c + 1, r + 1], [c, r + 1]),
      ...cut([c, r + 1], [c, r]),
    ]
    const [smaller] = offset([{ outer: Float64Array.from(outline.flat()), holes: [] }], -GAP / 2, 'miter')
    const deg = turns === 'free' ? random() * 360 : turns === 'quarter' ? Math.floor(random() * 4) * 90 : 0
    return { id: `p${k}`, shape: mapPolygon(rotation(deg), smaller!), qty: 1, turns }
  })
  return { sheet: SHEET, gap: GAP, pieces }
}

/** The first layout that putting together alone gives. */
function solved(instance: NestInstance): NestLayout | null {
  const search = new PuzzleSearch(instance)
  let layout: NestLayout | null = null
  while (!layout && !search.done) layout = search.step()
  return layout
}

const anyCut = fc.record<Cut>({
  columns: fc.integer({ min: 2, max: 5 }),
  rows: fc.integer({ min: 2, max: 4 }),
  seed: fc.integer({ min: 1, max: 1e6 }),
  turns: fc.constantFrom('free', 'quarter', 'fixed'),
  bend: fc.constantFrom(0, 0.06, 0.12),
})

describe('the sides of a piece', () => {
  it('begin at its corners, in the order of the outline, as it was before half the gap was taken off', () => {
    const { sides, angles } = partOf(rectangle([5, 5], 40, 20), { gap: 2, depthMm: 1, cornerDeg: 35 })!
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
    const parts = pieces.map(({ shape }) => partOf(shape, { gap: GAP, depthMm: 2, cornerDeg: 35 })!)
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
    const search = new PuzzleSearch(instance)
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
