// Bent strips, against the arc they follow.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { regionArea, subtract, union } from '../../../base/geometry'
import { padChords, padOutline, TIGHTEST, type Lie } from './lie'

const bends = fc
  .record({
    long: fc.integer({ min: 10, max: 60 }),
    short: fc.integer({ min: 2, max: 6 }),
    loose: fc.double({ min: 1, max: 12, noNaN: true }),
    side: fc.constantFrom(1, -1),
    rotation: fc.integer({ min: -180, max: 180 }),
    upright: fc.boolean(),
  })
  .filter(({ long, short, loose }) => long < 5 * TIGHTEST * short * loose && long >= 2 * short)
  .map(({ long, short, loose, side, rotation, upright }): Lie => ({
    x: 30,
    y: -12,
    rotation,
    widthMm: upright ? short : long,
    heightMm: upright ? long : short,
    bendMm: side * TIGHTEST * short * loose,
  }))

const faceOf = (lie: Lie) => [{ outer: padOutline(lie), holes: [] }]
const sided = (region: { outer: Float64Array; holes: Float64Array[] }[]) => union(region)

describe('a strip that is bent', () => {
  it('keeps its area and its length, and every point of its edges is half a width from the arc', () => {
    fc.assert(
      fc.property(bends, (lie) => {
        const [long, short] = [Math.max(lie.widthMm, lie.heightMm), Math.min(lie.widthMm, lie.heightMm)]
        // Of a sector of a ring: middle radius times turn times width.
        expect(regionArea(sided(faceOf(lie)))).toBeCloseTo(long * short, -Math.log10(0.01 * long * short))
        const r = Math.abs(lie.bendMm!)
        const t = (lie.rotation * Math.PI) / 180
        const [u, v] = lie.widthMm >= lie.heightMm ? [0, lie.bendMm!] : [lie.bendMm!, 0]
        const centre = [lie.x + u * Math.cos(t) - v * Math.sin(t), lie.y + u * Math.sin(t) + v * Math.cos(t)]
        const outline = padOutline(lie)
        for (let i = 0; i < outline.length; i += 2) {
          const away = Math.hypot(outline[i]! - centre[0]!, outline[i + 1]! - centre[1]!)
          expect(Math.abs(Math.abs(away - r) - short / 2)).toBeLessThan(1e-6)
        }
      }),
      { numRuns: 60 },
    )
  })

  it('lies within its chords, which reach hardly beyond it', () => {
    fc.assert(
      fc.property(bends, (lie) => {
        const chords = union(...padChords(lie).map(faceOf))
        const own = sided(faceOf(lie))
        expect(regionArea(subtract(own, chords))).toBeLessThan(0.01 * regionArea(own))
        expect(regionArea(subtract(chords, own))).toBeLessThan(0.05 * regionArea(own))
      }),
      { numRuns: 60 },
    )
  })

  it('that is straight is itself', () => {
    const lie: Lie = { x: 1, y: 2, rotation: 90, widthMm: 12, heightMm: 3 }
    expect(padChords(lie)).toEqual([lie])
    expect(regionArea(sided(faceOf(lie)))).toBeCloseTo(36, 6)
  })
})
