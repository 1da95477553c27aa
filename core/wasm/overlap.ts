// How deep a piece runs into its neighbours, four numbers at a time. What is computed is told by core/src/stages/sheets/nest/overlap/kernel.ts. Lengths in
// mm, all numbers 32 bits wide.
import {
  RUNS_AT,
  RUNS,
  POINTS_AT,
  POLES_AT,
  DISTANCE_AT,
  COLS,
  ROWS,
  X0,
  Y0,
  INV,
  RADIUS,
  UNIT,
  HEFT,
  ROOM_WALLS,
  ROOM_WALL_COUNT,
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
  PROBE_BYTES,
} from './layout'

/** What lies: one array for each field of a probe, one for the shape and one for the piece, each `stride` bytes long, one behind the other. */
let bodies: usize = 0
let stride: usize = 0
let count: i32 = 0
/** Of each pair: its overlap (mm) and its weight; of each body: its overlap with walls, and what it added last to a loss. */
let overlaps: usize = 0
let weights: usize = 0
let walls: usize = 0
let hot: usize = 0
/** Neighbours of the place that is asked about, those that cost most first. */
let near: usize = 0
/** Rooms, one behind the other. */
export let rooms: usize = 0
export let roomCount: i32 = 0
let gap: f32 = 0
let wallGap: f32 = 0
let wallWeight: f32 = 1

/** The place that is asked about. */
export const probe: usize = heap.alloc(PROBE_BYTES)

export function allocate(bytes: usize): usize {
  return heap.alloc((bytes + 15) & ~15)
}

/** Makes room for at most so many bodies. Gives where they are to be written. */
export function reserve(most: i32): usize {
  stride = ((<usize>most + 3) & ~3) * 4
  bodies = allocate(stride * 11)
  overlaps = allocate((<usize>(most * most)) << 2)
  weights = allocate((<usize>(most * most)) << 2)
  walls = allocate(stride)
  hot = allocate(stride)
  near = allocate(stride)
  return bodies
}

/** Begins anew with so many bodies in so many rooms, all pairs weighed alike. */
export function begin(bodyCount: i32, roomsAt: usize, howMany: i32): void {
  count = bodyCount
  rooms = roomsAt
  roomCount = howMany
  memory.fill(overlaps, 0, (<usize>(count * count)) << 2)
  memory.fill(walls, 0, stride)
  memory.fill(hot, 0, stride)
  for (let k: usize = 0; k < (<usize>(count * count)) << 2; k += 4) store<f32>(weights + k, 1)
}

export function setGaps(between: f32, toWall: f32, weightOfWall: f32): void {
  gap = between
  wallGap = toWall
  wallWeight = weightOfWall
}

/** Added to a whole number it brings that into the number's low bits, below these. */
const WHOLE: f32 = 8388608
const WHOLE_BITS: u32 = 0x4b000000

