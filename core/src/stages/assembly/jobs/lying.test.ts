// What lies on what, against a grid of points that counts it cell by cell.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { card, plate } from '../../../../test/stack'
import { ellipse, rectangle, reversed } from '../../../base/geometry'
import type { Layer } from '../../../project'
import { Lying } from './lying'

/** Rectangles on a grid of 10 mm: the cells that a layer covers. */
type Cells = readonly [x: number, y: number, w: number, h: number][]

const cellsOf = (rects: Cells) =>
  new Set(
    rects.flatMap(([x, y, w, h]) =>
      Array.from({ length: w * h }, (_, k) => `${x + (k % w)} ${y + Math.floor(k / w)}`),
    ),
  )
const layerOf = (id: string, rects: Cells): Layer =>
  plate(id, 0, ...rects.map(([x, y, w, h]) => [10 * x, 10 * y, 10 * w, 10 * h] as [number, number, number, number])) // prettier-ignore

const rect = fc.tuple(
  fc.nat({ max: 8 }),
  fc.nat({ max: 8 }),
  fc.integer({ min: 1, max: 4 }),
  fc.integer({ min: 1, max: 4 }),
)
const piles = fc.array(fc.array(rect, { minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 7 })

describe('what lies on what', () => {
  it('is what a grid of cells says; what merely touches edges lies beside', () => {
    fc.assert(
      fc.property(piles, (pile) => {
        const lying = new Lying<number>()
        pile.forEach((rects, i) => lying.lay(i, [layerOf(`l${i}`, rects)]))
        const cells = pile.map(cellsOf)
        const shares = (a: number, b: number) => [...cells[a]!].some((cell) => cells[b]!.has(cell))
        // All that each lies over, and what these do, reckoned from pairs alone.
        const under: Set<number>[] = []
        pile.forEach((_, i) => {
          const own = new Set<number>()
          for (let k = 0; k < i; k++) if (shares(i, k)) for (const one of [k, ...under[k]!]) own.add(one)
          under.push(own)
        })
        pile.forEach((_, i) => {
          expect(lying.under(i)).toEqual([...under[i]!].sort((a, b) => a - b))
          // The uppermost of them: none of these lies under another of them.
          const onto = lying.onto(i)
          expect(onto.toSorted()).toEqual(
            [...under[i]!].filter((k) => ![...under[i]!].some((other) => under[other]!.has(k))).toSorted(),
          )
          for (let k = 0; k < i; k++) expect(lying.isOver(i, k)).toBe(shares(i, k))
        })
        expect(lying.tops()).toEqual(pile.map((_, i) => i).filter((i) => !under.some((own) => own.has(i))))
      }),
      { numRuns: 60 },
    )
  })

  it('goes by outlines: in an opening is over the ring, beside a round one is beside it', () => {
    const lying = new Lying<string>()
    const ring = { ...rectangle([0, 0], 100, 100), holes: [reversed(rectangle([20, 20], 60, 60).outer)] }
    lying.lay('ring', [card('ring', 0, [ring])])
    lying.lay('in it', [card('in', 0, [ellipse([50, 50], 10)])])
    lying.lay('disc', [card('disc', 0, [ellipse([200, 200], 50)])])
    // Within the box round the disc, and outside the disc.
    lying.lay('corner', [plate('corner', 0, [151, 151, 8, 8])])
    expect(lying.onto('in it')).toEqual(['ring'])
    expect(lying.onto('corner')).toEqual([])
    expect(lying.tops()).toEqual(['in it', 'disc', 'corner'])
  })
})
