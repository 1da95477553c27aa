import { mendProject } from '..'
import { wordsIn } from '../../base/units'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { boxWidth, rectangle, regionArea, subtract, union, type Polygon } from '../../base/geometry'
import { card, plate, stack } from '../../../test/stack'
import { makeLayer } from '../layers'
import {
  changeKind,
  designBox,
  layerBox,
  layerRegion,
  newProject,
  setPlan,
  starterMount,
  type Fold,
  type FrameMount,
  type Project,
} from '../../project'
import { fitDesign, measure, measureSnags } from './index'

/** A silhouette: a rhombus in a box. */
const rhombus = ([x, y]: readonly [number, number], w: number, h: number): Polygon => ({
  outer: Float64Array.of(x + w / 2, y, x + w, y + h / 2, x + w / 2, y + h, x, y + h / 2),
  holes: [],
})
const frame = (
  { w, h }: { w: number; h: number },
  at: readonly [number, number] = [30, 30],
  shape = rhombus,
): Project => ({
  ...newProject('f', 'Frame', starterMount('frame')),
  layers: [makeLayer({ id: 'a', name: 'A' }, [shape(at, w, h)])],
})
const codes = (project: Project) => measureSnags(project).map((snag) => snag.code)
const withMount = (project: Project, patch: Partial<FrameMount>): Project => ({
  ...project,
  mount: { ...(project.mount as FrameMount), ...patch },
})

