import { polygonRings, type Polygon } from '@feuillet/core/base/geometry'

/** Points of an outline that lie nearer than this to the last one drawn are passed over, in pixels. */
const NEAR_PX = 0.4

/** Paths drawn before, by shape and pixel: views that come and go do not work them out again. */
const drawn = new WeakMap<Polygon, Map<number, string>>()
const MOST_SIZES = 4

/** Path data of a shape as fine as the screen shows it: a sheet drawn small needs a tenth of its points. `px` is a pixel in mm. */
export function plainPath(shape: Polygon, px: number): string {
  let sizes = drawn.get(shape)
  if (!sizes) drawn.set(shape, (sizes = new Map()))
  let path = sizes.get(px)
  if (path === undefined) {
    if (sizes.size >= MOST_SIZES) sizes.clear()
    sizes.set(px, (path = pathOf(shape, px)))
  }
  return path
}

function pathOf(shape: Polygon, px: number): string {
  const near = (NEAR_PX * px) ** 2
  let d = ''
  for (const ring of polygonRings(shape)) {
    let [x, y] = [ring[0]!, ring[1]!]
    d += `M${x.toFixed(3)} ${y.toFixed(3)}`
    for (let i = 2; i < ring.length; i += 2) {
      const [dx, dy] = [ring[i]! - x, ring[i + 1]! - y]
      if (dx * dx + dy * dy < near) continue
      x += dx
      y += dy
      d += `L${x.toFixed(3)} ${y.toFixed(3)}`
    }
    d += 'Z'
  }
  return d
}
