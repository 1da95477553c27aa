// Parts that one cut parted go together again: two that have a whole side in common, with the outline going straight on at both of its ends,
// are a larger part, and so on. What was cut in two again and again is put together in this way, whichever way the cuts ran and bent;
// bricks too, course by course. Pairs that are most alike go first.
import {
  boxHeight,
  boxWidth,
  convexHull,
  mapRing,
  ringBox,
  signedArea,
  type Ring,
} from '../../../../base/geometry'
import type { Turns } from '../instance'
import type { Parts } from '../parts'
import { allowed, turn, within, type Pose } from './pose'
import { misfit, sidesOf, type Corners, type Side, type Sided } from './sides'

/** Parts that lie together, in the frame of one of them. */
export interface Joined extends Sided {
  turns: Turns
  members: readonly Pose[]
}

/** A room for grown parts, mm. */
export interface Room {
  w: number
  h: number
}

/** How alike sides must be that are joined. */
export interface Likeness {
  lengthMm: number
  bulgeMm: number
  /** What the angles of card at an end may be off a straight line together. */
  straightDeg: number
  /** Whether sides that are square at all ends are joined: they may be the sheet's own edges. */
  squares: boolean
  corners: Corners
  /** No block may be larger. */
  room: Room
}

/** A side of a block, by numbers. */
interface End {
  block: number
  side: number
}

/** Two sides that may be one, and what speaks against it. */
interface Pair {
  a: End
  b: End
  against: number
}

/** What speaks against a pair that makes a corner at one end: the cut ended in a corner, or close to one. A pair that does so at both is none. */
const CORNER = 10
/** Angles are square to so many degrees. */
const SQUARE_DEG = 3
/** What telling corners takes for each number of an outline, in units of `Parts`. */
const POINT = 2
const LEAST_FREE: Readonly<Record<Turns, number>> = { fixed: 0, quarter: 1, free: 2 }

/** Joins parts until no two go together. */
export class Joining {
  /** By number; null for one that is part of another. */
  private blocks: (Joined | null)[]
  private pairs: Pair[] = []
  private likeness!: Likeness

  /** @param noise what chance has to say against a pair */
  constructor(
    parts: readonly Joined[],
    private readonly noise: () => number,
  ) {
    this.blocks = [...parts]
  }

  /** Joins what goes together by a likeness, of what is left so far. */
  *by(likeness: Likeness): Parts<void> {
    this.likeness = likeness
    this.pairs = []
    const left = this.left()
    this.blocks = []
    for (const block of left) {
      this.add({ ...block, ...sidesOf(block.outline, likeness.corners) })
      yield POINT * block.outline.length
    }
    for (let whole = this.joinNext(); whole; whole = this.joinNext())
      yield POINT * whole.outline.length + this.pairs.length
  }

  /** Joins one more pair; null where there is none. */
  private joinNext(): Joined | null {
    while (this.pairs.length > 0) {
      const pair = this.pairs.reduce((best, one) => (one.against < best.against ? one : best))
      const [one, other] = [pair.a.block, pair.b.block]
      const whole = joined(
        [this.blocks[one]!, pair.a.side],
        [this.blocks[other]!, pair.b.side],
        this.likeness,
      )
      if (!whole) {
        this.pairs = this.pairs.filter((each) => each !== pair)
        continue
      }
      this.pairs = this.pairs.filter(({ a, b }) =>
        [a, b].every(({ block }) => block !== one && block !== other),
      )
      this.blocks[one] = this.blocks[other] = null
      this.add(whole)
      return whole
    }
    return null
  }

  /** The blocks that are part of no other. */
  left(): Joined[] {
    return this.blocks.filter((block) => block !== null)
  }

  /** One more block, with the pairs that it may make with those before it. */
  private add(own: Joined): void {
    const { lengthMm } = this.likeness
    const block = this.blocks.push(own) - 1
    for (let k = 0; k < block; k++) {
      const other = this.blocks[k]
      if (!other) continue
      for (let i = 0; i < own.sides.length; i++)
        for (let j = 0; j < other.sides.length; j++) {
          if (Math.abs(own.sides[i]!.length - other.sides[j]!.length) > lengthMm) continue
          const against = this.against([own, i], [other, j])
          if (against === null) continue
          this.pairs.push({
            a: { block, side: i },
            b: { block: k, side: j },
            against: against + this.noise(),
          })
        }
    }
  }

