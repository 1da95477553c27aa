// The measure of overlap in plain terms, point by point: what the kernel must say (stages/sheets/nest/overlap/kernel.ts).
import type { Field, Spot } from '../src/stages/sheets/nest/overlap/field'

type Placed = readonly [Field, Spot]

/** A field's distance at a point of the sheet (mm), between its nodes in proportion; null beyond its grid. `nearest` takes the nearest node's. */
function distanceAt([b, sb]: Placed, [x, y]: readonly [number, number], nearest: boolean): number | null {
  const [dx, dy] = [x - sb.x, y - sb.y]
  const gx = (dx * sb.cos + dy * sb.sin - b.x0) * b.inv
  const gy = (dy * sb.cos - dx * sb.sin - b.y0) * b.inv
  if (gx < 0 || gy < 0 || gx >= b.cols - 1 || gy >= b.rows - 1) return null
  const node = (c: number, r: number) => b.distance[r * b.cols + c]!
  if (nearest) return node(Math.round(gx), Math.round(gy))
  const [c, r] = [Math.floor(gx), Math.floor(gy)]
  const [fx, fy] = [gx - c, gy - r]
  return (
    (1 - fy) * ((1 - fx) * node(c, r) + fx * node(c + 1, r)) +
    fy * ((1 - fx) * node(c, r + 1) + fx * node(c + 1, r + 1))
  )
}

/** Depth times outline (mm²) of the points of `a` in `b`, or nearer to it than the gap; those deep inside count where some of the outline does. */
function runsInto([a, sa]: Placed, b: Placed, gap: number): number {
  const part = (k: number, deep: boolean) => {
    const [x, y] = [a.xs[k]!, a.ys[k]!]
    const at = [sa.x + sa.cos * x - sa.sin * y, sa.y + sa.sin * x + sa.cos * y] as const
    const away = distanceAt(b, at, deep)
    return away === null ? 0 : Math.max(0, gap - away) * a.reach[k]!
  }
  let sum = 0
  for (let k = 0; k < a.outline; k++) sum += part(k, false)
  if (sum > 0) for (let k = a.outline; k < a.xs.length; k++) sum += part(k, true)
  return sum
}

/** How much two pieces overlap or lie nearer than `gap`, mm: the root of depth times outline, both ways. */
export const overlapOf = (a: Placed, b: Placed, gap: number): number =>
  Math.sqrt(runsInto(a, b, gap) + runsInto(b, a, gap))
