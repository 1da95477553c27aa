// Anytime nesting of true shapes, in ways that take turns. One searches orders: pieces are laid one by one, each at the
// lowest place that is free (holes and bays of earlier pieces included). Another takes card away from the best layout and
// parts the overlaps that come of it (overlap/); a third fills sheets with boxes (boxes/). What they find is tidied
// (exact/settle.ts). The first layout is complete and legal; every later one can only better it.
import {
  boxHeight,
  boxWidth,
  compose,
  growBox,
  mapPolygon,
  mapRegion,
  offset,
  polygonArea,
  polygonBox,
  rectangle,
  regionArea,
  regionBox,
  regionRings,
  rotation as turn,
  translation,
  type Polygon,
} from '../../../base/geometry'
import { BadInput, seededRandom } from '../../../base'
import { BlockSearch } from './boxes/blocks'
import { BoxSearch } from './boxes/boxes'
import { composites, type Composites } from './composites'
import { SheetGrid } from './raster/grid'
import { Improver } from './overlap/improver'
import type { NestInstance, NestLayout, NestPiece, Placement } from './instance'
import { makeMask, type Mask } from './raster/mask'
import { tidied } from './exact/settle'
import { summarise } from './summary'
import { FREE_TURNS, turnsOf } from './orientations'

/**
 * Cells along the longer side of a sheet. Orders are searched on the coarse grid, which is some ten times quicker; what
 * promises well there is laid once more on the fine one, where pieces come closer.
 */
const CELLS = { coarse: 360, fine: 1240 } as const
type Level = keyof typeof CELLS
/** An order that is coarsely no worse than this beside the best is worth laying finely. */
const PROMISING = 0.012
const CLEARANCE_MM = 0.006
const ROUNDING_MM2 = 1
/** Steps that only search orders, fewer where there are many pieces to lay; and after them of so many steps one. */
const ORDERS_FIRST = 8
const ORDERS_LEAST = 4
const ORDERS_PIECES = 500
const ORDERS_EVERY = 40
/** Where all pieces are boxes, of so many steps one is given to the ways for any shape. */
const BOXES_OTHERS = 8
/** And to blocks of them, as long as some with sides in common are found. */
const BLOCKS_EVERY = 3
/**
 * Steps given to the work with what lies in openings composed with its holders: of so many one, half of all where nothing but boxes
 * is left. It is worth its while from this share of pieces in openings on.
 */
const COMPOSITES_EVERY = 4
const COMPOSITES_SHARE = 0.25
const BUNDLE_SEED = 1
/** Poses tried for the very first layout, over all pieces together: it has to be there at once. */
const FIRST_POSES = 300
/** The same for every later order. */
const SEARCH_POSES = 1200
const LEAST_POSES = 6
/** Orders that are known to have been laid. */
const MOST_NOTED = 2000
/** Gaps are closed after so many steps at the earliest; pieces that reach far are dropped elsewhere so many times. */
const TIDY_AFTER = 3
const TIDY_TRIALS = 60

interface Pose {
  rotation: number
  mask: Mask
  /** Size of the grown, turned shape and where its box starts relative to the piece's origin. */
  w: number
  h: number
  offsetX: number
  offsetY: number
}

interface Item {
  piece: number
  copy: number
  /** Index of the pose to keep to; −1 tries all. */
  pose: number
}

/** A sheet or off-cut as cells; lengths and origin (mm, from the sheet's corner) along the axis that is laid. */
interface Bin {
  sheet: number
  grid: SheetGrid
  w: number
  h: number
  originX: number
  originY: number
  /** Card that is left on it at most, mm². */
  free: number
}

/** Lays the short side or the long side of the sheet full first. */
type Axis = 'rows' | 'columns'

