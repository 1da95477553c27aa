// What of a picture is the subject, from a loose outline round it: outside is background, well inside is subject, and between
// them both grow until they meet along the strongest edge (watershed by flooding from markers; F. Meyer 1994).
import { fillRings, interiorPoint, offset } from '../../../../base/geometry'
import { blurred } from './filters'
import { rasterise } from './raster'

interface Given {
  /** One or three channels, 0 to 255, row by row. */
  channels: readonly Float64Array[]
  w: number
  h: number
  /** x, y of the outline, pixels. */
  outline: readonly number[]
  /** How far inside the outline the subject's edge may lie, pixels. */
  loose: number
}

const UNKNOWN = 0
const SUBJECT = 1
const BACKGROUND = 2
const STEPS = 256

/** 1 for each pixel of the subject, 0 for the rest. Needs the geometry loaded. */
export function subjectOf({ channels, w, h, outline, loose }: Given): Uint8Array {
  const region = fillRings([Float64Array.from(outline)], 'nonzero')
  const inside = rasterise(region, w, h)
  const labels = new Uint8Array(w * h)
  for (let i = 0; i < labels.length; i++) if (!inside[i]) labels[i] = BACKGROUND
  // The subject's marker: what lies farther in than the outline may be loose; less where nothing lies so far in.
  let core: Uint8Array = new Uint8Array(w * h)
  for (let far = loose, k = 0; k < 6 && !core.includes(1); far /= 2, k++)
    core = rasterise(offset(region, -far), w, h)
  if (!core.includes(1) && region[0]) {
    const { x, y } = interiorPoint(region[0].outer)
    core[Math.min(h - 1, Math.floor(y)) * w + Math.min(w - 1, Math.floor(x))] = 1
  }
  core.forEach((on, i) => on && (labels[i] = SUBJECT))
  flood(labels, edges(channels, w, h), { w, h })
  return labels.map((label) => (label === SUBJECT ? 1 : 0))
}

/** How steep a picture is at each pixel, 0 to 255 (Sobel, over all channels). */
function edges(channels: readonly Float64Array[], w: number, h: number): Uint8Array {
  const sum = new Float64Array(w * h)
  for (const channel of channels) {
    const v = blurred(channel, { width: w, height: h }, 1)
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        const [l, r] = [Math.max(0, x - 1), Math.min(w - 1, x + 1)]
        const [t, b] = [Math.max(0, y - 1) * w, Math.min(h - 1, y + 1) * w]
        const m = y * w
        const dx = v[t + r]! + 2 * v[m + r]! + v[b + r]! - v[t + l]! - 2 * v[m + l]! - v[b + l]!
        const dy = v[b + l]! + 2 * v[b + x]! + v[b + r]! - v[t + l]! - 2 * v[t + x]! - v[t + r]!
        sum[m + x]! += dx * dx + dy * dy
      }
  }
  return Uint8Array.from(sum, (s) => Math.min(255, Math.sqrt(s / channels.length) / 4))
}

/** Gives each unknown pixel to the marker that reaches it over the lowest edges. */
function flood(labels: Uint8Array, height: Uint8Array, { w, h }: { w: number; h: number }): void {
  const queues: number[][] = Array.from({ length: STEPS }, () => [])
  const waits = new Uint8Array(labels.length)
  const offer = (i: number, level: number) => {
    if (labels[i] !== UNKNOWN || waits[i]) return
    waits[i] = 1
    queues[Math.max(level, height[i]!)]!.push(i)
  }
  const around = (i: number, visit: (j: number) => void) => {
    const x = i % w
    if (x > 0) visit(i - 1)
    if (x < w - 1) visit(i + 1)
    if (i >= w) visit(i - w)
    if (i < w * (h - 1)) visit(i + w)
  }
  labels.forEach((label, i) => label !== UNKNOWN && around(i, (j) => offer(j, 0)))
  for (let level = 0; level < STEPS; level++) {
    const queue = queues[level]!
    for (let k = 0; k < queue.length; k++) {
      const i = queue[k]!
      around(i, (j) => {
        if (labels[i] === UNKNOWN) labels[i] = labels[j]!
      })
      around(i, (j) => offer(j, level))
    }
  }
}
