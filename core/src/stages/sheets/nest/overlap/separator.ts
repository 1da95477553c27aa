// Overlap minimisation: all pieces lie on the sheets at once, over each other at first, and one after the other moves to
// where it overlaps least; overlaps that stay grow dearer (guided local search) until none is left. Reaches layouts that
// no order of laying pieces one by one gives. What comes out is proved by exact distances before it is handed on.
import {
  boxHeight,
  boxWidth,
  compose,
  mapPolygon,
  offset,
  polygonRings,
  rectangle,
  regionArea,
  regionBox,
  rotation,
  subtract,
  translation,
  type Polygon,
} from '../../../../base/geometry'
import { nearest } from '../exact/clearance'
import { makeField, overlapOf, type Field, type Spot } from './field'
import type { NestInstance, OffCutSheet, Placement } from '../instance'
import { FREE_TURNS, turnsOf } from '../orientations'

/** What a room may hold, mm from its sheet's corner. */
export interface Room {
  sheet: number
  minX: number
  minY: number
  maxX: number
  maxY: number
  /** What lies round and in an off-cut and may not be touched. */
  walls: readonly Wall[]
}

export interface Wall extends Spot {
  field: Field
  shape: Polygon
}

/** Beyond an off-cut this much counts as wall, mm. */
const WALL_MM = 40
const WALL_NODES = 260

/** An off-cut as a room. Null where its rim leaves nothing. */
export function offCutRoom({ outline, margin }: OffCutSheet, k: number): Room | null {
  const inside = offset([outline], -margin)
  if (inside.length === 0) return null
  const b = regionBox(inside)
  const outside = subtract(
    [rectangle(b.minX - WALL_MM, b.minY - WALL_MM, boxWidth(b) + 2 * WALL_MM, boxHeight(b) + 2 * WALL_MM)],
    inside,
  )
  const plain = regionArea(inside) > boxWidth(b) * boxHeight(b) - 1
  const walls = plain
    ? []
    : outside.map((shape): Wall => {
        const field = makeField(shape, 0, WALL_NODES)
        return { field, shape, x: field.midX, y: field.midY, cos: 1, sin: 0 }
      })
  return { sheet: -1 - k, ...b, walls }
}

/** Added to the gap while searching, for the fields' coarseness; twice that where pieces may touch. */
const SLACK_MM = 0.04
/** What the exact proof adds to the gap when it parts pieces. */
const PROOF_MM = 0.003
/** Overlap with a wall counts for more than with another piece, which can give way. */
const WALL_WEIGHT = 4
const SAMPLES_ANYWHERE = 24
/** Where there are few pieces, so many more lie with a straight edge along one of another; among many it is seldom the right one. */
const SAMPLES_BESIDE = 12
const BESIDE_PIECES = 40
const SAMPLES_NEAR = 6
const KEPT = 3
/** Of several candidates each goes down in steps that end here, the best of them goes on to the finest (mm). */
const ROUGH_STEP_MM = 0.4
const FINEST_STEP_MM = 0.03
const PROOF_ROUNDS = 80

/** An edge counts as straight from this length on, in mm and in parts of the piece's radius. */
const EDGE_MM = 4
const EDGE_SHARE = 0.25
/** How far out of parallel edges may be that lie along each other. */
const ALONG_DEG = 1

/** A straight edge about its piece's middle, its direction, and the way out of the card. */
interface Edge {
  x1: number
  y1: number
  x2: number
  y2: number
  deg: number
  nx: number
  ny: number
}

function straightEdges(shape: Polygon, { midX, midY, radius }: Field): Edge[] {
  const least = Math.max(EDGE_MM, EDGE_SHARE * radius)
  return polygonRings(shape).flatMap((ring) => {
    const out: Edge[] = []
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [x1, y1, x2, y2] = [ring[j]! - midX, ring[j + 1]! - midY, ring[i]! - midX, ring[i + 1]! - midY]
      const [dx, dy] = [x2 - x1, y2 - y1]
      const length = Math.hypot(dx, dy)
      if (length >= least)
        out.push({
          x1,
          y1,
          x2,
          y2,
          deg: (Math.atan2(dy, dx) * 180) / Math.PI,
          nx: dy / length,
          ny: -dx / length,
        })
    }
    return out
  })
}

