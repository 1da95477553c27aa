// Which pieces are copies of one shape, be it drawn turned or elsewhere.
import {
  cornersOf,
  farthestFromFirst,
  mapPoint,
  polygonRings,
  rotation,
  type Polygon,
} from '../../../../base/geometry'
import type { NestPiece, Turns } from '../instance'

/** Corners of outlines that are the same lie no farther apart, mm. */
const MOST_STRAY_MM = 0.005

/** A copy of a kind: its own outline is that of the kind turned about the origin (degrees), then moved (mm). */
export interface Alike {
  id: string
  copy: number
  turn: number
  x: number
  y: number
}

/** Copies of one shape that may be turned alike. */
export interface Kind {
  shape: Polygon
  turns: Turns
  copies: Alike[]
  /** Farthest that any outline strays from the shape, mm. */
  strayMm: number
}

/** A motion, and how far corners are off then, mm. */
interface Motion {
  turn: number
  x: number
  y: number
  strayMm: number
}

const UNMOVED: Motion = { turn: 0, x: 0, y: 0, strayMm: 0 }

/** All copies by kind, in the order of the pieces. */
export function kindsOf(pieces: readonly NestPiece[]): Kind[] {
  const byCorners = new Map<string, Kind[]>()
  for (const piece of pieces) {
    const key = `${piece.turns} ${piece.shape.holes.length} ${cornersOf(piece.shape)}`
    const kinds = byCorners.get(key) ?? []
    byCorners.set(key, kinds)
    const [kind, { strayMm, ...motion }] = kindOf(piece, kinds) ?? [newKind(piece, kinds), UNMOVED]
    kind.strayMm = Math.max(kind.strayMm, strayMm)
    for (let copy = 0; copy < piece.qty; copy++) kind.copies.push({ id: piece.id, copy, ...motion })
  }
  return [...byCorners.values()].flat()
}

function kindOf(piece: NestPiece, kinds: readonly Kind[]): [Kind, Motion] | null {
  for (const kind of kinds) {
    const motion = motionTo(kind.shape, piece)
    if (motion) return [kind, motion]
  }
  return null
}

function newKind({ shape, turns }: NestPiece, kinds: Kind[]): Kind {
  const kind: Kind = { shape, turns, copies: [], strayMm: 0 }
  kinds.push(kind)
  return kind
}

/** The motion that takes a shape to a piece's, corner by corner; null where there is none that the piece may make. */
function motionTo(from: Polygon, { shape: to, turns }: NestPiece): Motion | null {
  const [a, b] = [from.outer, to.outer]
  if (a.length !== b.length) return null
  const far = farthestFromFirst(a)
  const angle = (ring: Float64Array) => Math.atan2(ring[far + 1]! - ring[1]!, ring[far]! - ring[0]!)
  const turn = turns === 'free' ? ((angle(b) - angle(a)) * 180) / Math.PI : 0
  const map = rotation(turn)
  const [firstX, firstY] = mapPoint(map, a[0]!, a[1]!)
  const [x, y] = [b[0]! - firstX, b[1]! - firstY]
  const [rings, others] = [polygonRings(from), polygonRings(to)]
  let strayMm = 0
  for (const [k, ring] of rings.entries()) {
    const other = others[k]
    if (other?.length !== ring.length) return null
    for (let i = 0; i < ring.length; i += 2) {
      const [px, py] = mapPoint(map, ring[i]!, ring[i + 1]!)
      strayMm = Math.max(strayMm, Math.hypot(px + x - other[i]!, py + y - other[i + 1]!))
      if (strayMm > MOST_STRAY_MM) return null
    }
  }
  return { turn, x, y, strayMm }
}
