// Boxes with a side in common go together: two of them side by side are a larger box, and so on. What straight cuts made of a sheet,
// or of a part of it, is put together again in this way, where a search of orders would have to hit on all of it at once.
import { rectangle } from '../../../../base/geometry'
import { BoxSearch, type Box } from './boxes'
import { carried } from '../composites'
import type { NestInstance, NestLayout, Placement } from '../instance'
import { HAIR } from './skyline'
import { summarise } from '../summary'

/** Steps that lengths may be rounded to, mm: what all of them are multiples of, to a hair, was what they were rounded to. */
const ROUNDED_TO = [1, 0.5, 0.25, 0.2, 0.1, 0.05, 0.02, 0.01, 0.001]
/** What is equal but for the computer's arithmetic, mm. */
const SAME_MM = 1e-5
/** Where that does not tell, sides that differ by no more count as one, mm: every third attempt goes by one of these. */
const ALIKE_MM = [0.05, 0.25, 0.01, 0.5]
const BY_ALIKE = 3
/**
 * What speaks against a pair, in the tolerance of its sides: how many others each of them could go with, how far their common length is from
 * equal, how long and narrow the whole would be. Attempts draw these at random, later ones with noise, and pass over some pairs.
 */
const AGAINST = { others: [0, 0.5, 1, 2], narrow: [0, 1], noise: [1, 2, 4], passOver: [0, 0.1] }
const NARROW_FROM = 2
/** The first attempts have no noise. */
const PLAIN_FIRST = 4
/** Attempts in one step, fewer where there are many boxes: each takes a time that grows with their square. What leaves the fewest blocks is laid. */
const ATTEMPTS = { least: 2, most: 40, squares: 48_000 }
/** Only where so few blocks come of the boxes is the work worth it. */
const WORTH = 0.6
/** Steps to lay the blocks of an attempt, more where they are the fewest yet; attempts in vain in a row before it is given up. */
const STEPS = 2
const STEPS_FEWEST = 8
const MOST_IN_VAIN = 400

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
  /** Boxes along each side: what rounding took away adds up along them. */
  along: number
  down: number
  members: Member[]
  /** May lie the other way up. */
  turns: boolean
}

interface Side {
  block: Block
  length: number
  /** Boxes along it. */
  count: number
  upright: boolean
}

/** How one attempt chooses pairs. */
interface Choice {
  toleranceMm: (a: Side, b: Side) => number
  others: number
  narrow: number
  noise: number
  passOver: number
}

