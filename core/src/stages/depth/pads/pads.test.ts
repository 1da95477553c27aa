import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { card, stack } from '../../../../test/stack'
import { demo, demoNames } from '../../../demo'
import {
  convexHull,
  ellipse,
  intersect,
  mapRegion,
  rectangle,
  regionCentroid,
  regionContains,
  ringContains,
  rotation,
  strokeRegion,
  subtract,
  union,
  type Region,
} from '../../../base/geometry'
import {
  assignPaper,
  keepPadFree,
  newProject,
  padsToPlan,
  putPad,
  setPlan,
  starterMount,
  transformLayers,
  type HandPad,
  type Project,
} from '../../../project'
import { makeLayer } from '../../layers'
import { starterStock } from '../../paper'
import { depthPlan } from '../depth'
import { CardField } from './card-field'
import { CardGrid } from './card-grid'
import { fewestSets } from './cover'
import { farthestOf, padSpan, SPANS_MM } from './pads'

/** The farthest point from a place along the card, and how far. */
const farFrom = (region: Region, [x, y]: readonly [number, number], pitch = 1) =>
  farthestOf(region, [{ x, y }], pitch)

describe('distance along the card', () => {
  it('is straight where nothing is between', () => {
    const { farthestMm } = farFrom([rectangle([0, 0], 80, 60)], [0.5, 0.5])
    expect(farthestMm).toBeCloseTo(Math.hypot(79.5, 59.5), 0)
  })

  it('runs round what is cut out: a bar across a sheet, by hand', () => {
    // From one side of a slot to the other, by its end.
    const region = subtract([rectangle([0, 0], 100, 40)], [rectangle([-1, 19], 81, 2)])
    const field = new CardField(region, 1)
    const { samples, mm } = field.around([[2, 10]], Infinity)
    const at = samples.findIndex((sample) => Math.hypot(field.x[sample]! - 2, field.y[sample]! - 30) < 1)
    const [seen, far] = [samples[at]!, mm[at]!]
    const byHand = Math.hypot(78, 9) + 2 + Math.hypot(80 - field.x[seen]!, field.y[seen]! - 21)
    expect(far / byHand).toBeGreaterThan(0.995)
    expect(far / byHand).toBeLessThan(1.03)
  })

  it.each([-5e-4, -1e-6, 0, 1e-6, 5e-4])(
    'never crosses a slot whose edge lies on the middles of cells, or %s mm beside them',
    (beside) => {
      // Cells of 3 mm: their middles lie at 1.5, 4.5, … Both edges of the slot run along such rows.
      const slot = rectangle([-1, 19.5 - beside], 81, 3 + beside * 2)
      const region = subtract([rectangle([0, 0], 99, 42)], [slot])
      const field = new CardField(region, 3)
      const { samples, mm } = field.around([[6, 10]], Infinity)
      samples.forEach((sample, k) => {
        const [x, y] = [field.x[sample]!, field.y[sample]!]
        if (y < 22.4) return
        const least = Math.hypot(80 - 6, 19.5 - 10) + 3 + (x < 80 ? Math.hypot(80 - x, y - 22.5) : 0)
        if (x < 80) expect(mm[k]!).toBeGreaterThan(least - 0.01)
      })
    },
  )

  it('follows the tines of a comb and the windings of a spiral', () => {
    const comb = union(
      [rectangle([0, 0], 120, 12)],
      ...Array.from({ length: 9 }, (_, i) => [rectangle([i * 14, 10], 2, 72)]),
    )
    // From one tine's root the farthest is the far tine's end: along the bar, then down the tine.
    const { farthestMm, farthestAt } = farFrom(comb, [1, 6], 2)
    expect(farthestAt![1]).toBeCloseTo(82, 0)
    expect(farthestMm / (Math.hypot(111, 6) + 70)).toBeGreaterThan(0.98)
    expect(farthestMm / (Math.hypot(111, 6) + 70)).toBeLessThan(1.04)
    const points: number[] = []
    let length = 0
    for (let t = 0; t <= 6 * Math.PI; t += 0.05) {
      const r = 8 + t * 2.2
      points.push(80 + r * Math.cos(t), 80 + r * Math.sin(t))
      const n = points.length
      if (n > 2) length += Math.hypot(points[n - 2]! - points[n - 4]!, points[n - 1]! - points[n - 3]!)
    }
    const spiral = strokeRegion([{ points: Float64Array.from(points), closed: false }], { widthMm: 5 })
    const far = farFrom(spiral, [points[0]!, points[1]!], 1.5).farthestMm
    // A string pulled tight along the inner side is a little shorter than the middle line.
    expect(far / length).toBeGreaterThan(0.82)
    expect(far / length).toBeLessThan(1.02)
  })

  it('is never told too small: against every way round random discs', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 15, max: 85 }), fc.integer({ min: 15, max: 65 })), {
          minLength: 1,
          maxLength: 5,
        }),
        (at) => {
          // prettier-ignore
          const region = subtract([rectangle([0, 0], 100, 80)], union(...at.map(([x, y]) => [ellipse([x, y], 9)])))
          const coarse = new CardField(region, 3)
          const { samples, mm } = coarse.around([[2, 2]], Infinity)
          samples.forEach((k, i) =>
            expect(mm[i]!).toBeGreaterThanOrEqual(Math.hypot(coarse.x[k]! - 2, coarse.y[k]! - 2) - 1e-9),
          )
        },
      ),
      { numRuns: 12 },
    )
  })
})

