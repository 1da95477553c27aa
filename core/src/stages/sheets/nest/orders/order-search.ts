// Searches the order in which pieces are laid: simulated annealing over swaps, moves and turns. Orders are tried on the coarse
// grid; what promises well is laid once more on the fine one.
import { say, size } from '../../../../base/units'
import { boxHeight, boxWidth, cornersOf, identity, mapPolygon, polygonBox } from '../../../../base/geometry'
import { BadInput } from '../../../../base'
import type { NestInstance, NestLayout } from '../instance'
import { atOnce, InParts, type Parts } from '../parts'
import { summarise } from '../summary'
import type { Way } from '../way'
import { layInOrder, type Item, type Order } from './laying'
import { Poses, type Level } from './poses'

/** An order that is coarsely no worse than this beside the best is worth laying finely. */
const PROMISING = 0.012
/** Poses tried for the very first layout, over all pieces together: it has to be there at once. */
const FIRST_POSES = 300
/** Of pieces with more corners than this together each is tried at one turn only, where there are many. */
const MANY_CORNERS = 300_000
/** The same for every later order. */
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

  /** Throws BadInput where a piece is larger than the sheet's cuttable area at every turn it may take. */
  constructor(
    private readonly instance: NestInstance,
    private readonly random: () => number,
  ) {
    this.poses = new Poses(instance)
    const items = itemsOf(instance)
    this.refuseTooLarge(items)
    items.sort((a, b) => this.extent(b.piece) - this.extent(a.piece))
    const count = Math.max(1, items.length)
    const corners = instance.pieces.reduce((sum, { shape }) => sum + cornersOf(shape), 0)
    this.poses.each = Math.max(corners > MANY_CORNERS ? 1 : 2, Math.floor(FIRST_POSES / count))
    const order: Order = { items, axis: 'rows' }
    const alone = items.length === 1 && !instance.pinned?.length && !instance.offCuts?.length
    this.first = alone ? this.layAlone(items[0]!) : atOnce(this.lay(order, 'coarse'))
    this.poses.each = Math.max(LEAST_POSES, Math.floor(SEARCH_POSES / count))
    this.coarse = this.first.score
    this.current = { ...order, score: this.first.score }
    this.waiting = alone || items.length === 0 ? null : order
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
    this.waiting = order
    return layout
  }

  private tried(order: Order, layout: NestLayout, step: number): NestLayout {
    // A little worse is let in now and then, less so as steps go by, to leave dead ends.
    const heat = HEAT / (1 + step / COOL_STEPS)
    if (layout.score <= this.current.score + heat * this.random())
      this.current = { ...order, score: layout.score }
    if (layout.score < this.coarse + PROMISING * this.random()) this.waiting = order
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

  /** A single piece: into the corner, at the turn that leaves the larger off-cut. */
  private layAlone({ piece, copy }: Item): NestLayout {
    const { id, shape } = this.instance.pieces[piece]!
    const { margin } = this.instance.sheet
    const layouts = this.poses.turnsThatFit(piece, 'rows').map(({ rotation, map }) => {
      const b = polygonBox(mapPolygon(map, shape))
      const at = { id, copy, sheet: 0, x: margin - b.minX, y: margin - b.minY, rotation }
      return summarise(this.instance, [at])
    })
    return layouts.reduce((best, layout) => (layout.score < best.score - 1e-9 ? layout : best))
  }

  /** Large and long pieces are laid first. */
  private extent(piece: number): number {
    const b = this.poses.boxAt(piece, identity)
    return boxWidth(b) * boxHeight(b) + Math.max(boxWidth(b), boxHeight(b)) * 10
  }

  private refuseTooLarge(items: readonly Item[]): void {
    const pieces = [...new Set(items.map(({ piece }) => piece))]
    const names = pieces
      .filter((piece) => this.poses.turnsThatFit(piece, 'rows').length === 0)
      .map((piece) => this.instance.pieces[piece]!.id)
    if (names.length === 0) return
    const { w, h, margin } = this.instance.sheet
    const more = names.length > 3 ? ` and ${names.length - 3} more` : ''
    throw new BadInput(
      say`${names.slice(0, 3).join(', ')}${more}: larger than the ${size(w - 2 * margin, h - 2 * margin)} that can be cut of a sheet`,
    )
  }
}

/** What is to be laid: every copy that is not pinned. */
function itemsOf({ pieces, pinned = [] }: NestInstance): Item[] {
  const fixed = new Set(pinned.map((p) => `${p.id}#${p.copy}`))
  return pieces.flatMap(({ id, qty }, piece) =>
    Array.from({ length: qty }, (_, copy): Item => ({ piece, copy, pose: -1 })).filter(
      ({ copy }) => !fixed.has(`${id}#${copy}`),
    ),
  )
}
