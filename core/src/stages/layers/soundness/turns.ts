// Which wrong ways of laying a layer look right: turns and flips about its middle under which it maps onto itself, or
// nearly so. Where it maps exactly nothing can go wrong; where it nearly does, the eye does not help.
import {
  boxHeight,
  boxWidth,
  compose,
  intersect,
  mapRegion,
  regionArea,
  regionBox,
  regionCentroid,
  rotation,
  simplify,
  translation,
  union,
  type Affine,
  type Region,
} from '../../../base/geometry'

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
  const region = simplify(union(layer), DETAIL_MM)
  const area = regionArea(region)
  if (area === 0) return []
  const b = regionBox(region)
  const middle = { x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 }
  const square = Math.abs(boxWidth(b) / boxHeight(b) - 1) < 0.03
  const about = (map: Affine): Affine =>
    compose(translation(middle.x, middle.y), compose(map, translation(-middle.x, -middle.y)))
  const mass = regionCentroid(region)
  const reach = (NEARLY * Math.max(boxWidth(b), boxHeight(b))) / 2
  const differenceOf = (turnDeg: number, flipped: boolean): number => {
    const map = about(compose(rotation(turnDeg), flipped ? [-1, 0, 0, 1, 0, 0] : [1, 0, 0, 1, 0, 0]))
    // Where nearly all matches, the centre of mass hardly moves: most turns are ruled out by that alone.
    const [mx, my] = [map[0] * mass.x + map[2] * mass.y + map[4], map[1] * mass.x + map[3] * mass.y + map[5]]
    if (Math.hypot(mx - mass.x, my - mass.y) > reach) return Infinity
    const turned = mapRegion(map, region)
    // Both have the same area, so what is in one alone is twice what they do not have in common.
    return Math.max(0, 2 * (1 - regionArea(intersect(region, turned)) / area))
  }
  const found: Turn[] = []
  const note = (turnDeg: number, flipped: boolean) => {
    if (found.some((t) => t.flipped === flipped && Math.abs(t.turnDeg - turnDeg) < 0.01)) return
    const difference = differenceOf(turnDeg, flipped)
    if (difference < NEARLY) found.push({ turnDeg, flipped, difference, exact: difference < EXACT })
  }
  // A turn by less than half a circle needs a box that is as wide as high.
  let order = 1
  let least = Infinity
  for (const n of square ? ORDERS.toReversed() : [2]) {
    least = differenceOf(360 / n, false)
    if (least >= NEARLY) continue
    order = n
    break
  }
  const whole = order > 1 && least < EXACT
  /** All turns by steps of the order, from the given; where the step itself is exact, one answers for all. */
  const round = (flipped: boolean, steps: number, from: number) => {
    for (let k = from; k < steps; k++) {
      note((k * 360) / steps, flipped)
      const first = found.at(-1)
      if (!whole || k > from || (flipped && first?.flipped !== true)) continue
      for (let j = k + 1; j < steps; j++) found.push({ ...first!, turnDeg: (j * 360) / steps })
      return
    }
  }
  round(false, order, 1)
  round(true, Math.max(order, 2), 0)
  return found.toSorted((a, b) => Number(a.flipped) - Number(b.flipped) || a.turnDeg - b.turnDeg)
}
