// Boxes with a side in common go together: two of them side by side are a larger box, and so on. What straight cuts made of a sheet,
// or of a part of it, is put together again in this way, where a search of orders would have to hit on all of it at once.
import { rectangle } from '../../../../base/geometry'
import { BoxSearch, type Box } from './boxes'
import { carried } from '../composites'
import type { NestInstance, NestLayout, Placement } from '../instance'
import { blockOf, isUpright, Pairing, type Choice, type Loose, type Span } from './pairing'
import { HAIR } from './skyline'
import { summarise } from '../summary'
import type { Way } from '../way'

/** Steps that lengths may be rounded to, mm: what all of them are multiples of, to a hair, was what they were rounded to. */
const ROUNDED_TO = [1, 0.5, 0.25, 0.2, 0.1, 0.05, 0.02, 0.01, 0.001]
/** What is equal but for the computer's arithmetic, mm. */
const SAME_MM = 1e-5
/** Where that does not tell, sides that differ by no more count as one, mm: every third attempt goes by one of these. */
const ALIKE_MM = [0.05, 0.25, 0.01, 0.5]
const BY_ALIKE = 3
/** What rounding took away, in steps: mostly lengths were rounded down, so that all fits the sheet; every fourth start goes by the nearest. */
const ROUNDED: Readonly<Record<Rounding, Span>> = {
  down: { least: 0, most: 1 },
  nearest: { least: -0.5, most: 0.5 },
}
const BY_NEAREST = 4
/**
 * What speaks against a pair: how many others each of its sides could go with, how long and narrow the whole would be, chance. Attempts draw
 * these at random; the first have no noise.
 */
const AGAINST = { others: [0, 0.5, 1, 2], narrow: [0, 1], noise: [1, 2, 4] }
const PLAIN_FIRST = 4
/** Attempts in one step: until so many pairs were looked at (some 20 ms), but so many at most. What leaves the fewest blocks is laid. */
const ATTEMPTS = { pairs: 4_000_000, most: 1000 }
/** Only where so few blocks come of the boxes is the work worth it. */
const WORTH = 0.6
/** Of more boxes too many have sides in common: an attempt looks at all pairs of them, again for each that is joined. */
const MOST_BOXES = 300
/** So many boxes at most are taken out again; after so many times without fewer blocks all begins anew. */
const MOST_TAKEN_OUT = 8
const PATIENCE = 60
/** Steps to lay the blocks of an attempt, more where they are the fewest yet; steps in a row that find none before it is given up. */
const STEPS = 2
const STEPS_FEWEST = 8
const MOST_IN_VAIN = 3

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

/** How lengths are taken to have been rounded. */
type Rounding = 'down' | 'nearest'

