// A piece as it lies in a room: where, how turned, and the box that it takes.
import { rotation } from '../../../../base/geometry'
import { DIRECTIONS, type Field, type Spot } from './field'
import type { Room } from './room'

/** By so much a piece may be larger than a room that it just fits. */
const ROUNDING_MM = 1e-9

/** Box of a turned piece about its middle, mm. */
interface Extent {
  left: number
  right: number
  up: number
  down: number
}

/** How a piece is turned (degrees), and the box that it takes so. */
export interface Turned extends Pick<Spot, 'cos' | 'sin'>, Extent {
  turn: number
}

/** A place for a piece: a room, a turn and the piece's middle. */
export interface Pose extends Spot, Turned {
  room: number
}

/** A place with the overlap that a piece has there. */
export interface Candidate extends Pose {
  loss: number
}

/** A copy of a piece at its place. */
export interface Body extends Pose {
  piece: number
  copy: number
  fixed: boolean
}

/** A body at the origin, unturned, to be put anywhere. */
export const newBody = (piece = 0, copy = 0, fixed = false): Body => ({
  piece,
  copy,
  fixed,
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
})

/** Turns a pose to so many degrees, and measures its box. */
export function turnTo(pose: Turned, turn: number, field: Field): void {
  const [cos, sin] = rotation(turn)
  pose.turn = turn
  pose.cos = cos
  pose.sin = sin
  // Seen from the piece, the sheet turns the other way.
  pose.right = support(field, cos, -sin)
  pose.left = -support(field, -cos, sin)
  pose.down = support(field, sin, cos)
  pose.up = -support(field, -sin, -cos)
}

/** How far a hull reaches in a direction (a unit vector, in the piece's own frame), mm: from a corner that is near the farthest, up to it. */
function support({ hull, farthest }: Field, ux: number, uy: number): number {
  const turns = Math.atan2(uy, ux) / (2 * Math.PI)
  let i = farthest[Math.floor((turns + 1) * DIRECTIONS) % DIRECTIONS]!
  let reach = ux * hull[i]! + uy * hull[i + 1]!
  for (;;) {
    i = i + 2 < hull.length ? i + 2 : 0
    const next = ux * hull[i]! + uy * hull[i + 1]!
    if (next <= reach) return reach
    reach = next
  }
}

/** Moves a pose by the shortest way into a room. False where the room is too small for it. */
export function pushInto(pose: Pose, room: Room): boolean {
  const [w, h] = [room.maxX - room.minX, room.maxY - room.minY]
  if (pose.right - pose.left > w + ROUNDING_MM || pose.down - pose.up > h + ROUNDING_MM) return false
  pose.x = Math.max(room.minX - pose.left, Math.min(room.maxX - pose.right, pose.x))
  pose.y = Math.max(room.minY - pose.up, Math.min(room.maxY - pose.down, pose.y))
  return true
}

/** A pose moved to another place, as it is turned. */
export const poseAt = (
  { room, turn, cos, sin, left, right, up, down }: Pose,
  x: number,
  y: number,
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
  loss: Infinity,
})

/** Takes over the place and turn of another pose. */
export function aimAt(pose: Pose, at: Pose): void {
  pose.room = at.room
  pose.x = at.x
  pose.y = at.y
  takeTurn(pose, at)
}

/** Takes over how another pose is turned. */
export function takeTurn(pose: Turned, at: Turned): void {
  pose.turn = at.turn
  pose.cos = at.cos
  pose.sin = at.sin
  pose.left = at.left
  pose.right = at.right
  pose.up = at.up
  pose.down = at.down
}