  /** What speaks against two sides about as long being one; null where they cannot be. */
  private against([one, i]: [Joined, number], [other, j]: [Joined, number]): number | null {
    const { lengthMm, bulgeMm, straightDeg, squares } = this.likeness
    const angles = [one.angles[i]!, one.angles[(i + 1) % one.angles.length]!] as const
    const others = [other.angles[(j + 1) % other.angles.length]!, other.angles[j]!] as const
    let bent = 0
    for (const end of [0, 1] as const) {
      const off = 180 - angles[end] - others[end]
      if (off < -straightDeg) return null
      bent += off > straightDeg ? CORNER : Math.abs(off) / straightDeg
    }
    if (bent >= 2 * CORNER) return null
    if (!squares && [...angles, ...others].every((deg) => Math.abs(deg - 90) < SQUARE_DEG)) return null
    const off = misfit(one.sides[i]!, other.sides[j]!)
    return off.bulgeMm > bulgeMm ? null : bent + off.lengthMm / lengthMm + off.bulgeMm / bulgeMm
  }
}

/** Two blocks as one, along a side of each; null where they may not be turned so, or the whole would be too large. */
function joined(one: [Joined, number], other: [Joined, number], likeness: Likeness): Joined | null {
  // What may turn least keeps its frame.
  if (LEAST_FREE[one[0].turns] > LEAST_FREE[other[0].turns]) return joined(other, one, likeness)
  const [[first, i], [second, j]] = [one, other]
  const [a, b] = [first.sides[i]!, second.sides[j]!]
  const lies = Math.atan2(a.y1 - a.y2, a.x1 - a.x2)
  const deg = allowed(second.turns, ((lies - Math.atan2(b.y2 - b.y1, b.x2 - b.x1)) * 180) / Math.PI)
  if (deg === null) return null
  const turned = turn(deg)
  const { cos, sin } = turned
  const x = (a.x1 + a.x2 - cos * (b.x1 + b.x2) + sin * (b.y1 + b.y2)) / 2
  const y = (a.y1 + a.y2 - sin * (b.x1 + b.x2) - cos * (b.y1 + b.y2)) / 2
  const outline = seamless(
    withoutSide(first, i),
    mapRing([cos, sin, -sin, cos, x, y], withoutSide(second, j)),
  )
  const sided = sidesOf(outline, likeness.corners)
  if (!sided || !straightIn({ ...sided, turns: first.turns }, likeness.room)) return null
  const members = [...first.members, ...second.members.map((member) => within(member, { ...turned, x, y }))]
  return { ...sided, turns: first.turns, members }
}

/** An outline from the end of one of its sides round to where that begins. */
function withoutSide({ outline, corners }: Sided, side: number): Ring {
  const count = outline.length / 2
  const [from, to] = [corners[(side + 1) % corners.length]!, corners[side]!]
  const points = ((to - from + count) % count) + 1
  return Float64Array.from({ length: 2 * points }, (_, k) => outline[(2 * from + k) % outline.length]!)
}

/** Two open lines as one outline; where the one ends the other begins, or half-way between. */
function seamless(one: Ring, other: Ring): Ring {
  const outline = new Float64Array(one.length + other.length - 4)
  outline.set(one.subarray(2))
  outline.set(other.subarray(2), one.length - 2)
  for (const [end, begin, at] of [
    [one, other, one.length - 4],
    [other, one, outline.length - 2],
  ] as const) {
    outline[at] = (end.at(-2)! + begin[0]!) / 2
    outline[at + 1] = (end.at(-1)! + begin[1]!) / 2
  }
  return outline
}

/** Where the parts of a block come to lie in a room, one of its sides straight, and how much it fills of its box; null where it is too large. */
export function laidStraight(block: Joined, room: Room): { poses: Pose[]; filled: number } | null {
  const lies = straightIn(block, room)
  if (!lies) return null
  return {
    poses: block.members.map((member) => within(member, lies)),
    filled: signedArea(block.outline) / (lies.w * lies.h),
  }
}

/** Of the ways a block may lie in a room with one of its sides straight, the one that leaves most for one straight cut; null where there is none. */
function straightIn(
  { turns, sides, outline }: Pick<Joined, 'turns' | 'sides' | 'outline'>,
  room: Room,
): (Omit<Pose, 'part'> & Room) | null {
  const hull = convexHull(outline)
  let best: (Omit<Pose, 'part'> & Room) | null = null
  let least = Infinity
  for (const deg of straightTurns(turns, sides)) {
    const turned = turn(deg)
    const box = ringBox(mapRing([turned.cos, turned.sin, -turned.sin, turned.cos, 0, 0], hull))
    const [w, h] = [boxWidth(box), boxHeight(box)]
    const share = Math.min(w / room.w, h / room.h)
    if (w > room.w || h > room.h || share >= least) continue
    least = share
    best = { ...turned, x: -box.minX, y: -box.minY, w, h }
  }
  return best
}

/** Turns that lay a side straight, as far as a block may turn, degrees. */
function straightTurns(turns: Turns, sides: readonly Side[]): readonly number[] {
  if (turns === 'fixed') return [0]
  if (turns === 'quarter') return [0, 90]
  return sides.flatMap(({ x1, y1, x2, y2 }) => {
    const deg = (-Math.atan2(y2 - y1, x2 - x1) * 180) / Math.PI
    return [deg, deg + 90]
  })
}
