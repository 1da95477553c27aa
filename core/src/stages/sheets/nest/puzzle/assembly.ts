// Puts parts of a puzzle together from a corner of the sheet, part by part, several puzzles at a time (beam search): a part goes where
// its sides meet those of others or the sheet's edge.
import { ringContains } from '../../../../base/geometry'
import type { Turns } from '../instance'
import { allowed, turn, type Pose } from './pose'
import { isStraight, misfit, type Part, type Side } from './sides'

/** A side as it lies, mm. */
interface Edge {
  part: number
  side: number
  x1: number
  y1: number
  x2: number
  y2: number
}

/** A puzzle under way. */
interface State {
  laid: readonly Pose[]
  used: ReadonlySet<number>
  /** Sides that nothing lies against yet. */
  open: readonly Edge[]
  /** Of the sides of all laid parts, what lies against others or the sheet's edge, and all, mm. */
  met: number
  around: number
}

/** What is to be put together. Lengths in mm. */
export interface Puzzle {
  parts: readonly Part[]
  turns: readonly Turns[]
  /** Room for the grown parts. */
  w: number
  h: number
  /** Sides that differ by no more may lie against each other, and ends that lie no farther apart are one. */
  fit: { lengthMm: number; bulgeMm: number; endMm: number }
}

/** Puzzles that are kept from one part to the next, and that may come of each. */
const BEAM = 24
const CHILDREN = 5
/** Of the sides that may lie against one, so many are tried. */
const MATES = 20
/** Of what was put together rightly more than this share lies against something, from so many parts on. */
const SOUND = { share: 0.5, parts: 3 }
/** Corners of the sheet are this square, degrees, and so many are tried. */
const SQUARE_DEG = 2.5
const MOST_CORNERS = 12
/** A side that bulges no more is straight, mm. */
const STRAIGHT_MM = 0.6

/** A side of a part that may lie against another one. */
interface Mate {
  part: number
  side: number
  cost: number
}

/** Puts puzzles together, a few parts at a step. */
export class PuzzleAssembly {
  /** What was done so far, in units of `Parts`: parts that were tried, each beside all sides that were open. */
  work = 0
  private readonly mates: Mate[][][]
  private readonly starts: State[]
  private beam: State[] = []
  private next = new Map<string, State>()

  constructor(private readonly puzzle: Puzzle) {
    this.mates = matesOf(puzzle)
    this.starts = startsOf(puzzle)
  }

  get done(): boolean {
    return this.beam.length === 0 && this.next.size === 0 && this.starts.length === 0
  }

  /** Lays one more part in one of the puzzles under way: all parts where that was the last. */
  step(): readonly Pose[] | null {
    const state = this.beam.shift()
    if (!state) {
      this.beam = [...this.next.values()].sort((a, b) => rank(b) - rank(a)).slice(0, BEAM)
      this.next = new Map()
      if (this.beam.length === 0) {
        const start = this.starts.shift()
        if (start) this.beam = [start]
      }
      return null
    }
    const children = this.childrenOf(state)
    for (const child of children) {
      if (child.laid.length === this.puzzle.parts.length) {
        this.beam = []
        this.next = new Map()
        return child.laid
      }
      const key = [...child.used].sort((a, b) => a - b).join(' ')
      const known = this.next.get(key)
      if (!known || rank(known) < rank(child)) this.next.set(key, child)
    }
    return null
  }

  private childrenOf(state: State): State[] {
    const { puzzle } = this
    const tried = new Set<string>()
    const found: State[] = []
    for (const edge of state.open)
      for (const { part, side } of this.mates[edge.part]![edge.side]!) {
        if (state.used.has(part)) continue
        const pose = poseAgainst(puzzle, edge, { part, side })
        if (!pose) continue
        const key = `${part} ${Math.round(pose.x)} ${Math.round(pose.y)}`
        if (tried.has(key)) continue
        tried.add(key)
        const child = this.withPart(state, pose)
        if (child) found.push(child)
      }
    const isSound = (child: State) => child.laid.length < SOUND.parts || rank(child) > SOUND.share
    return found
      .filter(isSound)
      .sort((a, b) => rank(b) - rank(a))
      .slice(0, CHILDREN)
  }

  /** A puzzle with one more part, settled on all that its sides meet; null where it does not fit. */
  private withPart(state: State, rough: Pose): State | null {
    this.work += state.open.length
    const { puzzle } = this
    if (!this.isInside(rough)) return null
    const meets = this.meetings(state, rough)
    const pose = settled(puzzle, rough, meets)
    const part = puzzle.parts[pose.part]!
    const own = part.sides.map((side, k) => edgeOf(pose, side, k))
    if (!this.isInside(pose)) return null
    if (state.laid.some((other) => this.overlap(pose, other))) return null
    const met = new Set(meets.map(({ own: k }) => k))
    const closed = new Set(meets.flatMap(({ edge }) => (edge ? [edge] : [])))
    let gained = 0
    for (const { own: k, edge } of meets) gained += part.sides[k]!.length * (edge ? 2 : 1)
    return {
      laid: [...state.laid, pose],
      used: new Set([...state.used, pose.part]),
      open: [...state.open.filter((edge) => !closed.has(edge)), ...own.filter((_, k) => !met.has(k))],
      met: state.met + gained,
      around: state.around + part.around,
    }
  }