export class Nester {
  best: NestLayout
  steps = 0
  private readonly random: () => number
  /** How far every piece is grown: half the gap and a hair more. */
  private readonly grow: number
  private readonly grown: Polygon[]
  private readonly poses = new Map<string, Pose[]>()
  private readonly areas: number[]
  private readonly grownAreas: number[]
  private readonly turnLists: (readonly number[])[] = []
  /** Some pieces have a say in what they share a sheet with. Then, or where it was asked for, only orders are searched. */
  private readonly grouped: boolean
  private readonly ordersOnly: boolean
  private readonly byId: ReadonlyMap<string, NestPiece>
  private posesEach = Infinity
  private readonly ordersFirst: number
  private readonly gridW: number
  private readonly gridH: number
  private current: { items: Item[]; axis: Axis; score: number }
  /** Best score on the coarse grid. */
  private coarse: number
  private readonly boxes: BoxSearch | null
  private readonly blocks: BlockSearch | null
  private improver: Improver | null = null
  /** An order that waits to be laid finely. */
  private waiting: { items: Item[]; axis: Axis } | null

  /**
   * Lays a first complete layout. Throws BadInput where a piece is larger than the sheet's cuttable area at every turn
   * it may take, or where sheet, rim or gap make no sense.
   */
  constructor(
    private readonly instance: NestInstance,
    seed = 1,
    private readonly ways: 'all' | 'orders' = 'all',
  ) {
    const { sheet, gap, pieces } = instance
    if (!(sheet.w > 0 && sheet.h > 0)) throw new BadInput('the sheet must have a width and a height')
    if (!(sheet.margin >= 0 && gap >= 0)) throw new BadInput('rim and gap must not be negative')
    if (!(sheet.w > 2 * sheet.margin && sheet.h > 2 * sheet.margin))
      throw new BadInput('the rim leaves nothing of the sheet to cut')
    this.grow = gap / 2 + CLEARANCE_MM
    this.gridW = sheet.w - 2 * sheet.margin + 2 * this.grow
    this.gridH = sheet.h - 2 * sheet.margin + 2 * this.grow
    this.random = seededRandom(seed)
    this.grouped = pieces.some((piece) => piece.sharing !== undefined)
    this.ordersOnly = ways === 'orders' || this.grouped
    this.byId = new Map(pieces.map((piece) => [piece.id, piece]))
    this.boxes = !this.ordersOnly && BoxSearch.suits(instance) ? new BoxSearch(instance, this.random) : null
    this.blocks = this.boxes?.boxes.every(({ sides }) => sides.length > 0)
      ? new BlockSearch(instance, this.boxes.boxes, this.random)
      : null
    this.grown = pieces.map((piece) => grownShape(piece.shape, this.grow))
    this.areas = pieces.map((piece) => polygonArea(piece.shape))
    this.grownAreas = this.grown.map(polygonArea)
    const pinned = new Set((instance.pinned ?? []).map((p) => `${p.id}#${p.copy}`))
    const items: Item[] = []
    pieces.forEach((piece, k) => {
      for (let copy = 0; copy < piece.qty; copy++)
        if (!pinned.has(`${piece.id}#${copy}`)) items.push({ piece: k, copy, pose: -1 })
    })
    this.refuseTooLarge(items)
    items.sort((a, b) => this.extent(b.piece) - this.extent(a.piece))
    this.ordersFirst = Math.max(
      ORDERS_LEAST,
      Math.min(ORDERS_FIRST, Math.floor(ORDERS_PIECES / Math.max(1, items.length))),
    )
    this.posesEach = Math.max(2, Math.floor(FIRST_POSES / Math.max(1, items.length)))
    const alone = items.length === 1 && !instance.pinned?.length && !instance.offCuts?.length
    this.best = alone ? this.layAlone(items[0]!) : this.lay(items, 'rows', 'coarse')
    this.posesEach = Math.max(LEAST_POSES, Math.floor(SEARCH_POSES / Math.max(1, items.length)))
    this.coarse = this.best.score
    this.current = { items, axis: 'rows', score: this.best.score }
    this.waiting = alone || items.length === 0 ? null : this.current
  }

  /** A single piece: into the corner, at the turn that leaves the larger off-cut. */
  private layAlone({ piece, copy }: Item): NestLayout {
    const { id, shape } = this.instance.pieces[piece]!
    const { margin } = this.instance.sheet
    const layouts = this.turnsThatFit(piece, this.gridW, this.gridH, 'rows').map(({ rotation, map }) => {
      const b = polygonBox(mapPolygon(map, shape))
      return summarise(
        this.instance,
        [{ id, copy, sheet: 0, x: margin - b.minX, y: margin - b.minY, rotation }],
        this.areas,
      )
    })
    return layouts.reduce((best, layout) => (layout.score < best.score - 1e-9 ? layout : best))
  }

