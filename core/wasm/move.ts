// Where a piece would overlap least: the best of many places, each gone down from.
import {
  RADIUS,
  ROOM_MIN_X,
  ROOM_MIN_Y,
  ROOM_MAX_X,
  ROOM_MAX_Y,
  ROOM_BYTES,
  X,
  Y,
  COS,
  SIN,
  MIN_X,
  MAX_X,
  MIN_Y,
  MAX_Y,
  ROOM,
  POSE_X,
  POSE_Y,
  POSE_TURN,
  POSE_ROOM,
  POSE_COST,
  POSE_BYTES,
  TURN_BYTES,
  PIECE_TURNS,
  PIECE_TURN_COUNT,
  PIECE_STRAIGHT,
  PIECE_FREE,
} from './layout'
import { loss, pieceOf, probe, roomCount, rooms, shapeOf } from './overlap'
import { random } from './random'
import { cos, down, left, noteTurn, right, sin, turnAs, turnTo, up } from './turning'

/** Places that are tried: near where a piece lies, and anywhere; so many of the best are gone down from. */
const NEAR: i32 = 6
const ANYWHERE: i32 = 24
const KEPT: i32 = 3
/** From a place where a piece costs more than so many times what it costs now it hardly ever comes to anything better. */
const WORTH_NEAR: f32 = 4
const WORTH_ELSEWHERE: f32 = 2
/** Farthest that a place near is tried, mm, and how far it is turned at most, degrees. */
const NEAR_MM: f64 = 40
const NEAR_DEG: f64 = 15
/** In a room it is tried so often to hit on a place that holds a piece. */
const TRIES_ANYWHERE: i32 = 30
/** Of free turns so many are any at all; of the others so many lay an edge straight. */
const ANY_TURN: f64 = 0.15
const STRAIGHT_TURN: f64 = 0.7
/** A descent begins with steps of the radius over so much, at most so long (mm); of several each ends here, the best of them goes on to the finest. */
const FIRST_SHARE: f64 = 6
const LONGEST_STEP_MM: f64 = 4
const ROUGH_STEP_MM: f64 = 0.4
const FINEST_STEP_MM: f64 = 0.03
/** Where so little is left (mm) the finest is a third of it. */
const LITTLE_MM: f32 = 1
/** By so much a piece may be larger than a room that it just fits. */
const ROUNDING_MM: f64 = 1e-9
/** Share of the steps that turn a piece that may be turned, degrees for each mm that its farthest point moves at a radius of one, and the share that goes along either axis. */
const TURNING: f64 = 0.3
const DEG_PER_RAD: f64 = 57.3
const ALONG_AXIS: f64 = 0.35
/** A step that helped is followed by a longer one, one that did not by a shorter. */
const LONGER: f64 = 1.25
const SHORTER: f64 = 0.6

/** Poses that are handed in, beside what a piece may lie against. */
const MOST_BESIDE: usize = 16
/** Where the piece lies, and once it has been moved, where it is to lie. */
export const pose: usize = heap.alloc(POSE_BYTES)
export const beside: usize = heap.alloc(POSE_BYTES * MOST_BESIDE)
/** The best places so far, the cheapest first; the one that is gone down from; the best of all. */
const kept: usize = heap.alloc(POSE_BYTES * KEPT)
const going: usize = heap.alloc(POSE_BYTES)
const best: usize = heap.alloc(POSE_BYTES)
let keptCount: i32 = 0
/** Which of the kept is where the piece lies now; -1 for none. */
let stays: i32 = 0

/** The place that is tried. */
let x: f64 = 0
let y: f64 = 0
let room: i32 = 0

