// Anytime nesting of true shapes, in ways that take turns: one searches orders of laying (orders/), one takes card away from
// the best layout and parts the overlaps that come of it (overlap/), one fills sheets with boxes (boxes/), one puts together what was cut
// from one sheet (puzzle/), one works with what lies in openings as one body, and what they find is tidied (exact/settle.ts). The first
// layout is complete and legal; every later one can only better it.
import { BadInput, seededRandom } from '../../../base'
import { BlockSearch } from './boxes/blocks'
import { BoxSearch } from './boxes/boxes'
import { CompositeSearch } from './composite-search'
import { PlainPieces } from './exact/plain-pieces'
import { tidied } from './exact/settle'
import type { NestInstance, NestLayout } from './instance'
import { LatticeSearch } from './lattice/lattice-search'
import { layFirst, type First } from './orders/first'
import { OrderSearch } from './orders/order-search'
import { Improver } from './overlap/improver'
import { Lines } from './lines'
import { InParts } from './parts'
import { PuzzleSearch } from './puzzle/puzzle-search'
import { SAME_SCORE, type Way } from './way'

/** How the steps are shared out; which way has a turn is decided in this order. */
const SHARES = {
  /** Where all pieces are boxes, of so many steps one is given to the ways for any shape. */
  notBoxes: 8,
  /** Of the steps for boxes one in so many goes to blocks of them, as long as some with sides in common are found. */
  blocks: 3,
  /** A puzzle is put together before anything else, as long as the pieces may be one: for so much work (units of `Parts`), then one step in so many. */
  puzzleFirst: 600_000,
  puzzle: 16,
  /** Of the others, one in so many goes to composites; where they leave nothing but boxes, one in so many. */
  composites: 8,
  compositeBoxes: 2,
  /** One in so many goes to what whole sheets of copies in rows leave. */
  rest: 3,
  /** Of what is left one in so many goes to orders, the others to parting overlaps. */
  orders: 150,
}
/** Of more pieces than this so many orders are laid at first: parting overlaps takes longer to come to anything there. */
const ORDERS_FIRST = { from: 150, orders: 4 }
/** Gaps are closed after so many steps at the earliest; pieces that reach far are dropped elsewhere so many times. */
const TIDY = { after: 3, trials: 60 }
const COMPOSITES_SEED = 1
const REST_SEED = 1
/** Parts of steps that a search begins with at most. */
const MOST_PARTS = 40

/** Which ways are searched: all that suit the pieces, or orders alone, which is quicker to give up. */
type Ways = 'all' | 'orders'

/** A search that can be stopped after any step; its best layout is always complete and legal. */
export class Nester {
  best: NestLayout
  steps = 0
  /** What the ways go on from. */
  private readonly lines: Lines
  /** Whether what is built on gives way no more. */
  private isStuck = () => true
  private readonly random: () => number
  private readonly orders: OrderSearch
  /** What the next step goes on with. */
  private goingOn: Way | null = null
  private readonly turns: readonly { way: () => Way; isDue: () => boolean }[]

  private readonly ways: Ways

  /**
   * Lays a first complete layout, where it is not given.
   * Throws BadInput where a piece is larger than the sheet's cuttable area at every turn it may take, or where sheet, rim
   * or gap make no sense.
   */
  constructor(
    private readonly instance: NestInstance,
    seed = 1,
    { ways = 'all', first }: { ways?: Ways; first?: First } = {},
  ) {
    refuseNonsense(instance)
    this.ways = ways
    this.random = seededRandom(seed)
    // Some pieces have a say in what they share a sheet with: only orders keep to it.
    const grouped = instance.pieces.some((piece) => piece.sharing !== undefined)
    const ordersOnly = ways === 'orders' || grouped
    const boxes = !ordersOnly && BoxSearch.suits(instance) ? new BoxSearch(instance, this.random) : null
    const blocks =
      boxes && BlockSearch.suits(boxes.boxes) ? new BlockSearch(instance, boxes.boxes, this.random) : null
    this.orders = new OrderSearch(instance, this.random, first)
    this.best = this.orders.first
    this.lines = new Lines(this.best)
    this.turns = this.turnsOf({ grouped, ordersOnly, boxes, blocks })
  }

  /** The same, with pauses while it lays the first layout. */
  static *inParts(instance: NestInstance, seed = 1): Generator<undefined, Nester> {
    refuseNonsense(instance)
    const laying = new InParts(layFirst(instance))
    for (;;) {
      const laid = laying.step()
      if (laid) return new Nester(instance, seed, { first: laid.value })
      yield
    }
  }

  /** True where nothing can be better: nothing, or a single piece, to lay. */
  get done(): boolean {
    return this.orders.done
  }

  /** In the midst of work that takes several steps. */
  get underWay(): boolean {
    return this.goingOn !== null
  }

  /** Goes on from a layout that was found elsewhere, where it is better. */
  offer(layout: NestLayout): void {
    this.lines.take(layout)
    this.show(layout)
  }

  /** One step of the search. True where the best layout got better. */
  step(): boolean {
    this.steps++
    if (this.done) return false
    const way = this.goingOn ?? this.turns.find(({ isDue }) => isDue())!.way()
    const layout = way.step(this.lines.base, this.steps)
    this.goingOn = way.underWay ? way : null
    if (layout && way instanceof LatticeSearch) this.lines.takeOther(layout, this.steps)
    else if (layout) this.lines.take(layout)
    if (!this.underWay) this.lines.turn(this.steps, this.isStuck())
    return layout !== null && this.show(layout)
  }

