import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { ellipse, loadGeometry, rectangle, type Polygon } from '../../../base/geometry'
import { starterCutter, type Paper, type Setting } from '../../../project'
import { starterStock } from '../../paper'
import { basisWords, intricacyOf, settingFor } from './settings'
import { toolSeconds, type Pace } from './tool-time'

beforeAll(() => loadGeometry())

const pace: Pace = { speedMmPerS: 60, travelMmPerS: 150, accelMmPerS2: 600, cornerS: 0.03, liftS: 0.35 }
const way = (...points: number[]) => Float64Array.from(points)

/** Time over a straight stretch from rest to rest, by small steps of time: the oracle. */
function byStepping(mm: number, { speedMmPerS, accelMmPerS2 }: Pace): number {
  const dt = 1e-5
  let [v, gone, t] = [0, 0, 0]
  while (gone < mm) {
    // Brakes as soon as it must, to stand still at the end.
    const mustBrake = (v * v) / (2 * accelMmPerS2) >= mm - gone
    v = Math.max(1e-4, mustBrake ? v - accelMmPerS2 * dt : Math.min(speedMmPerS, v + accelMmPerS2 * dt))
    gone += v * dt
    t += dt
  }
  return t
}

describe('the time of a tool', () => {
  it('over a straight way is that of speeding up, going on and braking', () => {
    for (const mm of [0.5, 3, 6, 40, 200]) {
      const there = toolSeconds([way(0, 0, mm, 0)], pace, 0)
      const lifts = 2 * pace.liftS
      const back = byStepping(mm, { ...pace, speedMmPerS: pace.travelMmPerS })
      expect(there - lifts - back).toBeCloseTo(byStepping(mm, pace), 2)
    }
  })

  it('is the same in one stretch as in many short ones that run on straight', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.05, max: 20, noNaN: true }), { minLength: 1, maxLength: 30 }),
        (steps) => {
          const points = [0, 0]
          for (const step of steps) points.push(points.at(-2)! + step, 0)
          const end = points.at(-2)!
          const whole = toolSeconds([way(0, 0, end, 0)], pace, 0)
          expect(toolSeconds([Float64Array.from(points)], pace, 0)).toBeCloseTo(whole, 6)
        },
      ),
    )
  })

  it('is longer for points than for bends, for lace than for one outline', () => {
    const circle = (corners: number) => {
      const points: number[] = []
      for (let k = 0; k <= corners; k++)
        points.push(
          20 + 20 * Math.cos((2 * Math.PI * k) / corners),
          20 + 20 * Math.sin((2 * Math.PI * k) / corners),
        )
      return Float64Array.from(points)
    }
    const round = toolSeconds([circle(120)], pace, 40)
    const pointed = toolSeconds([way(0, 0, 31.4, 0, 31.4, 31.4, 0, 31.4, 0, 0)], pace, 40)
    expect(round).toBeLessThan(pointed)
    // A lace of 64 openings of 8 mm with the speed of lace: minutes, not seconds.
    const dots = Array.from({ length: 64 }, (_, k) => {
      const [x, y] = [10 + (k % 8) * 12, 10 + Math.floor(k / 8) * 12]
      return circle(40).map((v, i) => v / 5 + (i % 2 === 0 ? x : y))
    })
    expect(toolSeconds(dots, { ...pace, speedMmPerS: 18 }, 120) / 60).toBeGreaterThan(2)
  })
})

const paper = (more: Partial<Paper> = {}): Paper => ({ ...starterStock()[0]!, ...more })
const entry = (more: Partial<Setting> = {}): Setting => ({
  id: `${more.at ?? 0}`,
  paper: paper().name,
  finish: paper().finish,
  gsm: paper().gsm,
  cutter: starterCutter.name,
  intricacy: 'plain',
  depthMm: 0.4,
  forceG: 160,
  speedMmPerS: 50,
  passes: 1,
  tack: 'medium',
  outcome: 'cut through',
  note: '',
  at: 0,
  ...more,
})

describe('how a paper is cut', () => {
  it('starts by finish and weight: twice from 270 gsm, glitter deeper, lace slower', () => {
    const by = (more: Partial<Paper>) => settingFor(paper(more), starterCutter)
    expect(by({ gsm: 216 }).passes).toBe(1)
    expect(by({ gsm: 270 }).passes).toBe(2)
    const glitter = by({ finish: 'glitter', gsm: 216 })
    expect(glitter).toMatchObject({ passes: 2, tack: 'high', hardOnBlade: true })
    expect(glitter.depthMm).toBeGreaterThan(by({ gsm: 216 }).depthMm)
    const lace = settingFor(paper(), starterCutter, { intricacy: 'lace' })
    expect(lace.speedMmPerS).toBeLessThan(by({}).speedMmPerS / 2)
    expect(lace.name).toMatch(/lace/)
    expect(basisWords(lace)).toBe('a start of ours')
  })

  it('is measured for intricacy from the shapes', () => {
    const plate: Polygon = rectangle([0, 0], 200, 200)
    const holes = (n: number, size: number): Polygon => ({
      ...plate,
      holes: Array.from(
        { length: n },
        (_, k) => ellipse([15 + (k % 10) * 18, 15 + Math.floor(k / 10) * 18], size).outer,
      ),
    })
    expect(intricacyOf([plate])).toBe('plain')
    expect(intricacyOf([holes(3, 6)])).toBe('plain')
    expect(intricacyOf([holes(12, 6)])).toBe('fine')
    expect(intricacyOf([holes(64, 6)])).toBe('lace')
    expect(intricacyOf([plate, holes(64, 6)])).toBe('lace')
  })

  it('goes on as it worked, and a step on from what did not', () => {
    const from = (...book: Setting[]) => settingFor(paper(), starterCutter, { intricacy: 'plain', book })
    expect(from(entry())).toMatchObject({
      depthMm: 0.4,
      forceG: 160,
      speedMmPerS: 50,
      basis: { from: 'book', worked: 1 },
    })
    const hung = from(entry({ outcome: 'corners hung' }))
    expect(hung.depthMm).toBeCloseTo(0.45, 9)
    expect(hung).toMatchObject({ forceG: 176, speedMmPerS: 40, passes: 1 })
    expect(basisWords(hung)).toBe('a step on: corners hung last time')
    // Twice in a row: once more over it.
    expect(from(entry({ outcome: 'corners hung' }), entry({ outcome: 'corners hung', at: 1 })).passes).toBe(2)
    expect(from(entry({ outcome: 'tore' }))).toMatchObject({ tack: 'low', speedMmPerS: 30, forceG: 144 })
    expect(from(entry({ outcome: 'slid' })).tack).toBe('high')
    // Another cutter, weight or intricacy is another matter.
    for (const other of [{ cutter: 'x' }, { gsm: 300 }, { intricacy: 'lace' as const }, { paper: 'Else' }])
      expect(from(entry(other)).basis).toEqual({ from: 'start' })
    // The last word counts, whatever order they come in.
    expect(from(entry({ outcome: 'tore', at: 1 }), entry({ at: 2 }), entry({ at: 0 })).basis).toEqual({
      from: 'book',
      worked: 2,
    })
  })
})
