// Searches the order in which pieces are laid: simulated annealing over swaps, moves and turns. Orders are tried on the coarse
// grid; what promises well is laid once more on the fine one.
import type { NestInstance, NestLayout } from '../instance'
import { atOnce, InParts, type Parts } from '../parts'
import type { Way } from '../way'
import { isAlone, layFirst, type First } from './first'
import { layInOrder, type Order } from './laying'
import type { Level, Poses } from './poses'

/** An order that is coarsely no worse than this beside the best is worth laying finely. */
const PROMISING = 0.012
/** Poses tried of each piece in an order, over all pieces together, and at least. */
const SEARCH_POSES = 1200
const LEAST_POSES = 6
/** Orders that are known to have been laid. */
const MOST_NOTED = 2000
/** So much worse is let in at first (parts of a sheet), half as much after so many steps. */
const HEAT = 0.02
const COOL_STEPS = 300
/** How often the axis changes, one move is made instead of two, and which moves. */
const CHANCE = { axis: 0.06, single: 0.5, swap: 0.4, shift: 0.35, anyPose: 0.4 }

/** Simulated annealing (Kirkpatrick, Gelatt and Vecchi 1983) over orders of laying. */
export class OrderSearch implements Way {
  /** The first layout: complete and legal. */
  readonly first: NestLayout
  private readonly poses: Poses
  private current: Order & { score: number }
  /** Best score on the coarse grid. */
  private coarse: number
  /** An order that waits to be laid finely. */
  private waiting: Order | null
  private triedOtherAxis = false
  private readonly laid = new Set<string>()
  /** What is being laid, and what becomes of it. */
  private laying: { parts: InParts<NestLayout>; then: (layout: NestLayout) => NestLayout | null } | null =
    null
  /** Orders that were laid to their end. */
  finished = 0

  constructor(
    private readonly instance: NestInstance,
    private readonly random: () => number,
    { poses, items, layout }: First = atOnce(layFirst(instance)),
  ) {
    this.poses = poses
    this.first = layout
    this.poses.each = Math.max(LEAST_POSES, Math.floor(SEARCH_POSES / Math.max(1, items.length)))
    this.coarse = layout.score
    const order: Order = { items, axis: 'rows' }
    this.current = { ...order, score: layout.score }
    this.waiting = items.length === 0 || isAlone(instance, items) ? null : this.turnedAs(order, layout)
  }

  /** An order in which every piece keeps the turn that it has in a layout. */
  private turnedAs({ items, axis }: Order, { placements }: NestLayout): Order {
    const turns = new Map(placements.map(({ id, copy, rotation }) => [`${id}#${copy}`, rotation]))
    const posed = items.map((item) => {
      const turn = turns.get(`${this.instance.pieces[item.piece]!.id}#${item.copy}`)
      const pose = this.poses.turnsThatFit(item.piece, axis).findIndex(({ rotation }) => rotation === turn)
      return { ...item, pose }
    })
    return { items: posed, axis }
  }

  /** Pieces to lay, copies counted. */
  get count(): number {
    return this.current.items.length
  }

  /** True where no other order can be better: nothing, or a single piece, to lay. */
  get done(): boolean {
    return this.count < 2 && this.waiting === null
  }

  get underWay(): boolean {
    return this.laying !== null
  }

  step(_best: NestLayout, step: number): NestLayout | null {
    if (!this.laying) this.begin(step)
    const laid = this.laying?.parts.step()
    if (!this.laying || !laid) return null
    const { then } = this.laying
    this.laying = null
    this.finished++
    return then(laid.value)
  }

  /** What to lay next: nothing where that was laid before. */
  private begin(step: number): void {
    const { waiting } = this
    if (waiting) {
      this.waiting = null
      this.begun(waiting, 'fine', (layout) => layout)
    } else if (!this.triedOtherAxis) {
      this.triedOtherAxis = true
      const order: Order = { items: this.current.items, axis: 'columns' }
      this.begun(order, 'coarse', (layout) => this.axisTurned(order, layout))
    } else {
      const order = this.changed(this.current)
      if (this.wasLaid(order)) this.finished++
      else this.begun(order, 'coarse', (layout) => this.tried(order, layout, step))
    }
  }

  private begun(order: Order, level: Level, then: (layout: NestLayout) => NestLayout | null): void {
    this.laying = { parts: new InParts(this.lay(order, level)), then }
  }

  /** The same order laid along the other axis: it goes on from there if that is better. */
  private axisTurned(order: Order, layout: NestLayout): NestLayout | null {
    if (layout.score >= this.current.score) return null
    this.current = { ...order, score: layout.score }
    this.coarse = Math.min(this.coarse, layout.score)
    this.waiting = this.turnedAs(order, layout)
    return layout
  }

  private tried(order: Order, layout: NestLayout, step: number): NestLayout {
    // A little worse is let in now and then, less so as steps go by, to leave dead ends.
    const heat = HEAT / (1 + step / COOL_STEPS)
    if (layout.score <= this.current.score + heat * this.random())
      this.current = { ...order, score: layout.score }
    if (layout.score < this.coarse + PROMISING * this.random()) this.waiting = this.turnedAs(order, layout)
    this.coarse = Math.min(this.coarse, layout.score)
    return layout
  }

  /** An order with one or two random changes. */
  private changed(order: Order): Order {
    const items = order.items.map((item) => ({ ...item }))
    let { axis } = order
    const roll = this.random()
    if (roll < CHANCE.axis) axis = axis === 'rows' ? 'columns' : 'rows'
    const moves = roll < CHANCE.single ? 1 : 2
    const any = (n: number) => Math.floor(this.random() * n)
    for (let m = 0; m < moves; m++) {
      const i = any(items.length)
      const kind = this.random()
      if (kind < CHANCE.swap) {
        const j = any(items.length)
        ;[items[i], items[j]] = [items[j]!, items[i]!]
      } else if (kind < CHANCE.swap + CHANCE.shift) {
        const [item] = items.splice(i, 1)
        items.splice(any(items.length + 1), 0, item!)
      } else {
        const poses = this.poses.of(items[i]!.piece, axis, 'coarse').length
        items[i]!.pose = this.random() < CHANCE.anyPose ? -1 : any(poses)
      }
    }
    return { items, axis }
  }

  /** Whether an order was laid before, be it with copies of a piece in each other's places. Notes it as laid. */
  private wasLaid({ items, axis }: Order): boolean {
    const key = `${axis} ${items.map((item) => `${item.piece}.${item.pose}`).join(' ')}`
    if (this.laid.has(key)) return true
    if (this.laid.size >= MOST_NOTED) this.laid.clear()
    this.laid.add(key)
    return false
  }

  private lay(order: Order, level: Level): Parts<NestLayout> {
    return layInOrder(this.instance, this.poses, { ...order, level })
  }
}
