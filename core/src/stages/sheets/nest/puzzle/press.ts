// Pieces that lie about where they should are drawn apart until none is too near another, then pressed together again from below or from
// the right, a little at a time, for as long as all of them still part to the gap.
import {
  mapPolygon,
  polygonBox,
  rotation,
  translation,
  type Box,
  type Polygon,
} from '../../../../base/geometry'
import { nearest } from '../exact/clearance'
import type { NestInstance, Placement } from '../instance'

/** Pairs are parted so often before a room counts as too small. */
const ROUNDS = 120
/** So many corners are looked at between two pauses. */
const CORNERS_AT_ONCE = 40_000
/** What is added to the gap when pieces are parted, mm. */
const OVER_MM = 0.003
/** A room gives way by so much at first; it is as small as can be once it gives way by less than the least, mm. */
const STEP_MM = { first: 2, least: 0.05 }
/** A layout is drawn apart by so much at a time, and at most. */
const APART = { by: 1.02, most: 1.3 }

/** A piece as it lies, mm from the rim's inner corner. */
interface Body {
  placement: Placement
  /** The turned shape about its own origin, and its box. */
  shape: Polygon
  box: Box
  x: number
  y: number
}

interface Room {
  w: number
  h: number
}

/** Presses a layout on one sheet together, a little at each step. */
export class Press {
  done = false
  private room: Room
  private bodies: Body[]
  private readonly sheet: Room
  private readonly roundsAtOnce: number
  private readonly axis: 'rows' | 'columns'
  private readonly running: Generator<Placement[] | null, void>

  /**
   * @param placements where the pieces lie, roughly: all on one sheet, beside each other
   * @param axis what gives way: the room's lower side, or the one at the right
   */
  constructor(
    private readonly instance: NestInstance,
    { placements, axis }: { placements: readonly Placement[]; axis: 'rows' | 'columns' },
  ) {
    const { w, h, margin } = instance.sheet
    this.sheet = { w: w - 2 * margin, h: h - 2 * margin }
    this.axis = axis
    const shapes = new Map(instance.pieces.map(({ id, shape }) => [id, shape]))
    this.bodies = placements.map((placement) => {
      const shape = mapPolygon(rotation(placement.rotation), shapes.get(placement.id)!)
      return { placement, shape, box: polygonBox(shape), x: placement.x - margin, y: placement.y - margin }
    })
    this.room = {
      w: Math.max(...this.bodies.map(({ x, box }) => x + box.maxX)),
      h: Math.max(...this.bodies.map(({ y, box }) => y + box.maxY)),
    }
    const corners = this.bodies.reduce((sum, { shape }) => sum + shape.outer.length / 2, 0)
    this.roundsAtOnce = Math.max(1, Math.round(CORNERS_AT_ONCE / corners))
    this.running = this.run()
  }

  /** One step: the pieces where they lie legally on less of the sheet than before; null where they do not yet. */
  step(): Placement[] | null {
    const { value, done } = this.running.next()
    this.done = done === true
    return value ?? null
  }

  private *run(): Generator<Placement[] | null, void> {
    if (!(yield* this.drawApart())) return
    for (let by = STEP_MM.first; by >= STEP_MM.least;) {
      const { bodies, room } = this
      this.bodies = bodies.map((body) => ({ ...body }))
      this.scaleTo(this.smaller(by))
      if (yield* this.part()) {
        if (this.isOnSheet()) yield this.placements()
      } else {
        Object.assign(this, { bodies, room })
        by /= 2
      }
    }
  }

  private isOnSheet(): boolean {
    return this.room.w <= this.sheet.w && this.room.h <= this.sheet.h
  }

  /** A smaller room: at first down to the sheet on both sides, then as far as it goes on one. */
  private smaller(by: number): Room {
    const { room, sheet, axis } = this
    if (this.isOnSheet()) return axis === 'rows' ? { ...room, h: room.h - by } : { ...room, w: room.w - by }
    const towards = (mm: number, least: number) => Math.max(Math.min(mm, least), mm - by)
    return { w: towards(room.w, sheet.w), h: towards(room.h, sheet.h) }
  }

  /** Makes the room larger until nothing lies over anything. */
  private *drawApart(): Generator<null, boolean> {
    const { room, sheet } = this
    for (let by = 1; by <= APART.most; by *= APART.by) {
      const wider = (mm: number, whole: number) => Math.max(mm * by, Math.min(whole, mm * APART.by))
      this.scaleTo({ w: wider(room.w, sheet.w), h: wider(room.h, sheet.h) })
      if (yield* this.part()) return true
    }
    return false
  }

  private placements(): Placement[] {
    const { margin } = this.instance.sheet
    return this.bodies.map(({ placement, x, y }) => ({ ...placement, x: x + margin, y: y + margin }))
  }

  /** Moves the middles of all pieces so that they lie as before in a room of another size. */
  private scaleTo(room: Room): void {
    const [kx, ky] = [room.w / this.room.w, room.h / this.room.h]
    this.room = room
    for (const body of this.bodies) {
      const { minX, minY, maxX, maxY } = body.box
      const [midX, midY] = [(minX + maxX) / 2, (minY + maxY) / 2]
      body.x = (body.x + midX) * kx - midX
      body.y = (body.y + midY) * ky - midY
      this.pushIn(body)
    }
  }

  private pushIn(body: Body): void {
    const { box } = body
    body.x = Math.max(-box.minX, Math.min(this.room.w - box.maxX, body.x))
    body.y = Math.max(-box.minY, Math.min(this.room.h - box.maxY, body.y))
  }

  /** Parts all pieces to the gap inside the room; false where some lie over each other or cannot be parted. Pauses between rounds. */
  private *part(): Generator<null, boolean> {
    const shapes = this.bodies.map(lying)
    for (let round = 1; round <= ROUNDS; round++) {
      const state = this.partOnce(shapes)
      if (state !== 'moved') return state === 'clear'
      if (round % this.roundsAtOnce === 0) yield null
    }
    return false
  }

  private partOnce(shapes: Polygon[]): 'clear' | 'moved' | 'overlap' {
    const { bodies, instance } = this
    const { gap } = instance
    let moved = false
    const shift = (i: number, dx: number, dy: number) => {
      const body = bodies[i]!
      body.x += dx
      body.y += dy
      this.pushIn(body)
      shapes[i] = lying(body)
    }
    for (let i = 0; i < bodies.length; i++)
      for (let j = 0; j < i; j++) {
        if (areApart(bodies[i]!, bodies[j]!, gap)) continue
        const near = nearest(shapes[i]!, shapes[j]!, gap + OVER_MM / 2)
        if (!near) continue
        if (near.mm === 0) return 'overlap'
        moved = true
        const by = (gap + OVER_MM - near.mm) / 2
        shift(i, near.nx * by, near.ny * by)
        shift(j, -near.nx * by, -near.ny * by)
      }
    return moved ? 'moved' : 'clear'
  }
}

const lying = ({ shape, x, y }: Body): Polygon => mapPolygon(translation(x, y), shape)

const areApart = (a: Body, b: Body, gap: number): boolean =>
  a.x + a.box.minX - gap >= b.x + b.box.maxX ||
  b.x + b.box.minX - gap >= a.x + a.box.maxX ||
  a.y + a.box.minY - gap >= b.y + b.box.maxY ||
  b.y + b.box.minY - gap >= a.y + a.box.maxY