describe('what is seen over whole cells', () => {
  it('lies in the card along its whole line, and is as far as that line: against points along it', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 15, max: 85 }), fc.integer({ min: 15, max: 65 }), fc.integer({ min: 2, max: 12 })), { minLength: 1, maxLength: 6 }), // prettier-ignore
        fc.tuple(fc.integer({ min: 3, max: 97 }), fc.integer({ min: 3, max: 77 })),
        (discs, [x, y]) => {
          const region = subtract([rectangle([0, 0], 100, 80)], union(...discs.map(([cx, cy, r]) => [ellipse([cx, cy], r)]))) // prettier-ignore
          if (!regionContains(region, x, y)) return
          const field = new CardField(region, 2)
          const grid = new CardGrid(region, 2)
          const alone = field.around([[x, y]], 40)
          // The same place twice over: no look round, every way is searched for.
          const twice = field.around([[x, y], [x, y]], 40) // prettier-ignore
          const own = new Map([...alone.samples].map((sample, k) => [sample, alone.mm[k]!]))
          const searched = new Map([...twice.samples].map((sample, k) => [sample, twice.mm[k]!]))
          for (const [sample, mm] of searched)
            if (mm < 39) expect(own.get(sample) ?? Infinity).toBeLessThan(mm * 1.02 + 1e-9)
          const along = Array.from({ length: 50 }, (_, k) => k / 49)
          for (const [sample, mm] of own) {
            const [dx, dy] = [field.x[sample]! - x, field.y[sample]! - y]
            expect(mm).toBeGreaterThan(Math.hypot(dx, dy) - 1e-9)
            if (!grid.sees({ x, y }, { x: x + dx, y: y + dy })) continue
            expect(mm).toBeCloseTo(Math.hypot(dx, dy), 9)
            expect(along.filter((t) => !regionContains(region, x + dx * t, y + dy * t))).toEqual([])
          }
        },
      ),
      { numRuns: 30 },
    )
  })
})

describe('the fewest sets', () => {
  const smallest = (rows: number, sets: readonly Int32Array[]): number => {
    const all = sets.reduce((mask, set) => set.reduce((m, r) => m | (1 << r), mask), 0)
    let best = sets.length
    for (let pick = 0; pick < 1 << sets.length; pick++) {
      let mask = 0
      let n = 0
      sets.forEach((set, k) => {
        if (pick & (1 << k)) {
          n++
          for (const r of set) mask |= 1 << r
        }
      })
      if (mask === all && n < best) best = n
    }
    void rows
    return best
  }

  it('are as few as trying all of them finds', () => {
    fc.assert(
      fc.property(
        fc.array(fc.uniqueArray(fc.integer({ min: 0, max: 17 }), { minLength: 1, maxLength: 6 }), { minLength: 1, maxLength: 12 }), // prettier-ignore
        (lists) => {
          const sets = lists.map((list) => Int32Array.from(list))
          const found = fewestSets({ rows: 18, sets })
          const covered = new Set(found.flatMap((k) => [...sets[k]!]))
          expect(covered).toEqual(new Set(lists.flat()))
          expect(found.length).toBe(smallest(18, sets))
        },
      ),
      { numRuns: 120 },
    )
  })

  it('are the same each time, and none of nothing', () => {
    const sets = Array.from({ length: 60 }, (_, k) =>
      Int32Array.from({ length: 9 }, (_, i) => (k * 7 + i * i) % 90),
    )
    expect(fewestSets({ rows: 90, sets })).toEqual(fewestSets({ rows: 90, sets }))
    expect(fewestSets({ rows: 4, sets: [] })).toEqual([])
  })
})

