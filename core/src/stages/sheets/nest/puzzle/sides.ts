// Pieces as they were cut from one sheet: outlines grown by half the gap, parted at their corners into sides. Two pieces that lay beside
// each other have a side in common, that of one read backwards.
import {
  offset,
  polygonArea,
  reversed,
  ringBox,
  signedArea,
  simplify,
  type Box,
  type Polygon,
  type Ring,
} from '../../../../base/geometry'

/** A stretch of outline between two corners; ends about the piece's origin, mm, card on the left of the way. */
export interface Side {
  x1: number
  y1: number
  x2: number
  y2: number
  /** Of the straight way from end to end, mm. */
  length: number
  /** How far the outline lies out of the card beside that way, mm, at even shares of the outline's length. */
  bulge: Float64Array
}

/** An outline with its corners and sides. */
export interface Sided {
  /** About the origin of the piece, mm; card on the left of the way. */
  outline: Ring
  sides: readonly Side[]
  /** Where each side begins: the number of that point of the outline. */
  corners: readonly number[]
  /** The angle of card at the corner where each side begins, degrees. */
  angles: readonly number[]
}

/** A piece that may be part of a puzzle. */
export interface Part extends Sided {
  /** Outlines well inside, and points along them: what of another piece reaches in here lies on this one. */
  core: Ring
  coreBox: Box
  within: Ring
  /** A circle round the outline, mm. */
  round: { x: number; y: number; mm: number }
  /** Lengths of all sides together, mm. */
  around: number
}

/** How corners are told: where an outline turns by so many degrees within so many mm on both sides. */
export interface Corners {
  deg: number
  reachMm: number
}

/** Of small outlines it is this share of their length. */
const REACH_SHARE = 1 / 50
/** Tips may be so many times as long as half the gap: those of corners down to 12 degrees. */
const MITRE_LIMIT = 10
/** Outlines are read to so many mm. */
const PLAIN_MM = 0.05
/** What lies well inside need be told to so many mm only. */
const ROUGH_MM = 0.1
/** Places along a side where its bulge is read. */
export const PLACES = 7
/** Points along outlines lie about so far from each other, mm. */
const POINTS_MM = 8

/** A piece's outline as it was before half the gap was taken off all round, holes filled; null where there is none. Needs the geometry loaded. */
export function grownOutline(shape: Polygon, gap: number): Ring | null {
  const [grown] = offset(simplify([{ outer: shape.outer, holes: [] }], PLAIN_MM), gap / 2, MITRE_LIMIT)
  if (!grown) return null
  return signedArea(grown.outer) < 0 ? reversed(grown.outer) : grown.outer
}

/** An outline parted at its corners; null where it has fewer than three. */
export function sidesOf(outline: Ring, told: Corners): Sided | null {
  const walk = new Walk(outline)
  const corners = cornersOf(walk, told)
  if (corners.length < 3) return null
  return {
    outline,
    sides: corners.map(({ at }, k) => sideOf(walk, at, corners[(k + 1) % corners.length]!.at)),
    corners: corners.map(({ point }) => point),
    angles: corners.map(({ deg }) => 180 - deg),
  }
}

/** What else is asked of a piece: its own is what lies so far in from its edge, mm. Needs the geometry loaded. */
export function partOf(sided: Sided, depthMm: number): Part {
  const cores = offset(simplify([{ outer: sided.outline, holes: [] }], ROUGH_MM), -depthMm)
  const [core] = cores.toSorted((a, b) => polygonArea(b) - polygonArea(a))
  const inner = core?.outer ?? new Float64Array()
  return {
    ...sided,
    core: inner,
    coreBox: ringBox(inner),
    within: pointsAlong(inner),
    round: circleRound(sided.outline),
    around: sided.sides.reduce((sum, { length }) => sum + length, 0),
  }
}

/** A closed outline by the way along it, mm. */
class Walk {
  readonly count: number
  readonly total: number
  /** The way to each point. */
  readonly ways: Float64Array

  constructor(readonly ring: Ring) {
    this.count = ring.length / 2
    this.ways = new Float64Array(this.count + 1)
    for (let i = 0; i < this.count; i++) {
      const k = (i + 1) % this.count
      this.ways[i + 1] =
        this.ways[i]! + Math.hypot(ring[k * 2]! - ring[i * 2]!, ring[k * 2 + 1]! - ring[i * 2 + 1]!)
    }
    this.total = this.ways[this.count]!
  }

