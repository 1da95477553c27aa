// Drawing aids shared by the demo projects. Needs the geometry loaded.
import {
  intersect,
  mapRegion,
  rectangle,
  rotation,
  compose,
  smoothLine,
  subtract,
  translation,
  union,
  type Polygon,
  type Region,
} from '../base/geometry'
import { fillRings, flattenCubic } from '../base/geometry'

/** Places in order, mm. */
export type Points = readonly (readonly [number, number])[]

/** A closed smooth outline through points. */
export const blob = (points: Points): Polygon[] => fillRings([smoothLine(points, true)], 'nonzero')

/** A straight-edged outline. */
export const poly = (points: Points): Polygon[] => fillRings([Float64Array.from(points.flat())], 'nonzero')

/** Ground whose upper edge runs smoothly through the points, down to the foot of the sheet. */
export function ground(points: Points, width: number, foot: number): Polygon[] {
  const edge = smoothLine(points)
  const ring = Float64Array.from([...edge, width, foot, 0, foot])
  return intersect(fillRings([ring], 'nonzero'), [rectangle([0, 0], width, foot)])
}

/** An opening with a rounded head. */
export function arch(
  { x, y, w, h }: { x: number; y: number; w: number; h: number },
  { head, foot = 4 }: { head: number; foot?: number },
): Polygon[] {
  const points: number[] = []
  const corner = ([cx, cy]: readonly [number, number], r: number, from: number) => {
    const k = 0.5523 * r
    const at = (deg: number) => [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)] as const
    const [ax, ay] = at(from)
    const [bx, by] = at(from + 90)
    points.push(cx + ax * r, cy + ay * r)
    flattenCubic(
      points,
      [
        [cx + ax * r, cy + ay * r],
        [cx + ax * r + bx * k, cy + ay * r + by * k],
        [cx + bx * r + ax * k, cy + by * r + ay * k],
        [cx + bx * r, cy + by * r],
      ],
      0.02,
    )
  }
  corner([x + head, y + head], head, 180)
  corner([x + w - head, y + head], head, 270)
  corner([x + w - foot, y + h - foot], foot, 0)
  corner([x + foot, y + h - foot], foot, 90)
  return fillRings([Float64Array.from(points)], 'nonzero')
}

/** A full sheet with an arched opening, and whatever stands in it. */
export const stageSet = (
  { size, inset, head }: { size: number; inset: number; head: number },
  ...inside: Region[]
): Polygon[] =>
  union(
    subtract(
      [rectangle([0, 0], size, size)],
      arch({ x: inset, y: inset, w: size - 2 * inset, h: size - 2 * inset }, { head }),
    ),
    ...inside,
  )

/** Copies of a region turned evenly about a point. */
export function turned(
  region: Region,
  n: number,
  { cx, cy, startDeg = 0 }: { cx: number; cy: number; startDeg?: number },
): Polygon[] {
  return Array.from({ length: n }, (_, i) =>
    mapRegion(
      compose(translation(cx, cy), compose(rotation(startDeg + (i * 360) / n), translation(-cx, -cy))),
      region,
    ),
  ).flat()
}

/** A pointed petal along the x axis from `from` to `to`, widest (half width) at a share of its length. */
export function petal({
  from,
  to,
  half,
  widest = 0.5,
}: {
  from: number
  to: number
  half: number
  widest?: number
}): Polygon[] {
  const mid = from + (to - from) * widest
  const out: number[] = [from, 0]
  flattenCubic(
    out,
    [
      [from, 0],
      [from + (mid - from) * 0.5, -half],
      [mid, -half],
      [mid, -half],
    ],
    0.02,
  )
  flattenCubic(
    out,
    [
      [mid, -half],
      [mid + (to - mid) * 0.6, -half],
      [to - (to - mid) * 0.15, -half * 0.35],
      [to, 0],
    ],
    0.02,
  )
  flattenCubic(
    out,
    [
      [to, 0],
      [to - (to - mid) * 0.15, half * 0.35],
      [mid + (to - mid) * 0.6, half],
      [mid, half],
    ],
    0.02,
  )
  flattenCubic(
    out,
    [
      [mid, half],
      [mid, half],
      [from + (mid - from) * 0.5, half],
      [from, 0],
    ],
    0.02,
  )
  return fillRings([Float64Array.from(out)], 'nonzero')
}