/** Depth times length of outline (mm²) by which the outline of `a` runs into card of `b`, or nearer to it than `apart`; `cos` to `oy` lead from a's frame to grid steps of b. Stops once over `limit`. */
function runsInto(a: usize, b: usize, cos: f32, sin: f32, ox: f32, oy: f32, apart: f32, limit: f32): f32 {
  const runs = (<usize>load<u32>(a, RUNS)) << 2
  const runsAt = <usize>load<u32>(a, RUNS_AT)
  const pointsAt = <usize>load<u32>(a, POINTS_AT)
  // Whole numbers come with bits above them, which the address takes back.
  const distance = <usize>(load<u32>(b, DISTANCE_AT) - WHOLE_BITS * 2)
  const unit = load<f32>(b, UNIT)
  const inv = load<f32>(b, INV)
  const row = (<usize>load<u32>(b, COLS)) << 1
  const zero = f32x4.splat(0)
  const cosV = f32x4.splat(cos)
  const sinV = f32x4.splat(sin)
  const oxV = f32x4.splat(ox)
  const oyV = f32x4.splat(oy)
  const invV = f32x4.splat(inv)
  const lastXV = f32x4.splat(<f32>(load<i32>(b, COLS) - 1) * <f32>0.999999)
  const lastYV = f32x4.splat(<f32>(load<i32>(b, ROWS) - 1) * <f32>0.999999)
  const colsV = f32x4.splat(<f32>load<i32>(b, COLS))
  const whole = f32x4.splat(WHOLE)
  // Distances are counted in units of their field.
  const apartV = f32x4.splat(apart / unit)
  const perUnit = f32x4.splat(1 / unit)
  const clearV = f32x4.splat((apart + 0.75 / inv) / unit)
  const most = limit / unit
  let sum: f32 = 0
  for (let k: usize = 0; k < runs; k += 16) {
    const x = v128.load(runsAt + k)
    const y = v128.load(runsAt + runs + k)
    const r = v128.load(runsAt + 2 * runs + k)
    const gx = f32x4.add(f32x4.sub(f32x4.mul(cosV, x), f32x4.mul(sinV, y)), oxV)
    const gy = f32x4.add(f32x4.add(f32x4.mul(sinV, x), f32x4.mul(cosV, y)), oyV)
    const steps = f32x4.mul(r, invV)
    const out = v128.or(
      v128.or(f32x4.lt(f32x4.add(gx, steps), zero), f32x4.lt(f32x4.add(gy, steps), zero)),
      v128.or(f32x4.gt(f32x4.sub(gx, steps), lastXV), f32x4.gt(f32x4.sub(gy, steps), lastYV)),
    )
    if (i32x4.bitmask(out) == 15) continue
    const cx = f32x4.pmin(f32x4.pmax(gx, zero), lastXV)
    const cy = f32x4.pmin(f32x4.pmax(gy, zero), lastYV)
    const d = nearestFour(distance, cx, cy, colsV)
    const inGrid = v128.and(f32x4.eq(cx, gx), f32x4.eq(cy, gy))
    const clear = v128.and(inGrid, f32x4.gt(d, f32x4.add(f32x4.mul(r, perUnit), clearV)))
    let enter = ~i32x4.bitmask(v128.or(out, clear)) & 15
    if (enter == 0) continue
    let acc = zero
    do {
      const run = k + ((<usize>ctz(enter)) << 2)
      enter &= enter - 1
      let p = pointsAt + (run << 3)
      for (const end = p + 32; p < end; p += 16) {
        const px = v128.load(p)
        const py = v128.load(p + (runs << 3))
        const hx = f32x4.add(f32x4.sub(f32x4.mul(cosV, px), f32x4.mul(sinV, py)), oxV)
        const hy = f32x4.add(f32x4.add(f32x4.mul(sinV, px), f32x4.mul(cosV, py)), oyV)
        const cx = f32x4.pmin(f32x4.pmax(hx, zero), lastXV)
        const cy = f32x4.pmin(f32x4.pmax(hy, zero), lastYV)
        const inside = v128.and(f32x4.eq(cx, hx), f32x4.eq(cy, hy))
        if (!v128.any_true(inside)) continue
        const fc = f32x4.floor(cx)
        const fr = f32x4.floor(cy)
        const node = i32x4.shl(f32x4.add(f32x4.add(f32x4.mul(fr, colsV), fc), whole), 1)
        const p0 = distance + i32x4.extract_lane(node, 0)
        const p1 = distance + i32x4.extract_lane(node, 1)
        const p2 = distance + i32x4.extract_lane(node, 2)
        const p3 = distance + i32x4.extract_lane(node, 3)
        let up = v128.load32_zero(p0)
        let low = v128.load32_zero(p0 + row)
        up = v128.load32_lane(p1, up, 1)
        low = v128.load32_lane(p1 + row, low, 1)
        up = v128.load32_lane(p2, up, 2)
        low = v128.load32_lane(p2 + row, low, 2)
        up = v128.load32_lane(p3, up, 3)
        low = v128.load32_lane(p3 + row, low, 3)
        const upLeft = f32x4.convert_i32x4_s(i32x4.shr_s(i32x4.shl(up, 16), 16))
        const upRight = f32x4.convert_i32x4_s(i32x4.shr_s(up, 16))
        const lowLeft = f32x4.convert_i32x4_s(i32x4.shr_s(i32x4.shl(low, 16), 16))
        const lowRight = f32x4.convert_i32x4_s(i32x4.shr_s(low, 16))
        const fx = f32x4.sub(cx, fc)
        const upper = f32x4.add(upLeft, f32x4.mul(f32x4.sub(upRight, upLeft), fx))
        const lower = f32x4.add(lowLeft, f32x4.mul(f32x4.sub(lowRight, lowLeft), fx))
        const away = f32x4.add(upper, f32x4.mul(f32x4.sub(lower, upper), f32x4.sub(cy, fr)))
        const depth = v128.and(f32x4.pmax(f32x4.sub(apartV, away), zero), inside)
        acc = f32x4.add(acc, f32x4.mul(depth, v128.load(p + (runs << 4))))
      }
    } while (enter != 0)
    sum += across(acc)
    if (sum > most) return Infinity
  }
  // Where the outline is clear, all of it is.
  if (sum > 0) {
    const poles = <usize>load<u32>(a, POLES_AT)
    const x = v128.load(poles)
    const y = v128.load(poles, 16)
    const gx = f32x4.add(f32x4.sub(f32x4.mul(cosV, x), f32x4.mul(sinV, y)), oxV)
    const gy = f32x4.add(f32x4.add(f32x4.mul(sinV, x), f32x4.mul(cosV, y)), oyV)
    const cx = f32x4.pmin(f32x4.pmax(gx, zero), lastXV)
    const cy = f32x4.pmin(f32x4.pmax(gy, zero), lastYV)
    const inGrid = v128.and(f32x4.eq(cx, gx), f32x4.eq(cy, gy))
    const away = nearestFour(distance, cx, cy, colsV)
    const depth = v128.and(f32x4.pmax(f32x4.sub(apartV, away), zero), inGrid)
    sum += across(f32x4.mul(depth, v128.load(poles, 32)))
  }
  return sum * unit
}