describe('pads', () => {
  const shapes: [string, Region][] = [
    ['sheet', [rectangle([20, 20], 160, 160)]],
    ['frame', subtract([rectangle([10, 10], 180, 180)], [rectangle([35, 35], 130, 130)])],
    ['comb', union([rectangle([20, 20], 160, 20)], ...Array.from({ length: 6 }, (_, i) => [rectangle([20 + i * 28, 20], 13, 130)]))], // prettier-ignore
    ['ring', subtract([ellipse([100, 100], 85)], [ellipse([100, 100], 64)])],
    ['drop', union([ellipse([90, 100], 60)], [rectangle([90, 90], 100, 20)])],
  ]
  const planOf = (region: Region, thrift: 'sparing' | 'steady' | 'sale') =>
    depthPlan(
      setPlan(stack('frame', card('a', 0, [rectangle([0, 0], 200, 200)]), card('b', 2, region)), { thrift }),
    )

  it.each(shapes)(
    'of a %s: no point farther along the card than the span, and never fewer for more foam',
    (_, region) => {
      let before = 0
      for (const thrift of ['sparing', 'steady', 'sale'] as const) {
        const plan = planOf(region, thrift)
        // Measured anew on finer samples than the planner's own.
        const { farthestMm } = farthestOf(region, plan.pads, 0.9)
        expect(farthestMm).toBeLessThanOrEqual(padSpan({ thrift, padSpanMm: null }) * 1.02)
        expect(plan.pads.length).toBeGreaterThanOrEqual(before)
        before = plan.pads.length
      }
    },
  )

  it.each([8, 9.5, 12])(
    'hold lace of strips %s mm wide, slanted, where a pad fits nowhere but along each',
    (barMm) => {
      // Slots between strips, in a rim: a strip of foam lies anywhere on a strip of card, so that nothing need be farther than the span.
      const slots = Array.from({ length: 17 }, (_, k) =>
        rectangle([-75, (k - 8) * (barMm + 5) - 2.5], 150, 5),
      )
      const turned = mapRegion(rotation(37), slots)
      const disc = [ellipse([0, 0], 88)]
      const inner = [ellipse([0, 0], 74)]
      const lace = mapRegion(
        [1, 0, 0, 1, 100, 100],
        subtract(disc, intersect(inner, union(...turned.map((slot) => [slot])))),
      )
      for (const thrift of ['steady', 'sale'] as const) {
        const { farthestMm } = farthestOf(lace, planOf(lace, thrift).pads, 0.9)
        expect(farthestMm).toBeLessThanOrEqual(padSpan({ thrift, padSpanMm: null }) * 1.02)
      }
    },
  )

  it('of a plain sheet of 160 mm are some 5 to 8, 12 to 16, 20 to 30', () => {
    const count = (thrift: 'sparing' | 'steady' | 'sale') =>
      planOf([rectangle([20, 20], 160, 160)], thrift).pads.length
    const [sparing, steady, sale] = [count('sparing'), count('steady'), count('sale')]
    expect(sparing).toBeGreaterThanOrEqual(5)
    expect(sparing).toBeLessThanOrEqual(8)
    expect(steady).toBeGreaterThanOrEqual(12)
    expect(steady).toBeLessThanOrEqual(17)
    expect(sale).toBeGreaterThanOrEqual(20)
    expect(sale).toBeLessThanOrEqual(30)
  })

  it.each(demoNames)(
    'of %s have the centre of mass of every piece between them, where it is on card',
    (name) => {
      const plan = depthPlan(demo(name))
      for (const { layer, pieceId, region } of plan.pieces) {
        const own = plan.pads.filter((pad) => pad.layerId === layer.id && pad.pieceId === pieceId)
        if (own.length < 3) continue
        const { x, y } = regionCentroid(region)
        const hull = convexHull(own.flatMap((pad) => [pad.x - 6, pad.y - 6, pad.x + 6, pad.y - 6, pad.x + 6, pad.y + 6, pad.x - 6, pad.y + 6])) // prettier-ignore
        expect(ringContains(hull, x, y), `${layer.id} ${pieceId}`).toBe(true)
      }
    },
  )
})