  /** The point after so much of the way. */
  at(way: number): [number, number] {
    const { ring, ways, count, total } = this
    const along = ((way % total) + total) % total
    let [low, high] = [0, count]
    while (high - low > 1) {
      const middle = (low + high) >> 1
      if (ways[middle]! <= along) low = middle
      else high = middle
    }
    const k = (low + 1) % count
    const t = (along - ways[low]!) / (ways[low + 1]! - ways[low]! || 1)
    return [
      ring[low * 2]! + t * (ring[k * 2]! - ring[low * 2]!),
      ring[low * 2 + 1]! + t * (ring[k * 2 + 1]! - ring[low * 2 + 1]!),
    ]
  }
}

/** A corner of an outline: the number of its point, the way to it, and by how much it turns there (degrees, to the left positive). */
interface Corner {
  point: number
  at: number
  deg: number
}

/** Corners in the order of the outline. */
function cornersOf(walk: Walk, told: Corners): Corner[] {
  const reach = Math.min(told.reachMm, walk.total * REACH_SHARE)
  const turns = Array.from({ length: walk.count }, (_, point): Corner => {
    const at = walk.ways[point]!
    // Bent sides turn by themselves within that reach, half of it within half the reach: what is left is the corner's.
    return { point, at, deg: 2 * turnAt(walk, at, reach / 2) - turnAt(walk, at, reach) }
  }).filter(({ deg }) => Math.abs(deg) >= told.deg)
  const apart = (a: number, b: number) => Math.min(Math.abs(a - b), walk.total - Math.abs(a - b))
  const corners: Corner[] = []
  for (const turn of turns.toSorted((a, b) => Math.abs(b.deg) - Math.abs(a.deg)))
    if (corners.every(({ at }) => apart(at, turn.at) > reach)) corners.push(turn)
  return corners.sort((a, b) => a.at - b.at)
}

/** By how much the way from a point so far before to one so far behind turns between them, degrees, to the left positive. */
function turnAt(walk: Walk, at: number, reach: number): number {
  const [[ax, ay], [x, y], [bx, by]] = [walk.at(at - reach), walk.at(at), walk.at(at + reach)]
  const [ux, uy, vx, vy] = [x - ax, y - ay, bx - x, by - y]
  return (Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy) * 180) / Math.PI
}

function sideOf(walk: Walk, from: number, to: number): Side {
  const way = to > from ? to - from : to - from + walk.total
  const [[x1, y1], [x2, y2]] = [walk.at(from), walk.at(to)]
  const length = Math.hypot(x2 - x1, y2 - y1)
  const [nx, ny] = [(y2 - y1) / (length || 1), (x1 - x2) / (length || 1)]
  const bulge = Float64Array.from({ length: PLACES }, (_, k) => {
    const [x, y] = walk.at(from + (way * (k + 1)) / (PLACES + 1))
    return (x - x1) * nx + (y - y1) * ny
  })
  return { x1, y1, x2, y2, length, bulge }
}

/** A circle about the middle of an outline's box. */
function circleRound(ring: Ring): Part['round'] {
  const { minX, minY, maxX, maxY } = ringBox(ring)
  const [x, y] = [(minX + maxX) / 2, (minY + maxY) / 2]
  let mm = 0
  for (let i = 0; i < ring.length; i += 2) mm = Math.max(mm, Math.hypot(ring[i]! - x, ring[i + 1]! - y))
  return { x, y, mm }
}

function pointsAlong(ring: Ring): Ring {
  if (ring.length < 6) return ring
  const walk = new Walk(ring)
  const count = Math.max(8, Math.round(walk.total / POINTS_MM))
  return Float64Array.from(Array.from({ length: count }, (_, k) => walk.at((walk.total * k) / count)).flat())
}

/** How unlike two sides are that would lie against each other, mm: by length, and by how one bulges where the other gives way. */
export function misfit(a: Side, b: Side): { lengthMm: number; bulgeMm: number } {
  let squares = 0
  for (let k = 0; k < PLACES; k++) squares += (a.bulge[k]! + b.bulge[PLACES - 1 - k]!) ** 2
  return { lengthMm: Math.abs(a.length - b.length), bulgeMm: Math.sqrt(squares / PLACES) }
}

/** Whether a side is straight to so many mm. */
export const isStraight = ({ bulge }: Side, withinMm: number): boolean =>
  bulge.every((mm) => Math.abs(mm) <= withinMm)