/** The distances (units) at the nodes nearest to four places on a grid; `distance` is where it lies, less twice what whole numbers have above them. */
function nearestFour(distance: usize, x: v128, y: v128, cols: v128): v128 {
  const half = f32x4.splat(0.5)
  const node = f32x4.add(f32x4.mul(f32x4.floor(f32x4.add(y, half)), cols), f32x4.floor(f32x4.add(x, half)))
  const at = i32x4.shl(f32x4.add(node, f32x4.splat(WHOLE)), 1)
  let d = v128.load32_zero(distance + i32x4.extract_lane(at, 0))
  d = v128.load32_lane(distance + i32x4.extract_lane(at, 1), d, 1)
  d = v128.load32_lane(distance + i32x4.extract_lane(at, 2), d, 2)
  d = v128.load32_lane(distance + i32x4.extract_lane(at, 3), d, 3)
  return f32x4.convert_i32x4_s(i32x4.shr_s(i32x4.shl(d, 16), 16))
}

function across(v: v128): f32 {
  return (
    f32x4.extract_lane(v, 0) + f32x4.extract_lane(v, 1) + f32x4.extract_lane(v, 2) + f32x4.extract_lane(v, 3)
  )
}

/** Overlap (mm: the root of depth times outline, times the heft of both) of shape `a` at the probe with shape `b` at a place, nearer than `apart` counting too; Infinity where it is over `limit`. */
function overlapAt(a: usize, b: usize, x: f32, y: f32, cos: f32, sin: f32, apart: f32, limit: f32): f32 {
  const tx = load<f32>(probe, X) - x
  const ty = load<f32>(probe, Y) - y
  const far = load<f32>(a, RADIUS) + load<f32>(b, RADIUS) + apart
  if (tx * tx + ty * ty >= far * far) return 0
  const heft = load<f32>(a, HEFT) * load<f32>(b, HEFT)
  const most = (limit * limit) / (heft * heft)
  const ac = load<f32>(probe, COS)
  const as_ = load<f32>(probe, SIN)
  const c = ac * cos + as_ * sin
  const s = as_ * cos - ac * sin
  const invB = load<f32>(b, INV)
  const one = runsInto(
    a,
    b,
    c * invB,
    s * invB,
    (tx * cos + ty * sin - load<f32>(b, X0)) * invB,
    (ty * cos - tx * sin - load<f32>(b, Y0)) * invB,
    apart,
    most,
  )
  if (one > most) return Infinity
  const invA = load<f32>(a, INV)
  const other = runsInto(
    b,
    a,
    c * invA,
    -s * invA,
    (-tx * ac - ty * as_ - load<f32>(a, X0)) * invA,
    (tx * as_ - ty * ac - load<f32>(a, Y0)) * invA,
    apart,
    most - one,
  )
  return one + other > most ? Infinity : heft * sqrt(one + other)
}

