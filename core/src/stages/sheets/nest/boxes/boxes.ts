// Cards, strips and mats: pieces that fill their boxes are laid by exact lengths along a skyline, thousands of orders a
// second. No grid takes anything away, so that what fits to the last hair is found to fit.
import { boxHeight, boxWidth, mapPolygon, polygonArea, polygonBox, rotation } from '../../../../base/geometry'
import { BestFit, Niche, type BoxSizes } from './best-fit'
import { SheetFill, type BoxSpot } from './box-beam'
import type { NestInstance, NestLayout, Placement } from '../instance'
import { InParts, type Parts } from '../parts'
import { HAIR, Skyline } from './skyline'
import { summarise } from '../summary'
import { turnsOf } from '../orientations'
import type { Way } from '../way'

/** A piece counts as a box from this share of its box on. */
const FILLS = 0.97
/** Orders that are tried in one turn. */
const ORDERS = 200
/** Niches that are filled in all layouts under way in one turn. */
const LEVELS = 2
/** Turns a box for what full sheets leave, and the most of them. */
const TAIL_TURNS = 3
const MOST_TAIL_TURNS = 60
/** How much worse an order may be and still be gone on from (score): falling, and now and then begun anew. */
const FIRST_HEAT = 0.03
const LEAST_HEAT = 0.0005
const FIRST_COOLING = 0.99995

/** One way up of a box, gap included: its turn, its size, and where its corner lies from the piece's origin. */
export interface Side {
  rotation: number
  w: number
  h: number
  minX: number
  minY: number
}

/** A copy of a piece that fills its box. */
export interface Box {
  piece: number
  copy: number
  sides: Side[]
  area: number
}

interface Order {
  boxes: Int32Array
  /** Which way up each box (by its number) lies. */
  ups: Uint8Array
  cost: number
}

/** Searches orders of boxes along a skyline, and fills full sheets by a beam, in turns. */
export class BoxSearch implements Way {
  readonly boxes: readonly Box[]
  private readonly w: number
  private readonly h: number
  private readonly sizes: BoxSizes
  /** The least width of any box. */
  private readonly slimmest: number
  private readonly order: Order
  private readonly trial: Order
  private heat = FIRST_HEAT
  private cooling = FIRST_COOLING
  // The layout under way: of each box its sheet, place and side, and what of it is not laid yet.
  private readonly sheets: Int16Array
  private readonly xs: Float64Array
  private readonly ys: Float64Array
  private readonly sides: Int32Array
  private readonly rest: Int32Array
  private readonly skyline: Skyline
  private readonly niche = new Niche()
  private readonly bestFit: BestFit

  /** @param only the boxes to lay, all of the instance by default */
  constructor(
    private readonly instance: NestInstance,
    private readonly random: () => number,
    only?: readonly Box[],
  ) {
    const { sheet, gap } = instance
    this.w = sheet.w - 2 * sheet.margin + gap
    this.h = sheet.h - 2 * sheet.margin + gap
    this.boxes = only ?? boxesOf(instance, this.w, this.h)
    const lengths = (pick: 'w' | 'h') =>
      Float64Array.from(
        this.boxes.flatMap(({ sides }) => [sides[0]?.[pick] ?? Infinity, sides[1]?.[pick] ?? Infinity]),
      )
    const areas = Float64Array.from(this.boxes, ({ area }) => area)
    const [widths, heights] = [lengths('w'), lengths('h')]
    this.sizes = { widths, heights, areas, kinds: kindsOf(widths, heights) }
    this.slimmest = this.sizes.widths.reduce((least, w) => Math.min(least, w), Infinity)
    this.bestFit = new BestFit(this.sizes)
    const n = this.boxes.length
    const longestFirst = [...this.boxes.keys()].sort((a, b) => this.longest(b) - this.longest(a))
    this.order = { boxes: Int32Array.from(longestFirst), ups: new Uint8Array(n), cost: Infinity }
    this.trial = { boxes: new Int32Array(n), ups: new Uint8Array(n), cost: Infinity }
    this.sheets = new Int16Array(n)
    this.xs = new Float64Array(n)
    this.ys = new Float64Array(n)
    this.sides = new Int32Array(n)
    this.rest = new Int32Array(n)
    this.skyline = new Skyline(n)
  }

