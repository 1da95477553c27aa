// The turns a piece may take, in degrees.
import { convexHull, hullWidths, type Ring } from '../../../base/geometry'
import type { NestPiece } from './instance'

/** Evenly round; the last so many of a free piece's turns. */
export const FREE_TURNS = 16
/** Of a free piece this many of its longest edges are laid along the sheet's. */
const LONG_EDGES = 3

/**
 * Fixed and quarter turns as the rule has them; free turns evenly round, with the ones that make the box least or lay a long edge straight.
 * The hull of the piece is made where it is wanted and not given.
 */
export function turnsOf(piece: Pick<NestPiece, 'shape' | 'turns'>, hull?: Ring): readonly number[] {
  if (piece.turns === 'fixed') return [0]
  if (piece.turns === 'quarter') return [0, 90, 180, 270]
  return freeTurns(hull ?? convexHull(piece.shape.outer))
}

/** The turns of a shape that are worth a try where any may be taken, by its hull. */
function freeTurns(hull: Ring): readonly number[] {
  const turns = Array.from({ length: FREE_TURNS }, (_, i) => (i * 360) / FREE_TURNS)
  const extra = new Set<number>()
  for (const deg of [tightTurn(hull), ...straightTurns(hull)])
    for (let q = 0; q < 4; q++) {
      const turn = (deg + q * 90) % 360
      if (![...turns, ...extra].some((t) => Math.abs(t - turn) < 0.01)) extra.add(turn)
    }
  return [...extra, ...turns]
}

/** The whole degree (0 to 89) that makes a hull's box least. */
function tightTurn(hull: Ring): number {
  const widths = hullWidths(hull)
  let least = Infinity
  let tight = 0
  for (let deg = 0; deg < 90; deg++) {
    // As high as it would be wide a quarter turn on.
    const area = widths[deg]! * widths[deg + 90]!
    if (area < least - 1e-6) {
      least = area
      tight = deg
    }
  }
  return tight
}

/** Turns (0 to 90) that lay the longest edges of the hull along the sheet. */
function straightTurns(hull: Ring): number[] {
  const edges = Array.from({ length: hull.length / 2 }, (_, i) => {
    const k = (i * 2 + 2) % hull.length
    const [dx, dy] = [hull[k]! - hull[i * 2]!, hull[k + 1]! - hull[i * 2 + 1]!]
    return { length: Math.hypot(dx, dy), deg: ((((-Math.atan2(dy, dx) * 180) / Math.PI) % 90) + 90) % 90 }
  })
  const long = edges.sort((a, b) => b.length - a.length).slice(0, LONG_EDGES)
  return long.filter((edge) => edge.length > 0.2 * long[0]!.length).map((edge) => edge.deg)
}
