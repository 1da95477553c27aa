// The pieces of an instance as they slide: with no more corners than they need.
import { cornersOf, simplify, type Polygon } from '../../../../base/geometry'
import type { NestInstance, NestPiece } from '../instance'
import { turnsOf } from '../orientations'

/** Kept beyond the gap, against rounding, mm. */
const HAIR_MM = 0.002
/** An outline that is made plainer moves by so much at most, mm. */
const PLAIN_MM = 0.012
/** Outlines of more corners than this are made plainer. */
const MANY_CORNERS = 120

const isIntricate = (shape: Polygon): boolean => cornersOf(shape) > MANY_CORNERS

/** Plain outlines and turns of pieces, each told once: tidying asks for them with every slide and fall. */
export class PlainPieces {
  /** What must lie between two of them, mm. */
  readonly gap: number
  private readonly byId: ReadonlyMap<string, NestPiece>
  private readonly shapes = new Map<string, Polygon>()
  private readonly turnLists = new Map<string, readonly number[]>()

  constructor(readonly instance: NestInstance) {
    const { gap, pieces } = instance
    this.gap = gap + HAIR_MM + (pieces.some(({ shape }) => isIntricate(shape)) ? 2 * PLAIN_MM : 0)
    this.byId = new Map(pieces.map((piece) => [piece.id, piece]))
  }

  /** The outline of a piece. */
  shape(id: string): Polygon {
    let shape = this.shapes.get(id)
    if (!shape) {
      const own = this.byId.get(id)!.shape
      shape = isIntricate(own) ? (simplify([own], PLAIN_MM)[0] ?? own) : own
      this.shapes.set(id, shape)
    }
    return shape
  }

  /** The turns that a piece may take, in degrees. */
  turns(id: string): readonly number[] {
    let turns = this.turnLists.get(id)
    if (!turns) this.turnLists.set(id, (turns = turnsOf(this.byId.get(id)!)))
    return turns
  }
}