  /** True where no other order can be better: nothing, or a single piece, to lay. */
  get done(): boolean {
    return this.current.items.length < 2 && this.waiting === null
  }

  /** Goes on from a layout that was found elsewhere, where it is better. */
  offer(layout: NestLayout): void {
    this.keep(layout)
  }

  /** One step of the search. True where the best layout got better. */
  step(): boolean {
    this.steps++
    if (this.done) return false
    if (this.boxes && this.steps % BOXES_OTHERS !== 0) {
      const search =
        this.blocks && !this.blocks.done && this.steps % BLOCKS_EVERY === 0 ? this.blocks : this.boxes
      const layout = search.step(this.best)
      return layout !== null && this.keep(layout)
    }
    if (this.isUntidy) return this.tidyUp()
    if (this.mayCompose && this.steps > this.ordersFirst) {
      const composite = this.compositeOfBest()
      if (composite && this.steps % (composite.boxes ? 2 : COMPOSITES_EVERY) === 0)
        return this.stepComposite(composite)
    }
    if (
      this.steps > this.ordersFirst &&
      this.steps % ORDERS_EVERY !== 0 &&
      !this.ordersOnly &&
      Improver.suits(this.instance)
    ) {
      this.improver ??= new Improver(this.instance, this.random)
      const layout = this.improver.step(this.best)
      return layout !== null && this.keep(layout)
    }
    return this.tryOrder()
  }

  private composite: { composites: Composites; search: Nester; boxes: boolean } | null = null
  private composedBest: NestLayout | null = null

  private get mayCompose(): boolean {
    return (
      !this.ordersOnly &&
      !this.instance.pinned?.length &&
      !this.instance.offCuts?.length &&
      this.instance.pieces.some(({ shape }) => shape.holes.length > 0)
    )
  }

  /** The search with the pieces composed as they lie in the best layout; null where too few lie in openings. */
  private compositeOfBest() {
    if (this.composedBest === this.best) return this.composite
    this.composedBest = this.best
    const found = composites(this.instance, this.best)
    if (!found || found.key === this.composite?.composites.key) return this.composite
    const boxes = BoxSearch.suits(found.instance)
    if (!boxes && found.held < COMPOSITES_SHARE * this.best.placements.length) return this.composite
    const search = new Nester(found.instance, BUNDLE_SEED)
    search.offer(found.layout)
    this.composite = { composites: found, search, boxes }
    return this.composite
  }

  private stepComposite({ composites: { open }, search }: NonNullable<Nester['composite']>): boolean {
    return search.step() && search.best.score < this.best.score - 1e-9 && this.keep(open(search.best))
  }

  /** The layout that was tidied last. */
  private tidy: NestLayout | null = null

  /** Whether the best layout is new, and nobody is at work on it. */
  private get isUntidy(): boolean {
    return (
      this.best !== this.tidy &&
      this.ways === 'all' &&
      this.steps > TIDY_AFTER &&
      (this.improver?.rests ?? true)
    )
  }

  /** Closes the gaps of the best layout. */
  private tidyUp(): boolean {
    const layout = tidied(this.instance, this.best, this.random, TIDY_TRIALS, () => !this.grouped)
    const better = layout !== null && this.keep(layout)
    this.tidy = this.best
    return better
  }

  /** Lays the pieces in one changed order. */
  private tryOrder(): boolean {
    if (this.waiting) return this.layFinely(this.waiting)
    if (!this.otherAxis) {
      this.otherAxis = true
      return this.adopt(this.current.items, 'columns')
    }
    const { items } = this.current
    const changed = items.map((item) => ({ ...item }))
    let { axis } = this.current
    const roll = this.random()
    if (roll < 0.06) axis = axis === 'rows' ? 'columns' : 'rows'
    const moves = roll < 0.5 ? 1 : 2
    for (let m = 0; m < moves; m++) {
      const i = Math.floor(this.random() * changed.length)
      const kind = this.random()
      if (kind < 0.4) {
        const j = Math.floor(this.random() * changed.length)
        ;[changed[i], changed[j]] = [changed[j]!, changed[i]!]
      } else if (kind < 0.75) {
        const [item] = changed.splice(i, 1)
        changed.splice(Math.floor(this.random() * (changed.length + 1)), 0, item!)
      } else {
        const count = this.posesOf(changed[i]!.piece, axis).length
        changed[i]!.pose = this.random() < 0.4 ? -1 : Math.floor(this.random() * count)
      }
    }
    if (this.wasLaid(changed, axis)) return false
    const layout = this.lay(changed, axis, 'coarse')
    // A little worse is let in now and then, less so as steps go by, to leave dead ends.
    const heat = 0.02 / (1 + this.steps / 300)
    if (layout.score <= this.current.score + heat * this.random())
      this.current = { items: changed, axis, score: layout.score }
    if (layout.score < this.coarse + PROMISING * this.random()) this.waiting = { items: changed, axis }
    this.coarse = Math.min(this.coarse, layout.score)
    return this.keep(layout)
  }