/** Box of a turned piece about its middle. */
interface Extent {
  left: number
  right: number
  up: number
  down: number
}

interface Candidate extends Spot, Extent {
  room: number
  turn: number
  loss: number
}

interface Item extends Spot, Extent {
  piece: number
  copy: number
  fixed: boolean
  room: number
  turn: number
}

export class Separator {
  private readonly fields: Field[]
  private readonly turns: (readonly number[])[]
  private readonly edges: Edge[][]
  private gap: number
  private items: Item[] = []
  private rooms: Room[] = []
  /** Weight of each pair, and its overlap at the last count. */
  private weights = new Float64Array(0)
  private members: number[][] = []
  private complete = true
  /** Sum of all overlaps (mm) after the last sweep. */
  total = Infinity

  constructor(
    private readonly instance: NestInstance,
    private readonly random: () => number,
  ) {
    this.gap = this.startGap()
    const known = new Map<Polygon, Field>()
    this.fields = instance.pieces.map((piece) => {
      let field = known.get(piece.shape)
      if (!field) known.set(piece.shape, (field = makeField(piece.shape, this.gap + 4 * SLACK_MM)))
      return field
    })
    this.turns = instance.pieces.map(turnsOf)
    this.edges = instance.pieces.map(({ shape }, k) => straightEdges(shape, this.fields[k]!))
  }

  private startGap(): number {
    return this.instance.gap + (this.instance.gap < 0.2 ? 2 : 1) * SLACK_MM
  }

  /** Begins from a layout: pieces that the rooms no longer hold are pushed in, over whatever lies there. */
  start(placements: readonly Placement[], rooms: readonly Room[]): void {
    this.rooms = [...rooms]
    this.gap = this.startGap()
    const pinned = new Set((this.instance.pinned ?? []).map((p) => `${p.id}#${p.copy}`))
    const byId = new Map(this.instance.pieces.map((piece, k) => [piece.id, k]))
    this.items = placements.map((p) => {
      const piece = byId.get(p.id)!
      const field = this.fields[piece]!
      const [cos, sin] = rotation(p.rotation)
      const item: Item = {
        piece,
        copy: p.copy,
        fixed: pinned.has(`${p.id}#${p.copy}`),
        room: rooms.findIndex((room) => room.sheet === p.sheet),
        turn: p.rotation,
        cos,
        sin,
        x: p.x + cos * field.midX - sin * field.midY,
        y: p.y + sin * field.midX + cos * field.midY,
        left: 0,
        right: 0,
        up: 0,
        down: 0,
      }
      this.measure(item, field)
      return item
    })
    const n = this.items.length
    this.weights = new Float64Array(n * n).fill(1)
    this.items.forEach((item) => {
      if (item.fixed) return
      if (item.room >= 0 && this.pushIn(item)) return
      // Its sheet is gone or too narrow now: anywhere else where it fits.
      const spot = this.anywhere(item)
      if (spot) this.put(item, spot)
    })
    this.items = this.items.filter((item) => item.room >= 0)
    this.complete = this.items.length === n
    this.sort()
    this.count()
  }

  /** Moves every piece that overlaps to where it overlaps least; makes what is left dearer. */
  sweep(): void {
    const n = this.items.length
    const order = Array.from({ length: n }, (_, i) => i)
    for (let i = n - 1; i > 0; i--) {
      const k = Math.floor(this.random() * (i + 1))
      ;[order[i], order[k]] = [order[k]!, order[i]!]
    }
    for (const i of order) {
      const item = this.items[i]!
      if (item.fixed) continue
      const now = this.loss(i, item.room, item, Infinity)
      if (now > 0) this.move(i, now)
    }
    this.count()
  }