  /**
   * So many whole steps, each in as many parts as it takes, with a pause before each part; fewer where that comes to many parts. The
   * beginning of a search that comes to the same on any machine.
   */
  *begin(steps: number): Generator<undefined, NestLayout> {
    for (let whole = 0, parts = 0; whole < steps && parts < MOST_PARTS && !this.done; parts++) {
      yield
      this.step()
      if (!this.underWay) whole++
    }
    return this.best
  }

  /** The ways that suit the instance, and when each has its turn: the first that is due takes the step. */
  private turnsOf({ grouped, ordersOnly, boxes, blocks }: Suited): Nester['turns'] {
    const { instance, orders } = this
    const every = (n: number) => this.steps % n === 0
    const first = orders.count <= ORDERS_FIRST.from ? 0 : ORDERS_FIRST.orders
    const begun = () => orders.finished >= first
    const turns: { way: () => Way; isDue: () => boolean }[] = []
    if (blocks)
      turns.push({
        way: () => blocks,
        isDue: () => !every(SHARES.notBoxes) && every(SHARES.blocks) && !blocks.done,
      })
    if (boxes) turns.push({ way: () => boxes, isDue: () => !every(SHARES.notBoxes) })
    if (!boxes && !ordersOnly && PuzzleSearch.suits(instance)) {
      let puzzle: PuzzleSearch | null = null
      const search = () => (puzzle ??= new PuzzleSearch(instance, this.random))
      turns.push({
        way: search,
        isDue: () => {
          if (!begun() || search().done) return false
          const { isPressed, work } = search()
          return isPressed || work < SHARES.puzzleFirst || every(SHARES.puzzle)
        },
      })
    }
    if (!boxes && !ordersOnly && LatticeSearch.suits(instance)) {
      const search = new LatticeSearch(instance, (rest) => Nester.inParts(rest, REST_SEED))
      const isRestDue = () => begun() && every(SHARES.rest) && search.hasProspect(this.lines.base)
      turns.push({ way: () => search, isDue: () => !search.isLaid || isRestDue() })
    }
    // It takes a while to set up: not before it is needed.
    let improver: Improver | null = null
    if (this.ways === 'all') {
      const tidier = new Tidier(instance, this.random, grouped)
      const rests = () => improver?.rests ?? true
      turns.push({
        way: () => tidier,
        isDue: () => this.steps > TIDY.after && !tidier.isTidy(this.lines.base) && rests(),
      })
    }
    if (!ordersOnly && CompositeSearch.suits(instance)) {
      const search = new CompositeSearch(instance, (composed) => new Nester(composed, COMPOSITES_SEED))
      const share = { none: Infinity, shapes: SHARES.composites, boxes: SHARES.compositeBoxes }
      turns.push({
        way: () => search,
        isDue: () => begun() && every(share[search.prospect(this.lines.base)]),
      })
    }
    if (!ordersOnly && Improver.suits(instance)) {
      this.isStuck = () => improver?.isStuck ?? false
      turns.push({
        way: () => (improver ??= new Improver(instance, this.random)),
        isDue: () => begun() && !every(SHARES.orders),
      })
    }
    turns.push({ way: () => orders, isDue: () => true })
    return turns
  }

  private show(layout: NestLayout): boolean {
    if (layout.score >= this.best.score - SAME_SCORE) return false
    this.best = layout
    return true
  }
}

interface Suited {
  grouped: boolean
  ordersOnly: boolean
  boxes: BoxSearch | null
  blocks: BlockSearch | null
}

/** Closes the gaps of layouts. */
class Tidier implements Way {
  private readonly pieces: PlainPieces
  private tidy: NestLayout | null = null
  private tidying: InParts<NestLayout | null> | null = null
  /** The layout that is being tidied. */
  private from: NestLayout | null = null

  constructor(
    instance: NestInstance,
    private readonly random: () => number,
    private readonly grouped: boolean,
  ) {
    this.pieces = new PlainPieces(instance)
  }

  isTidy(layout: NestLayout): boolean {
    return layout === this.tidy
  }

  get underWay(): boolean {
    return this.tidying !== null
  }

  step(best: NestLayout): NestLayout | null {
    const { random, grouped } = this
    if (this.from !== best) this.tidying = null
    this.from = best
    this.tidying ??= new InParts(
      tidied(this.pieces, best, { random, trials: TIDY.trials, mayMove: () => !grouped }),
    )
    const done = this.tidying.step()
    if (!done) return null
    this.tidying = null
    const layout = done.value
    this.tidy = layout && layout.score < best.score - SAME_SCORE ? layout : best
    return layout
  }
}

function refuseNonsense({ sheet, gap }: NestInstance): void {
  if (!(sheet.w > 0 && sheet.h > 0)) throw new BadInput('the sheet must have a width and a height')
  if (!(sheet.margin >= 0 && gap >= 0)) throw new BadInput('rim and gap must not be negative')
  if (!(sheet.w > 2 * sheet.margin && sheet.h > 2 * sheet.margin))
    throw new BadInput('the rim leaves nothing of the sheet to cut')
}
