// The turns of a piece that fit on a sheet, as masks of cells.
import {
  boxHeight,
  boxWidth,
  compose,
  growBox,
  mapPolygon,
  offset,
  polygonArea,
  polygonBox,
  rotation as turn,
  translation,
  type Affine,
  type Polygon,
} from '../../../../base/geometry'
import type { NestInstance, NestPiece } from '../instance'
import { FREE_TURNS, turnsOf } from '../orientations'
import { makeMask, type Mask } from './mask'

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
  mask: Mask
  /** Size of the grown, turned shape and where its box starts relative to the piece's origin. */
  w: number
  h: number
  offsetX: number
  offsetY: number
}

/** Poses of all pieces of an instance, made when they are asked for. */
export class Poses {
  /** Pieces grown by half the gap. */
  readonly grown: readonly Polygon[]
  readonly grownAreas: readonly number[]
  /** How far every piece is grown: half the gap and a hair more. */
  readonly grow: number
  /** The sheet's cuttable area, grown likewise. */
  readonly sheetW: number
  readonly sheetH: number
  /** Poses tried of each piece. */
  each = Infinity
  private readonly known = new Map<string, Pose[]>()
  private readonly turnLists: (readonly number[])[] = []

  constructor(private readonly instance: NestInstance) {
    const { sheet, gap, pieces } = instance
    this.grow = gap / 2 + CLEARANCE_MM
    this.sheetW = sheet.w - 2 * sheet.margin + 2 * this.grow
    this.sheetH = sheet.h - 2 * sheet.margin + 2 * this.grow
    this.grown = pieces.map((piece) => grownShape(piece.shape, this.grow))
    this.grownAreas = this.grown.map(polygonArea)
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
        const moved = mapPolygon(translation(-b.minX, -b.minY), mapPolygon(map, this.grown[piece]!))
        const mask = makeMask(moved, this.cellOf(level), { widthMm: w, heightMm: h })
        return { rotation, mask, w, h, offsetX: b.minX, offsetY: b.minY }
      })
    this.known.set(key, list)
    return list
  }

  /** The turns of a piece that fit on a whole sheet at all, each with its map and the box of what it takes. */
  turnsThatFit(piece: number, axis: Axis) {
    const [sheetW, sheetH] = this.sizeAlong(axis)
    return (this.turnLists[piece] ??= rasterTurns(this.instance.pieces[piece]!)).flatMap((deg) => {
      const map = alongAxis(axis, turn(deg))
      // The rim is kept by the piece itself: its grown outline is rounded by chords, which lie a little inside.
      const b = growBox(polygonBox(mapPolygon(map, this.instance.pieces[piece]!.shape)), this.grow)
      return boxWidth(b) > sheetW + 1e-6 || boxHeight(b) > sheetH + 1e-6 ? [] : [{ rotation: deg, map, b }]
    })
  }
}

/** A piece grown by half the gap, holes shrunk likewise; holes too small for anything are closed. */
function grownShape(shape: Polygon, by: number): Polygon {
  const grown = offset([shape], by)
  // Growing one connected face gives one face.
  return grown.toSorted((a, b) => polygonArea(b) - polygonArea(a))[0] ?? shape
}

/** Every turn costs a mask and a search: of the turns evenly round every second does, and the straight ones come first. */
function rasterTurns(piece: NestPiece): readonly number[] {
  const all = turnsOf(piece)
  if (piece.turns !== 'free') return all
  const straight = all.length - FREE_TURNS
  return [...all.slice(0, Math.min(straight, 8)), ...all.slice(straight).filter((_, i) => i % 2 === 0)]
}
