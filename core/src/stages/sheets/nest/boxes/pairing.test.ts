import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seededRandom } from '../../../../base'
import { blockOf, isUpright, Pairing, type Choice, type Loose, type Span } from './pairing'

const ROOM = { w: 200, h: 150 }
const SAME_MM = 1e-5
const plain: Choice = { toleranceMm: SAME_MM, others: 1, narrow: 0, noise: 0 }

/** Boxes whose lengths were rounded down to whole mm, the gap being none. */
const boxes = fc.array(
  fc
    .record({ w: fc.integer({ min: 5, max: 60 }), h: fc.integer({ min: 5, max: 60 }), turns: fc.boolean() })
    .map(({ w, h, turns }): Loose => {
      const before = (mm: number): Span => ({ least: mm, most: mm + 1 - 2 * SAME_MM })
      return { w, h, along: before(w), down: before(h), turns }
    }),
  { minLength: 1, maxLength: 14 },
)

/** A block told anew from its seams: its boxes, its size, what its lengths can have been. */
interface Told extends Loose {
  boxes: number[]
}

function told(pairing: Pairing, loose: readonly Loose[], block: number): Told {
  const seam = pairing.seam(block)
  if (!seam) return { ...loose[block]!, boxes: [block] }
  const [a, b] = seam.map((side) => {
    const whole = told(pairing, loose, blockOf(side))
    const { w, h, along, down } = whole
    return isUpright(side) ? whole : { ...whole, w: h, h: w, along: down, down: along }
  }) as [Told, Told]
  const turns = a.turns && b.turns
  const upright: Told = {
    w: a.w + b.w,
    h: Math.max(a.h, b.h),
    along: { least: a.along.least + b.along.least, most: a.along.most + b.along.most },
    down: { least: Math.max(a.down.least, b.down.least), most: Math.min(a.down.most, b.down.most) },
    turns,
    boxes: [...a.boxes, ...b.boxes],
  }
  const { w, h, along, down } = upright
  return turns || isUpright(seam[0]) ? upright : { ...upright, w: h, h: w, along: down, down: along }
}

const lying = (block: Told) => ({ ...block, w: block.h, h: block.w, along: block.down, down: block.along })
const meet = (a: Span, b: Span) => a.least <= b.most + SAME_MM && b.least <= a.most + SAME_MM
const fits = (w: number, h: number) => w <= ROOM.w && h <= ROOM.h

/** Whether two blocks have a side in common along which they may lie, by trying all ways. */
function couldJoin(a: Told, b: Told): boolean {
  const turns = a.turns && b.turns
  const beside = (p: Told, q: Told) => {
    const [w, h] = [p.w + q.w, Math.max(p.h, q.h)]
    return meet(p.down, q.down) && (fits(w, h) || (turns && fits(h, w)))
  }
  const above = (p: Told, q: Told) => {
    const [w, h] = [Math.max(p.w, q.w), p.h + q.h]
    return meet(p.along, q.along) && (fits(w, h) || (turns && fits(h, w)))
  }
  return (
    beside(a, b) ||
    above(a, b) ||
    (turns && (beside(a, lying(b)) || beside(lying(a), b) || beside(lying(a), lying(b))))
  )
}

describe('pairs of boxes with a side in common', () => {
  it('joins until no two blocks have one, however often boxes are taken out again', () => {
    fc.assert(
      fc.property(
        boxes,
        fc.integer(),
        fc.array(fc.integer({ min: 1, max: 5 }), { maxLength: 6 }),
        (loose, seed, turns) => {
          const pairing = new Pairing(loose, ROOM, seededRandom(seed))
          let fewest = pairing.fromScratch(plain)
          pairing.keep()
          for (const takenOut of [...turns, 1]) {
            const blocks = pairing.blocks().map((block) => told(pairing, loose, block))
            // All boxes, each once.
            expect(blocks.flatMap((block) => block.boxes).toSorted((a, b) => a - b)).toEqual(
              loose.map((_, k) => k),
            )
            for (const { w, h, along, down, turns, boxes } of blocks) {
              if (boxes.length > 1) expect(fits(w, h) || (turns && fits(h, w))).toBe(true)
              expect(along.least).toBeLessThanOrEqual(along.most + SAME_MM)
              expect(down.least).toBeLessThanOrEqual(down.most + SAME_MM)
            }
            blocks.forEach((a, i) => blocks.slice(0, i).forEach((b) => expect(couldJoin(a, b)).toBe(false)))
            const left = pairing.fromKept({ ...plain, noise: 2 }, takenOut)
            if (left > fewest) continue
            fewest = left
            pairing.keep()
          }
        },
      ),
    )
  })

  it('knows from sides in common what lengths were before they were rounded', () => {
    // 10.6 + 20.7 = 31.3, rounded down to 10, 20 and 31: alone 10 and 20 may have been as much as 32.
    const before = (mm: number): Span => ({ least: mm, most: mm + 1 - 2 * SAME_MM })
    const box = (w: number, h: number): Loose => ({ w, h, along: before(w), down: before(h), turns: false })
    const row = [box(10, 40), box(20, 40)]
    const pairing = new Pairing([...row, box(31, 15)], ROOM, seededRandom(1))
    expect(pairing.fromScratch(plain)).toBe(1)
    expect(pairing.blocks()).toHaveLength(1)
    // Three that make 30 to 33 and one of 34 have no side in common.
    const apart = new Pairing([...row, box(34, 15)], ROOM, seededRandom(1))
    expect(apart.fromScratch(plain)).toBe(2)
  })
})
