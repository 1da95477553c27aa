// Lays pieces one by one in a given order, each at the lowest place that is free on the first sheet that has one (holes and
// bays of earlier pieces included).
import { polygonArea } from '../../../../base/geometry'
import type { NestInstance, NestLayout, Placement } from '../instance'
import type { Parts } from '../parts'
import { summarise } from '../summary'
import { Bin, type Grain } from './bin'
import type { Axis, Level, Poses } from './poses'

/** A copy of a piece in an order. */
export interface Item {
  /** Index of the piece. */
  piece: number
  copy: number
  /** Index of the pose to keep to; −1 tries all. */
  pose: number
}

/** Pieces in the order in which they are laid, and along which axis. */
export interface Order {
  items: Item[]
  axis: Axis
}

/** What a look at a run of cells, a row of a corner that is drawn, and a cell of a mask come to in parts of work. */
const WORK = { look: 0.01, drawn: 0.07, cell: 0.004 }

/** Lays an order on sheets and off-cuts, piece by piece. What groups ask for is kept where any sheet can hold it. */
export function layInOrder(
  instance: NestInstance,
  poses: Poses,
  order: Order & { level: Level },
): Parts<NestLayout> {
  return new Laying(instance, poses, order).layout()
}

class Laying {
  private readonly grain: Grain
  private readonly offCuts: Bin[]
  private readonly sheets: Bin[] = []
  private readonly placements: Placement[]
  /** Where the same piece found nothing on a sheet, its copies need not look again. */
  private readonly failed = new Set<string>()
  private readonly grouped: boolean

  constructor(
    private readonly instance: NestInstance,
    private readonly poses: Poses,
    private readonly order: Order & { level: Level },
  ) {
    this.grain = { poses, axis: order.axis, cell: poses.cellOf(order.level) }
    this.offCuts = (instance.offCuts ?? []).flatMap((one, k) => Bin.ofOffCut(this.grain, one, k) ?? [])
    this.grouped = instance.pieces.some((piece) => piece.sharing !== undefined)
    this.placements = [...(instance.pinned ?? [])]
    this.takePinned()
  }

  *layout(): Parts<NestLayout> {
    const { items } = this.order
    const { pieces } = this.instance
    const laid = new Set<string>()
    for (const item of items) {
      const { group, sharing } = pieces[item.piece]!
      if (group === undefined || sharing !== 'one-sheet') this.layAnywhere(item)
      else if (!laid.has(group)) {
        laid.add(group)
        this.layTogether(items.filter((other) => pieces[other.piece]!.group === group))
      }
      yield this.workDone()
    }
    return summarise(
      this.instance,
      this.placements,
      pieces.map((piece) => polygonArea(piece.shape)),
    )
  }

  private workDone(): number {
    const { done } = this.poses
    const work = done.looks * WORK.look + done.drawn * WORK.drawn + done.cells * WORK.cell
    Object.assign(done, { looks: 0, drawn: 0, cells: 0 })
    return work
  }

  /** The off-cuts first, then as many whole sheets as it takes. */
  private bin(n: number): Bin {
    const sheet = n - this.offCuts.length
    return (
      this.offCuts[n] ?? (this.sheets[sheet] ??= Bin.ofSheet(this.grain, sheet, this.instance.sheet.margin))
    )
  }

  private takePinned(): void {
    const pins = this.instance.pinned ?? []
    for (const { sheet } of pins) if (sheet >= 0) this.bin(this.offCuts.length + sheet)
    for (const bin of [...this.offCuts, ...this.sheets])
      for (const pin of pins) {
        const piece = this.instance.pieces.findIndex(({ id }) => id === pin.id)
        if (bin && pin.sheet === bin.sheet && piece >= 0) bin.takePlaced(piece, pin)
      }
  }

  private layAnywhere(item: Item): void {
    for (let n = 0; !this.layOn(item, n); n++);
  }

  /** All on one sheet; what no sheet holds is let fall apart. */
  private layTogether(items: readonly Item[]): void {
    for (let n = 0; ; n++) {
      const bin = this.bin(n)
      const back = bin.keep()
      const count = this.placements.length
      if (items.every((item) => this.layOn(item, n))) return
      // Not all of it goes here: as if it had not been tried, and one sheet further.
      back()
      this.placements.length = count
      this.failed.clear()
      if (n < this.offCuts.length || !bin.isUntouched) continue
      for (const item of items) this.layAnywhere(item)
      return
    }
  }

  /** Lays a piece on the sheet of that number, where it fits and may lie there. */
  private layOn(item: Item, n: number): boolean {
    const { axis, level } = this.order
    const key = `${item.piece} ${item.pose} ${n}`
    const bin = this.bin(n)
    if (this.failed.has(key) || !this.mayShare(item.piece, bin.sheet)) return false
    const all = this.poses.of(item.piece, axis, level)
    const spot = bin.lowest(item.pose >= 0 && item.pose < all.length ? [all[item.pose]!] : all)
    if (!spot) {
      this.failed.add(key)
      return false
    }
    this.placements.push({
      id: this.instance.pieces[item.piece]!.id,
      copy: item.copy,
      sheet: bin.sheet,
      ...bin.take(spot),
      rotation: spot.pose.rotation,
    })
    return true
  }

  private byId: ReadonlyMap<string, NestInstance['pieces'][number]> | null = null

  /** Whether a piece may lie on a sheet with what lies there already. */
  private mayShare(piece: number, sheet: number): boolean {
    if (!this.grouped) return true
    const byId = (this.byId ??= new Map(this.instance.pieces.map((one) => [one.id, one])))
    const own = this.instance.pieces[piece]!
    return this.placements.every((placement) => {
      if (placement.sheet !== sheet) return true
      const other = byId.get(placement.id)
      return (
        !other ||
        other.group === own.group ||
        (other.sharing !== 'own-sheets' && own.sharing !== 'own-sheets')
      )
    })
  }
}
