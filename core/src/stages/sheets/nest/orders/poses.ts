// The turns of a piece that fit on a sheet, as masks of cells.
import {
  boxHeight,
  boxWidth,
  compose,
  convexHull,
  cornersOf,
  growBox,
  mapRing,
  ringBox,
  rotation as turn,
  translation,
  turnWithin,
  type Affine,
  type Box,
  type Ring,
} from '../../../../base/geometry'
import type { NestInstance, NestPiece } from '../instance'
import { FREE_TURNS, turnsOf } from '../orientations'
import { makeMask, type Drawing, type Mask } from './mask'

/**
 * Cells along the longer side of a sheet. Orders are searched on the coarse grid, which is some ten times quicker; what
 * promises well there is laid once more on the fine one, where pieces come closer.
 */
const CELLS = { coarse: 360, fine: 1240 } as const
/** How fine the cells are. */
export type Level = keyof typeof CELLS

/** Lays the short side or the long side of the sheet full first: for `columns` the world is mirrored along its diagonal. */
export type Axis = 'rows' | 'columns'

/** A map in the world of an axis. */
export const alongAxis = (axis: Axis, map: Affine): Affine =>
  axis === 'rows' ? map : compose([0, 1, 1, 0, 0, 0], map)

/** Kept of the gap beyond what was asked for, mm. */
const CLEARANCE_MM = 0.006

/** A piece at one of its turns, as cells. */
export interface Pose {
  rotation: number
  /** Drawn when it is looked at first. */
  readonly mask: Mask
  /** Size of the grown, turned shape and where its box starts relative to the piece's origin. */
  w: number
  h: number
  offsetX: number
  offsetY: number
}

/** A turn of a piece with its map, and the box of what it takes, grown. */
interface Turned {
  rotation: number
  map: Affine
  b: Box
}

/** Poses of all pieces of an instance, made when they are asked for. */
export class Poses {
  /** How far every piece is grown: half the gap and a hair more. */
  readonly grow: number
  /** The sheet's cuttable area, grown likewise. */
  readonly sheetW: number
  readonly sheetH: number
  /** Poses tried of each piece. */
  each = Infinity
  /** What was done since it was last asked: looks at runs of cells, corners drawn times the rows that each takes, and cells of masks. */
  readonly done = { looks: 0, drawn: 0, cells: 0 }
  private readonly known = new Map<string, Pose[]>()
  private readonly turnLists: (readonly number[])[] = []
  /** The corners of pieces that their boxes follow from, at any turn. */
  private readonly hulls: Ring[] = []
  private readonly fitting: Record<Axis, (readonly Turned[])[]> = { rows: [], columns: [] }

  constructor(private readonly instance: NestInstance) {
    const { sheet, gap } = instance
    this.grow = gap / 2 + CLEARANCE_MM
    this.sheetW = sheet.w - 2 * sheet.margin + 2 * this.grow
    this.sheetH = sheet.h - 2 * sheet.margin + 2 * this.grow
  }

  /** Length of a cell, mm. */
  cellOf(level: Level): number {
    return Math.max(this.instance.sheet.w, this.instance.sheet.h) / CELLS[level]
  }

  /** Width and height of a whole sheet as it is laid along an axis. */
  sizeAlong(axis: Axis): [number, number] {
    return axis === 'rows' ? [this.sheetW, this.sheetH] : [this.sheetH, this.sheetW]
  }

  /** The poses of a piece that fit on a whole sheet, the most promising first. */
  of(piece: number, axis: Axis, level: Level): Pose[] {
    const key = `${piece} ${axis} ${level} ${this.each}`
    let list = this.known.get(key)
    if (list) return list
    list = this.turnsThatFit(piece, axis)
      .slice(0, this.each)
      .map(({ rotation, map, b }) => {
        const [w, h] = [boxWidth(b), boxHeight(b)]
        let mask: Mask | null = null
        const draw = () =>
          this.maskAt(piece, {
            cell: this.cellOf(level),
            map: compose(translation(-b.minX, -b.minY), map),
            widthMm: w,
            heightMm: h,
          })
        return {
          rotation,
          get mask() {
            return (mask ??= draw())
          },
          w,
          h,
          offsetX: b.minX,
          offsetY: b.minY,
        }
      })
    this.known.set(key, list)
    return list
  }

  /** The turns of a piece that fit on a whole sheet at all, each with its map and the box of what it takes. */
  turnsThatFit(piece: number, axis: Axis): readonly Turned[] {
    const known = this.fitting[axis]
    return (known[piece] ??= this.turned(piece, axis))
  }

  private turned(piece: number, axis: Axis): Turned[] {
    const [sheetW, sheetH] = this.sizeAlong(axis)
    const fit = (degrees: readonly number[]) =>
      degrees.flatMap((deg): Turned[] => {
        const map = alongAxis(axis, turn(deg))
        const b = this.boxAt(piece, map)
        return boxWidth(b) > sheetW + 1e-6 || boxHeight(b) > sheetH + 1e-6 ? [] : [{ rotation: deg, map, b }]
      })
    const hull = this.hullOf(piece)
    const usual = fit((this.turnLists[piece] ??= rasterTurns(this.instance.pieces[piece]!, hull)))
    if (usual.length > 0 || this.instance.pieces[piece]!.turns !== 'free') return usual
    const across = turnWithin(hull, this.sheetW - 2 * this.grow, this.sheetH - 2 * this.grow)
    return across === null ? [] : fit([across, across + 180])
  }

  private hullOf(piece: number): Ring {
    return (this.hulls[piece] ??= convexHull(this.instance.pieces[piece]!.shape.outer))
  }

  /** The box of a piece, grown, where a map puts it. */
  boxAt(piece: number, map: Affine): Box {
    return growBox(ringBox(mapRing(map, this.hullOf(piece))), this.grow)
  }

  /** The cells of a piece, grown, where a map puts it. */
  maskAt(piece: number, drawing: Omit<Drawing, 'grow'>): Mask {
    const { shape } = this.instance.pieces[piece]!
    this.done.drawn += cornersOf(shape) * (2 + (2 * this.grow) / drawing.cell)
    this.done.cells += (drawing.widthMm * drawing.heightMm) / drawing.cell ** 2
    return makeMask(shape, { ...drawing, grow: this.grow })
  }
}

/** Every turn costs a mask and a search: of the turns evenly round every second does, and the straight ones come first. */
function rasterTurns(piece: NestPiece, hull: Ring): readonly number[] {
  const all = turnsOf(piece, hull)
  if (piece.turns !== 'free') return all
  const straight = all.length - FREE_TURNS
  return [...all.slice(0, Math.min(straight, 8)), ...all.slice(straight).filter((_, i) => i % 2 === 0)]
}