export function shapeOf(i: i32): usize {
  return <usize>load<u32>(bodies + 9 * stride + ((<usize>i) << 2))
}

export function pieceOf(i: i32): usize {
  return <usize>load<u32>(bodies + 10 * stride + ((<usize>i) << 2))
}

function wallsAt(shape: usize, limit: f32): f32 {
  const room = rooms + <usize>load<i32>(probe, ROOM) * ROOM_BYTES
  let at = <usize>load<u32>(room, ROOM_WALLS)
  const end = at + <usize>load<u32>(room, ROOM_WALL_COUNT) * 12
  let sum: f32 = 0
  for (; at < end; at += 12) {
    sum += overlapAt(
      shape,
      <usize>load<u32>(at),
      load<f32>(at, 4),
      load<f32>(at, 8),
      1,
      0,
      wallGap,
      limit - sum,
    )
    if (sum > limit) return sum
  }
  return sum
}

/** Notes the neighbours of the probe whose boxes meet its own; gives how many. `i` is not one of them. */
function gather(i: i32): i32 {
  const minX = f32x4.splat(load<f32>(probe, MIN_X) - gap)
  const maxX = f32x4.splat(load<f32>(probe, MAX_X) + gap)
  const minY = f32x4.splat(load<f32>(probe, MIN_Y) - gap)
  const maxY = f32x4.splat(load<f32>(probe, MAX_Y) + gap)
  const room = i32x4.splat(load<i32>(probe, ROOM))
  let found: i32 = 0
  for (let k: usize = 0; k < stride; k += 16) {
    const meets = v128.and(
      v128.and(
        v128.and(
          f32x4.lt(v128.load(bodies + 4 * stride + k), maxX),
          f32x4.gt(v128.load(bodies + 5 * stride + k), minX),
        ),
        v128.and(
          f32x4.lt(v128.load(bodies + 6 * stride + k), maxY),
          f32x4.gt(v128.load(bodies + 7 * stride + k), minY),
        ),
      ),
      i32x4.eq(v128.load(bodies + 8 * stride + k), room),
    )
    let some = i32x4.bitmask(meets)
    while (some != 0) {
      const j = <i32>(k >> 2) + ctz(some)
      some &= some - 1
      if (j == i) continue
      // Those that cost most first: the sum is over its limit sooner.
      const cost = load<f32>(hot + ((<usize>j) << 2))
      let m = found++
      for (; m > 0; m--) {
        const before = load<i32>(near + ((<usize>(m - 1)) << 2))
        if (load<f32>(hot + ((<usize>before) << 2)) >= cost) break
        store<i32>(near + ((<usize>m) << 2), before)
      }
      store<i32>(near + ((<usize>m) << 2), j)
    }
  }
  return found
}

