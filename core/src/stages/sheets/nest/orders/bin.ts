// A sheet or an off-cut as cells that are free or taken.
import {
  boxHeight,
  boxWidth,
  compose,
  mapRegion,
  offset,
  polygonArea,
  rectangle,
  regionArea,
  regionBox,
  regionRings,
  rotation as turn,
  subtract,
  translation,
  type Polygon,
} from '../../../../base/geometry'
import type { OffCutSheet, Placement } from '../instance'
import { SheetGrid } from './grid'
import { makeMask } from './mask'
import { alongAxis, type Axis, type Pose, type Poses } from './poses'

const IDENTITY = [1, 0, 0, 1, 0, 0] as const

/** How bins are cut into cells. */
export interface Grain {
  poses: Poses
  axis: Axis
  /** Length of a cell, mm. */
  cell: number
}

interface Outline {
  w: number
  h: number
  /** From the sheet's corner, mm along the axis that is laid. */
  originX: number
  originY: number
}

interface Spot {
  pose: Pose
  /** Cells. */
  x: number
  y: number
}

/** Slips of less are rounding, mm². */
const SLIP_MM2 = 1e-3

/**
 * Where pieces that are grown may lie, so that they themselves stay the margin away from an off-cut's edge. Grown by more than that they reach
 * beyond the edge, and round off a corner of what is no card; there they could slip past it, so that it is taken as it is.
 */
function roomForGrown(outline: Polygon, margin: number, grow: number): Polygon[] {
  const room = offset([outline], grow - margin)
  if (grow <= margin) return room
  const slips = subtract(offset(room, -grow), offset([outline], -margin))
  return subtract(
    room,
    slips.filter((slip) => polygonArea(slip) > SLIP_MM2),
  )
}

/** A sheet or off-cut with what is laid on it. */
export class Bin {
  private grid: SheetGrid

  private constructor(
    private readonly grain: Grain,
    readonly sheet: number,
    private readonly outline: Outline,
  ) {
    const { w, h } = outline
    const { poses, cell } = grain
    this.grid = new SheetGrid(Math.ceil(w / cell - 1e-9), Math.ceil(h / cell - 1e-9), poses.done)
  }

  static ofSheet(grain: Grain, sheet: number, margin: number): Bin {
    const [w, h] = grain.poses.sizeAlong(grain.axis)
    const origin = margin - grain.poses.grow
    return new Bin(grain, sheet, { w, h, originX: origin, originY: origin })
  }

  /** An off-cut, the cells outside its outline taken; null where the rim leaves nothing of it. */
  static ofOffCut(grain: Grain, { outline, margin }: OffCutSheet, k: number): Bin | null {
    const { poses, axis, cell } = grain
    const inside = mapRegion(alongAxis(axis, IDENTITY), roomForGrown(outline, margin, poses.grow))
    if (inside.length === 0) return null
    const b = regionBox(inside)
    const [w, h] = [boxWidth(b), boxHeight(b)]
    const bin = new Bin(grain, -1 - k, { w, h, originX: b.minX, originY: b.minY })
    // A plain rectangle blocks nothing; its edge would cost a row of cells all round.
    if (regionArea(inside) < w * h - 1) {
      const around = {
        outer: rectangle([0, 0], w, h).outer,
        holes: regionRings(mapRegion(translation(-b.minX, -b.minY), inside)),
      }
      bin.grid.take(makeMask(around, { cell, widthMm: w, heightMm: h }), 0, 0)
    }
    return bin
  }

  get isUntouched(): boolean {
    return this.grid.isUntouched
  }

  /** What it is like now, to go back to. */
  keep(): () => void {
    const grid = this.grid.copy()
    return () => {
      this.grid = grid
    }
  }

  /** Takes the cells of a piece that lies on the sheet already. */
  takePlaced(piece: number, pin: Placement): void {
    const { poses, axis, cell } = this.grain
    const placed = alongAxis(axis, compose(translation(pin.x, pin.y), turn(pin.rotation)))
    const map = compose(translation(-this.outline.originX, -this.outline.originY), placed)
    const b = poses.boxAt(piece, map)
    const [x, y] = [Math.floor(b.minX / cell), Math.floor(b.minY / cell)]
    const mask = poses.maskAt(piece, {
      cell,
      map: compose(translation(-x * cell, -y * cell), map),
      widthMm: b.maxX - x * cell,
      heightMm: b.maxY - y * cell,
    })
    this.grid.take(mask, x, y)
  }

  /** Of several poses the one that can lie lowest, and where; null where none fits. */
  lowest(poses: readonly Pose[]): Spot | null {
    const { w, h } = this.outline
    const { cell } = this.grain
    let best: Spot | null = null
    let least = Infinity
    for (const pose of poses) {
      if (pose.mask.cells > this.grid.free) continue
      const maxX = Math.floor((w - pose.w) / cell + 1e-9)
      // A place so low that its upper edge would pass the best so far is of no use.
      const maxY = Math.floor(
        Math.min(h - pose.h, least === Infinity ? Infinity : least * cell - pose.h) / cell + 1e-9,
      )
      const place = this.grid.findPlace(pose.mask, { maxX, maxY })
      if (place < 0) continue
      const y = Math.floor(place / this.grid.cols)
      const x = place % this.grid.cols
      const reach = y + pose.h / cell + (x / this.grid.cols) * 0.5
      if (reach < least) {
        least = reach
        best = { pose, x, y }
      }
    }
    return best
  }

  /** Lays a piece. Gives where its origin comes to lie, mm from the sheet's corner. */
  take({ pose, x, y }: Spot): { x: number; y: number } {
    const { axis, cell } = this.grain
    this.grid.take(pose.mask, x, y)
    const px = x * cell - pose.offsetX + this.outline.originX
    const py = y * cell - pose.offsetY + this.outline.originY
    return axis === 'rows' ? { x: px, y: py } : { x: py, y: px }
  }
}
