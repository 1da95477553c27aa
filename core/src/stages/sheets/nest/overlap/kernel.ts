// What costs most when overlaps are parted, as WebAssembly (core/wasm): how much a piece overlaps with all that lies near it, and where it would
// overlap least. Shapes and places are copied into its memory. The measure itself is told by fields (field.ts).
import { KERNEL } from './kernel.wasm'
import { newBody, poseAt, type Body, type Candidate, type Pose, type Turned } from './body'
import type { Field } from './field'
import type { Room } from './room'

/** What core/wasm/kernel.ts exports. Addresses are in bytes, lengths in mm. */
interface Exports {
  memory: { buffer: ArrayBuffer }
  probe: { value: number }
  pose: { value: number }
  beside: { value: number }
  allocate(bytes: number): number
  reserve(most: number): number
  begin(count: number, rooms: number, roomCount: number): void
  setGaps(between: number, toWall: number, wallWeight: number): void
  loss(i: number, limit: number): number
  settle(i: number, under: number): void
  standing(i: number): number
  sow(seed: number): void
  move(i: number, besideCount: number): void
  weigh(forget: number, grow: number, growMore: number, most: number): number
}

/** How what overlaps is weighed: kept in part, grown by so much and the largest by the sum, up to a most. */
export interface Weighing {
  forget: number
  grow: number
  growMore: number
  most: number
}

/** Gap between pieces, from walls (mm), and how much more a wall counts than a piece. */
export interface Gaps {
  between: number
  toWall: number
  wallWeight: number
}

/** The turns that a piece may try, those first that lay an edge straight, which are so many; whether it may take any other. */
export interface Turning {
  turns: readonly Turned[]
  straight: number
  free: boolean
}

/** Points of a run, and how many runs are looked at together. */
const RUN = 8
const TOGETHER = 4
/** Where what only fills up a row lies: far from everything, mm. */
const NOWHERE = 1e7
/** Distances are kept in two bytes: the farthest of a field is so many units. */
const MOST_UNITS = 32767
/** Fields of a body: x, y, cos, sin, its box, its room, its shape, its piece. */
const BODY_WORDS = 11

/** A room: its walls, and four numbers of eight bytes. A pose and a turn: numbers of eight bytes, a pose with its room and its cost. A piece. A shape. */
const ROOM_BYTES = 40
const POSE_BYTES = 80
const TURN_BYTES = 56
const PIECE_BYTES = 16
const SHAPE_BYTES = 64
/** Where a shape has its heft, in words. */
const HEFT = 15

/** Of WebAssembly what is used here: core is checked without the types of a browser or of Node. */
const { Module, Instance } = (
  globalThis as unknown as {
    WebAssembly: {
      Module: new (bytes: Uint8Array) => object
      Instance: new (module: object) => { exports: unknown }
    }
  }
).WebAssembly
let compiled: object | null = null
const newInstance = () =>
  new Instance((compiled ??= new Module(Uint8Array.from(atob(KERNEL), (c) => c.charCodeAt(0)))))

/** Overlaps of pieces that lie in rooms, kept pair by pair as they move. */
export class OverlapKernel {
  private readonly wasm = newInstance().exports as Exports
  private floats = new Float32Array()
  private ints = new Int32Array()
  private doubles = new Float64Array()
  /** Address of each field's copy. */
  private readonly shapes = new Map<Field, number>()
  private readonly probe = this.wasm.probe.value
  private readonly pose = this.wasm.pose.value
  private readonly beside = this.wasm.beside.value
  /** Addresses of what is known of the pieces. */
  private readonly pieces: number[] = []
  private readonly bodies: number
  /** Words from one field of a body to the next. */
  private readonly stride: number
  private rooms = { at: 0, most: 0 }
  private count = 0

  /** For at most so many pieces at once; moves are random by the seed (a whole number). */
  constructor(most: number, seed = 1) {
    this.wasm.sow(seed)
    this.bodies = this.wasm.reserve(most) / 4
    this.stride = Math.ceil(most / 4) * 4
    this.look()
  }

  setGaps({ between, toWall, wallWeight }: Gaps): void {
    this.wasm.setGaps(between, toWall, wallWeight)
  }

  /** Copies a field into the kernel's memory, so that beginning takes no time. */
  take(field: Field): void {
    this.shapeAt(field)
  }

  /** Lets overlaps of a field count so many times as much, those of two fields by both. */
  setHeft(field: Field, heft: number): void {
    this.floats[this.shapeAt(field) / 4 + HEFT] = heft
  }

  /** Tells how a piece may be turned. */
  setTurning(piece: number, { turns, straight, free }: Turning): void {
    const list = this.allocate(TURN_BYTES * turns.length)
    turns.forEach((turned, k) => this.writeTurn((list + TURN_BYTES * k) / 8, turned))
    const at = this.allocate(PIECE_BYTES)
    this.ints.set([list, turns.length, straight, Number(free)], at / 4)
    this.pieces[piece] = at
  }