/** Lays boxes with a side in common as blocks. */
export class BlockSearch {
  private readonly single: readonly Block[]
  private attempts = 0
  private inVain = 0
  private fewest = Infinity
  private readonly unitMm: number
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
      along: 1,
      down: 1,
      members: [{ box, x: 0, y: 0, side: 0 }],
      turns: sides.length > 1,
    }))
    this.unitMm = unitOf(this.single.flatMap(({ w, h }) => [w - instance.gap, h - instance.gap]))
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
    let blocks: Block[] | null = null
    let found = ''
    const { least, most, squares } = ATTEMPTS
    const attempts = Math.max(least, Math.min(most, Math.round(squares / this.single.length ** 2)))
    for (let k = 0; k < attempts && blocks?.length !== 1; k++) {
      const joined = this.joined(this.choice())
      this.attempts++
      if (joined.length > this.single.length * WORTH || (blocks && joined.length >= blocks.length)) continue
      const key = joined
        .map(({ w, h, members }) => `${members.length} ${w.toFixed(2)} ${h.toFixed(2)}`)
        .toSorted()
        .join(' ')
      if (this.tried.has(key)) continue
      blocks = joined
      found = key
    }
    if (!blocks) {
      this.inVain += attempts
      return
    }
    this.inVain = 0
    this.tried.add(found)
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

  /** How the next attempt chooses. */
  private choice(): Choice {
    const draw = (list: readonly number[]) => list[Math.floor(this.random() * list.length)]!
    const alike = ALIKE_MM[Math.floor(this.attempts / BY_ALIKE) % ALIKE_MM.length]!
    const byUnit = (a: Side, b: Side) => {
      const most = Math.max(a.count, b.count)
      // What two single boxes have in common was rounded alike.
      return this.unitMm * (most > 1 ? most : 0) + SAME_MM
    }
    return {
      toleranceMm: this.attempts % BY_ALIKE === BY_ALIKE - 1 ? () => alike : byUnit,
      others: draw(AGAINST.others),
      narrow: draw(AGAINST.narrow),
      noise: this.attempts < PLAIN_FIRST ? 0 : draw(AGAINST.noise),
      passOver: this.attempts < PLAIN_FIRST ? 0 : draw(AGAINST.passOver),
    }
  }

  /** Pairs with a common side made one, those for which least else comes into question first, until there are no more. */
  private joined(choice: Choice): Block[] {
    const blocks = new Set(this.single)
    for (;;) {
      const pair = this.pairOf(blocks, choice)
      if (!pair) return [...blocks]
      blocks.delete(pair.a.block)
      blocks.delete(pair.b.block)
      blocks.add(this.together(pair.a, pair.b))
    }
  }

  private pairOf(
    blocks: ReadonlySet<Block>,
    { toleranceMm, others, narrow, noise, passOver }: Choice,
  ): { a: Side; b: Side } | null {
    const sides = [...blocks].flatMap((block): Side[] => [
      { block, length: block.h, count: block.down, upright: true },
      { block, length: block.w, count: block.along, upright: false },
    ])
    sides.sort((a, b) => a.length - b.length)
    const most = sides.reduce((mm, side) => Math.max(mm, toleranceMm(side, side)), 0)
    const partners = new Map<Side, number>()
    const pairs: { a: Side; b: Side; apart: number }[] = []
    sides.forEach((a, i) => {
      for (let k = i + 1; k < sides.length && sides[k]!.length - a.length <= most; k++) {
        const b = sides[k]!
        const apart = (b.length - a.length) / toleranceMm(a, b)
        if (apart > 1 || a.block === b.block || !this.mayJoin(a, b)) continue
        for (const side of [a, b]) partners.set(side, (partners.get(side) ?? 0) + 1)
        pairs.push({ a, b, apart })
      }
    })
    let least = Infinity
    let best: { a: Side; b: Side } | null = null
    for (const { a, b, apart } of pairs) {
      if (this.random() < passOver) continue
      const across = acrossOf(a) + acrossOf(b)
      const shape = Math.max(across / b.length, b.length / across) - NARROW_FROM
      const against =
        others * (partners.get(a)! + partners.get(b)! - 2) +
        apart +
        narrow * Math.max(0, shape) +
        noise * this.random()
      if (against >= least) continue
      least = against
      best = { a, b }
    }
    return best
  }

  /** Whether two blocks may lie side by side and fit a sheet. */
  private mayJoin(a: Side, b: Side): boolean {
    const turns = a.block.turns && b.block.turns
    if (!turns && a.upright !== b.upright) return false
    const { sheet, gap } = this.instance
    const [roomW, roomH] = [sheet.w - 2 * sheet.margin + gap + HAIR, sheet.h - 2 * sheet.margin + gap + HAIR]
    const [across, long] = [acrossOf(a) + acrossOf(b), Math.max(a.length, b.length)]
    const [w, h] = a.upright ? [across, long] : [long, across]
    return (w <= roomW && h <= roomH) || (turns && h <= roomW && w <= roomH)
  }

  /** Two blocks side by side along a common side. */
  private together(a: Side, b: Side): Block {
    const turns = a.block.turns && b.block.turns
    const [left, right] = [a, b].map(({ block, upright }) => (upright ? block : transposed(block))) as [
      Block,
      Block,
    ]
    const whole: Block = {
      w: left.w + right.w,
      h: Math.max(left.h, right.h),
      along: left.along + right.along,
      down: Math.max(left.down, right.down),
      members: [...left.members, ...right.members.map((member) => ({ ...member, x: member.x + left.w }))],
      turns,
    }
    return turns || a.upright ? whole : transposed(whole)
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
const transposed = ({ w, h, along, down, members, turns }: Block): Block => ({
  w: h,
  h: w,
  along: down,
  down: along,
  members: members.map(({ box, x, y, side }) => ({ box, x: y, y: x, side: side === 0 ? 1 : 0 })),
  turns,
})

/** How far a block reaches from one of its sides, mm. */
const acrossOf = ({ block, upright }: Side): number => (upright ? block.w : block.h)

/** What lengths were rounded to, mm; 0 where they were not. */
const unitOf = (lengths: readonly number[]): number =>
  ROUNDED_TO.find((unit) =>
    lengths.every((mm) => Math.abs(mm / unit - Math.round(mm / unit)) * unit < SAME_MM),
  ) ?? 0
