/**
 * How like itself a region is when it is turned about a point by any angle, or mirrored in any axis through it: all angles at
 * once, by the circles about the point. On each circle the card is a row of arcs; the overlap of that row with itself, turned, is
 * its autocorrelation, and with itself, mirrored, its self-convolution: sums of the squares of its Fourier coefficients
 * (Wiener–Khinchin). Many circles give the area.
 */
import FFT from 'fft.js'
import { regionContains, regionRings, type Point, type Region, type Ring } from '../../../base/geometry'

/** Circles, angles on each, and how many waves to a circle are told apart. */
const CIRCLES = 48
const ANGLES = 2048
const WAVES = 512
const ARC = (2 * Math.PI) / ANGLES

/** Angles in radians, clockwise on screen. What does not match is a share of the area, both ways counted. */
export class Polar {
  /** Sums over the circles of the squares of the coefficients: for turns, and (real, imaginary) for mirrors. */
  private readonly turns = new Float64Array(WAVES)
  private readonly mirrors = new Float64Array(2 * WAVES)
  /** The overlap with itself as it lies. */
  private readonly whole: number

  constructor(
    region: Region,
    readonly centre: Point,
  ) {
    const fft = new FFT(ANGLES)
    const spectrum = fft.createComplexArray()
    for (const { areaMm2, card } of circles(region, centre)) {
      fft.realTransform(spectrum, card)
      for (let k = 0; k < WAVES; k++) {
        const [re, im] = [spectrum[2 * k]!, spectrum[2 * k + 1]!]
        const weight = (k === 0 ? 1 : 2) * areaMm2
        this.turns[k]! += weight * (re * re + im * im)
        // Each value stands for the middle of its small arc: mirrored, two halves of an arc add up.
        const [cos, sin] = [Math.cos(k * ARC), -Math.sin(k * ARC)]
        const [square, twice] = [re * re - im * im, 2 * re * im]
        this.mirrors[2 * k]! += weight * (square * cos - twice * sin)
        this.mirrors[2 * k + 1]! += weight * (square * sin + twice * cos)
      }
    }
    this.whole = this.turns.reduce((sum, power) => sum + power, 0)
  }

  /** What does not match after a turn. */
  turned(angle: number): number {
    // cos(k + 1)α = 2 cos α cos kα − cos(k − 1)α
    const twice = 2 * Math.cos(angle)
    let [before, here] = [Math.cos(angle), 1]
    let sum = 0
    for (let k = 0; k < WAVES; k++) {
      sum += this.turns[k]! * here
      const next = twice * here - before
      before = here
      here = next
    }
    return this.share(sum)
  }

  /** What does not match after a mirror that takes direction θ to `sum` − θ: in the axis at half of it. */
  mirrored(sum: number): number {
    const [stepRe, stepIm] = [Math.cos(sum), Math.sin(sum)]
    let [re, im] = [1, 0]
    let total = 0
    for (let k = 0; k < WAVES; k++) {
      total += this.mirrors[2 * k]! * re - this.mirrors[2 * k + 1]! * im
      const next = re * stepRe - im * stepIm
      im = re * stepIm + im * stepRe
      re = next
    }
    return this.share(total)
  }

  /** What does not match at angles all round the circle. */
  curve(kind: 'turned' | 'mirrored'): Float64Array {
    const fft = new FFT(ANGLES)
    const [waves, sums] = [fft.createComplexArray(), fft.createComplexArray()]
    for (let k = 0; k < WAVES; k++) {
      waves[2 * k] = kind === 'turned' ? this.turns[k]! : this.mirrors[2 * k]!
      waves[2 * k + 1] = kind === 'turned' ? 0 : this.mirrors[2 * k + 1]!
    }
    fft.inverseTransform(sums, waves)
    return Float64Array.from({ length: ANGLES }, (_, i) => this.share(sums[2 * i]! * ANGLES))
  }

  private share(overlap: number): number {
    return this.whole > 0 ? Math.max(0, 2 * (1 - overlap / this.whole)) : 0
  }
}