  /** Placements once nothing overlaps, parted to the gap and proved by exact distances; null where that cannot be. */
  proved(): Placement[] | null {
    if (!this.complete) return null
    const items = this.items.map((item) => ({ ...item }))
    const shapes = items.map((item) => this.shapeOf(item))
    const wanted = this.instance.gap
    for (let round = 0; round < PROOF_ROUNDS; round++) {
      let parted = true
      for (const list of this.members)
        for (let k = 0; k < list.length; k++)
          for (let m = 0; m < k; m++) {
            const [i, j] = [list[k]!, list[m]!]
            const [a, b] = [items[i]!, items[j]!]
            if (a.fixed && b.fixed) continue
            const near = nearest(shapes[i]!, shapes[j]!, wanted + PROOF_MM / 2)
            if (!near) continue
            if (near.mm === 0) return this.unproved()
            parted = false
            const share = a.fixed || b.fixed ? 1 : 0.5
            const by = (wanted + PROOF_MM - near.mm) * share
            if (!a.fixed) this.shift(a, near.nx * by, near.ny * by)
            if (!b.fixed) this.shift(b, -near.nx * by, -near.ny * by)
            shapes[i] = this.shapeOf(a)
            shapes[j] = this.shapeOf(b)
          }
      if (
        parted &&
        items.some((item, i) =>
          this.rooms[item.room]!.walls.some((wall) => nearest(shapes[i]!, wall.shape, 1e-3)?.mm === 0),
        )
      )
        return this.unproved()
      if (parted) return items.map((item) => this.placementOf(item))
    }
    return this.unproved()
  }

  /** What the fields took for clear is not: from now on they must see a little more room. */
  private unproved(): null {
    this.gap += SLACK_MM
    this.count()
    return null
  }

  private shift(item: Item, dx: number, dy: number): void {
    item.x += dx
    item.y += dy
    this.pushIn(item)
  }

  private placementOf(item: Item): Placement {
    const field = this.fields[item.piece]!
    return {
      id: this.instance.pieces[item.piece]!.id,
      copy: item.copy,
      sheet: this.rooms[item.room]!.sheet,
      x: item.x - item.cos * field.midX + item.sin * field.midY,
      y: item.y - item.sin * field.midX - item.cos * field.midY,
      rotation: item.turn,
    }
  }

  private shapeOf(item: Item): Polygon {
    const p = this.placementOf(item)
    return mapPolygon(
      compose(translation(p.x, p.y), rotation(p.rotation)),
      this.instance.pieces[item.piece]!.shape,
    )
  }

  /** Box of a turned piece about its middle. */
  private measure(item: Pick<Item, 'cos' | 'sin'> & Extent, field: Field): void {
    const { hull } = field
    const { cos, sin } = item
    let [left, right, up, down] = [Infinity, -Infinity, Infinity, -Infinity]
    for (let i = 0; i < hull.length; i += 2) {
      const x = cos * hull[i]! - sin * hull[i + 1]!
      const y = sin * hull[i]! + cos * hull[i + 1]!
      if (x < left) left = x
      if (x > right) right = x
      if (y < up) up = y
      if (y > down) down = y
    }
    item.left = left
    item.right = right
    item.up = up
    item.down = down
  }

  /** Moves a piece by the shortest way into its room. False where the room is too small for it. */
  private pushIn(item: Item): boolean {
    const room = this.rooms[item.room]!
    if (item.right - item.left > room.maxX - room.minX || item.down - item.up > room.maxY - room.minY)
      return false
    item.x = Math.max(room.minX - item.left, Math.min(room.maxX - item.right, item.x))
    item.y = Math.max(room.minY - item.up, Math.min(room.maxY - item.down, item.y))
    return true
  }

