// Measures for what needs no template: straight-edged parts for the trimmer, round ones for the punch. Lengths in mm.
import { mapPolygon, ringBox, rotation, type Polygon, type Ring } from '../../base/geometry'
import { formatInches, formatMm, MM_PER_INCH, type Unit } from '../../base/units'

/** A part that is cut by measure. */
export type Measure =
  | { kind: 'rectangle'; widthMm: number; heightMm: number; openings: Opening[] }
  | { kind: 'circle'; diameterMm: number; openings: Opening[] }

/** A straight or round opening, and the card that is left round it. */
export interface Opening {
  kind: 'rectangle' | 'circle'
  widthMm: number
  heightMm: number
  leftMm: number
  rightMm: number
  topMm: number
  bottomMm: number
}

/** Corners that turn less than this (degrees) are none; right angles are right within as much. */
const STRAIGHT_DEG = 0.6
/** A round outline strays from its circle by no more (mm, and as a share of the radius). */
const ROUND_MM = 0.06
const ROUND_SHARE = 0.006

/** How a part is cut with a trimmer or a punch; null where it wants a template: where its outline or an opening is neither straight-edged with right angles, nor round. */
export function measureOf(shape: Polygon): Measure | null {
  const corners = cornersOf(shape.outer)
  if (isRectangle(corners)) {
    const deg = (Math.atan2(corners[3]! - corners[1]!, corners[2]! - corners[0]!) * 180) / Math.PI
    // Straight, as it would lie in the trimmer.
    const laid = mapPolygon(rotation(-nearestQuarter(deg)), shape)
    const box = ringBox(laid.outer)
    const openings = laid.holes.map((hole) => openingOf(hole, box))
    return openings.every((one) => one !== null)
      ? { kind: 'rectangle', widthMm: box.maxX - box.minX, heightMm: box.maxY - box.minY, openings }
      : null
  }
  const diameterMm = diameterOf(shape.outer)
  if (diameterMm === null) return null
  const box = ringBox(shape.outer)
  const openings = shape.holes.map((hole) => openingOf(hole, box))
  return openings.every((one) => one !== null) ? { kind: 'circle', diameterMm, openings } : null
}

/** How far an angle is from a multiple of a right one. */
const nearestQuarter = (deg: number): number => deg - 90 * Math.round(deg / 90)

function openingOf(hole: Ring, outer: ReturnType<typeof ringBox>): Opening | null {
  const round = diameterOf(hole) !== null
  const corners = cornersOf(hole)
  const straight = isRectangle(corners) && isUpright(corners)
  if (!round && !straight) return null
  const box = ringBox(hole)
  return {
    kind: round ? 'circle' : 'rectangle',
    widthMm: box.maxX - box.minX,
    heightMm: box.maxY - box.minY,
    leftMm: box.minX - outer.minX,
    rightMm: outer.maxX - box.maxX,
    topMm: box.minY - outer.minY,
    bottomMm: outer.maxY - box.maxY,
  }
}

/** The true corners of a ring: x, y, x, y, … */
function cornersOf(ring: Ring): number[] {
  const n = ring.length / 2
  const corners: number[] = []
  for (let k = 0; k < n; k++) {
    const at = (i: number): [number, number] => [ring[2 * (i % n)]!, ring[2 * (i % n) + 1]!]
    const [a, b, c] = [at(k + n - 1), at(k), at(k + 1)]
    const turn = Math.atan2(
      (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]),
      (b[0] - a[0]) * (c[0] - b[0]) + (b[1] - a[1]) * (c[1] - b[1]),
    )
    if (Math.abs(turn) > (STRAIGHT_DEG * Math.PI) / 180) corners.push(...b)
  }
  return corners
}

function isRectangle(corners: readonly number[]): boolean {
  if (corners.length !== 8) return false
  const side = (k: number): [number, number] => [
    corners[(2 * k + 2) % 8]! - corners[2 * k]!,
    corners[(2 * k + 3) % 8]! - corners[2 * k + 1]!,
  ]
  return [0, 1, 2, 3].every((k) => {
    const [a, b] = [side(k), side((k + 1) % 4)]
    const cos = (a[0] * b[0] + a[1] * b[1]) / (Math.hypot(...a) * Math.hypot(...b))
    return Math.abs(cos) < Math.sin((STRAIGHT_DEG * Math.PI) / 180)
  })
}

const isUpright = (corners: readonly number[]): boolean => {
  const deg = (Math.atan2(corners[3]! - corners[1]!, corners[2]! - corners[0]!) * 180) / Math.PI
  return Math.abs(nearestQuarter(deg)) < STRAIGHT_DEG
}

/** Of a round outline the diameter; null of any other. */
function diameterOf(ring: Ring): number | null {
  if (ring.length < 24) return null
  const { minX, minY, maxX, maxY } = ringBox(ring)
  const [x, y] = [(minX + maxX) / 2, (minY + maxY) / 2]
  const r = (maxX - minX + maxY - minY) / 4
  for (let i = 0; i < ring.length; i += 2)
    if (Math.abs(Math.hypot(ring[i]! - x, ring[i + 1]! - y) - r) > Math.max(ROUND_MM, ROUND_SHARE * r))
      return null
  return 2 * r
}

/** A ruler's finest mark, as a share of an inch. */
const FINEST = 16
/** What a ruler's fraction leaves over is said from here on (mm). */
const LEFT_OVER_MM = 0.15

/** A length as a ruler has it: mm to a tenth, or the nearest sixteenth of an inch and the thousandths that leaves over. */
export function rulerLength(mm: number, unit: Unit): string {
  if (unit === 'mm') return `${formatMm(mm)} mm`
  const over = mm - (Math.round((mm / MM_PER_INCH) * FINEST) / FINEST) * MM_PER_INCH
  const rest =
    Math.abs(over) < LEFT_OVER_MM
      ? ''
      : over > 0
        ? ` and ${formatMm(over / MM_PER_INCH, 3)} in`
        : ` less ${formatMm(-over / MM_PER_INCH, 3)} in`
  return `${formatInches(mm, FINEST)} in${rest}`
}

/** What to set the trimmer or which punch to take, and where halves and middles lie. */
export function measureWords(measure: Measure, unit: Unit): string[] {
  const long = (mm: number) => rulerLength(mm, unit)
  const words =
    measure.kind === 'circle'
      ? [`circle of ${long(measure.diameterMm)}, half ${long(measure.diameterMm / 2)}`]
      : [
          `${long(measure.widthMm)} wide, half ${long(measure.widthMm / 2)}`,
          `${long(measure.heightMm)} high, half ${long(measure.heightMm / 2)}`,
        ]
  return [
    ...words,
    ...measure.openings.map(
      (one) =>
        `opening ${one.kind === 'circle' ? `round, ${long(one.widthMm)}` : `${long(one.widthMm)} × ${long(one.heightMm)}`}: ${long(one.leftMm)} from the left, ${long(one.topMm)} from the top, ${long(one.rightMm)} and ${long(one.bottomMm)} left beside and below it`,
    ),
  ]
}
