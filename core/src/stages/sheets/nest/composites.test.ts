import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectLegal } from '../../../../test/legal-layout'
import { ellipse, rectangle, subtract } from '../../../base/geometry'
import { composites } from './composites'
import type { NestInstance, NestPiece, Turns } from './instance'
import { Nester } from './nester'
import { summarise } from './summary'

const frame = subtract([rectangle([0, 0], 140, 140)], [rectangle([14, 14], 112, 112)])[0]!
const SHEET = { w: 304.8, h: 304.8, margin: 6.35 }

/** Frames that fill a sheet but for a strip's breadth and a tenth of a mm, with all else in their openings. */
const framed = (turns: Turns = 'free'): NestInstance => ({
  sheet: SHEET,
  gap: 2,
  pieces: [
    { id: 'frame', shape: frame, qty: 4, turns: 'quarter' },
    { id: 'disc', shape: ellipse([0, 0], 25), qty: 16, turns },
    { id: 'strip', shape: rectangle([0, 0], 50, 8), qty: 8, turns: 'quarter' },
  ],
})

const asKeys = (placements: readonly { id: string; copy: number }[]) =>
  placements.map(({ id, copy }) => `${id}#${copy}`).toSorted()

describe('pieces in openings', () => {
  it('go with their holders as one, and come out of it where they lay', () => {
    const instance = framed()
    const layout = new Nester(instance, 1, { ways: 'orders' }).best
    const found = composites(instance, layout)!
    expect(found.held).toBeGreaterThan(0)
    expect(found.instance.pieces.reduce((sum, p) => sum + p.qty, 0)).toBe(28 - found.held)
    expect(found.layout.score).toBeCloseTo(layout.score, 9)
    const opened = found.open(found.layout)
    expect(opened.score).toBeCloseTo(layout.score, 9)
    for (const p of layout.placements) {
      const again = opened.placements.find((q) => q.id === p.id && q.copy === p.copy)!
      expect([again.sheet, again.x, again.y, again.rotation].map((v) => Math.round(v * 1e6))).toEqual(
        [p.sheet, p.x, p.y, p.rotation].map((v) => Math.round(v * 1e6)),
      )
    }
  })

  it('of what lies in an opening itself go with the outermost, however little card that has', () => {
    // A wide ring of less card than the one in it.
    const ring = (id: string, r: number, rim: number): NestPiece => ({
      id,
      shape: subtract([ellipse([0, 0], r)], [ellipse([0, 0], r - rim)])[0]!,
      qty: 1,
      turns: 'free',
    })
    const pieces: NestPiece[] = [
      ring('inner', 40, 25),
      ring('outer', 60, 4),
      { id: 'disc', shape: ellipse([0, 0], 10), qty: 1, turns: 'free' },
    ]
    const instance: NestInstance = { sheet: SHEET, gap: 2, pieces }
    const at = { copy: 0, sheet: 0, x: 80, y: 80, rotation: 0 }
    const layout = summarise(instance, pieces.map(({ id }) => ({ id, ...at }))) // prettier-ignore
    const found = composites(instance, layout)!
    expect(found.instance.pieces.map(({ id, qty }) => [id, qty])).toEqual([['outer#0', 1]])
    expect(asKeys(found.open(found.layout).placements)).toEqual(['disc#0', 'inner#0', 'outer#0'])
  })

  it('stay legal wherever their holders are laid anew, each piece once', () => {
    const hole = fc.record({
      w: fc.integer({ min: 40, max: 110 }),
      h: fc.integer({ min: 40, max: 110 }),
      rim: fc.integer({ min: 6, max: 15 }),
      qty: fc.integer({ min: 1, max: 3 }),
    })
    fc.assert(
      fc.property(
        fc.array(hole, { minLength: 1, maxLength: 3 }),
        fc.integer({ min: 5, max: 16 }),
        fc.integer({ min: 1, max: 99 }),
        (holes, r, seed) => {
          const holders = holes.map(({ w, h, rim, qty }, k): NestPiece => {
            const shape = subtract(
              [rectangle([0, 0], w + 2 * rim, h + 2 * rim)],
              [rectangle([rim, rim], w, h)],
            )[0]!
            return { id: `holder${k}`, shape, qty, turns: 'quarter' }
          })
          const instance: NestInstance = {
            sheet: SHEET,
            gap: 2,
            pieces: [...holders, { id: 'disc', shape: ellipse([0, 0], r), qty: 9, turns: 'free' }],
          }
          const found = composites(instance, new Nester(instance, seed, { ways: 'orders' }).best)
          if (!found) return
          const search = new Nester(found.instance, seed, { ways: 'orders' })
          for (let k = 0; k < 4; k++) search.step()
          const opened = found.open(search.best)
          expect(asKeys(opened.placements)).toEqual(
            asKeys(new Nester(instance, 1, { ways: 'orders' }).best.placements),
          )
          expectLegal(instance, opened)
        },
      ),
      { numRuns: 12 },
    )
  })

  it('do not turn where they may not', () => {
    const instance = framed('fixed')
    const found = composites(instance, new Nester(instance, 1, { ways: 'orders' }).best)
    expect(found?.instance.pieces.find(({ id }) => id === 'disc')?.qty ?? 16).toBe(16)
  })

  it('leave exact work to the search for boxes: one sheet where one just does', () => {
    const nester = new Nester(framed(), 1)
    for (let k = 0; k < 120 && nester.best.score > 1; k++) nester.step()
    expect(nester.best.score).toBeLessThanOrEqual(1)
    expectLegal(framed(), nester.best)
  })
})
