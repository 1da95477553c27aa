// How the shape that is moved is turned, and the box that it takes so.
import {
  HULL_AT,
  HULL_END,
  FARTHEST_AT,
  DIRECTIONS,
  POSE_TURN,
  POSE_COS,
  POSE_SIN,
  POSE_LEFT,
  POSE_RIGHT,
  POSE_UP,
  POSE_DOWN,
} from './layout'

/** The turn that is tried, and the box that the shape takes so. */
export let turn: f64 = 0
export let cos: f64 = 1
export let sin: f64 = 0
export let left: f64 = 0
export let right: f64 = 0
export let up: f64 = 0
export let down: f64 = 0

/** How far a hull reaches in a direction (degrees, and as a unit vector): from a corner that is near the farthest, up to it. */
function support(shape: usize, deg: f64, ux: f64, uy: f64): f64 {
  const hull = <usize>load<u32>(shape, HULL_AT)
  const end = <usize>load<u32>(shape, HULL_END)
  const way = (deg / 360 - floor(deg / 360)) * DIRECTIONS
  let at = hull + <usize>load<u16>(<usize>load<u32>(shape, FARTHEST_AT) + (((<usize>way) & 255) << 1))
  let reach = ux * load<f64>(at) + uy * load<f64>(at, 8)
  for (let further = true; further;) {
    at = at + 16 < end ? at + 16 : hull
    const next = ux * load<f64>(at) + uy * load<f64>(at, 8)
    further = next > reach
    if (further) reach = next
  }
  return reach
}

/** Turns what is tried to so many degrees. */
export function turnTo(shape: usize, deg: f64): void {
  const rad = (deg * Math.PI) / 180
  turn = deg
  cos = Math.cos(rad)
  sin = Math.sin(rad)
  // Seen from the piece, the sheet turns the other way.
  right = support(shape, -deg, cos, -sin)
  left = -support(shape, 180 - deg, -cos, sin)
  down = support(shape, 90 - deg, sin, cos)
  up = -support(shape, 270 - deg, -sin, -cos)
}

/** Turns what is tried as a pose is. */
export function turnAs(pose: usize): void {
  turn = load<f64>(pose, POSE_TURN)
  cos = load<f64>(pose, POSE_COS)
  sin = load<f64>(pose, POSE_SIN)
  left = load<f64>(pose, POSE_LEFT)
  right = load<f64>(pose, POSE_RIGHT)
  up = load<f64>(pose, POSE_UP)
  down = load<f64>(pose, POSE_DOWN)
}

/** Writes down in a pose how it is turned. */
export function noteTurn(pose: usize): void {
  store<f64>(pose, turn, POSE_TURN)
  store<f64>(pose, cos, POSE_COS)
  store<f64>(pose, sin, POSE_SIN)
  store<f64>(pose, left, POSE_LEFT)
  store<f64>(pose, right, POSE_RIGHT)
  store<f64>(pose, up, POSE_UP)
  store<f64>(pose, down, POSE_DOWN)
}