function overlapWith(shape: usize, j: i32, limit: f32): f32 {
  const at = bodies + ((<usize>j) << 2)
  return overlapAt(
    shape,
    shapeOf(j),
    load<f32>(at),
    load<f32>(at + stride),
    load<f32>(at + 2 * stride),
    load<f32>(at + 3 * stride),
    gap,
    limit,
  )
}

/** Weighted overlap of body i at the probe with all that lies there and the walls; Infinity where it is over `limit`. */
export function loss(i: i32, limit: f32): f32 {
  const shape = shapeOf(i)
  let sum = wallWeight * wallsAt(shape, limit / wallWeight)
  if (sum > limit) return Infinity
  const found = gather(i)
  const row = weights + ((<usize>i * <usize>count) << 2)
  for (let k: i32 = 0; k < found; k++) {
    const j = load<i32>(near + ((<usize>k) << 2))
    const weight = load<f32>(row + ((<usize>j) << 2))
    const part = weight * overlapWith(shape, j, (limit - sum) / weight)
    store<f32>(hot + ((<usize>j) << 2), part)
    sum += part
    if (sum > limit) return Infinity
  }
  return sum
}

/** Measures body i, which lies at the probe, against all others below `under`; of those above it is taken to be clear. */
export function settle(i: i32, under: i32): void {
  const shape = shapeOf(i)
  store<f32>(walls + ((<usize>i) << 2), wallsAt(shape, Infinity))
  for (let j: i32 = 0; j < count; j++) {
    store<f32>(overlaps + ((<usize>(i * count + j)) << 2), 0)
    store<f32>(overlaps + ((<usize>(j * count + i)) << 2), 0)
  }
  const found = gather(i)
  for (let k: i32 = 0; k < found; k++) {
    const j = load<i32>(near + ((<usize>k) << 2))
    if (j >= under) continue
    const overlap = overlapWith(shape, j, Infinity)
    store<f32>(overlaps + ((<usize>(i * count + j)) << 2), overlap)
    store<f32>(overlaps + ((<usize>(j * count + i)) << 2), overlap)
  }
}

/** Weighted overlap of body i as it lies; where it costs is noted for what is asked next. */
export function standing(i: i32): f32 {
  const row = (<usize>(i * count)) << 2
  let sum = wallWeight * load<f32>(walls + ((<usize>i) << 2))
  for (let j: usize = 0; j < (<usize>count) << 2; j += 4) {
    const part = load<f32>(overlaps + row + j) * load<f32>(weights + row + j)
    store<f32>(hot + j, part)
    sum += part
  }
  return sum
}

/** Makes overlaps dearer, the most by most, and forgets slowly what is clear. Gives the sum of all overlaps, mm. */
export function weigh(forget: f32, grow: f32, growMore: f32, most: f32): f32 {
  let largest: f32 = 0
  let total: f32 = 0
  for (let i: i32 = 0; i < count; i++) {
    total += load<f32>(walls + ((<usize>i) << 2))
    for (let j: i32 = 0; j < i; j++) {
      const overlap = load<f32>(overlaps + ((<usize>(i * count + j)) << 2))
      total += overlap
      largest = max(largest, overlap)
    }
  }
  for (let i: i32 = 0; i < count; i++)
    for (let j: i32 = 0; j < i; j++) {
      const at = (<usize>(i * count + j)) << 2
      const overlap = load<f32>(overlaps + at)
      const weight = load<f32>(weights + at)
      const next =
        overlap > 0 ? min(most, weight * (grow + (growMore * overlap) / largest)) : max(1, weight * forget)
      store<f32>(weights + at, next)
      store<f32>(weights + ((<usize>(j * count + i)) << 2), next)
    }
  return total
}
