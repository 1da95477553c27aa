// A piece as it lies in a room: where, how turned, and the box that it takes.
import { rotation } from '../../../../base/geometry'
import type { Field, Spot } from './field'
import type { Room } from './room'

/** Box of a turned piece about its middle, mm. */
interface Extent {
  left: number
  right: number
  up: number
  down: number
}

/** A place for a piece: a room, a turn (degrees) and the piece's middle. */
export interface Pose extends Spot, Extent {
  room: number
  turn: number
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
export function turnTo(pose: Omit<Pose, 'room' | 'x' | 'y'>, turn: number, { hull }: Field): void {
  const [cos, sin] = rotation(turn)
  pose.turn = turn
  pose.cos = cos
  pose.sin = sin
  let [left, right, up, down] = [Infinity, -Infinity, Infinity, -Infinity]
  for (let i = 0; i < hull.length; i += 2) {
    const x = cos * hull[i]! - sin * hull[i + 1]!
    const y = sin * hull[i]! + cos * hull[i + 1]!
    if (x < left) left = x
    if (x > right) right = x
    if (y < up) up = y
    if (y > down) down = y
  }
  pose.left = left
  pose.right = right
  pose.up = up
  pose.down = down
}

/** Moves a pose by the shortest way into a room. False where the room is too small for it. */
export function pushInto(pose: Pose, room: Room): boolean {
  if (pose.right - pose.left > room.maxX - room.minX || pose.down - pose.up > room.maxY - room.minY)
    return false
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
  pose.turn = at.turn
  pose.cos = at.cos
  pose.sin = at.sin
  pose.left = at.left
  pose.right = at.right
  pose.up = at.up
  pose.down = at.down
}