  /** Whether all pieces are boxes that fit on a sheet upright, none is pinned, and there are whole sheets only. */
  static suits(instance: NestInstance): boolean {
    if ((instance.pinned ?? []).length > 0 || (instance.offCuts ?? []).length > 0) return false
    const { sheet, gap } = instance
    const [w, h] = [sheet.w - 2 * sheet.margin + gap, sheet.h - 2 * sheet.margin + gap]
    return instance.pieces.every((piece, k) => {
      const b = polygonBox(mapPolygon(rotation(turnsOf(piece)[0]!), piece.shape))
      return (
        polygonArea(piece.shape) >= FILLS * boxWidth(b) * boxHeight(b) &&
        uprightSides(instance, k, { w, h }).length > 0
      )
    })
  }

  /** The turn that is being taken. */
  private turn: InParts<NestLayout | null> | null = null

  /** In the midst of a turn. */
  get underWay(): boolean {
    return this.turn !== null
  }

  /** Goes on with a turn, for as long as a step takes; gives a layout where one is better than `best`. */
  step(best: NestLayout): NestLayout | null {
    this.turn ??= new InParts(this.takeTurn(best))
    const ended = this.turn.step()
    if (!ended) return null
    this.turn = null
    return ended.value
  }

  /** Tries some orders, or goes on filling sheet by sheet. */
  private *takeTurn(best: NestLayout): Parts<NestLayout | null> {
    this.filling = !this.filling
    return this.filling ? yield* this.fillOn(best) : yield* this.tryOrders(best)
  }

  /** Orders come first. */
  private filling = true
  private fill: SheetFill | null = null
  private goal = 0
  /** Full sheets so far, and a search of its own for what they leave. */
  private full: BoxSpot[][] = []
  private tail: { search: BoxSearch; best: NestLayout; turns: number } | null = null

  /** Some segments further on the sheet that is being filled; at its end the next one, and then what is left. */
  private *fillOn(best: NestLayout): Parts<NestLayout | null> {
    if (this.tail) return yield* this.layTail(this.tail, best)
    if (!this.fill) {
      this.full = []
      this.goal = best.score
      this.fill = this.sheetFill([...this.boxes.keys()])
    }
    for (let k = 0; k < LEVELS; k++) {
      if (yield* this.fill.level()) continue
      const { spots, left } = this.fill.result()
      this.full.push(spots)
      const more = left.length > 0 && this.full.length < Math.ceil(this.goal - 1e-9) - 1
      this.fill = more ? this.sheetFill(left) : null
      if (more) return null
      if (left.length === 0) return this.withFull([], best)
      // Only whole fillings of a part of a sheet are of use.
      if (this.goal <= 1) return null
      const search = new BoxSearch(
        this.instance,
        this.random,
        left.map((box) => this.boxes[box]!),
      )
      this.tail = { search, best: search.first(), turns: Math.min(MOST_TAIL_TURNS, left.length * TAIL_TURNS) }
      return null
    }
    return null
  }

  /** The next sheet, filled as far as it goes; where one sheet takes everything, a part of it that would be better. */
  private sheetFill(rest: number[]): SheetFill {
    const { gap } = this.instance
    const { sizes } = this
    let [w, h] = [this.w, this.h]
    if (this.goal <= 1) {
      const share = this.goal * (1 - 0.002 - 0.02 * this.random())
      if (this.random() < 0.5) w = (w - gap) * share + gap
      else h = (h - gap) * share + gap
    }
    return new SheetFill(sizes, rest, { w, h, random: this.random })
  }

