// Places that are worth a try for a piece: anywhere, and along an edge of another piece. Others are made up where they are tried (core/wasm/move.ts).
import type { NestInstance } from '../instance'
import { FREE_TURNS, turnsOf } from '../orientations'
import { newBody, poseAt, takeTurn, turnTo, type Body, type Candidate, type Turned } from './body'
import { straightEdges, type Edge } from './edges'
import type { Field } from './field'
import type { Turning } from './kernel'
import type { Room } from './room'

/** How far out of parallel edges may be that lie along each other. */
const ALONG_DEG = 1
const TRIES_ANYWHERE = 30

/** What lies where. */
export interface Lying {
  rooms: readonly Room[]
  bodies: readonly Body[]
  /** Indices of the bodies in each room. */
  members: readonly (readonly number[])[]
}

/** A piece turned by so many degrees. */
function turned(turn: number, field: Field): Turned {
  const pose = newBody()
  turnTo(pose, turn, field)
  return pose
}

/** Makes up places to try. */
export class Sampler {
  /** Of each piece the turns that are worth a try, of a free one those that lay an edge straight first. */
  private readonly turns: (readonly Turned[])[]
  private readonly edges: Edge[][]
  private readonly probe = newBody()

  constructor(
    private readonly instance: NestInstance,
    private readonly fields: readonly Field[],
    private readonly random: () => number,
  ) {
    this.turns = instance.pieces.map((piece, k) => turnsOf(piece).map((turn) => turned(turn, fields[k]!)))
    this.edges = instance.pieces.map(({ shape }, k) => straightEdges(shape, fields[k]!))
  }

  hasEdges(piece: number): boolean {
    return this.edges[piece]!.length > 0
  }

  /** Any place and turn in any room that can hold the piece; null where none was hit on. */
  anywhere(piece: number, rooms: readonly Room[]): Candidate | null {
    const { probe } = this
    const turns = this.turns[piece]!
    for (let tries = 0; tries < TRIES_ANYWHERE; tries++) {
      probe.room = Math.floor(this.random() * rooms.length)
      takeTurn(probe, turns[Math.floor(this.random() * turns.length)]!)
      const room = rooms[probe.room]!
      const spareX = room.maxX - room.minX - probe.right + probe.left
      const spareY = room.maxY - room.minY - probe.down + probe.up
      if (spareX < 0 || spareY < 0) continue
      const x = room.minX - probe.left + this.random() * spareX
      const y = room.minY - probe.up + this.random() * spareY
      return poseAt(probe, x, y)
    }
    return null
  }

  /** With an edge along one of another piece, the gap between, one end against the other's; null where it may not turn so. */
  beside(body: Body, { rooms, bodies, members }: Lying, gap: number): Candidate | null {
    const { probe, edges } = this
    const room = Math.floor(this.random() * rooms.length)
    const list = members[room]!
    if (list.length === 0) return null
    const other = bodies[list[Math.floor(this.random() * list.length)]!]!
    const theirs = edges[other.piece]!
    if (other === body || theirs.length === 0) return null
    const own = edges[body.piece]!
    const a = own[Math.floor(this.random() * own.length)]!
    const b = theirs[Math.floor(this.random() * theirs.length)]!
    const turn = this.turnThatMay(body.piece, other.turn + b.deg + 180 - a.deg)
    if (turn === null) return null
    probe.room = room
    turnTo(probe, turn, this.fields[body.piece]!)
    // Their edge as it lies, moved out by the gap; of ours the end that comes to lie against it.
    const ends = this.random() < 0.5
    const [px, py] = ends ? [b.x2, b.y2] : [b.x1, b.y1]
    const [qx, qy] = ends ? [a.x1, a.y1] : [a.x2, a.y2]
    const [nx, ny] = [b.nx * gap, b.ny * gap]
    const x = other.x + other.cos * (px + nx) - other.sin * (py + ny) - (probe.cos * qx - probe.sin * qy)
    const y = other.y + other.sin * (px + nx) + other.cos * (py + ny) - (probe.sin * qx + probe.cos * qy)
    return poseAt(probe, x, y)
  }

  /** How a piece may be turned. */
  turningOf(piece: number): Turning {
    const turns = this.turns[piece]!
    const free = this.isFree(piece)
    return { turns, free, straight: free ? turns.length - FREE_TURNS : 0 }
  }

  private isFree(piece: number): boolean {
    return this.instance.pieces[piece]!.turns === 'free'
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
}