  private readonly probe: Item = {
    piece: 0,
    copy: 0,
    fixed: false,
    room: 0,
    turn: 0,
    x: 0,
    y: 0,
    cos: 1,
    sin: 0,
    left: 0,
    right: 0,
    up: 0,
    down: 0,
  }

  private setTurn(item: Pick<Item, 'turn' | 'cos' | 'sin'> & Extent, turn: number, field: Field): void {
    const [cos, sin] = rotation(turn)
    item.turn = turn
    item.cos = cos
    item.sin = sin
    this.measure(item, field)
  }

  private randomTurn(piece: number): number {
    const list = this.turns[piece]!
    if (this.instance.pieces[piece]!.turns !== 'free') return list[Math.floor(this.random() * list.length)]!
    const roll = this.random()
    if (roll < 0.15) return this.random() * 360
    // Turns that lay an edge straight come first in the list, and count for more.
    const straight = list.length - FREE_TURNS
    return list[Math.floor(this.random() * (roll < 0.7 && straight > 0 ? straight : list.length))]!
  }

  /** Any place and turn in any room that can hold the piece. */
  private anywhere(item: Item): Candidate | null {
    const field = this.fields[item.piece]!
    for (let tries = 0; tries < 30; tries++) {
      const { probe } = this
      probe.piece = item.piece
      probe.room = Math.floor(this.random() * this.rooms.length)
      this.setTurn(probe, this.randomTurn(item.piece), field)
      const room = this.rooms[probe.room]!
      const [spareX, spareY] = [
        room.maxX - room.minX - probe.right + probe.left,
        room.maxY - room.minY - probe.down + probe.up,
      ]
      if (spareX < 0 || spareY < 0) continue
      const x = room.minX - probe.left + this.random() * spareX
      const y = room.minY - probe.up + this.random() * spareY
      return candidateOf(probe, x, y, Infinity)
    }
    return null
  }

  /** With an edge along one of another piece, the gap between, one end against the other's; null where it may not turn so. */
  private beside(item: Item): Candidate | null {
    const { probe, members, edges } = this
    const room = Math.floor(this.random() * this.rooms.length)
    const list = members[room]!
    if (list.length === 0) return null
    const other = this.items[list[Math.floor(this.random() * list.length)]!]!
    const theirs = edges[other.piece]!
    if (other === item || theirs.length === 0) return null
    const field = this.fields[item.piece]!
    const own = edges[item.piece]!
    const a = own[Math.floor(this.random() * own.length)]!
    const b = theirs[Math.floor(this.random() * theirs.length)]!
    const turn = this.turnThatMay(item.piece, other.turn + b.deg + 180 - a.deg)
    if (turn === null) return null
    probe.piece = item.piece
    probe.room = room
    this.setTurn(probe, turn, field)
    // Their edge as it lies, moved out by the gap; of ours the end that comes to lie against it.
    const ends = this.random() < 0.5
    const [px, py] = ends ? [b.x2, b.y2] : [b.x1, b.y1]
    const [qx, qy] = ends ? [a.x1, a.y1] : [a.x2, a.y2]
    const [nx, ny] = [b.nx * this.gap, b.ny * this.gap]
    const x = other.x + other.cos * (px + nx) - other.sin * (py + ny) - (probe.cos * qx - probe.sin * qy)
    const y = other.y + other.sin * (px + nx) + other.cos * (py + ny) - (probe.sin * qx + probe.cos * qy)
    return candidateOf(probe, x, y, Infinity)
  }

  /** A turn as near to the wanted one as a piece may have; null where that is not near enough to lie along an edge. */
  private turnThatMay(piece: number, wanted: number): number | null {
    const turn = ((wanted % 360) + 360) % 360
    const { turns } = this.instance.pieces[piece]!
    if (turns === 'free') return turn
    const near = turns === 'quarter' ? Math.round(turn / 90) * 90 : 0
    const apart = Math.abs(turn - near)
    return Math.min(apart, 360 - apart) < ALONG_DEG ? near % 360 : null
  }

