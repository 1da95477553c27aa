// Overlap minimisation: all pieces lie on the sheets at once, over each other at first, and one after the other moves to
// where it overlaps least; overlaps that stay grow dearer (guided local search, Voudouris and Tsang 1999) until none is left.
// Reaches layouts that no order of laying pieces one by one gives. What comes out is proved by exact distances (proof.ts).
import { cornersOf, rotation, signedArea, type Polygon } from '../../../../base/geometry'
import type { NestInstance, Placement } from '../instance'
import { aimAt, newBody, poseAt, pushInto, turnTo, type Body, type Candidate } from './body'
import { makeField, type Field } from './field'
import { OverlapKernel } from './kernel'
import type { Parts } from '../parts'
import { provePlacements } from './proof'
import type { Room } from './room'
import { Sampler } from './sampler'

/** Added to the gap while searching, for the fields' coarseness; twice that where pieces may touch. */
const SLACK_MM = 0.04
/** Overlap with a wall counts for more than with another piece, which can give way. */
const WALL_WEIGHT = 4
/**
 * Two pieces' overlap counts for more by the sides of both, to this power (as a square as large as its hull has them, against what is usual): a large
 * piece keeps its place, and small ones, for which there are many others, give way.
 */
const HEFT = 0.7
/**
 * Where there are few pieces, so many places are tried (the kernel takes 16 at most) with a straight edge along one of another; among many it is
 * seldom the right one.
 */
const SAMPLES_BESIDE = 12
const BESIDE_PIECES = 40

/**
 * What is clear is forgotten slowly; what overlaps grows dearer by so much, the most by the sum, up to a most. Slowly parts tight layouts
 * more often; where a whole sheet was given up, pieces must leave sooner.
 */
const WEIGHTS = { forget: 0.95, grow: 1.1, growMore: 0.4, most: 1e6 }
const WEIGHTS_SETTLING = { ...WEIGHTS, grow: 1.2, growMore: 0.8 }

/** What a field and each corner of its shape, a move and a put for each point of an outline come to, in parts of work. */
const WORK = { field: 1000, fieldCorner: 4, move: 2, put: 0.5 }

/** Added to the gap at first. */
const startGap = ({ gap }: NestInstance): number => gap + (gap < 0.2 ? 2 : 1) * SLACK_MM

/** How an attempt begins: whether a sheet was given up, and how many pieces beside each other are thrown anywhere. */
interface Beginning {
  settles?: boolean
  thrown?: number
}

/** What a separator works with: the field of each piece, all of them known to the kernel. */
interface Means {
  sampler: Sampler
  instance: NestInstance
  fields: readonly Field[]
  kernel: OverlapKernel
  random: () => number
}

/** Parts overlapping pieces by guided local search. */
export class Separator {
  private readonly sampler: Sampler
  private gap: number
  private bodies: Body[] = []
  private rooms: Room[] = []
  private members: number[][] = []
  private noted: Candidate[] = []
  private settles = false
  /** All bodies lie elsewhere than the kernel knows: they were moved in at the start, or back to where they were noted. */
  private moved: 'in' | 'back' | null = null
  /** Sum of all overlaps (mm) after the last sweep. */
  total = Infinity

  private readonly instance: NestInstance
  private readonly fields: readonly Field[]
  private readonly kernel: OverlapKernel
  private readonly random: () => number

  private constructor({ sampler, instance, fields, kernel, random }: Means) {
    this.instance = instance
    this.fields = fields
    this.kernel = kernel
    this.random = random
    this.gap = startGap(instance)
    this.sampler = sampler
  }

  /** A separator of all pieces of an instance, once their fields are made. */
  static *of(instance: NestInstance, random: () => number): Parts<Separator> {
    const around = startGap(instance) + 4 * SLACK_MM
    const known = new Map<Polygon, Field>()
    const count = instance.pieces.reduce((sum, { qty }) => sum + qty, 0)
    const kernel = new OverlapKernel(count, Math.floor(random() * 2 ** 32))
    for (const { shape } of instance.pieces) {
      if (known.has(shape)) continue
      const field = makeField(shape, around)
      kernel.take(field)
      known.set(shape, field)
      yield WORK.field + WORK.fieldCorner * cornersOf(shape)
    }
    const fields = instance.pieces.map(({ shape }) => known.get(shape)!)
    const sides = fields.map(({ hull }) => Math.sqrt(Math.abs(signedArea(hull))))
    const logs = instance.pieces.reduce((sum, { qty }, k) => sum + qty * Math.log(sides[k]!), 0)
    const middling = Math.exp(logs / count)
    fields.forEach((field, k) => kernel.setHeft(field, (sides[k]! / middling) ** HEFT))
    const sampler = new Sampler(instance, fields, random)
    instance.pieces.forEach((_, k) => kernel.setTurning(k, sampler.turningOf(k)))
    return new Separator({ sampler, instance, fields, kernel, random })
  }

  /**
   * Begins from a layout: pieces that the rooms no longer hold are pushed in, over whatever lies there. False where no place was
   * hit on for one of them.
   */
  start(
    placements: readonly Placement[],
    rooms: readonly Room[],
    { settles = false, thrown = 0 }: Beginning = {},
  ): boolean {
    this.settles = settles
    this.rooms = [...rooms]
    this.gap = startGap(this.instance)
    const bodies = this.bodiesAt(placements)
    for (const body of bodies) {
      if (body.fixed) continue
      if (body.room >= 0 && this.pushIn(body)) continue
      // Its sheet is gone or too narrow now: anywhere else where it fits.
      const spot = this.sampler.anywhere(body.piece, this.rooms)
      if (!spot) return false
      aimAt(body, spot)
    }
    if (bodies.some((body) => body.room < 0)) return false
    if (thrown > 0) this.throwSome(bodies, thrown)
    this.bodies = bodies
    this.members = this.rooms.map(() => [])
    this.bodies.forEach((body, i) => this.members[body.room]!.push(i))
    this.setGaps()
    this.kernel.begin(this.bodies, this.rooms, this.fields)
    this.moved = 'in'
    return true
  }

