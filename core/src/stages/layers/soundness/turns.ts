// Which wrong ways of laying a layer look right: turns and flips about its middle under which it maps onto itself, or
// nearly so. Where it maps exactly nothing can go wrong; where it nearly does, the eye does not help.
import {
  boxHeight,
  boxWidth,
  compose,
  identity,
  intersect,
  mapPoint,
  mapRegion,
  regionArea,
  regionBox,
  regionCentroid,
  rotation,
  simplify,
  translation,
  union,
  type Affine,
  type Point,
  type Region,
} from '../../../base/geometry'

/** A wrong way of laying a layer that looks right. */
export interface Turn {
  /** Degrees clockwise on screen, after the flip where there is one. */
  turnDeg: number
  flipped: boolean
  /** Area that does not match, both ways, as a share of the layer's. */
  difference: number
  /** The same card to within what a blade holds: laying it so is no mistake. */
  exact: boolean
}

/** Difference under which a maker sees no difference at all, and under which it is easily missed. */
const EXACT = 0.004
const NEARLY = 0.06
/** Finer than the eye sees and a blade holds. */
const DETAIL_MM = 0.05
const ORDERS = [2, 3, 4, 5, 6, 7, 8, 9, 10, 12, 14, 15, 16, 18, 20, 24]

/** Turns and flips, other than leaving it as it is, under which a layer looks right. Needs the geometry loaded. */
export function turnRisks(layer: Region): Turn[] {
  const likeness = new Likeness(simplify(union(layer), DETAIL_MM))
  if (likeness.area === 0) return []
  const { order, exact } = symmetryOf(likeness)
  return [
    ...turnsBy(likeness, { steps: order, flipped: false, exact }),
    ...turnsBy(likeness, { steps: Math.max(order, 2), flipped: true, exact }),
  ]
}

/** How like itself a layer is when it is turned about the middle of its box. */
class Likeness {
  readonly area: number
  /** As wide as high: otherwise it fits its own box by half a turn alone. */
  readonly square: boolean
  private readonly middle: Point
  private readonly mass: Point
  private readonly reach: number

  constructor(private readonly region: Region) {
    this.area = regionArea(region)
    const box = regionBox(region)
    const [w, h] = [boxWidth(box), boxHeight(box)]
    this.square = Math.abs(w / h - 1) < 0.03
    this.middle = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 }
    this.mass = regionCentroid(region)
    this.reach = (NEARLY * Math.max(w, h)) / 2
  }

  /** Area that does not match after a turn (degrees) and a flip before it, both ways, as a share; infinite where it is far off. */
  difference(turnDeg: number, flipped: boolean): number {
    const { x, y } = this.middle
    const turn = compose(rotation(turnDeg), flipped ? FLIP : identity)
    const map = compose(translation(x, y), compose(turn, translation(-x, -y)))
    // Where nearly all matches, the centre of mass hardly moves: most turns are ruled out by that alone.
    const moved = mapPoint(map, this.mass.x, this.mass.y)
    if (Math.hypot(moved[0] - this.mass.x, moved[1] - this.mass.y) > this.reach) return Infinity
    // Both have the same area, so what is in one alone is twice what they do not have in common.
    const common = regionArea(intersect(this.region, mapRegion(map, this.region)))
    return Math.max(0, 2 * (1 - common / this.area))
  }

  /** A way of laying that looks right; null where the eye would notice. */
  turn(turnDeg: number, flipped: boolean): Turn | null {
    const difference = this.difference(turnDeg, flipped)
    return difference < NEARLY ? { turnDeg, flipped, difference, exact: difference < EXACT } : null
  }
}

const FLIP: Affine = [-1, 0, 0, 1, 0, 0]

/** The most turns to a circle of which one looks right, and whether that one is exact. */
function symmetryOf(likeness: Likeness): { order: number; exact: boolean } {
  for (const order of likeness.square ? ORDERS.toReversed() : [2]) {
    const difference = likeness.difference(360 / order, false)
    if (difference < NEARLY) return { order, exact: difference < EXACT }
  }
  return { order: 1, exact: false }
}

interface Steps {
  /** To a circle. */
  steps: number
  flipped: boolean
  /** The step itself maps the layer exactly: what holds of one turn then holds of all. */
  exact: boolean
}

/** The turns by steps of a circle that look right, all flipped or none. */
function turnsBy(likeness: Likeness, { steps, flipped, exact }: Steps): Turn[] {
  const from = flipped ? 0 : 1
  const first = from < steps ? likeness.turn((from * 360) / steps, flipped) : null
  const rest = Array.from({ length: Math.max(0, steps - from - 1) }, (_, k) => ((from + 1 + k) * 360) / steps)
  if (exact) return first ? [first, ...rest.map((turnDeg) => ({ ...first, turnDeg }))] : []
  const others = rest.map((turnDeg) => likeness.turn(turnDeg, flipped))
  return [first, ...others].filter((turn) => turn !== null)
}