  private put(item: Item, spot: Candidate): void {
    item.room = spot.room
    item.x = spot.x
    item.y = spot.y
    this.setTurn(item, spot.turn, this.fields[item.piece]!)
  }

  /** Weighted overlap of a piece at a place with all others; stops once over `limit`. */
  private loss(i: number, room: number, at: Item, limit: number): number {
    const field = this.fields[this.items[i]!.piece]!
    const { gap, items, weights } = this
    const n = items.length
    const [minX, maxX, minY, maxY] = [
      at.x + at.left - gap,
      at.x + at.right + gap,
      at.y + at.up - gap,
      at.y + at.down + gap,
    ]
    let sum = 0
    for (const wall of this.rooms[room]!.walls) {
      sum += WALL_WEIGHT * overlapOf(field, at, wall.field, wall, SLACK_MM, (limit - sum) / WALL_WEIGHT)
      if (sum > limit) return sum
    }
    for (const j of this.members[room]!) {
      if (j === i) continue
      const other = items[j]!
      if (
        other.x + other.left >= maxX ||
        other.x + other.right <= minX ||
        other.y + other.up >= maxY ||
        other.y + other.down <= minY
      )
        continue
      const weight = weights[i * n + j]!
      sum += weight * overlapOf(field, at, this.fields[other.piece]!, other, gap, (limit - sum) / weight)
      if (sum > limit) return sum
    }
    return sum
  }

  private move(i: number, now: number): void {
    const item = this.items[i]!
    const field = this.fields[item.piece]!
    const start = candidateOf(item, item.x, item.y, now)
    const kept: Candidate[] = [start]
    const consider = (spot: Candidate | null) => {
      if (!spot) return
      const { probe } = this
      const worst = kept.length < KEPT ? Infinity : kept.at(-1)!.loss
      aim(probe, item.piece, spot)
      if (!this.pushIn(probe)) return
      spot.x = probe.x
      spot.y = probe.y
      spot.loss = this.loss(i, spot.room, probe, worst)
      if (spot.loss >= worst) return
      kept.push(spot)
      kept.sort((a, b) => a.loss - b.loss)
      if (kept.length > KEPT) kept.pop()
    }
    for (let k = 0; k < SAMPLES_ANYWHERE; k++) consider(this.anywhere(item))
    if (this.items.length <= BESIDE_PIECES && this.edges[item.piece]!.length > 0)
      for (let k = 0; k < SAMPLES_BESIDE; k++) consider(this.beside(item))
    const size = Math.min(field.radius, 40)
    const free = this.instance.pieces[item.piece]!.turns === 'free'
    for (let k = 0; k < SAMPLES_NEAR; k++) {
      const turn =
        free && k % 2 === 0
          ? item.turn + (this.random() - 0.5) * 30
          : k % 3 === 0
            ? this.randomTurn(item.piece)
            : item.turn
      const spot = candidateOf(
        item,
        item.x + (this.random() - 0.5) * size,
        item.y + (this.random() - 0.5) * size,
        Infinity,
      )
      if (turn !== item.turn) this.setTurn(spot, turn, field)
      consider(spot)
    }
    let best = start
    for (const spot of kept.includes(start) ? kept : [...kept, start]) {
      const down = this.descend(
        i,
        spot,
        free,
        Math.max(2 * ROUGH_STEP_MM, Math.min(4, field.radius / 6)),
        ROUGH_STEP_MM,
      )
      if (down.loss < best.loss) best = down
      if (best.loss === 0) break
    }
    if (best.loss > 0)
      best = this.descend(i, best, free, ROUGH_STEP_MM, best.loss < 1 ? FINEST_STEP_MM / 3 : FINEST_STEP_MM)
    if (best === start) return
    if (best.room !== item.room) {
      this.members[item.room] = this.members[item.room]!.filter((k) => k !== i)
      this.members[best.room]!.push(i)
    }
    this.put(item, best)
  }