  /** Begins with bodies in rooms, all pairs weighed alike; none of them is put anywhere yet. */
  begin(bodies: readonly Body[], rooms: readonly Room[], fields: readonly Field[]): void {
    const shapes = bodies.map(({ piece }) => this.shapeAt(fields[piece]!))
    this.wasm.begin(bodies.length, this.roomsAt(rooms), rooms.length)
    const { ints, stride } = this
    ints.subarray(this.bodies, this.bodies + BODY_WORDS * stride).fill(0)
    ints.subarray(this.bodies + 8 * stride, this.bodies + 9 * stride).fill(-1)
    shapes.forEach((at, i) => (ints[this.bodies + 9 * stride + i] = at))
    bodies.forEach(({ piece }, i) => (ints[this.bodies + 10 * stride + i] = this.pieces[piece] ?? 0))
    this.count = bodies.length
  }

  /** Puts all bodies where they lie now, from the first on, one each time it is asked: so each pair is measured once. */
  *putAll(bodies: readonly Body[]): Generator<Body, void, void> {
    for (const [i, body] of bodies.entries()) {
      this.putAmong(i, body, i)
      yield body
    }
  }

  /** Body i as it lies now; its overlaps with all others are measured anew. */
  put(i: number, body: Body): void {
    this.putAmong(i, body, this.count)
  }

  private putAmong(i: number, body: Body, under: number): void {
    this.write(i, body)
    this.aim(body)
    this.wasm.settle(i, under)
  }

  /** Weighted overlap of body i at a place with all that lies there; Infinity where it is over `limit`. */
  loss(i: number, at: Pose, limit: number): number {
    this.aim(at)
    return this.wasm.loss(i, limit)
  }

  /**
   * Where body i, which lies there and costs so much, would cost less: the best of many places near it, beside others (so many are handed in) and
   * anywhere, each gone down from in ever shorter steps. Null where nothing is better. How it may be turned must have been told.
   */
  move(
    i: number,
    from: Pose,
    { cost, beside = [] }: { cost: number; beside?: readonly Pose[] },
  ): Candidate | null {
    this.writePose(this.pose, from)
    this.floats[this.pose / 4 + 19] = cost
    beside.forEach((pose, k) => this.writePose(this.beside + POSE_BYTES * k, pose))
    this.wasm.move(i, beside.length)
    const { doubles } = this
    const p = this.pose / 8
    const loss = this.floats[2 * p + 19]!
    if (!(loss < cost)) return null
    const to = poseAt(newBody(), doubles[p]!, doubles[p + 1]!)
    to.loss = loss
    to.turn = doubles[p + 2]!
    to.cos = doubles[p + 3]!
    to.sin = doubles[p + 4]!
    to.left = doubles[p + 5]!
    to.right = doubles[p + 6]!
    to.up = doubles[p + 7]!
    to.down = doubles[p + 8]!
    to.room = this.ints[2 * p + 18]!
    return to
  }

  private writePose(at: number, pose: Pose): void {
    const p = at / 8
    this.doubles[p] = pose.x
    this.doubles[p + 1] = pose.y
    this.writeTurn(p + 2, pose)
    this.ints[2 * p + 18] = pose.room
  }

  private writeTurn(p: number, { turn, cos, sin, left, right, up, down }: Turned): void {
    const { doubles } = this
    doubles[p] = turn
    doubles[p + 1] = cos
    doubles[p + 2] = sin
    doubles[p + 3] = left
    doubles[p + 4] = right
    doubles[p + 5] = up
    doubles[p + 6] = down
  }

  /** Weighted overlap of body i where it was put. */
  standing(i: number): number {
    return this.wasm.standing(i)
  }

  /** Makes overlaps dearer, forgets what is clear. Gives the sum of all overlaps, mm. */
  weigh({ forget, grow, growMore, most }: Weighing): number {
    return this.wasm.weigh(forget, grow, growMore, most)
  }

  private aim(at: Pose): void {
    const { floats } = this
    const p = this.probe / 4
    floats[p] = at.x
    floats[p + 1] = at.y
    floats[p + 2] = at.cos
    floats[p + 3] = at.sin
    floats[p + 4] = at.x + at.left
    floats[p + 5] = at.x + at.right
    floats[p + 6] = at.y + at.up
    floats[p + 7] = at.y + at.down
    this.ints[p + 8] = at.room
  }

  private write(i: number, at: Pose): void {
    const { floats, stride } = this
    const p = this.bodies + i
    floats[p] = at.x
    floats[p + stride] = at.y
    floats[p + 2 * stride] = at.cos
    floats[p + 3 * stride] = at.sin
    floats[p + 4 * stride] = at.x + at.left
    floats[p + 5 * stride] = at.x + at.right
    floats[p + 6 * stride] = at.y + at.up
    floats[p + 7 * stride] = at.y + at.down
    this.ints[p + 8 * stride] = at.room
  }