  /** Whether all corners of a part lie on the sheet. */
  private isInside(pose: Pose): boolean {
    const { parts, w, h, fit } = this.puzzle
    for (const { x1, y1 } of parts[pose.part]!.sides) {
      const x = pose.cos * x1 - pose.sin * y1 + pose.x
      const y = pose.sin * x1 + pose.cos * y1 + pose.y
      if (x < -fit.endMm || y < -fit.endMm || x > w + fit.endMm || y > h + fit.endMm) return false
    }
    return true
  }

  /** What the sides of a part meet: open sides of others, or the sheet's edges at the left and above. */
  private meetings(state: State, pose: Pose): Meeting[] {
    const { puzzle } = this
    const { endMm, lengthMm, bulgeMm } = puzzle.fit
    const meets: Meeting[] = []
    puzzle.parts[pose.part]!.sides.forEach((side, k) => {
      const own = edgeOf(pose, side, k)
      const line = lineOf(own, side, endMm)
      if (line) {
        meets.push({ own: k, edge: null, line })
        return
      }
      const edge = state.open.find(
        (one) =>
          Math.abs(one.x1 - own.x2) <= endMm &&
          Math.hypot(one.x1 - own.x2, one.y1 - own.y2) <= endMm &&
          Math.hypot(one.x2 - own.x1, one.y2 - own.y1) <= endMm,
      )
      if (!edge) return
      const off = misfit(side, puzzle.parts[edge.part]!.sides[edge.side]!)
      if (off.lengthMm <= lengthMm && off.bulgeMm <= bulgeMm) meets.push({ own: k, edge, line: null })
    })
    return meets
  }

  private overlap(a: Pose, b: Pose): boolean {
    const { parts } = this.puzzle
    const [one, other] = [parts[a.part]!.round, parts[b.part]!.round]
    const dx = a.cos * one.x - a.sin * one.y + a.x - (b.cos * other.x - b.sin * other.y + b.x)
    const dy = a.sin * one.x + a.cos * one.y + a.y - (b.sin * other.x + b.cos * other.y + b.y)
    if (dx * dx + dy * dy >= (one.mm + other.mm) ** 2) return false
    return this.reaches(a, b) || this.reaches(b, a)
  }

  /** Whether what lies well inside one part comes to lie well inside another. */
  private reaches(from: Pose, into: Pose): boolean {
    const { parts } = this.puzzle
    const [{ within }, { core, coreBox }] = [parts[from.part]!, parts[into.part]!]
    // The one's points in the other's frame.
    const cos = from.cos * into.cos + from.sin * into.sin
    const sin = from.sin * into.cos - from.cos * into.sin
    const [dx, dy] = [from.x - into.x, from.y - into.y]
    const [x, y] = [dx * into.cos + dy * into.sin, dy * into.cos - dx * into.sin]
    for (let i = 0; i < within.length; i += 2) {
      const [u, v] = [within[i]!, within[i + 1]!]
      const [px, py] = [cos * u - sin * v + x, sin * u + cos * v + y]
      const isNear = px > coreBox.minX && px < coreBox.maxX && py > coreBox.minY && py < coreBox.maxY
      if (isNear && ringContains(core, px, py)) return true
    }
    return false
  }
}

/** A side of a part that lies against an open side, or along the sheet's edge. */
interface Meeting {
  own: number
  edge: Edge | null
  line: 'left' | 'above' | null
}

/** The share of all outlines that lies against something: the greater the better put together. */
const rank = ({ met, around }: State): number => met / around

/** Of each side of each part, the sides that fit it best. */
function matesOf({ parts, fit }: Puzzle): Mate[][][] {
  return parts.map((part, i) =>
    part.sides.map((side) => {
      const mates: Mate[] = []
      parts.forEach((other, j) => {
        if (i === j) return
        other.sides.forEach((its, k) => {
          const { lengthMm, bulgeMm } = misfit(side, its)
          if (lengthMm <= fit.lengthMm && bulgeMm <= fit.bulgeMm)
            mates.push({ part: j, side: k, cost: lengthMm + 2 * bulgeMm })
        })
      })
      return mates.sort((a, b) => a.cost - b.cost).slice(0, MATES)
    }),
  )
}