describe('pads that the maker puts', () => {
  const plate = (id: string, gapMm: number, ring: number[]) =>
    makeLayer({ id, name: id }, [{ outer: Float64Array.from(ring), holes: [] }], {
      joint: { kind: 'foam', gapMm, pinned: false },
    })
  const square = (x: number, y: number, s: number) => [x, y, x + s, y, x + s, y + s, x, y + s]
  const project = (): Project => ({
    ...newProject('p', 'Two sheets', starterMount('frame')),
    layers: [plate('a', 0, square(0, 0, 180)), plate('b', 2, square(10, 10, 160))],
  })
  const pad = (more: Partial<HandPad> = {}): HandPad => ({
    id: 'mine',
    layerId: 'b',
    pieceId: 'p1',
    x: 70,
    y: 80,
    rotation: 15,
    bendMm: null,
    foamIds: ['foam-6x6-2'],
    ...more,
  })
  const misfitsOf = (p: Project) =>
    depthPlan(p).layers.flatMap(({ misfits }) => misfits.map(({ why }) => why))

  it('stay where they are; the others go round them and hold the rest', () => {
    const planned = depthPlan(project())
    const put = depthPlan(putPad(project(), pad()))
    const mine = put.pads.find(({ handId }) => handId === 'mine')!
    expect([mine.x, mine.y, mine.rotation, mine.thicknessMm]).toEqual([70, 80, 15, 2])
    expect(misfitsOf(putPad(project(), pad()))).toEqual([])
    const others = put.pads.filter((other) => other !== mine)
    for (const other of others) expect(Math.hypot(other.x - 70, other.y - 80)).toBeGreaterThan(6)
    expect(put.pads.length).toBeLessThanOrEqual(planned.pads.length + 1)
    expect(put.layers[1]!.farthestMm!).toBeLessThanOrEqual(SPANS_MM.steady + 0.5)
  })

  it('are told where they do not hold, and why', () => {
    expect(misfitsOf(putPad(project(), pad({ x: 11 })))).toEqual(['edge'])
    expect(misfitsOf(putPad(project(), pad({ foamIds: ['foam-6x6-3'] })))).toEqual(['height'])
    const two = putPad(putPad(project(), pad()), pad({ id: 'other', x: 73 }))
    expect(misfitsOf(two)).toContain('on-another')
    // Nothing but air under the right half.
    const half: Project = {
      ...project(),
      mount: { kind: 'free' },
      layers: [plate('a', 0, [0, 0, 80, 0, 80, 180, 0, 180]), plate('b', 2, square(10, 10, 160))],
    }
    expect(misfitsOf(putPad(half, pad({ x: 120 })))).toEqual(['beneath'])
    // Under a clear sheet it shows.
    const clear = starterStock().find(({ finish }) => finish === 'acetate')!
    expect(misfitsOf(putPad(assignPaper(project(), ['b'], { paper: clear }), pad()))).toEqual(['shows'])
  })

  it('taken away leave their spot free, and move with their layer', () => {
    const [first] = depthPlan(project()).pads
    const spot = { layerId: 'b', x: first!.x, y: first!.y, radiusMm: 20 }
    const freed = keepPadFree(project(), spot)
    for (const other of depthPlan(freed).pads)
      expect(Math.hypot(other.x - spot.x, other.y - spot.y)).toBeGreaterThanOrEqual(20)
    expect(depthPlan(freed).layers[1]!.farthestMm!).toBeLessThanOrEqual(SPANS_MM.steady + 0.5)
    const turned = transformLayers(putPad(freed, pad()), [0, 1, -1, 0, 180, 0], ['b'])
    expect(turned.plan.handPads[0]).toMatchObject({ x: 100, y: 70, rotation: 105 })
    expect(turned.plan.padFree[0]).toMatchObject({ x: 180 - spot.y, y: spot.x })
    expect(padsToPlan(turned, 'b').plan).toMatchObject({ handPads: [], padFree: [] })
  })
})