/** Lays boxes with a side in common as blocks. */
export class BlockSearch implements Way {
  private readonly single: readonly Block[]
  private readonly pairings: Readonly<Record<Rounding, Pairing>>
  private attempts = 0
  private starts = 0
  /** What attempts go on from. */
  private going: { pairing: Pairing; left: number; inVain: number } | null = null
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
    const { sheet, gap } = instance
    const unit = unitOf(this.single.flatMap(({ w, h }) => [w - gap, h - gap]))
    const room = { w: sheet.w - 2 * sheet.margin + gap + HAIR, h: sheet.h - 2 * sheet.margin + gap + HAIR }
    const pairing = (rounding: Rounding) => {
      const loose = this.single.map(({ w, h, turns }): Loose => ({
        w,
        h,
        along: beforeRounding(w, unit, rounding),
        down: beforeRounding(h, unit, rounding),
        turns,
      }))
      return new Pairing(loose, room, random)
    }
    this.pairings = { down: pairing('down'), nearest: pairing('nearest') }
  }

  /** For boxes whose lengths are known, not too many of them. */
  static suits(boxes: readonly Box[]): boolean {
    return boxes.length <= MOST_BOXES && boxes.every(({ sides }) => sides.length > 0)
  }

  /** Nothing more can come of it. */
  get done(): boolean {
    return this.now === null && this.inVain >= MOST_IN_VAIN
  }

  /** In the midst of laying the blocks of an attempt. */
  get underWay(): boolean {
    return this.now?.search.underWay ?? false
  }

  /** Puts blocks together, or lays those of the last attempt; gives a layout where one is better than `best`. */
  step(best: NestLayout): NestLayout | null {
    if (!this.now) {
      this.attempt()
      return null
    }
    const { blocks, search } = this.now
    const layout = search.step(best)
    if (search.underWay) return null
    if (--this.now.steps <= 0) this.now = null
    if (!layout) return null
    const opened = this.open(layout, blocks)
    return opened.score < best.score - 1e-9 ? opened : null
  }

  private attempt(): void {
    let blocks: Block[] | null = null
    let found = ''
    const count = this.single.length
    for (let k = 0, looked = 0; k < ATTEMPTS.most && looked < ATTEMPTS.pairs && blocks?.length !== 1; k++) {
      const { pairing, left, pairs } = this.join()
      looked += pairs
      if (left > count * WORTH || (blocks && left >= blocks.length)) continue
      const joined = pairing.blocks().map((block) => this.opened(pairing, block))
      const key = joined
        .map(({ w, h, members }) => `${members.length} ${w.toFixed(2)} ${h.toFixed(2)}`)
        .toSorted()
        .join(' ')
      if (this.tried.has(key)) continue
      blocks = joined
      found = key
    }
    if (!blocks) {
      this.inVain++
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

  /** Joins boxes anew, or goes on from what the last attempts came to, as long as that gets better now and then. */
  private join(): { pairing: Pairing; left: number; pairs: number } {
    const choice = this.choice()
    this.attempts++
    if (!this.going || this.going.inVain >= PATIENCE) {
      const pairing = this.pairings[this.starts++ % BY_NEAREST === BY_NEAREST - 1 ? 'nearest' : 'down']
      this.going = { pairing, left: Infinity, inVain: 0 }
    }
    const { going } = this
    const { pairing } = going
    const before = pairing.looked
    const left =
      going.left === Infinity
        ? pairing.fromScratch(choice)
        : pairing.fromKept(choice, 1 + Math.floor(this.random() * MOST_TAKEN_OUT))
    going.inVain = left < going.left ? 0 : going.inVain + 1
    if (left <= going.left) {
      going.left = left
      pairing.keep()
    }
    return { pairing, left, pairs: pairing.looked - before }
  }

  /** How the next attempt chooses. */
  private choice(): Choice {
    const draw = (list: readonly number[]) => list[Math.floor(this.random() * list.length)]!
    const alike = ALIKE_MM[Math.floor(this.attempts / BY_ALIKE) % ALIKE_MM.length]!
    return {
      toleranceMm: this.attempts % BY_ALIKE === BY_ALIKE - 1 ? alike : SAME_MM,
      others: draw(AGAINST.others),
      narrow: draw(AGAINST.narrow),
      noise: this.attempts < PLAIN_FIRST ? 0 : draw(AGAINST.noise),
    }
  }

  /** A block of a pairing with the boxes in it. */
  private opened(pairing: Pairing, block: number): Block {
    const seam = pairing.seam(block)
    if (!seam) return this.single[block]!
    const [a, b] = seam.map((side) => ({
      block: this.opened(pairing, blockOf(side)),
      upright: isUpright(side),
    })) as [Side, Side]
    return together(a, b)
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

/** A side of a block. */
interface Side {
  block: Block
  upright: boolean
}

/** Two blocks side by side along a common side. */
function together(a: Side, b: Side): Block {
  const turns = a.block.turns && b.block.turns
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
  return turns || a.upright ? whole : transposed(whole)
}

/** A block the other way up, each of its boxes turned where it lies. */
const transposed = ({ w, h, members, turns }: Block): Block => ({
  w: h,
  h: w,
  members: members.map(({ box, x, y, side }) => ({ box, x: y, y: x, side: side === 0 ? 1 : 0 })),
  turns,
})

/** What a length can have been before it was rounded to a multiple of `unit`, mm. */
function beforeRounding(mm: number, unit: number, rounding: Rounding): Span {
  const taken = ROUNDED[rounding]
  const least = mm + unit * taken.least
  return { least, most: Math.max(least, mm + unit * taken.most - 2 * SAME_MM) }
}

/** What lengths were rounded to, mm; 0 where they were not. */
const unitOf = (lengths: readonly number[]): number =>
  ROUNDED_TO.find((unit) =>
    lengths.every((mm) => Math.abs(mm / unit - Math.round(mm / unit)) * unit < SAME_MM),
  ) ?? 0
