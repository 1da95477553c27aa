import { describe, expect, it } from 'vitest'
import { seededRandom } from '../../../../base'
import { regionArea, regionBox, regionContains, subtract } from '../../../../base/geometry'
import { layerRegion, tonesRecipeSchema } from '../../../../project'
import { makeLayers, toBase64 } from '../index'
import { edgesKept } from './filters'
import { paletteOf } from './palette'
import { subjectOf } from './subject'

const [W, H] = [120, 90]
const from = (x: number, y: number) => Math.hypot(x - 60, y - 45)

/** Bytes of a picture, one or three a pixel. */
const picture = (tone: (x: number, y: number) => number | readonly number[]) =>
  Uint8Array.from(
    Array.from({ length: W * H }, (_, i) => tone(i % W, Math.floor(i / W))).flatMap((v) => v as number),
  )

const tones = (greys: Uint8Array, more: object = {}) =>
  makeLayers(
    tonesRecipeSchema.parse({
      kind: 'tones',
      greys: toBase64(greys),
      pixelsWide: W,
      pixelsHigh: H,
      widthMm: W,
      smoothMm: 0.3,
      ...more,
    }),
  )
const areasOf = (made: ReturnType<typeof tones>) => made.layers.map((layer) => regionArea(layerRegion(layer)))

/** A dark eye in a light face, with a light of 1.5 mm in it, and a dull speck of the same size beside it. */
const eye = picture((x, y) =>
  Math.hypot(x - 52, y - 38) < 1.5
    ? 250
    : Math.hypot(x - 90, y - 20) < 1.5
      ? 150
      : from(x, y) < 20
        ? 20
        : 190,
)

describe('tones of a picture', () => {
  it('keep the light in an eye, and say where it is; drop it where that is wished', () => {
    const kept = tones(eye, { levels: 2, speckMm2: 20, smoothMm: 0 })
    expect(kept.spots).toHaveLength(1)
    expect(Math.hypot(kept.spots![0]!.x - 52.5, kept.spots![0]!.y - 38.5)).toBeLessThan(1)
    expect(JSON.stringify(kept.remarks)).toContain('1 bright small')
    const dark = layerRegion(kept.layers[1]!)
    expect(regionContains(dark, 52.5, 38.5)).toBe(false)
    const dropped = tones(eye, { levels: 2, speckMm2: 20, smoothMm: 0, spots: 'dropped' })
    expect(regionContains(layerRegion(dropped.layers[1]!), 52.5, 38.5)).toBe(true)
  })

  it('are painted over by the brush, stroke by stroke, and nothing else changes', () => {
    const flat = picture((x, y) => (from(x, y) < 20 ? 20 : 190))
    const [, before] = areasOf(tones(flat, { levels: 2 }))
    const stroke = { tone: 2, widthMm: 6, points: [10, 10, 30, 10] }
    const [, after] = areasOf(tones(flat, { levels: 2, strokes: [stroke] }))
    // A line 20 mm long and 6 mm wide with round ends.
    expect(Math.abs(after! - before! - (20 * 6 + Math.PI * 9))).toBeLessThan(4)
    const away = { tone: 1, widthMm: 100, points: [60, 45] }
    const gone = tones(flat, { levels: 2, strokes: [away, stroke] })
    expect(Math.abs(areasOf(gone)[1]! - (20 * 6 + Math.PI * 9))).toBeLessThan(4)
  })

  it('leave the background at the back where a loose outline says what is to stay', () => {
    const random = seededRandom(3)
    const busy = picture((x, y) =>
      from(x, y) < 25 ? 60 + 20 * random() : 150 + 50 * Math.sin(x / 7) * Math.cos(y / 5) + 10 * random(),
    )
    const loose = Array.from({ length: 40 }, (_, k) => {
      const [angle, r] = [(k * Math.PI) / 20, 31 + 4 * Math.sin(k)]
      return [60 + r * Math.cos(angle), 45 + r * Math.sin(angle)]
    }).flat()
    const made = tones(busy, { levels: 2, thresholds: [120], outline: { points: loose, looseMm: 12 } })
    expect(Math.abs(areasOf(made)[1]! / (Math.PI * 25 * 25) - 1)).toBeLessThan(0.05)
    expect(subtract(layerRegion(made.layers[1]!), [{ outer: Float64Array.from(loose), holes: [] }])).toEqual(
      [],
    )
    // Without it the dark of the background is taken for card too.
    expect(areasOf(tones(busy, { levels: 2, thresholds: [120] }))[1]!).toBeGreaterThan(Math.PI * 27 * 27)
  })

  it('raise contrast against the surroundings: a faint ring on a slope of grey is found', () => {
    const slope = picture((x, y) => Math.min(255, 40 + x * 1.6 + (from(x, y) < 14 ? 18 : 0)))
    const found = (contrast: number) => {
      const dark = layerRegion(tones(slope, { levels: 2, thresholds: [150], contrast }).layers[1]!)
      return Math.abs(Number(regionContains(dark, 50, 45)) - Number(regionContains(dark, 40, 45)))
    }
    const far = (contrast: number) => areasOf(tones(slope, { levels: 2, thresholds: [150], contrast }))[1]!
    expect(far(1)).not.toBeCloseTo(far(0), 0)
    expect(found(0)).toBe(0)
  })

  it('have a mat in front that covers the picture’s edge, and a back as large', () => {
    const made = tones(eye, { levels: 2, matMm: 15, crop: 'oval' })
    const mat = made.layers.at(-1)!
    expect([mat.name, mat.role]).toEqual(['Mat', 'border'])
    expect(regionBox(layerRegion(mat))).toMatchObject({ minX: -15, minY: -15, maxX: W + 15, maxY: H + 15 })
    // An oval of the picture's size less 2 mm all round is cut out of it.
    expect(Math.abs(regionArea(layerRegion(mat)) / (150 * 120 - Math.PI * 58 * 43) - 1)).toBeLessThan(0.01)
    expect(areasOf(made)[0]).toBeCloseTo(150 * 120, 3)
    expect(made.widthMm).toBe(150)
  })

  it('by colour make a layer of each, the lightest at the back', () => {
    const colours = picture((x, y) =>
      from(x, y) < 15 ? [20, 30, 120] : x < 60 ? [240, 220, 120] : [200, 60, 50],
    )
    const given = {
      levels: 3,
      colours: toBase64(colours),
      speckMm2: 1,
      papers: ['#1a2280', '#f0dc78', '#c83c32', '#00ff00', '#ffffff'].map((colour, k) => ({
        paperId: `p${k}`,
        colour,
      })),
    }
    for (const by of ['colours', 'papers']) {
      const made = tones(eye, { ...given, by })
      const areas = areasOf(made)
      expect(made.layers).toHaveLength(3)
      expect(areas[0]).toBeCloseTo(W * H, 3)
      // Red's half and the blue disc; then the disc alone.
      expect(Math.abs(areas[1]! / (W * H * 0.5 + (Math.PI * 225) / 2) - 1)).toBeLessThan(0.02)
      // Mixed pixels at the edge fall to either side.
      expect(Math.abs(areas[2]! / (Math.PI * 225) - 1)).toBeLessThan(0.08)
    }
    const chosen = tones(eye, { ...given, by: 'papers' }).layers
    expect(chosen.map((layer) => layer.paperId)).toEqual(['p1', 'p2', 'p0'])
  })
})