  /** Steps along random axes while they help, ever shorter. */
  private descend(
    i: number,
    from: Candidate,
    free: boolean,
    firstStep: number,
    leastStep: number,
  ): Candidate {
    const { piece } = this.items[i]!
    const field = this.fields[piece]!
    const { probe } = this
    let best = from
    let step = firstStep
    while (step > leastStep && best.loss > 0) {
      const turning = free && this.random() < 0.3
      const angle = this.random() * Math.PI
      const axis = this.random()
      const [ux, uy] = axis < 0.35 ? [1, 0] : axis < 0.7 ? [0, 1] : [Math.cos(angle), Math.sin(angle)]
      let better = false
      for (const sign of [1, -1]) {
        aim(probe, piece, best)
        if (turning) this.setTurn(probe, best.turn + (sign * step * 57.3) / field.radius, field)
        else {
          probe.x += sign * ux * step
          probe.y += sign * uy * step
        }
        if (!this.pushIn(probe)) continue
        const loss = this.loss(i, best.room, probe, best.loss)
        if (loss >= best.loss) continue
        best = candidateOf(probe, probe.x, probe.y, loss)
        better = true
        break
      }
      step *= better ? 1.25 : 0.6
    }
    return best
  }

  private sort(): void {
    this.members = this.rooms.map(() => [])
    this.items.forEach((item, i) => this.members[item.room]!.push(i))
  }

  /** Counts what overlaps and sets the weights: overlaps grow dearer, what is clear is forgotten slowly. */
  private count(): void {
    const { items, weights, gap } = this
    const n = items.length
    const pairs: [number, number, number][] = []
    let walled = 0
    for (const item of items)
      for (const wall of this.rooms[item.room]!.walls)
        walled += overlapOf(this.fields[item.piece]!, item, wall.field, wall, SLACK_MM)
    let most = 0
    this.total = walled
    for (const list of this.members)
      for (let k = 0; k < list.length; k++)
        for (let m = 0; m < k; m++) {
          const [i, j] = [list[k]!, list[m]!]
          const [a, b] = [items[i]!, items[j]!]
          if (
            a.x + a.left - gap >= b.x + b.right ||
            b.x + b.left - gap >= a.x + a.right ||
            a.y + a.up - gap >= b.y + b.down ||
            b.y + b.up - gap >= a.y + a.down
          )
            continue
          const overlap = overlapOf(this.fields[a.piece]!, a, this.fields[b.piece]!, b, gap)
          if (overlap === 0) continue
          pairs.push([i, j, overlap])
          most = Math.max(most, overlap)
          this.total += overlap
        }
    for (let k = 0; k < weights.length; k++) if (weights[k]! > 1) weights[k] = Math.max(1, weights[k]! * 0.95)
    for (const [i, j, overlap] of pairs) {
      const weight = (weights[i * n + j]! / 0.95) * (1.2 + (0.8 * overlap) / most)
      weights[i * n + j] = weights[j * n + i] = Math.min(1e6, weight)
    }
  }
}

/** A piece at another place, as it is turned. */
const candidateOf = (
  { room, turn, cos, sin, left, right, up, down }: Item,
  x: number,
  y: number,
  loss: number,
): Candidate => ({
  room,
  turn,
  cos,
  sin,
  x,
  y,
  left,
  right,
  up,
  down,
  loss,
})

/** Holds a piece at a candidate's place. */
function aim(probe: Item, piece: number, spot: Candidate): void {
  probe.piece = piece
  probe.room = spot.room
  probe.x = spot.x
  probe.y = spot.y
  probe.turn = spot.turn
  probe.cos = spot.cos
  probe.sin = spot.sin
  probe.left = spot.left
  probe.right = spot.right
  probe.up = spot.up
  probe.down = spot.down
}
