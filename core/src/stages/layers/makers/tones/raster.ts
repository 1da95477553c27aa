import { regionRings, type Region } from '../../../../base/geometry'

/** 1 for each pixel whose middle lies in a region that is given in pixels, row by row (even-odd, by scan lines). */
export function rasterise(region: Region, w: number, h: number): Uint8Array {
  const out = new Uint8Array(w * h)
  const crossings: number[][] = Array.from({ length: h }, () => [])
  for (const ring of regionRings(region))
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!]
      const [top, bottom] = [Math.min(ay, by), Math.max(ay, by)]
      for (let y = Math.max(0, Math.ceil(top - 0.5)); y < h && y + 0.5 < bottom; y++)
        crossings[y]!.push(ax + ((y + 0.5 - ay) / (by - ay)) * (bx - ax))
    }
  crossings.forEach((xs, y) => {
    xs.sort((a, b) => a - b)
    for (let k = 0; k + 1 < xs.length; k += 2)
      for (let x = Math.max(0, Math.ceil(xs[k]! - 0.5)); x < w && x + 0.5 < xs[k + 1]!; x++)
        out[y * w + x] = 1
  })
  return out
}