  private *layTail(tail: NonNullable<typeof this.tail>, best: NestLayout): Parts<NestLayout | null> {
    const layout = yield* tail.search.takeTurn(tail.best)
    if (layout) tail.best = layout
    if (--tail.turns > 0) return null
    this.tail = null
    const first = this.full.length
    if (first + tail.best.score >= best.score - 1e-9) return null
    return this.withFull(
      tail.best.placements.map((p) => ({ ...p, sheet: p.sheet + first })),
      best,
    )
  }

  /** Full sheets, and what was laid behind them. */
  private withFull(tail: readonly Placement[], best: NestLayout): NestLayout | null {
    const head = this.full.flatMap((spots, sheet) =>
      spots.map(({ side, x, y }) => this.placement(side >> 1, { sheet, x, y, side })),
    )
    const layout = summarise(this.instance, [...head, ...tail])
    return layout.score < best.score - 1e-9 ? layout : null
  }

  /** A layout to begin with. */
  private first(): NestLayout {
    this.lay(this.order, Infinity)
    return summarise(this.instance, this.placements())
  }

  private *tryOrders(best: NestLayout): Parts<NestLayout | null> {
    const { order, trial } = this
    let least = best.score
    let found: Placement[] | null = null
    for (let k = 0; k < ORDERS; k++) {
      this.change()
      const score = this.lay(trial, order.cost + this.heat)
      if (score < least - 1e-9) {
        least = score
        found = this.placements()
      }
      if (trial.cost <= order.cost + this.heat * this.random()) {
        order.boxes.set(trial.boxes)
        order.ups.set(trial.ups)
        order.cost = trial.cost
      }
      this.heat *= this.cooling
      if (this.heat < LEAST_HEAT) {
        // Ever longer from hot to cold.
        this.heat = FIRST_HEAT
        this.cooling = 1 - (1 - this.cooling) * 0.6
      }
      yield this.bestFit.takeCost()
    }
    return found && summarise(this.instance, found)
  }

  private placements(): Placement[] {
    return this.boxes.map((_, box) =>
      this.placement(box, {
        sheet: this.sheets[box]!,
        x: this.xs[box]!,
        y: this.ys[box]!,
        side: this.sides[box]!,
      }),
    )
  }

  /** A side (2 · box + side) with its corner at x, y of the cuttable area. */
  private placement(
    box: number,
    { sheet, x, y, side }: { sheet: number; x: number; y: number; side: number },
  ): Placement {
    const { margin } = this.instance.sheet
    const { piece, copy, sides } = this.boxes[box]!
    const { minX, minY, rotation } = sides[side % 2]!
    return {
      id: this.instance.pieces[piece]!.id,
      copy,
      sheet,
      x: margin + x - minX,
      y: margin + y - minY,
      rotation,
    }
  }

  /** The order with two boxes in each other's place, one elsewhere, or one the other way up, as a trial. */
  private change(): void {
    const { order, trial, random } = this
    const { boxes, ups } = trial
    boxes.set(order.boxes)
    ups.set(order.ups)
    const n = boxes.length
    const i = Math.floor(random() * n)
    const k = Math.floor(random() * n)
    const kind = random()
    if (kind < 0.4) {
      const box = boxes[i]!
      boxes[i] = boxes[k]!
      boxes[k] = box
    } else if (kind < 0.75) {
      const box = boxes[i]!
      if (i < k) boxes.copyWithin(i, i + 1, k + 1)
      else boxes.copyWithin(k + 1, k, i)
      boxes[k] = box
    } else {
      const box = boxes[i]!
      ups[box] = 1 - ups[box]!
    }
  }

  private longest(k: number): number {
    return Math.max(...this.boxes[k]!.sides.flatMap(({ w, h }) => [w, h]))
  }