/** What body i costs at the place that is tried, once that is pushed into its room; Infinity where it is over `limit` or too large for the room. */
function costThere(i: i32, limit: f32): f32 {
  const own = rooms + <usize>room * ROOM_BYTES
  const minX = load<f64>(own, ROOM_MIN_X)
  const minY = load<f64>(own, ROOM_MIN_Y)
  const maxX = load<f64>(own, ROOM_MAX_X)
  const maxY = load<f64>(own, ROOM_MAX_Y)
  if (right - left > maxX - minX + ROUNDING_MM || down - up > maxY - minY + ROUNDING_MM) return Infinity
  x = max(minX - left, min(maxX - right, x))
  y = max(minY - up, min(maxY - down, y))
  store<f32>(probe, <f32>x, X)
  store<f32>(probe, <f32>y, Y)
  store<f32>(probe, <f32>cos, COS)
  store<f32>(probe, <f32>sin, SIN)
  store<f32>(probe, <f32>(x + left), MIN_X)
  store<f32>(probe, <f32>(x + right), MAX_X)
  store<f32>(probe, <f32>(y + up), MIN_Y)
  store<f32>(probe, <f32>(y + down), MAX_Y)
  store<i32>(probe, room, ROOM)
  return loss(i, limit)
}

/** Writes down in a pose what is tried. */
function note(at: usize, cost: f32): void {
  store<f64>(at, x, POSE_X)
  store<f64>(at, y, POSE_Y)
  store<i32>(at, room, POSE_ROOM)
  store<f32>(at, cost, POSE_COST)
  noteTurn(at)
}

/** Keeps what is tried where it is among the best and costs less than `most`. */
function consider(i: i32, most: f32): void {
  const last = kept + <usize>(KEPT - 1) * POSE_BYTES
  const limit = keptCount < KEPT ? most : min(most, load<f32>(last, POSE_COST))
  const cost = costThere(i, limit)
  if (cost >= limit) return
  if (keptCount < KEPT) keptCount++
  else if (stays == KEPT - 1) stays = -1
  let k = keptCount - 1
  let at = kept + <usize>k * POSE_BYTES
  for (; k > 0 && load<f32>(at - POSE_BYTES, POSE_COST) > cost; k--) {
    memory.copy(at, at - POSE_BYTES, POSE_BYTES)
    at -= POSE_BYTES
    if (stays == k - 1) stays = k
  }
  note(at, cost)
}

/** Turns what is tried as a piece may be turned. */
function turnAnyhow(shape: usize, piece: usize): void {
  let choice = load<i32>(piece, PIECE_TURN_COUNT)
  if (load<i32>(piece, PIECE_FREE)) {
    const roll = random()
    if (roll < ANY_TURN) {
      turnTo(shape, random() * 360)
      return
    }
    const straight = load<i32>(piece, PIECE_STRAIGHT)
    if (roll < STRAIGHT_TURN && straight > 0) choice = straight
  }
  const turns = <usize>load<u32>(piece, PIECE_TURNS)
  turnAs(turns + <usize>(random() * choice) * TURN_BYTES - POSE_TURN)
}

/** The k-th place near where a piece lies, of which some are turned. */
function tryNear(i: i32, k: i32, shape: usize, piece: usize): void {
  const size = min(<f64>load<f32>(shape, RADIUS), NEAR_MM)
  if (load<i32>(piece, PIECE_FREE) && k % 2 == 0)
    turnTo(shape, load<f64>(pose, POSE_TURN) + (random() - 0.5) * 2 * NEAR_DEG)
  else if (k % 3 == 0) turnAnyhow(shape, piece)
  else turnAs(pose)
  room = load<i32>(pose, POSE_ROOM)
  x = load<f64>(pose, POSE_X) + (random() - 0.5) * size
  y = load<f64>(pose, POSE_Y) + (random() - 0.5) * size
  consider(i, WORTH_NEAR * load<f32>(pose, POSE_COST))
}

/** Any place and turn in any room that can hold the piece. */
function tryAnywhere(i: i32, shape: usize, piece: usize): void {
  for (let tries = 0; tries < TRIES_ANYWHERE; tries++) {
    room = <i32>(random() * roomCount)
    turnAnyhow(shape, piece)
    const own = rooms + <usize>room * ROOM_BYTES
    const minX = load<f64>(own, ROOM_MIN_X)
    const minY = load<f64>(own, ROOM_MIN_Y)
    const spareX = load<f64>(own, ROOM_MAX_X) - minX - right + left
    const spareY = load<f64>(own, ROOM_MAX_Y) - minY - down + up
    if (spareX < 0 || spareY < 0) continue
    x = minX - left + random() * spareX
    y = minY - up + random() * spareY
    consider(i, WORTH_ELSEWHERE * load<f32>(pose, POSE_COST))
    return
  }
}

