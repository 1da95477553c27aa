// Anytime nesting of true shapes. A layout comes of an order of pieces and a turn for each, laid one by one at the
// lowest place that is free (holes and bays of earlier pieces included); a seeded search over orders and turns keeps the
// best. The first step is complete and legal; every later one can only better it.
import { boxHeight, boxWidth, compose, growBox, mapPolygon, offset, polygonArea, polygonBox, rotation as turn, type Polygon } from '../../geometry'
import { BadInput, seededRandom } from '../../project'
import { SheetGrid } from './grid'
import type { NestInstance, NestLayout, NestPiece, Placement } from './instance'
import { makeMask, type Mask } from './mask'

/**
 * Cells along the longer side of a sheet. Orders are searched on the coarse grid, which is some ten times quicker; what
 * promises well there is laid once more on the fine one, where pieces come closer.
 */
const CELLS = { coarse: 360, fine: 1240 } as const
type Level = keyof typeof CELLS
/** An order that is coarsely no worse than this beside the best is worth laying finely. */
const PROMISING = 0.012
const FREE_TURNS = 16
const CLEARANCE_MM = 0.006

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
  private readonly gridW: number
  private readonly gridH: number
  private current: { items: Item[]; axis: Axis; score: number }
  /** Best score on the coarse grid. */
  private coarse: number
  /** An order that waits to be laid finely. */
  private waiting: { items: Item[]; axis: Axis } | null

  /**
   * Lays a first complete layout. Throws BadInput where a piece is larger than the sheet's cuttable area at every turn
   * it may take, or where sheet, rim or gap make no sense.
   */
  constructor(
    private readonly instance: NestInstance,
    seed = 1,
  ) {
    const { sheet, gap, pieces } = instance
    if (!(sheet.w > 0 && sheet.h > 0)) throw new BadInput('the sheet must have a width and a height')
    if (!(sheet.margin >= 0 && gap >= 0)) throw new BadInput('rim and gap must not be negative')
    if (!(sheet.w > 2 * sheet.margin && sheet.h > 2 * sheet.margin)) throw new BadInput('the rim leaves nothing of the sheet to cut')
    this.grow = gap / 2 + CLEARANCE_MM
    this.gridW = sheet.w - 2 * sheet.margin + 2 * this.grow
    this.gridH = sheet.h - 2 * sheet.margin + 2 * this.grow
    this.random = seededRandom(seed)
    this.grown = pieces.map((piece) => grownShape(piece.shape, this.grow))
    this.areas = pieces.map((piece) => polygonArea(piece.shape))
    const pinned = new Set((instance.pinned ?? []).map((p) => `${p.id}#${p.copy}`))
    const items: Item[] = []
    pieces.forEach((piece, k) => {
      for (let copy = 0; copy < piece.qty; copy++) if (!pinned.has(`${piece.id}#${copy}`)) items.push({ piece: k, copy, pose: -1 })
    })
    this.refuseTooLarge(items)
    items.sort((a, b) => this.extent(b.piece) - this.extent(a.piece))
    const rows = this.lay(items, 'rows', 'coarse')
    const columns = this.lay(items, 'columns', 'coarse')
    this.best = rows.score <= columns.score ? rows : columns
    this.coarse = this.best.score
    this.current = { items, axis: rows.score <= columns.score ? 'rows' : 'columns', score: this.best.score }
    this.waiting = this.current
  }

  /** True where no other order can be better: nothing, or a single piece, to lay. */
  get done(): boolean {
    return this.current.items.length < 2 && this.waiting === null
  }

  /** Tries one changed order. True where the best layout got better. */
  step(): boolean {
    this.steps++
    if (this.done) return false
    if (this.waiting) return this.layFinely(this.waiting)
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
    const layout = this.lay(changed, axis, 'coarse')
    // A little worse is let in now and then, less so as steps go by, to leave dead ends.
    const heat = 0.02 / (1 + this.steps / 300)
    if (layout.score <= this.current.score + heat * this.random()) this.current = { items: changed, axis, score: layout.score }
    if (layout.score < this.coarse + PROMISING * this.random()) this.waiting = { items: changed, axis }
    this.coarse = Math.min(this.coarse, layout.score)
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
    for (const k of new Set(items.map((item) => item.piece))) if (this.posesOf(k, 'rows').length === 0) tooLarge.add(this.instance.pieces[k]!.id)
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
    const key = `${piece} ${axis} ${level}`
    let list = this.poses.get(key)
    if (list) return list
    const [sheetW, sheetH] = axis === 'rows' ? [this.gridW, this.gridH] : [this.gridH, this.gridW]
    list = turnsOf(this.instance.pieces[piece]!).flatMap((deg) => {
      const map = axis === 'rows' ? turn(deg) : compose([0, 1, 1, 0, 0, 0], turn(deg))
      // The rim is kept by the piece itself: its grown outline is rounded by chords, which lie a little inside.
      const b = growBox(polygonBox(mapPolygon(map, this.instance.pieces[piece]!.shape)), this.grow)
      const [w, h] = [boxWidth(b), boxHeight(b)]
      if (w > sheetW + 1e-6 || h > sheetH + 1e-6) return []
      const mask = makeMask(mapPolygon([1, 0, 0, 1, -b.minX, -b.minY], mapPolygon(map, this.grown[piece]!)), this.cellOf(level), w, h)
      return [{ rotation: deg, mask, w, h, offsetX: b.minX, offsetY: b.minY }]
    })
    this.poses.set(key, list)
    return list
  }

  private cellOf(level: Level): number {
    return Math.max(this.instance.sheet.w, this.instance.sheet.h) / CELLS[level]
  }

  private lay(items: readonly Item[], axis: Axis, level: Level): NestLayout {
    const cell = this.cellOf(level)
    const [sheetW, sheetH] = axis === 'rows' ? [this.gridW, this.gridH] : [this.gridH, this.gridW]
    const cols = Math.ceil(sheetW / cell - 1e-9)
    const rows = Math.ceil(sheetH / cell - 1e-9)
    const grids: SheetGrid[] = []
    // Where the same piece found nothing on a sheet, its copies need not look again.
    const failed = new Set<string>()
    const { margin } = this.instance.sheet
    const origin = margin - this.instance.gap / 2 - CLEARANCE_MM
    const open = () => {
      const grid = new SheetGrid(cols, rows)
      for (const pin of this.instance.pinned ?? []) if (pin.sheet === grids.length) this.takePinned(grid, pin, axis, origin, cell)
      grids.push(grid)
    }
    const lastPinned = Math.max(-1, ...(this.instance.pinned ?? []).map((p) => p.sheet))
    for (let s = 0; s <= Math.max(0, lastPinned); s++) open()
    const placements: Placement[] = [...(this.instance.pinned ?? [])]
    for (const item of items) {
      const all = this.posesOf(item.piece, axis, level)
      const poses = item.pose >= 0 && item.pose < all.length ? [all[item.pose]!] : all
      for (let s = 0; ; s++) {
        if (s >= grids.length) open()
        const key = `${item.piece} ${item.pose} ${s}`
        if (failed.has(key)) continue
        const found = this.findBest(grids[s]!, poses, sheetW, sheetH, cell)
        if (!found) {
          failed.add(key)
          continue
        }
        const { pose, x, y } = found
        grids[s]!.take(pose.mask, x, y)
        const [px, py] = [x * cell - pose.offsetX + origin, y * cell - pose.offsetY + origin]
        placements.push({
          id: this.instance.pieces[item.piece]!.id,
          copy: item.copy,
          sheet: s,
          x: axis === 'rows' ? px : py,
          y: axis === 'rows' ? py : px,
          rotation: pose.rotation,
        })
        break
      }
    }
    return summarise(this.instance, placements, this.areas)
  }

  private findBest(grid: SheetGrid, poses: readonly Pose[], sheetW: number, sheetH: number, cell: number): { pose: Pose; x: number; y: number } | null {
    let best: { pose: Pose; x: number; y: number } | null = null
    let least = Infinity
    for (const pose of poses) {
      const maxX = Math.floor((sheetW - pose.w) / cell + 1e-9)
      // A place so low that its upper edge would pass the best so far is of no use.
      const maxY = Math.floor(Math.min(sheetH - pose.h, least === Infinity ? Infinity : least * cell - pose.h) / cell + 1e-9)
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

  private takePinned(grid: SheetGrid, pin: Placement, axis: Axis, origin: number, cell: number): void {
    const k = this.instance.pieces.findIndex((piece) => piece.id === pin.id)
    if (k < 0) return
    const placed = mapPolygon([1, 0, 0, 1, pin.x - origin, pin.y - origin], mapPolygon(turn(pin.rotation), this.grown[k]!))
    const shape = axis === 'rows' ? placed : mapPolygon([0, 1, 1, 0, 0, 0], placed)
    const b = polygonBox(shape)
    const x = Math.floor(b.minX / cell)
    const y = Math.floor(b.minY / cell)
    const moved = mapPolygon([1, 0, 0, 1, -x * cell, -y * cell], shape)
    grid.take(makeMask(moved, cell, b.maxX - x * cell, b.maxY - y * cell), x, y)
  }
}

/** A piece grown by half the gap, holes shrunk likewise; holes too small for anything are closed. */
function grownShape(shape: Polygon, by: number): Polygon {
  const grown = offset([shape], by)
  // Growing one connected face gives one face.
  return grown.toSorted((a, b) => polygonArea(b) - polygonArea(a))[0] ?? shape
}

/** The turns a piece may take, in degrees. Free turns add the ones that make the box least. */
function turnsOf(piece: NestPiece): number[] {
  if (piece.turns === 'fixed') return [0]
  if (piece.turns === 'quarter') return [0, 90, 180, 270]
  const turns = Array.from({ length: FREE_TURNS }, (_, i) => (i * 360) / FREE_TURNS)
  let least = Infinity
  let tight = 0
  for (let deg = 0; deg < 90; deg += 1) {
    const b = polygonBox(mapPolygon(turn(deg), piece.shape))
    const area = boxWidth(b) * boxHeight(b)
    if (area < least - 1e-6) {
      least = area
      tight = deg
    }
  }
  const extra = tight % (360 / FREE_TURNS) === 0 ? [] : [0, 90, 180, 270].map((q) => tight + q)
  return [...extra, ...turns]
}

/** Counts sheets, score and utilisation of placements. */
export function summarise(instance: NestInstance, placements: Placement[], areas = instance.pieces.map((p) => polygonArea(p.shape))): NestLayout {
  const { w, h, margin } = instance.sheet
  const byId = new Map(instance.pieces.map((piece, k) => [piece.id, k]))
  const sheets = Math.max(0, ...placements.map((p) => p.sheet + 1))
  let reachX = margin
  let reachY = margin
  let area = 0
  for (const p of placements) {
    const k = byId.get(p.id)
    if (k === undefined) continue
    area += areas[k]!
    if (p.sheet !== sheets - 1) continue
    const b = polygonBox(mapPolygon(turn(p.rotation), instance.pieces[k]!.shape))
    reachX = Math.max(reachX, b.maxX + p.x)
    reachY = Math.max(reachY, b.maxY + p.y)
  }
  const share = Math.min((reachX - margin) / (w - 2 * margin), (reachY - margin) / (h - 2 * margin))
  return { placements, sheets, score: sheets === 0 ? 0 : sheets - 1 + Math.max(0, share), utilisation: sheets === 0 ? 0 : area / (sheets * w * h) }
}