  /**
   * Fills the lowest segment of the skyline, sheet by sheet: what fits it best goes in, the order decides between equals. Gives
   * the score, and sets the order's cost: what is left on the last sheet guides the search between layouts of one score.
   * Gives up, with no score, where the cost is sure to be over `most`.
   */
  private lay(order: Order, most: number): number {
    const { rest, skyline, niche, bestFit, w: sheetW, h: sheetH } = this
    const { widths, heights, areas } = this.sizes
    const { ups } = order
    const { gap } = this.instance
    let left = order.boxes.length
    rest.set(order.boxes)
    let areaLeft = 0
    for (let k = 0; k < left; k++) areaLeft += areas[k]!
    for (let sheet = 0; ; sheet++) {
      skyline.clear(sheetW)
      let [reachX, reachY, areaHere] = [0, 0, 0]
      for (;;) {
        const segment = skyline.lowest()
        if (skyline.ws[segment]! < this.slimmest - HAIR) {
          if (!skyline.fill(segment)) break
          continue
        }
        niche.read(skyline, segment, sheetH)
        bestFit.find(niche, { rest, left, ups })
        if (bestFit.index < 0) {
          if (!skyline.fill(segment)) break
          continue
        }
        const { index, side } = bestFit
        const { y, atRight } = niche
        const box = rest[index]!
        left--
        for (let i = index; i < left; i++) rest[i] = rest[i + 1]!
        const w = widths[side]!
        const h = heights[side]!
        const at = atRight ? niche.x + niche.wide - w : niche.x
        this.sheets[box] = sheet
        this.xs[box] = at
        this.ys[box] = y
        this.sides[box] = side
        reachX = Math.max(reachX, at + w - gap)
        reachY = Math.max(reachY, y + h - gap)
        areaHere += areas[box]!
        if (left === 0) {
          const score = sheet + Math.min(reachX / (sheetW - gap), reachY / (sheetH - gap))
          order.cost = score + areaHere / (sheetW * sheetH)
          return score
        }
        skyline.raise(segment, { w, top: y + h, atRight })
      }
      areaLeft -= areaHere
      // At best what is left takes its own area of the next sheet, as a strip.
      if (sheet + 1 + (2 * areaLeft) / (sheetW * sheetH) > most) {
        order.cost = Infinity
        return Infinity
      }
    }
  }
}

/** Numbers of sides, the same for those that are as wide and as high. */
function kindsOf(widths: Float64Array, heights: Float64Array): Int32Array {
  const kinds = new Map<string, number>()
  return Int32Array.from(widths, (w, side) => {
    const key = `${w} ${heights[side]!}`
    const kind = kinds.get(key) ?? kinds.size
    kinds.set(key, kind)
    return kind
  })
}

/** Every copy of every piece as a box, with the ways up that fit on a sheet of w × h. */
const boxesOf = (instance: NestInstance, w: number, h: number): Box[] =>
  instance.pieces.flatMap((piece, k) => {
    const sides = uprightSides(instance, k, { w, h })
    return Array.from({ length: piece.qty }, (_, copy): Box => ({
      piece: k,
      copy,
      sides,
      area: polygonArea(piece.shape),
    }))
  })

/** The ways up of a piece that fit on a sheet, gap included. */
const uprightSides = (instance: NestInstance, k: number, { w, h }: { w: number; h: number }): Side[] =>
  sidesOf(instance, k).filter((side) => side.w <= w + HAIR && side.h <= h + HAIR)

/** The ways up of a piece, gap included. */
function sidesOf(instance: NestInstance, k: number): Side[] {
  const piece = instance.pieces[k]!
  const tight = turnsOf(piece)[0]!
  const turns = piece.turns === 'fixed' ? [0] : [tight, tight + 90]
  return turns.map((rotated) => {
    const b = polygonBox(mapPolygon(rotation(rotated), piece.shape))
    return {
      rotation: rotated,
      w: boxWidth(b) + instance.gap,
      h: boxHeight(b) + instance.gap,
      minX: b.minX,
      minY: b.minY,
    }
  })
}
