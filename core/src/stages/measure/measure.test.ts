import { mendProject } from '..'
import { wordsIn } from '../../base/units'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { rectangle, type Polygon } from '../../base/geometry'
import { makeLayer } from '../layers'
import { designBox, newProject, starterMount, type FrameMount, type Project } from '../../project'
import { fitDesign, measure, measureSnags } from './index'

/** A silhouette: a rhombus in a box. */
const rhombus = (x: number, y: number, w: number, h: number): Polygon => ({
  outer: Float64Array.of(x + w / 2, y, x + w, y + h / 2, x + w / 2, y + h, x, y + h / 2),
  holes: [],
})
const frame = (w: number, h: number, x = 30, y = 30, shape = rhombus): Project => ({
  ...newProject('f', 'Frame', starterMount('frame')),
  layers: [makeLayer('a', 'A', [shape(x, y, w, h)])],
})
const codes = (project: Project) => measureSnags(project).map((snag) => snag.code)
const withMount = (project: Project, patch: Partial<FrameMount>): Project => ({
  ...project,
  mount: { ...(project.mount as FrameMount), ...patch },
})

describe('a frame', () => {
  it('gives backing, lip, room and what the cutter reaches', () => {
    const m = measure(frame(100, 100))
    expect(m.backing).toEqual({ widthMm: 200, heightMm: 200 })
    expect(m.lip).toEqual({ sideMm: 7, topMm: 7 })
    expect(m.roomMm).toBe(22)
    expect(m.cuttable.widthMm).toBeCloseTo(12 * 25.4 - 2 * 6.35, 6)
  })

  it('lets a silhouette be as large as the opening less its air, proportions locked', () => {
    const m = measure(frame(50, 100))
    expect(m.safe!.heightMm).toBeCloseTo(176, 6)
    expect(m.safe!.widthMm).toBeCloseTo(88, 6)
    expect(m.safe!.limit).toBe('the opening less its air')
    expect(m.borders).toEqual({ left: 23, top: 23, right: 193 - 80, bottom: 193 - 130 })
  })

  it('takes full sheets to the spacer, not to the opening', () => {
    const m = measure(frame(200, 200, 0, 0, rectangle))
    expect(m.fullSheets).toBe(true)
    expect(m.fitFactor).toBeCloseTo(1, 9)
    expect(measureSnags(frame(200, 200, 0, 0, rectangle))).toEqual([])
  })

  it('knows full sheets at whatever scale they were drawn, and warns while they swim', () => {
    const small = frame(100, 100, 50, 50, rectangle)
    expect(codes(small)).toEqual(['design-swims'])
    expect(measure(small).fitFactor).toBeCloseTo(2, 9)
    expect(codes(fitDesign(small))).toEqual([])
  })

  it('takes sheets that could not cover the opening as a design within it', () => {
    const narrow = withMount(frame(200, 200, 0, 0, rectangle), {
      spacer: { widthMm: 180, heightMm: 200 },
      opening: { widthMm: 166, heightMm: 186 },
    })
    expect(measure(narrow).fullSheets).toBe(false)
    expect(codes(narrow)).toEqual(['design-over-opening'])
    expect(codes(fitDesign(narrow))).toEqual([])
  })

  it('is limited by the sheet where the frame is larger than the cutter reaches', () => {
    const large = withMount(frame(100, 100), {
      spacer: { widthMm: 400, heightMm: 400 },
      opening: { widthMm: 380, heightMm: 380 },
    })
    const m = measure(large)
    expect(m.safe!.widthMm).toBeCloseTo(292.1, 6)
    expect(m.safe!.limit).toBe('what the cutter reaches on a sheet')
  })

  it('warns where the design passes the opening, and one press mends it', () => {
    const project = frame(190, 100, 2, 50)
    const snag = measureSnags(project).find((s) => s.code === 'design-over-opening')!
    expect(wordsIn(snag.message, 'mm')).toContain('5 mm at the left')
    expect(snag.at).toEqual([2, 100])
    expect(codes(fitDesign(project))).toEqual([])
  })

  it('warns where a piece passes the sheet, and where measures cannot be true', () => {
    expect(codes(frame(310, 20))).toContain('piece-over-sheet')
    expect(codes(withMount(frame(10, 10), { opening: { widthMm: 220, heightMm: 100 } }))).toContain(
      'opening-over-spacer',
    )
    expect(codes(withMount(frame(10, 10), { clearanceMm: 24 }))).toContain('no-depth')
  })

  it('takes a measure that cannot be meant for one in another unit, and mends it', () => {
    const slip = (over: Parameters<typeof withMount>[1]) =>
      measureSnags(withMount(frame(100, 100), over)).filter((snag) => snag.code === 'measure-slip')
    const [snag] = slip({
      spacer: { widthMm: 216, heightMm: 216 },
      opening: { widthMm: 8, heightMm: 8 },
    })
    expect(wordsIn(snag!.message, 'mm')).toBe(
      'An opening of 8 mm cannot be meant: in inches it would be 203.2 mm.',
    )
    const { action } = snag!.mend!
    const mended = mendProject(
      withMount(frame(100, 100), { opening: { widthMm: 8, heightMm: 8 } }),
      action,
      [],
    )
    expect(mended.mount).toMatchObject({ opening: { widthMm: expect.closeTo(203.2, 6) as number } })
    expect(slip({ depthMm: 1 }).map((one) => one.mend!.label)).toEqual(['It was inches'])
    // Small frames, narrow openings and shallow depths that somebody has are left alone.
    for (const fine of [
      { spacer: { widthMm: 25, heightMm: 35 }, opening: { widthMm: 20, heightMm: 30 } },
      { opening: { widthMm: 60, heightMm: 176 } },
      { depthMm: 3 },
    ])
      expect(slip(fine)).toEqual([])
  })

  it('lets a long piece lie along the longer side of a sheet', () =>
    expect(codes(withMount(frame(150, 150), {}))).not.toContain('piece-over-sheet'))
})

describe('fitting', () => {
  it('keeps proportions, centres, and lands exactly on the limit', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 180, noNaN: true }),
        fc.double({ min: 5, max: 180, noNaN: true }),
        (w, h) => {
          const b = designBox(fitDesign(frame(w, h)))
          expect((b.maxX - b.minX) / (b.maxY - b.minY)).toBeCloseTo(w / h, 1)
          expect(Math.max(b.maxX - b.minX, b.maxY - b.minY)).toBeCloseTo(176, 1)
          expect((b.minX + b.maxX) / 2).toBeCloseTo(100, 1)
        },
      ),
      { numRuns: 40 },
    )
  })

  it('brings a topper to its width and its corner to 0, 0', () => {
    const topper: Project = {
      ...newProject('t', 'T', starterMount('topper')),
      layers: [makeLayer('a', 'A', [rectangle(40, 12, 300, 60)])],
    }
    expect(measureSnags(topper).map((s) => s.code)).toContain('design-over-width')
    const b = designBox(fitDesign(topper))
    expect(b.minX).toBeCloseTo(0, 2)
    expect(b.maxX).toBeCloseTo(150, 2)
    expect(b.minY).toBeCloseTo(0, 2)
  })

  it('leaves an empty project alone', () => {
    const empty = newProject('e', 'Empty', starterMount('card'))
    expect(fitDesign(empty)).toBe(empty)
    expect(measure(empty).design).toBeNull()
  })
})