describe('a palette', () => {
  const random = seededRandom(5)
  const channels = [0, 1, 2].map(() => Float64Array.from({ length: 400 }, () => Math.floor(random() * 256)))

  it('of papers is as good as the best of all choices', () => {
    const choices = Array.from({ length: 9 }, (_, k) => ({
      paperId: `p${k}`,
      colour:
        '#' +
        Math.floor(random() * 0x1000000)
          .toString(16)
          .padStart(6, '0'),
    }))
    const cost = (chosen: typeof choices): number => {
      // With as many asked for as there are, all are chosen: pixels fall to the nearest.
      const { tints } = paletteOf(channels, { skip: null, n: chosen.length, choices: chosen })
      expect(tints).toHaveLength(chosen.length)
      return spread(chosen.map(({ colour }) => colour))
    }
    let best = Infinity
    for (let a = 0; a < 9; a++)
      for (let b = a + 1; b < 9; b++)
        for (let c = b + 1; c < 9; c++) best = Math.min(best, cost([choices[a]!, choices[b]!, choices[c]!]))
    const { tints } = paletteOf(channels, { skip: null, n: 3, choices })
    expect(spread(tints.map(({ colour }) => colour))).toBeLessThan(best * 1.02)
  })

  /** Sum of squares in a plain sRGB to Oklab conversion of its own. */
  function spread(colours: readonly string[]): number {
    const lab = (rgb: readonly number[]) => {
      const [r, g, b] = rgb.map((v) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4))
      const l = Math.cbrt(0.4122214708 * r! + 0.5363325363 * g! + 0.0514459929 * b!)
      const m = Math.cbrt(0.2119034982 * r! + 0.6806995451 * g! + 0.1073969566 * b!)
      const s = Math.cbrt(0.0883024619 * r! + 0.2817188376 * g! + 0.6299787005 * b!)
      return [
        0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
        1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
        0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
      ]
    }
    const centres = colours.map((c) => lab([1, 3, 5].map((at) => parseInt(c.slice(at, at + 2), 16) / 255)))
    let sum = 0
    for (let i = 0; i < channels[0]!.length; i++) {
      const p = lab(channels.map((channel) => channel[i]! / 255))
      sum += Math.min(...centres.map((c) => c.reduce((d, v, k) => d + (v - p[k]!) ** 2, 0)))
    }
    return sum
  }
})

describe('filters', () => {
  it('smooth noise within areas and leave the edge between them steep', () => {
    const random = seededRandom(9)
    const values = Float64Array.from(
      { length: W * H },
      (_, i) => (i % W < 60 ? 60 : 190) + 12 * (random() - 0.5),
    )
    const out = edgesKept(values, { width: W, height: H }, 4)
    const at = (x: number, y: number) => out[y * W + x]!
    const spreadOf = (v: (y: number) => number) => {
      const list = Array.from({ length: 50 }, (_, k) => v(20 + k))
      return Math.max(...list) - Math.min(...list)
    }
    expect(spreadOf((y) => at(30, y))).toBeLessThan(6)
    expect(at(61, 45) - at(58, 45)).toBeGreaterThan(90)
  })

  it('find a subject whose edge touches its outline nowhere, for any looseness', () => {
    const disc = Float64Array.from({ length: W * H }, (_, i) =>
      from(i % W, Math.floor(i / W)) < 22 ? 40 : 200,
    )
    for (const loose of [4, 24, 60]) {
      const subject = subjectOf({
        channels: [disc],
        w: W,
        h: H,
        outline: [20, 10, 100, 10, 100, 80, 20, 80],
        loose,
      })
      const share = subject.reduce((n, v) => n + v, 0) / (Math.PI * 22 * 22)
      // An outline that lies farther off than it may be loose is taken at its word.
      if (loose === 4) expect(share).toBeGreaterThan(2)
      else expect(Math.abs(share - 1)).toBeLessThan(0.08)
    }
  })
})