  /** Rooms, each with a list of its walls. */
  private roomsAt(rooms: readonly Room[]): number {
    const walls = rooms.flatMap((room) => room.walls)
    const shapes = walls.map(({ field }) => this.shapeAt(field))
    if (rooms.length > this.rooms.most)
      this.rooms = { at: this.allocate(ROOM_BYTES * rooms.length + 12 * walls.length), most: rooms.length }
    const { at } = this.rooms
    const list = at + ROOM_BYTES * rooms.length
    let k = 0
    rooms.forEach((room, r) => {
      const own = at + ROOM_BYTES * r
      this.ints.set([list + 12 * k, room.walls.length], own / 4)
      this.doubles.set([room.minX, room.minY, room.maxX, room.maxY], own / 8 + 1)
      for (const wall of room.walls) {
        this.ints[list / 4 + 3 * k] = shapes[k]!
        this.floats[list / 4 + 3 * k + 1] = wall.x
        this.floats[list / 4 + 3 * k + 2] = wall.y
        k++
      }
    })
    return at
  }

  /** Where a field's copy lies; it is made at the first asking. */
  private shapeAt(field: Field): number {
    let at = this.shapes.get(field)
    if (at === undefined) this.shapes.set(field, (at = this.copy(field)))
    return at
  }

  private copy(field: Field): number {
    const { points, runs } = inRuns(field)
    const poles = new Float32Array(12)
    const { outline } = field
    for (let k = outline; k < field.xs.length; k++) {
      poles[k - outline] = field.xs[k]!
      poles[4 + k - outline] = field.ys[k]!
      poles[8 + k - outline] = field.reach[k]!
    }
    const [runsAt, pointsAt, polesAt] = [runs, points, poles].map((array) => {
      const at = this.allocate(array.byteLength)
      this.floats.set(array, at / 4)
      return at
    })
    const unit = field.distance.reduce((most, mm) => Math.max(most, Math.abs(mm)), 1e-3) / MOST_UNITS
    // Nodes are read in pairs: one more, so that the last has a second.
    const distanceAt = this.allocate(2 * field.distance.length + 2)
    new Int16Array(this.floats.buffer, distanceAt, field.distance.length).set(
      field.distance.map((mm) => Math.round(mm / unit)),
    )
    const hullAt = this.allocate(field.hull.byteLength)
    this.doubles.set(field.hull, hullAt / 8)
    const farthestAt = this.allocate(field.farthest.byteLength)
    new Uint16Array(this.floats.buffer, farthestAt, field.farthest.length).set(
      field.farthest.map((corner) => corner * 8),
    )
    const at = this.allocate(SHAPE_BYTES)
    this.ints.set([runsAt!, runs.length / 3, pointsAt!, polesAt!, distanceAt, field.cols, field.rows], at / 4)
    this.floats.set([field.x0, field.y0, field.inv, field.radius, unit], at / 4 + 7)
    this.ints.set([hullAt, hullAt + field.hull.byteLength, farthestAt], at / 4 + 12)
    this.floats[at / 4 + HEFT] = 1
    return at
  }

  private allocate(bytes: number): number {
    const at = this.wasm.allocate(bytes)
    this.look()
    return at
  }

  /** Memory that grew is looked at through new views. */
  private look(): void {
    const { buffer } = this.wasm.memory
    if (this.floats.buffer === buffer) return
    this.floats = new Float32Array(buffer)
    this.ints = new Int32Array(buffer)
    this.doubles = new Float64Array(buffer)
  }
}

/** A field's outline in runs of eight points with a circle round each, as rows of numbers: x, y, radius, and x, y, reach. */
function inRuns({ xs, ys, reach, outline }: Field): { runs: Float32Array; points: Float32Array } {
  const full = Math.ceil(outline / RUN)
  const wide = Math.ceil(full / TOGETHER) * TOGETHER
  const runs = new Float32Array(3 * wide).fill(NOWHERE, 0, 2 * wide)
  const points = new Float32Array(3 * RUN * wide).fill(NOWHERE, 0, 2 * RUN * wide)
  for (let k = 0; k < full; k++) {
    const [from, to] = [k * RUN, Math.min(outline, (k + 1) * RUN)]
    points.set(xs.subarray(from, to), from)
    points.set(ys.subarray(from, to), RUN * wide + from)
    points.set(reach.subarray(from, to), 2 * RUN * wide + from)
    const [px, py] = [xs.subarray(from, to), ys.subarray(from, to)]
    const x = (Math.min(...px) + Math.max(...px)) / 2
    const y = (Math.min(...py) + Math.max(...py)) / 2
    runs[k] = x
    runs[wide + k] = y
    runs[2 * wide + k] = Math.max(...px.map((v, i) => Math.hypot(v - x, py[i]! - y)))
  }
  return { runs, points }
}