/** Parts that may lie in the sheet's first corner, the most square ones first. */
function startsOf(puzzle: Puzzle): State[] {
  const corners: { off: number; state: State }[] = []
  puzzle.parts.forEach((part, i) =>
    part.sides.forEach((side, k) => {
      const before = part.sides.at(k - 1)!
      const off = Math.abs(part.angles[k]! - 90)
      if (off > SQUARE_DEG || !isStraight(side, STRAIGHT_MM) || !isStraight(before, STRAIGHT_MM)) return
      // With card on the left the side after the corner goes along x.
      const deg = allowed(
        puzzle.turns[i]!,
        (-Math.atan2(side.y2 - side.y1, side.x2 - side.x1) * 180) / Math.PI,
      )
      if (deg === null) return
      const turned = { part: i, ...turn(deg), x: 0, y: 0 }
      const { x1, y1 } = edgeOf(turned, side, k)
      const pose = { ...turned, x: -x1, y: -y1 }
      const own = part.sides.map((one, s) => edgeOf(pose, one, s))
      if (own.some((edge) => edge.x1 > puzzle.w + puzzle.fit.endMm || edge.y1 > puzzle.h + puzzle.fit.endMm))
        return
      corners.push({
        off,
        state: {
          laid: [pose],
          used: new Set([i]),
          open: own.filter((_, s) => part.sides[s] !== side && part.sides[s] !== before),
          met: side.length + before.length,
          around: part.around,
        },
      })
    }),
  )
  return corners
    .sort((a, b) => a.off - b.off)
    .slice(0, MOST_CORNERS)
    .map(({ state }) => state)
}

const edgeOf = ({ part, cos, sin, x, y }: Pose, { x1, y1, x2, y2 }: Side, side: number): Edge => ({
  part,
  side,
  x1: cos * x1 - sin * y1 + x,
  y1: sin * x1 + cos * y1 + y,
  x2: cos * x2 - sin * y2 + x,
  y2: sin * x2 + cos * y2 + y,
})

/** The sheet's edge that a straight side lies along. */
function lineOf({ x1, y1, x2, y2 }: Edge, side: Side, nearMm: number): 'left' | 'above' | null {
  if (!isStraight(side, STRAIGHT_MM)) return null
  if (Math.abs(y1) <= nearMm && Math.abs(y2) <= nearMm && x2 > x1) return 'above'
  return Math.abs(x1) <= nearMm && Math.abs(x2) <= nearMm && y2 < y1 ? 'left' : null
}

/** A part laid with a side against one that lies, end to end. */
function poseAgainst(
  { parts, turns }: Puzzle,
  edge: Edge,
  { part, side }: Pick<Mate, 'part' | 'side'>,
): Pose | null {
  const own = parts[part]!.sides[side]!
  const lies = Math.atan2(edge.y1 - edge.y2, edge.x1 - edge.x2)
  const deg = allowed(turns[part]!, ((lies - Math.atan2(own.y2 - own.y1, own.x2 - own.x1)) * 180) / Math.PI)
  if (deg === null) return null
  const pose = { part, ...turn(deg), x: 0, y: 0 }
  const { x1, y1, x2, y2 } = edgeOf(pose, own, side)
  return { ...pose, x: (edge.x1 + edge.x2 - x1 - x2) / 2, y: (edge.y1 + edge.y2 - y1 - y2) / 2 }
}

/** A pose moved, and turned where it may be, to lie closest to all that its sides meet (least squares). */
function settled({ parts, turns }: Puzzle, pose: Pose, meets: readonly Meeting[]): Pose {
  if (meets.length === 0) return pose
  const { sides } = parts[pose.part]!
  // Each as the point about the origin of the part, and where it should come to lie.
  const pairs = meets.flatMap(({ own, edge, line }) => {
    const side = sides[own]!
    const at = edgeOf(pose, side, own)
    const to = edge
      ? [edge.x2, edge.y2, edge.x1, edge.y1]
      : line === 'above'
        ? [at.x1, 0, at.x2, 0]
        : [0, at.y1, 0, at.y2]
    return [
      [side.x1, side.y1, to[0]!, to[1]!],
      [side.x2, side.y2, to[2]!, to[3]!],
    ] as const
  })
  const n = pairs.length
  const [px, py, qx, qy] = [0, 1, 2, 3].map((k) => pairs.reduce((sum, pair) => sum + pair[k]!, 0) / n) as [
    number,
    number,
    number,
    number,
  ]
  let { deg, cos, sin } = pose
  if (turns[pose.part] === 'free') {
    let [dot, across] = [0, 0]
    for (const [x, y, u, v] of pairs) {
      dot += (x - px) * (u - qx) + (y - py) * (v - qy)
      across += (x - px) * (v - qy) - (y - py) * (u - qx)
    }
    ;({ deg, cos, sin } = turn((Math.atan2(across, dot) * 180) / Math.PI))
  }
  return { part: pose.part, deg, cos, sin, x: qx - cos * px + sin * py, y: qy - sin * px - cos * py }
}
