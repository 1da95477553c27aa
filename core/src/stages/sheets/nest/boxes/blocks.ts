// Boxes with a side in common go together: two of them side by side are a larger box, and so on. What straight cuts made of a sheet,
// or of a part of it, is put together again in this way, where a search of orders would have to hit on all of it at once.
import { rectangle } from '../../../../base/geometry'
import { BoxSearch, type Box } from './boxes'
import { carried } from '../composites'
import type { NestInstance, NestLayout, Placement } from '../instance'
import { HAIR } from './skyline'
import { summarise } from '../summary'

/** Sides that differ by no more count as one (mm), from attempt to attempt: lengths are rounded to what a file or a ruler has. */
const ALIKE_MM = [0.05, 0.25, 0.01, 0.5]
/** How many sides of nearly one length are looked at from each. */
const WINDOW = 6
/** In later attempts a pair is passed over so often, and the order of pairs is disturbed by so large a part of that. */
const PASS_OVER = 0.04
const NOISE = 1
/** Only where so few blocks come of the boxes is the work worth it. */
const WORTH = 0.6
/** Steps to lay the blocks of an attempt, more where they are the fewest yet; attempts in vain in a row before it is given up. */
const STEPS = 2
const STEPS_FEWEST = 8
const MOST_IN_VAIN = 200

/** A box in a block: where its corner lies, and on which of its sides it lies there. */
interface Member {
  box: number
  x: number
  y: number
  side: 0 | 1
}

/** Boxes that fill a larger one; lengths with the gap. */
interface Block {
  w: number
  h: number
  members: Member[]
  /** May lie the other way up. */
  turns: boolean
}

interface Side {
  block: Block
  length: number
  upright: boolean
}

/** Lays boxes with a side in common as blocks. */
export class BlockSearch {
  private readonly single: readonly Block[]
  private attempts = 0
  private inVain = 0
  private fewest = Infinity
  private readonly tried = new Set<string>()
  private now: { blocks: readonly Block[]; search: BoxSearch; steps: number } | null = null

  constructor(
    private readonly instance: NestInstance,
    private readonly boxes: readonly Box[],
    private readonly random: () => number,
  ) {
    this.single = boxes.map(({ sides }, box): Block => ({
      w: sides[0]!.w,
      h: sides[0]!.h,
      members: [{ box, x: 0, y: 0, side: 0 }],
      turns: sides.length > 1,
    }))
  }

  /** Nothing more can come of it. */
  get done(): boolean {
    return this.now === null && this.inVain >= MOST_IN_VAIN
  }

  /** Puts blocks together, or lays those of the last attempt; gives a layout where one is better than `best`. */
  step(best: NestLayout): NestLayout | null {
    if (!this.now) {
      this.attempt()
      return null
    }
    const { blocks, search } = this.now
    const layout = search.step(best)
    if (--this.now.steps <= 0) this.now = null
    if (!layout) return null
    const opened = this.open(layout, blocks)
    return opened.score < best.score - 1e-9 ? opened : null
  }

  private attempt(): void {
    const blocks = this.joined()
    this.attempts++
    const key = blocks
      .map(({ w, h, members }) => `${members.length} ${w.toFixed(2)} ${h.toFixed(2)}`)
      .toSorted()
      .join(' ')
    if (blocks.length > this.single.length * WORTH || this.tried.has(key)) {
      this.inVain++
      return
    }
    this.inVain = 0
    this.tried.add(key)
    const { gap } = this.instance
    const pieces = blocks.map(({ w, h, turns }, k) => ({
      id: String(k),
      shape: rectangle([0, 0], w - gap, h - gap),
      qty: 1,
      turns: turns ? ('quarter' as const) : ('fixed' as const),
    }))
    this.now = {
      blocks,
      search: new BoxSearch({ ...this.instance, pieces }, this.random),
      steps: blocks.length <= this.fewest ? STEPS_FEWEST : STEPS,
    }
    this.fewest = Math.min(this.fewest, blocks.length)
  }

  /** Pairs with a common side made one, the closest first, until there are no more. */
  private joined(): Block[] {
    const blocks = new Set(this.single)
    for (;;) {
      const pair = this.closest(blocks)
      if (!pair) return [...blocks]
      blocks.delete(pair.a.block)
      blocks.delete(pair.b.block)
      blocks.add(pair.whole)
    }
  }

  private closest(blocks: ReadonlySet<Block>): { a: Side; b: Side; whole: Block } | null {
    const sides = [...blocks].flatMap((block): Side[] => [
      { block, length: block.h, upright: true },
      { block, length: block.w, upright: false },
    ])
    sides.sort((a, b) => a.length - b.length)
    const alike = ALIKE_MM[this.attempts % ALIKE_MM.length]!
    let found: { a: Side; b: Side; whole: Block } | null = null
    let least = Infinity
    for (let i = 0; i < sides.length; i++)
      for (let k = i + 1; k < Math.min(sides.length, i + 1 + WINDOW); k++) {
        const [a, b] = [sides[i]!, sides[k]!]
        const apart = b.length - a.length
        if (apart > alike) break
        if (a.block === b.block || (this.attempts > 0 && this.random() < PASS_OVER)) continue
        const away = apart + (this.attempts > 0 ? NOISE * alike * this.random() : 0)
        if (away >= least) continue
        const whole = this.together(a, b)
        if (!whole) continue
        least = away
        found = { a, b, whole }
      }
    return found
  }

  /** Two blocks side by side along a common side; null where they would not fit a sheet, or may not lie so. */
  private together(a: Side, b: Side): Block | null {
    const turns = a.block.turns && b.block.turns
    if (!turns && a.upright !== b.upright) return null
    const [left, right] = [a, b].map(({ block, upright }) => (upright ? block : transposed(block))) as [
      Block,
      Block,
    ]
    const whole: Block = {
      w: left.w + right.w,
      h: Math.max(left.h, right.h),
      members: [...left.members, ...right.members.map((member) => ({ ...member, x: member.x + left.w }))],
      turns,
    }
    const lying = turns || a.upright ? whole : transposed(whole)
    const { sheet, gap } = this.instance
    const [roomW, roomH] = [sheet.w - 2 * sheet.margin + gap + HAIR, sheet.h - 2 * sheet.margin + gap + HAIR]
    const fits = (w: number, h: number) => w <= roomW && h <= roomH
    return fits(lying.w, lying.h) || (turns && fits(lying.h, lying.w)) ? lying : null
  }

  private open(layout: NestLayout, blocks: readonly Block[]): NestLayout {
    return summarise(
      this.instance,
      layout.placements.flatMap((p) =>
        blocks[Number(p.id)]!.members.map(({ box, x, y, side }): Placement => {
          const { piece, copy, sides } = this.boxes[box]!
          const { rotation, minX, minY } = sides[side]!
          const own = {
            id: this.instance.pieces[piece]!.id,
            copy,
            sheet: p.sheet,
            x: x - minX,
            y: y - minY,
            rotation,
          }
          return carried(own, { ...p, x: 0, y: 0, rotation: 0 }, p)
        }),
      ),
    )
  }
}

/** A block the other way up, each of its boxes turned where it lies. */
const transposed = ({ w, h, members, turns }: Block): Block => ({
  w: h,
  h: w,
  members: members.map(({ box, x, y, side }) => ({ box, x: y, y: x, side: side === 0 ? 1 : 0 })),
  turns,
})