  /** Goes on from how all was noted, in larger rooms of the same sheets, all overlaps weighed alike again. */
  widen(rooms: readonly Room[]): void {
    this.rooms = [...rooms]
    this.gap = startGap(this.instance)
    this.putBack()
    this.setGaps()
    this.kernel.begin(this.bodies, this.rooms, this.fields)
    this.moved = 'in'
  }

  private setGaps(): void {
    this.kernel.setGaps({ between: this.gap, toWall: SLACK_MM, wallWeight: WALL_WEIGHT })
  }

  /** Notes how all lies, to go back to. */
  note(): void {
    this.noted = this.bodies.map((body) => poseAt(body, body.x, body.y))
  }

  /** Puts all back to where it was noted; what overlaps are weighed at stays, so that the search goes on another way from there. */
  putBack(): void {
    this.noted.forEach((pose, i) => aimAt(this.bodies[i]!, pose))
    this.members = this.rooms.map(() => [])
    this.bodies.forEach((body, i) => this.members[body.room]!.push(i))
    this.moved = 'back'
  }

  /** Measures all that was moved at once. */
  private *measure(): Parts<void> {
    for (const { piece } of this.kernel.putAll(this.bodies)) yield WORK.put * this.fields[piece]!.outline
    if (this.moved === 'in') this.count()
    this.moved = null
  }

  private bodiesAt(placements: readonly Placement[]): Body[] {
    const pinned = new Set((this.instance.pinned ?? []).map((p) => `${p.id}#${p.copy}`))
    const byId = new Map(this.instance.pieces.map((piece, k) => [piece.id, k]))
    return placements.map((p) => {
      const piece = byId.get(p.id)!
      const field = this.fields[piece]!
      const [cos, sin] = rotation(p.rotation)
      const body = newBody(piece, p.copy, pinned.has(`${p.id}#${p.copy}`))
      body.room = this.rooms.findIndex((room) => room.sheet === p.sheet)
      body.x = p.x + cos * field.midX - sin * field.midY
      body.y = p.y + sin * field.midX + cos * field.midY
      turnTo(body, p.rotation, field)
      return body
    })
  }

  /** Moves every piece that overlaps to where it overlaps least; makes what is left dearer. */
  *sweep(): Parts<void> {
    if (this.moved) yield* this.measure()
    const n = this.bodies.length
    const order = Array.from({ length: n }, (_, i) => i)
    for (let i = n - 1; i > 0; i--) {
      const k = Math.floor(this.random() * (i + 1))
      ;[order[i], order[k]] = [order[k]!, order[i]!]
    }
    for (const i of order) {
      const body = this.bodies[i]!
      if (body.fixed) continue
      const now = this.kernel.standing(i)
      if (now <= 0) continue
      this.move(i, now)
      yield WORK.move * this.fields[body.piece]!.outline
    }
    this.count()
  }

  /** Placements once nothing overlaps, parted to the gap and proved by exact distances; null where that cannot be. */
  *proved(): Parts<Placement[] | null> {
    const { instance, fields, rooms, bodies, members } = this
    const placements = yield* provePlacements({ instance, fields, rooms, bodies, members })
    if (placements) return placements
    // What the fields took for clear is not: from now on they must see a little more room.
    this.gap += SLACK_MM
    this.setGaps()
    yield* this.measure()
    this.count()
    return null
  }

  /** Throws one of the bodies and those that lie nearest to it anywhere, so many in all. */
  private throwSome(bodies: readonly Body[], count: number): void {
    const { x, y, room } = bodies[Math.floor(this.random() * bodies.length)]!
    const away = (body: Body) => Math.hypot(body.x - x, body.y - y)
    const near = bodies.filter((body) => body.room === room && !body.fixed)
    for (const body of near.toSorted((a, b) => away(a) - away(b)).slice(0, count)) {
      const spot = this.sampler.anywhere(body.piece, this.rooms)
      if (spot) aimAt(body, spot)
    }
  }

  private pushIn(body: Body): boolean {
    return pushInto(body, this.rooms[body.room]!)
  }

  /** Puts a piece where it overlaps least: the best of many places, each gone down from. */
  private move(i: number, cost: number): void {
    const body = this.bodies[i]!
    const best = this.kernel.move(i, body, { cost, beside: this.placesBeside(body) })
    if (!best) return
    if (best.room !== body.room) {
      this.members[body.room] = this.members[body.room]!.filter((k) => k !== i)
      this.members[best.room]!.push(i)
    }
    aimAt(body, best)
    this.kernel.put(i, body)
  }

  private placesBeside(body: Body): Candidate[] {
    const { sampler, rooms, bodies, members, gap } = this
    if (bodies.length > BESIDE_PIECES || !sampler.hasEdges(body.piece)) return []
    const places = Array.from({ length: SAMPLES_BESIDE }, () =>
      sampler.beside(body, { rooms, bodies, members }, gap),
    )
    return places.filter((place) => place !== null)
  }

  /** Counts what overlaps and sets the weights: overlaps grow dearer, what is clear is forgotten slowly. */
  private count(): void {
    this.total = this.kernel.weigh(this.settles ? WEIGHTS_SETTLING : WEIGHTS)
  }
}