  private otherAxis = false
  private readonly laid = new Set<string>()

  /** Whether an order was laid before, be it with copies of a piece in each other's places. Notes it as laid. */
  private wasLaid(items: readonly Item[], axis: Axis): boolean {
    const key = `${axis} ${items.map((item) => `${item.piece}.${item.pose}`).join(' ')}`
    if (this.laid.has(key)) return true
    if (this.laid.size >= MOST_NOTED) this.laid.clear()
    this.laid.add(key)
    return false
  }

  /** Lays an order along an axis, and goes on from there if it is better. */
  private adopt(items: Item[], axis: Axis): boolean {
    const layout = this.lay(items, axis, 'coarse')
    if (layout.score >= this.current.score) return false
    this.current = { items, axis, score: layout.score }
    this.coarse = Math.min(this.coarse, layout.score)
    this.waiting = this.current
    return this.keep(layout)
  }

  private layFinely({ items, axis }: { items: Item[]; axis: Axis }): boolean {
    this.waiting = null
    return this.keep(this.lay(items, axis, 'fine'))
  }

  private keep(layout: NestLayout): boolean {
    if (layout.score >= this.best.score - 1e-9) return false
    this.best = layout
    return true
  }

  private extent(piece: number): number {
    const b = polygonBox(this.grown[piece]!)
    return boxWidth(b) * boxHeight(b) + Math.max(boxWidth(b), boxHeight(b)) * 10
  }

  private refuseTooLarge(items: readonly Item[]): void {
    const tooLarge = new Set<string>()
    for (const k of new Set(items.map((item) => item.piece)))
      if (this.turnsThatFit(k, this.gridW, this.gridH, 'rows').length === 0)
        tooLarge.add(this.instance.pieces[k]!.id)
    if (tooLarge.size > 0) {
      const { w, h, margin } = this.instance.sheet
      const names = [...tooLarge]
      throw new BadInput(
        `${names.slice(0, 3).join(', ')}${names.length > 3 ? ` and ${names.length - 3} more` : ''}: larger than the ${(w - 2 * margin).toFixed(1)} × ${(h - 2 * margin).toFixed(1)} mm that can be cut of a sheet`,
      )
    }
  }

  /** The turns of a piece that fit on the sheet at all. For `columns` the whole world is mirrored along its diagonal. */
  private posesOf(piece: number, axis: Axis, level: Level = 'coarse'): Pose[] {
    const key = `${piece} ${axis} ${level} ${this.posesEach}`
    let list = this.poses.get(key)
    if (list) return list
    const [sheetW, sheetH] = axis === 'rows' ? [this.gridW, this.gridH] : [this.gridH, this.gridW]
    list = this.turnsThatFit(piece, sheetW, sheetH, axis)
      .slice(0, this.posesEach)
      .map(({ rotation, map, b }) => {
        const [w, h] = [boxWidth(b), boxHeight(b)]
        const mask = makeMask(
          mapPolygon([1, 0, 0, 1, -b.minX, -b.minY], mapPolygon(map, this.grown[piece]!)),
          this.cellOf(level),
          w,
          h,
        )
        return { rotation, mask, w, h, offsetX: b.minX, offsetY: b.minY }
      })
    this.poses.set(key, list)
    return list
  }