/** Steps of body i along random axes from where it goes while they help, ever shorter: from `first` mm until they are shorter than `least`. */
function descend(i: i32, first: f64, least: f64): void {
  const shape = shapeOf(i)
  const radius = <f64>load<f32>(shape, RADIUS)
  const mayTurn = load<i32>(pieceOf(i), PIECE_FREE) != 0
  room = load<i32>(going, POSE_ROOM)
  turnAs(going)
  let cost = load<f32>(going, POSE_COST)
  let step = first
  while (step > least && cost > 0) {
    const turning = mayTurn && random() < TURNING
    let ux: f64 = 1
    let uy: f64 = 0
    if (!turning) {
      const axis = random()
      if (axis >= 2 * ALONG_AXIS) {
        const angle = random() * Math.PI
        ux = Math.cos(angle)
        uy = Math.sin(angle)
      } else if (axis >= ALONG_AXIS) {
        ux = 0
        uy = 1
      }
    }
    let better = false
    for (let way = step, tries = 0; tries < 2 && !better; way = -way, tries++) {
      x = load<f64>(going, POSE_X)
      y = load<f64>(going, POSE_Y)
      if (turning) turnTo(shape, load<f64>(going, POSE_TURN) + (way * DEG_PER_RAD) / radius)
      else {
        x += ux * way
        y += uy * way
      }
      const there = costThere(i, cost)
      better = there < cost
      if (!better) continue
      cost = there
      note(going, cost)
    }
    if (turning && !better) turnAs(going)
    step *= better ? LONGER : SHORTER
  }
}

/** Goes down from a pose; where that leads is the best where it costs less. */
function goDown(i: i32, from: usize, first: f64, least: f64): void {
  memory.copy(going, from, POSE_BYTES)
  descend(i, first, least)
  if (load<f32>(going, POSE_COST) < load<f32>(best, POSE_COST)) memory.copy(best, going, POSE_BYTES)
}

/**
 * Looks for where body i costs less than at the pose: the best of many places, each gone down from. So many poses are handed in beside others. The
 * pose is then the best that was found, with its cost; the same where nothing is better.
 */
export function move(i: i32, besideCount: i32): void {
  const shape = shapeOf(i)
  const piece = pieceOf(i)
  memory.copy(kept, pose, POSE_BYTES)
  memory.copy(best, pose, POSE_BYTES)
  keptCount = 1
  stays = 0
  // Near places first: among them are good ones, against which the others are given up sooner.
  for (let k = 0; k < NEAR; k++) tryNear(i, k, shape, piece)
  for (let k = 0; k < besideCount; k++) {
    const at = beside + <usize>k * POSE_BYTES
    room = load<i32>(at, POSE_ROOM)
    x = load<f64>(at, POSE_X)
    y = load<f64>(at, POSE_Y)
    turnAs(at)
    consider(i, WORTH_ELSEWHERE * load<f32>(pose, POSE_COST))
  }
  for (let k = 0; k < ANYWHERE; k++) tryAnywhere(i, shape, piece)
  const first = max(2 * ROUGH_STEP_MM, min(LONGEST_STEP_MM, <f64>load<f32>(shape, RADIUS) / FIRST_SHARE))
  for (let k = 0; k < keptCount && load<f32>(best, POSE_COST) > 0; k++)
    goDown(i, kept + <usize>k * POSE_BYTES, first, ROUGH_STEP_MM)
  if (stays < 0 && load<f32>(best, POSE_COST) > 0) goDown(i, pose, first, ROUGH_STEP_MM)
  const cost = load<f32>(best, POSE_COST)
  if (cost > 0) goDown(i, best, ROUGH_STEP_MM, cost < LITTLE_MM ? FINEST_STEP_MM / 3 : FINEST_STEP_MM)
  memory.copy(pose, best, POSE_BYTES)
}