/** How much of each small arc of each circle about a point is card, 0 to 1. */
function* circles(region: Region, centre: Point): Generator<{ areaMm2: number; card: Float64Array }> {
  const rings = regionRings(region)
  const { inner, outer } = reachOf(rings, centre)
  const step = (outer - inner) / CIRCLES
  const radiusOf = (c: number) => inner + (c + 0.5) * step
  // Within the innermost outline all is card or nothing is.
  if (regionContains(region, centre.x, centre.y))
    yield { areaMm2: (inner * inner) / 2, card: new Float64Array(ANGLES).fill(1) }
  if (step < 1e-9) return
  // Where outlines enter and leave each circle going round it, as steps up and down.
  const steps = Array.from({ length: CIRCLES }, () => new Float64Array(ANGLES + 1))
  const crossed = new Uint8Array(CIRCLES)
  for (const ring of rings)
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay] = [ring[j]! - centre.x, ring[j + 1]! - centre.y]
      const [dx, dy] = [ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!]
      const [a2, b2] = [ax * ax + ay * ay, (ax + dx) ** 2 + (ay + dy) ** 2]
      const d2 = dx * dx + dy * dy
      if (d2 === 0) continue
      const t0 = Math.max(0, Math.min(1, -(ax * dx + ay * dy) / d2))
      const least = Math.hypot(ax + t0 * dx, ay + t0 * dy)
      const most = Math.sqrt(Math.max(a2, b2))
      for (
        let c = Math.max(0, Math.ceil((least - inner) / step - 0.5));
        c < CIRCLES && radiusOf(c) < most;
        c++
      ) {
        const r2 = radiusOf(c) ** 2
        // |a + t d|² = r²
        const half = ax * dx + ay * dy
        const root = Math.sqrt(Math.max(0, half * half - d2 * (a2 - r2)))
        for (const t of [(-half - root) / d2, (-half + root) / d2]) {
          const isIn = t === (-half - root) / d2 ? a2 >= r2 : b2 >= r2
          if (!isIn || t < -1e-9 || t > 1 + 1e-9) continue
          const [x, y] = [ax + t * dx, ay + t * dy]
          const at = ((Math.atan2(y, x) / (2 * Math.PI) + 1) % 1) * ANGLES
          const cell = Math.min(ANGLES - 1, Math.floor(at))
          // Card is on the left of an edge; going round the circle that is ahead where the edge leads inwards.
          const sign = x * dx + y * dy < 0 ? 1 : -1
          steps[c]![cell]! += sign * (cell + 1 - at)
          steps[c]![cell + 1]! += sign * (at - cell)
          crossed[c] = 1
        }
      }
    }
  for (let c = 0; c < CIRCLES; c++) {
    const radius = radiusOf(c)
    const card = new Float64Array(ANGLES)
    let sum = 0
    let least = 0
    for (let i = 0; i < ANGLES; i++) {
      sum += steps[c]![i]!
      card[i] = sum
      least = Math.min(least, sum)
    }
    const base = crossed[c] ? -Math.round(least) : regionContains(region, centre.x + radius, centre.y) ? 1 : 0
    if (base !== 0) for (let i = 0; i < ANGLES; i++) card[i]! += base
    yield { areaMm2: radius * step, card }
  }
}

/** Distances of the nearest and the farthest place of outlines from a point. */
function reachOf(rings: readonly Ring[], { x, y }: Point): { inner: number; outer: number } {
  let [inner, outer] = [Infinity, 0]
  for (const ring of rings)
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay] = [ring[j]! - x, ring[j + 1]! - y]
      const [dx, dy] = [ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!]
      const d2 = dx * dx + dy * dy
      const t = d2 === 0 ? 0 : Math.max(0, Math.min(1, -(ax * dx + ay * dy) / d2))
      inner = Math.min(inner, Math.hypot(ax + t * dx, ay + t * dy))
      outer = Math.max(outer, Math.hypot(ax, ay))
    }
  return { inner, outer }
}
