// The pieces of an instance as they slide: with no more corners than they need.
import {
  compose,
  convexHull,
  cornersOf,
  mapPolygon,
  mapRing,
  polygonBox,
  ringBox,
  rotation,
  simplify,
  translation,
  type Box,
  type Polygon,
  type Ring,
} from '../../../../base/geometry'
import type { NestInstance, NestPiece, Placement } from '../instance'
import { turnsOf } from '../orientations'
import type { Placed } from './slide'

/** Kept beyond the gap, against rounding, mm. */
const HAIR_MM = 0.002
/** An outline that is made plainer moves by so much at most, mm. */
const PLAIN_MM = 0.012
/** Outlines of more corners than this are made plainer. */
const MANY_CORNERS = 120

/** A piece where it lies: its plain outline, with the box of that, and the box that the piece itself takes. */
export interface PlainPiece extends Placed {
  takes: Box
}

const isIntricate = (shape: Polygon): boolean => cornersOf(shape) > MANY_CORNERS

/** Plain outlines and turns of pieces, each told once: tidying asks for them with every slide and fall. */
export class PlainPieces {
  /** What must lie between two of them, mm. */
  readonly gap: number
  private readonly byId: ReadonlyMap<string, NestPiece>
  private readonly shapes = new Map<string, Polygon>()
  private readonly hulls = new Map<string, Ring>()
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

  /** A piece where it lies. */
  laid({ id, x, y, rotation: turn }: Pick<Placement, 'id' | 'x' | 'y' | 'rotation'>): PlainPiece {
    const place = compose(translation(x, y), rotation(turn))
    const shape = mapPolygon(place, this.shape(id))
    const box = polygonBox(shape)
    const own = this.byId.get(id)!.shape
    if (!isIntricate(own)) return { shape, box, takes: box }
    let hull = this.hulls.get(id)
    if (!hull) this.hulls.set(id, (hull = convexHull(own.outer)))
    return { shape, box, takes: ringBox(mapRing(place, hull)) }
  }

  /** The turns that a piece may take, in degrees. */
  turns(id: string): readonly number[] {
    let turns = this.turnLists.get(id)
    if (!turns) this.turnLists.set(id, (turns = turnsOf(this.byId.get(id)!)))
    return turns
  }
}