describe('a frame', () => {
  it('gives backing, lip, room and what the cutter reaches', () => {
    const m = measure(frame({ w: 100, h: 100 }))
    expect(m.backing).toEqual({ widthMm: 200, heightMm: 200 })
    expect(m.lip).toEqual({ left: 7, top: 7, right: 7, bottom: 7 })
    expect(m.roomMm).toBe(22)
    expect(m.cuttable.widthMm).toBeCloseTo(12 * 25.4 - 2 * 6.35, 6)
  })

  it('lets a silhouette be as large as the opening less its air, proportions locked', () => {
    const m = measure(frame({ w: 50, h: 100 }))
    expect(m.safe!.heightMm).toBeCloseTo(176, 6)
    expect(m.safe!.widthMm).toBeCloseTo(88, 6)
    expect(m.safe!.limit).toBe('the opening less its air')
    expect(m.borders).toEqual({ left: 23, top: 23, right: 193 - 80, bottom: 193 - 130 })
  })

  it('takes full sheets to the spacer, not to the opening', () => {
    const m = measure(frame({ w: 200, h: 200 }, [0, 0], rectangle))
    expect(m.fullSheets).toBe(true)
    expect(m.fitFactor).toBeCloseTo(1, 9)
    expect(measureSnags(frame({ w: 200, h: 200 }, [0, 0], rectangle))).toEqual([])
  })

  it('knows full sheets at whatever scale they were drawn, and warns while they swim', () => {
    const small = frame({ w: 100, h: 100 }, [50, 50], rectangle)
    expect(codes(small)).toEqual(['design-swims'])
    expect(measure(small).fitFactor).toBeCloseTo(2, 9)
    expect(codes(fitDesign(small))).toEqual([])
  })

  it('takes sheets that could not cover the opening as a design within it', () => {
    const narrow = withMount(frame({ w: 200, h: 200 }, [0, 0], rectangle), {
      spacer: { widthMm: 180, heightMm: 200 },
      opening: { widthMm: 166, heightMm: 186 },
    })
    // With an opening in it proportions stay locked: it is a design within what is seen.
    const cut = { ...narrow, layers: [makeLayer({ id: 'a', name: 'A' }, subtract([rectangle([0, 0], 200, 200)], [rectangle([50, 50], 100, 100)]))] } // prettier-ignore
    expect(measure(cut).fullSheets).toBe(false)
    expect(codes(cut)).toEqual(['design-over-opening'])
    expect(codes(fitDesign(cut))).toEqual([])
    // A plain one is cut to the backing's size.
    const [snag] = measureSnags(narrow)
    expect(snag).toMatchObject({ code: 'sheet-over-spacer' })
    expect(codes(mendProject(narrow, snag!.mend!.action, []))).toEqual([])
  })

  it('is limited by the sheet where the frame is larger than the cutter reaches', () => {
    const large = withMount(frame({ w: 100, h: 100 }), {
      spacer: { widthMm: 400, heightMm: 400 },
      opening: { widthMm: 380, heightMm: 380 },
    })
    const m = measure(large)
    expect(m.safe!.widthMm).toBeCloseTo(292.1, 6)
    expect(m.safe!.limit).toBe('what the cutter reaches on a sheet')
  })

  it('has a piece that no sheet takes sized with the design, or cut in parts where that is as large as its frame', () => {
    const mendOf = (project: Project) =>
      measureSnags(project).find(({ code }) => code === 'piece-over-sheet')?.mend
    expect(mendOf(frame({ w: 310, h: 310 }))!.action.kind).toBe('fit-design')
    // A sheet of the size of the spacer stays as large as that.
    const spacer = { widthMm: 400, heightMm: 250 }
    const opening = { widthMm: 380, heightMm: 230 }
    const sheet = withMount(frame({ w: 400, h: 250 }, [0, 0], rectangle), { spacer, opening })
    expect(codes(sheet)).toEqual(['piece-over-sheet'])
    expect(wordsIn(mendOf(sheet)!.label, 'mm')).toBe('Cut it in 2 parts')
    expect(codes(mendProject(sheet, mendOf(sheet)!.action, []))).toEqual([])
    // So does one with an opening that a seam runs through: put together it is a sheet as before.
    const cut = subtract([rectangle([0, 0], 400, 250)], [rectangle([60, 40], 280, 170)])
    const window = { ...sheet, layers: [makeLayer({ id: 'a', name: 'A' }, cut)] }
    const parted = mendProject(window, mendOf(window)!.action, [])
    expect(parted.layers[0]!.pieces).toHaveLength(2)
    expect([measure(window), measure(parted)].map((m) => m.fullSheets)).toEqual([true, true])
    expect(codes(parted)).toEqual([])
    const score: Fold = { line: [0, 0, 400, 250], deg: 90, way: 'up' }
    const folded = { ...sheet.layers[0]!, folds: [score] }
    expect(mendOf({ ...sheet, layers: [folded] })).toBeUndefined()
  })

  it('has sheets that fitting the design would leave too small cut to its size', () => {
    // Words reach past the sheets on both sides, so that all together cannot be scaled until the sheets cover the panel.
    const sheet = (id: string) => ({ ...plate(id, 0, [18, 18, 164, 164]), role: 'backing' as const })
    const start = stack('panel', sheet('a'), sheet('b'), plate('words', 2, [10, 80, 180, 40]))
    const swims = (project: Project) => measureSnags(project).find(({ code }) => code === 'design-swims')
    expect(swims(start)!.mend!.action.kind).toBe('fit-sheet')
    const mended = [1, 2].reduce((p) => mendProject(p, swims(p)!.mend!.action, []), start)
    expect(codes(mended)).toEqual([])
    expect(boxWidth(layerBox(mended.layers[0]!))).toBeCloseTo(200, 6)
  })

  it('warns where the design passes the opening, and one press mends it', () => {
    const project = frame({ w: 190, h: 100 }, [2, 50])
    const snag = measureSnags(project).find((s) => s.code === 'design-over-opening')!
    expect(wordsIn(snag.message, 'mm')).toContain('5 mm at the left')
    expect(snag.at).toEqual([2, 100])
    expect(codes(fitDesign(project))).toEqual([])
  })

  it('warns where a piece passes the sheet, and where measures cannot be true', () => {
    const long = frame({ w: 310, h: 20 })
    expect(codes(setPlan(long, { turns: 'quarter' }))).toContain('piece-over-sheet')
    // Across the sheet there is room for it.
    expect(codes(setPlan(long, { turns: 'free' }))).not.toContain('piece-over-sheet')
    expect(codes(withMount(frame({ w: 10, h: 10 }), { opening: { widthMm: 220, heightMm: 100 } }))).toContain(
      'opening-over-spacer',
    )
    expect(codes(withMount(frame({ w: 10, h: 10 }), { clearanceMm: 24 }))).toContain('no-depth')
  })

  it('takes a measure that cannot be meant for one in another unit, and mends it', () => {
    const slip = (over: Parameters<typeof withMount>[1]) =>
      measureSnags(withMount(frame({ w: 100, h: 100 }), over)).filter((snag) => snag.code === 'measure-slip')
    const [snag] = slip({
      spacer: { widthMm: 216, heightMm: 216 },
      opening: { widthMm: 8, heightMm: 8 },
    })
    expect(wordsIn(snag!.message, 'mm')).toBe(
      'An opening of 8 mm cannot be meant: in inches it would be 203.2 mm.',
    )
    const { action } = snag!.mend!
    const mended = mendProject(
      withMount(frame({ w: 100, h: 100 }), { opening: { widthMm: 8, heightMm: 8 } }),
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

  it('keeps sheets of one size together where none of them covers what is seen, the backmost too', () => {
    // Upright sheets in a square frame: stretched to its size the one at the back would pass the others all round.
    const box: [number, number, number, number] = [24, 5, 152, 190]
    const [x, y, w, h] = box
    const ring = subtract([rectangle([x, y], w, h)], [rectangle([x + 20, y + 20], w - 40, h - 40)])
    const project = stack(
      'frame',
      makeLayer({ id: 'sky', name: 'Sky' }, [rectangle([x, y], w, h)], { role: 'backing' }),
      card('hills', 2, ring),
      plate('moon', 2, [120, 40, 30, 30]),
      card('front', 2, ring),
    )
    const fitted = fitDesign(project)
    const boxes = fitted.layers.map(layerBox)
    for (const k of [1, 3]) expect(boxes[k]).toEqual(boxes[0])
    const scale = (boxes[0]!.maxX - boxes[0]!.minX) / w
    expect(scale).toBeLessThan(1)
    expect((boxes[2]!.minX - boxes[0]!.minX) / scale).toBeCloseTo(120 - x, 2)
    expect(measureSnags(fitted).filter(({ severity }) => severity === 'stop')).toEqual([])
  })

  it('judges a design on a backing sheet by the opening, and fits the design alone', () => {
    const project: Project = {
      ...frame({ w: 100, h: 100 }),
      layers: [
        makeLayer({ id: 'back', name: 'Back' }, [rectangle([0, 0], 200, 200)], { role: 'backing' }),
        makeLayer({ id: 'a', name: 'A' }, [rhombus([40, 40], 110, 120)]),
      ],
    }
    expect(codes(project)).toEqual([])
    expect(measure(project)).toMatchObject({ fullSheets: false, design: { widthMm: 110 } })
    const fitted = fitDesign(project)
    expect(fitted.layers[0]).toEqual(project.layers[0])
    expect(layerBox(fitted.layers[1]!).maxY - layerBox(fitted.layers[1]!).minY).toBeCloseTo(176, 1)
    expect(codes(fitted)).toEqual([])
  })

  it('takes layers that run under the lip with the sheets, on whichever side', () => {
    const hills: Polygon = { outer: Float64Array.of(0, 120, 200, 90, 200, 200, 0, 200), holes: [] }
    const project: Project = {
      ...frame({ w: 1, h: 1 }),
      layers: [
        makeLayer({ id: 'back', name: 'Back' }, [rectangle([0, 0], 200, 200)]),
        makeLayer({ id: 'hills', name: 'Hills' }, [hills]),
        makeLayer(
          { id: 'front', name: 'Front' },
          subtract([rectangle([0, 0], 200, 200)], [rectangle([20, 20], 160, 160)]),
        ),
      ],
    }
    expect(codes(project)).toEqual([])
    expect(measure(project)).toMatchObject({ fullSheets: true, fitFactor: 1 })
  })

  it('says too little air, with fitting as its mend', () => {
    const tight = frame({ w: 185, h: 100 }, [7.5, 50])
    const [snag, ...more] = measureSnags(tight)
    expect(more).toEqual([])
    expect(snag).toMatchObject({ code: 'little-air', severity: 'caution', at: [7.5, 100] })
    expect(wordsIn(snag!.message, 'mm')).toContain('0.5 mm of air')
    expect(codes(mendProject(tight, snag!.mend!.action, []))).toEqual([])
    // Exactly the air asked for is enough.
    expect(codes(frame({ w: 176, h: 100 }, [12, 50]))).toEqual([])
  })

  it('tests openings of full sheets against the lip: one whose edge is hidden all round is found and drawn in', () => {
    const window = (side: number): Project => ({
      ...frame({ w: 1, h: 1 }),
      layers: ['a', 'b'].map((id) =>
        makeLayer(
          { id, name: id },
          subtract([rectangle([0, 0], 200, 200)], [rectangle([100 - side / 2, 100 - side / 2], side, side)]),
        ),
      ),
    })
    expect(codes(window(170))).toEqual([])
    const wide = window(192)
    const [snag] = measureSnags(wide)
    expect(snag).toMatchObject({ code: 'opening-under-lip', layer: 'a' })
    expect(wordsIn(snag!.message, 'mm')).toContain('3 mm')
    const mended = mendProject(wide, snag!.mend!.action, [])
    expect(measureSnags(mended).map((one) => one.layer)).toEqual(['b'])
    expect(layerBox(mended.layers[0]!)).toEqual(layerBox(wide.layers[0]!))
  })

  it('lets parts go on behind sheets with openings, but not past the spacer', () => {
    const window = makeLayer(
      { id: 'w', name: 'W' },
      subtract([rectangle([0, 0], 200, 200)], [rectangle([30, 30], 140, 140)]),
    )
    const boat = (x: number): Project => ({
      ...frame({ w: 1, h: 1 }),
      layers: [makeLayer({ id: 'boat', name: 'Boat' }, [rhombus([x, 80], 60, 40)]), window],
    })
    expect(codes(boat(2))).toEqual([])
    const [snag] = measureSnags(boat(-4))
    expect(snag).toMatchObject({ code: 'part-over-spacer', layer: 'boat' })
    const mended = mendProject(boat(-4), snag!.mend!.action, [])
    expect(codes(mended)).toEqual([])
    // Of a rhombus 60 × 40 its point goes, 4 mm long and 16/3 mm wide at the cut; all else stays.
    expect(regionArea(layerRegion(mended.layers[0]!))).toBeCloseTo(1200 - 32 / 3, 1)
    expect(mended.layers[1]).toEqual(window)
    // What lies outside for the most part is in the wrong place.
    expect(measureSnags(boat(-40))[0]!.mend).toBeUndefined()
  })

  it('cuts off what of a sheet runs past its edge where the sheets are to size, and scales them where they are not', () => {
    const sheet = (id: string, side: number, past: number) =>
      makeLayer(
        { id, name: id },
        subtract(union([rectangle([0, 0], side, side)], [rectangle([40, -past], 20, 30)]), [
          rectangle([side * 0.2, side * 0.2], side * 0.6, side * 0.6),
        ]),
      )
    const over = (side: number) => ({
      ...frame({ w: 1, h: 1 }),
      layers: [sheet('a', side, 0), sheet('b', side, 12)],
    })
    const [snag, ...others] = measureSnags(over(200))
    expect(others).toEqual([])
    expect(snag).toMatchObject({ code: 'sheet-over-spacer', layer: 'b' })
    const mended = mendProject(over(200), snag!.mend!.action, [])
    expect(codes(mended)).toEqual([])
    expect(measure(over(200)).fitFactor).toBe(1)
    // However little it is: a sheet that fills its box nearly is cut off too, and a bare one cut anew.
    const back = makeLayer({ id: 'back', name: 'back' }, [rectangle([0, 0], 200, 200)])
    const dented = union([rectangle([0, 0], 200, 200)], [rectangle([50, -2], 60, 9)])
    for (const shape of [dented, [rectangle([-2, 0], 203, 200)]]) {
      const project = { ...frame({ w: 1, h: 1 }), layers: [back, makeLayer({ id: 'a', name: 'A' }, shape), ...over(200).layers] } // prettier-ignore
      const own = measureSnags(project).find(({ layer }) => layer === 'a')!
      expect(codes(mendProject(project, own.mend!.action, []))).toEqual(['sheet-over-spacer'])
    }
    expect(fitDesign(over(200))).toEqual(over(200))
    expect(regionArea(layerRegion(mended.layers[1]!))).toBeCloseTo(
      regionArea(layerRegion(mended.layers[0]!)),
      4,
    )
    expect(measureSnags(over(210)).map(({ mend }) => mend!.action.kind)).not.toContain('cut-off')
  })

  it('makes one sheet of another size the backing’s, and leaves the others', () => {
    const project: Project = {
      ...frame({ w: 1, h: 1 }),
      layers: [
        makeLayer({ id: 'back', name: 'Back' }, [rectangle([-3, 0], 206, 200)], { role: 'backing' }),
        makeLayer({ id: 'a', name: 'A' }, [rhombus([60, 60], 80, 80)]),
      ],
    }
    const [snag] = measureSnags(project)
    expect(snag).toMatchObject({ code: 'sheet-over-spacer', layer: 'back' })
    const mended = mendProject(project, snag!.mend!.action, [])
    expect(layerBox(mended.layers[0]!)).toEqual({ minX: 0, minY: 0, maxX: 200, maxY: 200 })
    expect(mended.layers[1]).toEqual(project.layers[1])
  })

  it('counts a mat in what is seen and in the depth, wherever the opening sits', () => {
    // Worked out by hand: the mat shows 150 × 120 round a middle 4 mm to the right of the spacer's and 3 mm up.
    const m = measure(
      withMount(frame({ w: 100, h: 50 }, [60, 60]), {
        openingShift: { xMm: 4, yMm: -3 },
        mat: { opening: { widthMm: 150, heightMm: 120 }, thicknessMm: 1.5 },
      }),
    )
    expect(m.opening).toEqual({ widthMm: 150, heightMm: 120 })
    expect(m.lip).toEqual({ left: 29, top: 37, right: 21, bottom: 43 })
    expect(m.roomMm).toBeCloseTo(24 - 1.5 - 2, 9)
    expect(m.safe).toMatchObject({ widthMm: 140, heightMm: 70, limit: 'the mat’s opening less its air' })
    expect(m.borders).toEqual({ left: 31, top: 23, right: 19, bottom: 47 })
  })

  it('keeps what is raised clear of the spacer’s walls, or leaves the spacer out', () => {
    const sheets = ['a', 'b', 'c'].map((id) =>
      makeLayer({ id, name: id }, subtract([rectangle([0, 0], 200, 200)], [rectangle([30, 30], 140, 140)])),
    )
    const kept = {
      ...withMount(frame({ w: 1, h: 1 }), { ring: { wallMm: 9, heightMm: 20, kept: true } }),
      layers: sheets,
    }
    const snag = measureSnags(kept).find((one) => one.code === 'spacer-in-the-way')!
    expect(wordsIn(snag.message, 'mm')).toContain(
      '2 layers do not go inside the spacer: its walls leave 182 × 182 mm',
    )
    expect(codes(mendProject(kept, snag.mend!.action, []))).toEqual([])
    // Not measured, it is in nobody's way.
    expect(
      codes({
        ...kept,
        mount: { ...(kept.mount as FrameMount), ring: { wallMm: 0, heightMm: 0, kept: true } },
      }),
    ).toEqual([])
    expect(
      codes(withMount(frame({ w: 50, h: 50 }), { ring: { wallMm: 5, heightMm: 30, kept: true } })),
    ).toContain('ring-too-high')
  })

  it('lets a long piece lie along the longer side of a sheet', () =>
    expect(codes(withMount(frame({ w: 150, h: 150 }), {}))).not.toContain('piece-over-sheet'))
})

describe('fitting', () => {
  it('keeps proportions, centres, and lands exactly on the limit', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 180, noNaN: true }),
        fc.double({ min: 5, max: 180, noNaN: true }),
        (w, h) => {
          const b = designBox(fitDesign(frame({ w, h })))
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
      layers: [makeLayer({ id: 'a', name: 'A' }, [rectangle([40, 12], 300, 60)])],
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

describe('a garland', () => {
  it('takes a string for its flags, the gaps between them and both ends', () => {
    const flags = changeKind(frame({ w: 80, h: 100 }), 'garland')
    const mount = { kind: 'garland' as const, flags: 9, gapMm: 20, endsMm: 300 }
    expect(measure({ ...flags, mount }).stringMm).toBeCloseTo(9 * 80 + 8 * 20 + 600, 6)
    expect(measure(frame({ w: 80, h: 100 })).stringMm).toBeNull()
  })
})

describe('the kind of work', () => {
  it('can be changed and changed back without losing a layer or a size', () => {
    const start = frame({ w: 100, h: 80 })
    const kinds = ['card', 'panel', 'topper', 'garland', 'free', 'frame'] as const
    for (const kind of kinds) {
      const changed = changeKind(start, kind)
      expect(changed.mount.kind).toBe(kind)
      expect(changed.layers).toBe(start.layers)
    }
    expect(changeKind(start, 'card').mount).toMatchObject({ panel: { widthMm: 200, heightMm: 200 } })
    expect(changeKind(start, 'topper').mount).toMatchObject({ widthMm: 100 })
    expect(changeKind(changeKind(start, 'panel'), 'frame').mount).toMatchObject({
      spacer: { widthMm: 200, heightMm: 200 },
      opening: { widthMm: 186, heightMm: 186 },
    })
  })
})