  private turnsThatFit(piece: number, sheetW: number, sheetH: number, axis: Axis) {
    return (this.turnLists[piece] ??= rasterTurns(this.instance.pieces[piece]!)).flatMap((deg) => {
      const map = axis === 'rows' ? turn(deg) : compose([0, 1, 1, 0, 0, 0], turn(deg))
      // The rim is kept by the piece itself: its grown outline is rounded by chords, which lie a little inside.
      const b = growBox(polygonBox(mapPolygon(map, this.instance.pieces[piece]!.shape)), this.grow)
      return boxWidth(b) > sheetW + 1e-6 || boxHeight(b) > sheetH + 1e-6 ? [] : [{ rotation: deg, map, b }]
    })
  }

  private cellOf(level: Level): number {
    return Math.max(this.instance.sheet.w, this.instance.sheet.h) / CELLS[level]
  }

  private lay(items: readonly Item[], axis: Axis, level: Level): NestLayout {
    const cell = this.cellOf(level)
    const pins = this.instance.pinned ?? []
    const offCuts = (this.instance.offCuts ?? []).flatMap((_, k) => this.offCutBin(k, axis, cell))
    const whole: Bin[] = []
    const bin = (n: number): Bin =>
      offCuts[n] ?? (whole[n - offCuts.length] ??= this.wholeBin(n - offCuts.length, axis, cell))
    for (const { sheet } of pins) if (sheet >= 0) bin(offCuts.length + sheet)
    for (let n = 0; n < offCuts.length + whole.length; n++)
      for (const pin of pins) if (pin.sheet === bin(n).sheet) this.takePinned(bin(n), pin, axis, cell)
    // Where the same piece found nothing on a sheet, its copies need not look again.
    const failed = new Set<string>()
    const placements: Placement[] = [...pins]
    const place = (item: Item, n: number): boolean => {
      const key = `${item.piece} ${item.pose} ${n}`
      const on = bin(n)
      if (
        failed.has(key) ||
        this.grownAreas[item.piece]! > on.free ||
        !this.mayShare(item.piece, on.sheet, placements)
      )
        return false
      const all = this.posesOf(item.piece, axis, level)
      const found = this.findBest(
        on,
        item.pose >= 0 && item.pose < all.length ? [all[item.pose]!] : all,
        cell,
      )
      if (!found) {
        failed.add(key)
        return false
      }
      const { pose, x, y } = found
      on.grid.take(pose.mask, x, y)
      on.free -= this.grownAreas[item.piece]!
      const [px, py] = [x * cell - pose.offsetX + on.originX, y * cell - pose.offsetY + on.originY]
      const { id } = this.instance.pieces[item.piece]!
      placements.push({
        id,
        copy: item.copy,
        sheet: on.sheet,
        x: axis === 'rows' ? px : py,
        y: axis === 'rows' ? py : px,
        rotation: pose.rotation,
      })
      return true
    }
    const laid = new Set<string>()
    for (const item of items) {
      const { group, sharing } = this.instance.pieces[item.piece]!
      if (group === undefined || sharing !== 'one-sheet') {
        for (let n = 0; !place(item, n); n++);
        continue
      }
      if (laid.has(group)) continue
      laid.add(group)
      const together = items.filter((other) => this.instance.pieces[other.piece]!.group === group)
      for (let n = 0; ; n++) {
        const on = bin(n)
        const [grid, free, count] = [on.grid.copy(), on.free, placements.length]
        if (together.every((other) => place(other, n))) break
        // Not all of it goes here: as if it had not been tried, and one sheet further. What no sheet holds is let fall apart.
        on.grid = grid
        on.free = free
        placements.length = count
        failed.clear()
        if (n < offCuts.length || !on.grid.isUntouched) continue
        for (const other of together) for (let m = 0; !place(other, m); m++);
        break
      }
    }
    return summarise(this.instance, placements, this.areas)
  }

  /** Whether a piece may lie on a sheet with what lies there already. */
  private mayShare(piece: number, sheet: number, placements: readonly Placement[]): boolean {
    if (!this.grouped) return true
    const own = this.instance.pieces[piece]!
    return placements.every((p) => {
      if (p.sheet !== sheet) return true
      const other = this.byId.get(p.id)
      return (
        !other ||
        other.group === own.group ||
        (other.sharing !== 'own-sheets' && own.sharing !== 'own-sheets')
      )
    })
  }

  private wholeBin(sheet: number, axis: Axis, cell: number): Bin {
    const [w, h] = axis === 'rows' ? [this.gridW, this.gridH] : [this.gridH, this.gridW]
    const origin = this.instance.sheet.margin - this.grow
    return {
      sheet,
      grid: new SheetGrid(Math.ceil(w / cell - 1e-9), Math.ceil(h / cell - 1e-9)),
      w,
      h,
      originX: origin,
      originY: origin,
      free: w * h + ROUNDING_MM2,
    }
  }

  /** The cells of an off-cut, those outside its outline taken; none where the rim leaves nothing of it. */
  private offCutBin(k: number, axis: Axis, cell: number): Bin[] {
    const { outline, margin } = this.instance.offCuts![k]!
    const flat = offset([outline], this.grow - margin)
    if (flat.length === 0) return []
    const inside = axis === 'rows' ? flat : mapRegion([0, 1, 1, 0, 0, 0], flat)
    const b = regionBox(inside)
    const [w, h] = [boxWidth(b), boxHeight(b)]
    const grid = new SheetGrid(Math.ceil(w / cell - 1e-9), Math.ceil(h / cell - 1e-9))
    // A plain rectangle blocks nothing; its edge would cost a row of cells all round.
    if (regionArea(inside) < w * h - 1) {
      const around = {
        outer: rectangle(0, 0, w, h).outer,
        holes: regionRings(mapRegion([1, 0, 0, 1, -b.minX, -b.minY], inside)),
      }
      grid.take(makeMask(around, cell, w, h), 0, 0)
    }
    return [
      {
        sheet: -1 - k,
        grid,
        w,
        h,
        originX: b.minX,
        originY: b.minY,
        free: regionArea(inside) + ROUNDING_MM2,
      },
    ]
  }

  private findBest(
    { grid, w, h }: Bin,
    poses: readonly Pose[],
    cell: number,
  ): { pose: Pose; x: number; y: number } | null {
    let best: { pose: Pose; x: number; y: number } | null = null
    let least = Infinity
    for (const pose of poses) {
      const maxX = Math.floor((w - pose.w) / cell + 1e-9)
      // A place so low that its upper edge would pass the best so far is of no use.
      const maxY = Math.floor(
        Math.min(h - pose.h, least === Infinity ? Infinity : least * cell - pose.h) / cell + 1e-9,
      )
      const place = grid.findPlace(pose.mask, maxX, maxY)
      if (place < 0) continue
      const y = Math.floor(place / grid.cols)
      const x = place % grid.cols
      const reach = y + pose.h / cell + (x / grid.cols) * 0.5
      if (reach < least) {
        least = reach
        best = { pose, x, y }
      }
    }
    return best
  }

  private takePinned({ grid, originX, originY }: Bin, pin: Placement, axis: Axis, cell: number): void {
    const k = this.instance.pieces.findIndex((piece) => piece.id === pin.id)
    if (k < 0) return
    const placed = mapPolygon(compose(translation(pin.x, pin.y), turn(pin.rotation)), this.grown[k]!)
    const shape = mapPolygon(
      translation(-originX, -originY),
      axis === 'rows' ? placed : mapPolygon([0, 1, 1, 0, 0, 0], placed),
    )
    const b = polygonBox(shape)
    const x = Math.floor(b.minX / cell)
    const y = Math.floor(b.minY / cell)
    const moved = mapPolygon(translation(-x * cell, -y * cell), shape)
    grid.take(makeMask(moved, cell, b.maxX - x * cell, b.maxY - y * cell), x, y)
  }
}

/** A piece grown by half the gap, holes shrunk likewise; holes too small for anything are closed. */
function grownShape(shape: Polygon, by: number): Polygon {
  const grown = offset([shape], by)
  // Growing one connected face gives one face.
  return grown.toSorted((a, b) => polygonArea(b) - polygonArea(a))[0] ?? shape
}

/** Every turn costs a mask and a search: of the turns evenly round every second does, and the straight ones come first. */
function rasterTurns(piece: NestPiece): readonly number[] {
  const all = turnsOf(piece)
  if (piece.turns !== 'free') return all
  const straight = all.length - FREE_TURNS
  return [...all.slice(0, Math.min(straight, 8)), ...all.slice(straight).filter((_, i) => i % 2 === 0)]
}
