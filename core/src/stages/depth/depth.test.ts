import { wordsIn } from '../../base/units'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { blocks } from '../../../test/arbitrary'
import { card, plate, stack } from '../../../test/stack'
import { demo, demoNames } from '../../demo'
import {
  ellipse,
  intersect,
  mapPolygon,
  offset,
  polygonBox,
  rectangle,
  regionArea,
  rotation,
  subtract,
  union,
  type Polygon,
} from '../../base/geometry'
import {
  type Layer,
  builtLayers,
  emptyDrawer,
  layerRegion,
  pieceRegion,
  setLayer,
  setPlan,
  starterFoams,
  type Foam,
  type Project,
} from '../../project'
import {
  depthPlan,
  depthSnags,
  fitGaps,
  fitsOf,
  freeLayers,
  gapChoices,
  padSpan,
  pieceHeights,
  planGaps,
  profileShares,
  roomOf,
  withGaps,
  type DepthPlan,
  type Pad,
} from './index'

const CARD = 0.29
const bottoms = (project: Project) => pieceHeights(project).map((p) => Number(p.bottomMm.toFixed(3)))
const padShape = (pad: Pad): Polygon =>
  mapPolygon(
    [1, 0, 0, 1, pad.x, pad.y],
    mapPolygon(
      rotation(pad.rotation),
      rectangle([-pad.widthMm / 2, -pad.heightMm / 2], pad.widthMm, pad.heightMm),
    ),
  )

/** The rules of pads, checked with booleans instead of the planner's own edge walk. */
function expectSoundPads(project: Project, plan: DepthPlan): void {
  const tan = Math.tan((project.plan.viewingDeg * Math.PI) / 180)
  for (const pad of plan.pads) {
    const layer = project.layers.find((l) => l.id === pad.layerId)!
    const own = pieceRegion(layer.pieces.find((p) => p.id === pad.pieceId)!)
    const shape = [padShape(pad)]
    const area = pad.widthMm * pad.heightMm
    const inside = offset(
      own,
      -(project.plan.padMarginMm + pad.thicknessMm * tan) + 0.55 * tan + 0.02,
      'miter',
    )
    expect(regionArea(subtract(shape, inside)) / area, `${pad.layerId} pad passes the margin`).toBeLessThan(
      0.01,
    )
    const height = plan.pieces.find((p) => p.layer.id === pad.layerId && p.pieceId === pad.pieceId)!
    const below = height.supports.filter((s) => Math.abs(s.needMm - pad.thicknessMm) <= 0.5)
    expect(
      regionArea(subtract(shape, union(...below.map((s) => s.region)))) / area,
      `${pad.layerId} pad hangs over nothing`,
    ).toBeLessThan(0.01)
    expect(
      pad.foamIds.reduce((sum, id) => sum + project.drawer.foams.find((f) => f.id === id)!.thicknessMm, 0),
    ).toBeCloseTo(pad.thicknessMm, 6)
  }
  for (let i = 0; i < plan.pads.length; i++)
    for (let j = 0; j < i; j++) {
      const [a, b] = [plan.pads[i]!, plan.pads[j]!]
      if (a.layerId !== b.layerId || Math.hypot(a.x - b.x, a.y - b.y) > 20) continue
      expect(regionArea(intersect([padShape(a)], [padShape(b)]))).toBeLessThan(0.01)
    }
}

describe('local heights', () => {
  it('add card and gaps from the board up', () => {
    const project = stack(
      'frame',
      plate('a', 0, [0, 0, 200, 200]),
      plate('b', 2, [20, 20, 100, 100]),
      plate('c', 0, [40, 40, 20, 20]),
    )
    expect(bottoms(project)).toEqual([0, CARD + 2, 2 * CARD + 2])
    expect(depthPlan(project).stackMm).toBeCloseTo(3 * CARD + 2, 9)
  })

  it('let pieces beside each other lie at their own heights', () => {
    const project = stack(
      'card',
      plate('a', 0, [0, 0, 140, 140]),
      plate('b', 3, [0, 0, 60, 60]),
      plate('c', 1, [10, 10, 30, 30], [80, 80, 30, 30]),
    )
    const [on, beside] = pieceHeights(project).filter((p) => p.layer.id === 'c')
    expect(on!.bottomMm).toBeCloseTo(2 * CARD + 3 + 1, 9)
    expect(beside!.bottomMm).toBeCloseTo(CARD + 1, 9)
  })

  it('rest on the highest card beneath, and ask for taller pads where it is lower', () => {
    const project = stack(
      'card',
      plate('a', 0, [0, 0, 140, 140]),
      plate('b', 2, [0, 0, 60, 140]),
      plate('c', 2, [20, 20, 100, 100]),
    )
    const c = pieceHeights(project).find((p) => p.layer.id === 'c')!
    expect(c.supports.map((s) => Number(s.needMm.toFixed(2)))).toEqual([2, 4 + CARD])
    expect(c.supports.map((s) => Math.round(regionArea(s.region)))).toEqual([4000, 6000])
    const plan = depthPlan(project)
    expect(new Set(plan.pads.filter((p) => p.layerId === 'c').map((p) => p.thicknessMm))).toEqual(
      new Set([2, 4]),
    )
    expectSoundPads(project, plan)
  })

  it('are those that the steps build: what no pad fits is glued, and lies lower, with all above it', () => {
    const slats = Array.from({ length: 6 }, (_, i): [number, number, number, number] => [
      10 + i * 20,
      20,
      1.5,
      100,
    ])
    const project = stack(
      'card',
      plate('back', 0, [0, 0, 140, 140]),
      plate('slats', 3, ...slats),
      plate('front', 2, [5, 25, 125, 90]),
    )
    const plan = depthPlan(project)
    const of = (id: string) => plan.pieces.filter((p) => p.layer.id === id)
    expect(plan.layers.find((l) => l.layerId === 'slats')!.glued).toHaveLength(6)
    // Glued upon the back: 0.29 mm up. The front has its foam above that.
    for (const slat of of('slats')) expect(slat.bottomMm).toBeCloseTo(0.29, 6)
    expect(of('front')[0]!.bottomMm).toBeCloseTo(0.58 + 2, 6)
    expect(plan.stackMm).toBeCloseTo(3 * 0.29 + 2, 6)
  })

  it('leave out what is on the pane: it is no part of the stack, and hangs at the glass', () => {
    const stacked = stack('frame', plate('back', 0, [0, 0, 200, 200]), plate('name', 0, [60, 80, 80, 20]))
    const onPane = (lives: Layer['lives']) => depthPlan(setLayer(stacked, 'name', { lives }))
    const name = (plan: ReturnType<typeof onPane>) => plan.pieces.find((p) => p.layer.id === 'name')!
    // A pane 2 mm thick, 24 mm from the back.
    expect(name(onPane('behind-pane'))).toMatchObject({ bottomMm: 24 - 0.29, tiltMm: 0, floats: false })
    expect(name(onPane('on-pane')).bottomMm).toBe(26)
    expect(onPane('behind-pane').stackMm).toBeCloseTo(0.29, 6)
    expect(onPane('stack').stackMm).toBeCloseTo(0.58, 6)
  })

  it('offers every fit from shallow to deep, none deeper than the room, each as good as the best for its height', () => {
    const project = stack(
      'frame',
      ...[0, 1, 2, 3].map((k) => plate(`l${k}`, k === 0 ? 0 : 2, [0, 0, 150, 150])),
    )
    const fits = fitsOf(project)
    const room = roomOf(project)!
    expect(fits.length).toBeGreaterThan(5)
    const heights = fits.map(({ stackMm }) => stackMm)
    expect(heights).toEqual(heights.toSorted((a, b) => a - b))
    expect(heights.at(-1)).toBeLessThanOrEqual(room + 1e-6)
    // The deepest is the one that fills the room, the shallowest is glued.
    expect(fits.at(-1)!.gaps).toEqual(planGaps(project, room).gaps)
    expect(heights[0]).toBeCloseTo(4 * CARD, 6)
    for (const { gaps, stackMm } of [fits[2]!, fits.at(-1)!]) {
      const built = depthPlan(withGaps(project, gaps))
      // Glue has a thickness of its own.
      expect(Math.abs(built.stackMm - stackMm)).toBeLessThan(0.31)
    }
  })

  it('call a glued piece tilted where it lies on two heights', () => {
    const foams = emptyDrawer()
      .foams.filter((f) => f.thicknessMm === 1)
      .slice(0, 1)
    const base = stack(
      'card',
      plate('a', 0, [0, 0, 140, 140]),
      plate('b', 0, [0, 0, 60, 140]),
      plate('c', 0, [0, 0, 60, 140]),
      plate('d', 0, [20, 20, 100, 100]),
    )
    const project = { ...base, drawer: { ...base.drawer, foams } }
    const d = pieceHeights(project).find((p) => p.layer.id === 'd')!
    // It is glued: it lies on one side 0.58 mm, the card of b and c, higher than on the other.
    expect(d.tiltMm).toBeCloseTo(2 * 0.29, 6)
    const snag = depthSnags(project, depthPlan(project)).find((s) => s.code === 'tilt')!
    // From the middle of what it lies on, 40 mm, to the middle of what it does not, 90 mm: 0.58 in 50.
    expect(wordsIn(snag.message, 'mm')).toContain('0.6 mm out of level, 0.7° down to the right:')
  })

  it('say of a piece that it tips where its centre of mass is far outside its pads', () => {
    const tipping = stack('free', plate('a', 0, [0, 0, 20, 20]), plate('b', 2, [0, 0, 100, 20]))
    const plan = depthPlan(tipping)
    expect(plan.layers[1]!.tips).toEqual([{ pieceId: expect.any(String), at: [50, 10] }])
    expect(depthSnags(tipping, plan).find(({ code }) => code === 'tips')!.at).toEqual([50, 10])
    const held = stack('free', plate('a', 0, [0, 0, 100, 20]), plate('b', 2, [0, 0, 100, 20]))
    expect(depthPlan(held).layers[1]!.tips).toEqual([])
  })

  it('find a piece that nothing holds', () => {
    const project = stack(
      'topper',
      plate('a', 0, [0, 0, 50, 50]),
      plate('b', 1, [80, 0, 20, 20], [10, 10, 20, 20]),
    )
    const plan = depthPlan(project)
    expect(plan.layers[1]!.floating).toHaveLength(1)
    expect(depthSnags(project, plan).find((s) => s.code === 'nothing-beneath')!.severity).toBe('stop')
  })

  it('never let card lie within card, whatever the stack', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(blocks(), fc.constantFrom(0, 1, 2, 3)), { minLength: 2, maxLength: 4 }),
        (list) => {
          const project = stack('card', ...list.map(([region, gap], i) => card(`l${i}`, gap, region)))
          const all = pieceHeights(project)
          for (const upper of all)
            for (const lower of all) {
              if (project.layers.indexOf(lower.layer) >= project.layers.indexOf(upper.layer)) continue
              // What touches in a sliver carries nothing: card bends over it.
              const touch = regionArea(intersect(upper.region, lower.region))
              if (touch < 1 || touch < regionArea(upper.region) * 0.031) continue
              expect(upper.bottomMm).toBeGreaterThanOrEqual(lower.topMm - 1e-9)
            }
        },
      ),
      { numRuns: 40 },
    )
  })
})

describe('pads', () => {
  it.each(demoNames)('of %s keep margin, ground and distance', (name) => {
    const project = demo(name)
    expectSoundPads(project, depthPlan(project))
  })

  it('of any blocks keep them too', () => {
    fc.assert(
      fc.property(
        blocks(130),
        blocks(130),
        fc.constantFrom<'sparing' | 'steady' | 'sale'>('sparing', 'steady', 'sale'),
        (a, b, thrift) => {
          const project = setPlan(
            stack('card', plate('base', 0, [0, 0, 140, 140]), card('a', 2, a), card('b', 2, b)),
            { thrift },
          )
          expectSoundPads(project, depthPlan(project))
        },
      ),
      { numRuns: 15 },
    )
  })

  it('leave no point of a plain sheet farther away than the span', () => {
    for (const thrift of ['sparing', 'steady', 'sale'] as const) {
      const project = setPlan(
        stack('frame', plate('a', 0, [0, 0, 200, 200]), plate('b', 2, [0, 0, 200, 200])),
        { thrift },
      )
      const plan = depthPlan(project)
      for (let x = 1; x < 200; x += 9)
        for (let y = 1; y < 200; y += 9)
          expect(Math.min(...plan.pads.map((p) => Math.hypot(p.x - x, p.y - y)))).toBeLessThanOrEqual(
            padSpan(project.plan),
          )
    }
  })

  it('grow in number with the thrift', () => {
    const count = (thrift: 'sparing' | 'steady' | 'sale') =>
      depthPlan(setPlan(demo('harbour'), { thrift })).pads.length
    const counts = [count('sparing'), count('steady'), count('sale')]
    expect(counts).toEqual(counts.toSorted((a, b) => a - b))
    expect(new Set(counts).size).toBe(3)
  })

  it('stay farther in where they are higher, so that none shows from the side', () => {
    const edge = (gap: number, deg: number) => {
      const project = setPlan(
        stack('frame', plate('a', 0, [0, 0, 200, 200]), plate('b', gap, [0, 0, 200, 200])),
        { viewingDeg: deg },
      )
      return Math.min(...depthPlan(project).pads.map((p) => polygonBox(padShape(p)).minX))
    }
    expect(edge(1, 30)).toBeGreaterThanOrEqual(1 + Math.tan(Math.PI / 6) - 0.01)
    expect(edge(3, 30)).toBeGreaterThanOrEqual(1 + 3 * Math.tan(Math.PI / 6) - 0.01)
    expect(edge(3, 45)).toBeGreaterThan(edge(3, 0))
  })

  it('lie only where opaque card hides them once lit from behind', () => {
    const thin = (id: string, gap: number, region: Polygon[]) => card(id, gap, region)
    const cover = [ellipse([70, 70], 30)]
    let project = stack(
      'card',
      plate('base', 0, [0, 0, 140, 140]),
      thin('sheer', 2, [rectangle([0, 0], 140, 140)]),
      thin('cover', 0, cover),
    )
    const paper = { ...demo('harbour').drawer.papers[0]!, id: 'thin', gsm: 120, thicknessMm: 0.15 }
    project = setLayer({ ...project, drawer: { ...project.drawer, papers: [paper] } }, 'sheer', {
      paperId: 'thin',
    })
    const pads = depthPlan(setPlan(project, { litFromBehind: true })).pads.filter(
      (p) => p.layerId === 'sheer',
    )
    expect(pads.length).toBeGreaterThan(0)
    for (const pad of pads) expect(regionArea(subtract([padShape(pad)], cover))).toBeLessThan(0.3)
  })

  it('give way to glue where nothing is wide enough, and one press does it', () => {
    const lace = union(...Array.from({ length: 8 }, (_, i) => [rectangle([10 + i * 12, 10], 2, 100)]), [
      rectangle([10, 10], 86, 2),
    ])
    const project = stack('card', plate('base', 0, [0, 0, 140, 140]), card('lace', 2, lace))
    const plan = depthPlan(project)
    const snag = depthSnags(project, plan).find((s) => s.code === 'no-room-for-pads')!
    expect(snag.mend!.action).toEqual({ kind: 'set-joint', layerId: 'lace', joint: 'glue', gapMm: 0 })
  })

  it('are counted pad by pad, and packs are bought only for what is short', () => {
    const plan = depthPlan(demo('harbour'))
    const used = plan.foamUse.reduce((sum, use) => sum + use.needed, 0)
    const shimmed = plan.shim ? plan.shim.at.length * plan.shim.foamIds.length : 0
    expect(used).toBe(plan.pads.reduce((sum, pad) => sum + pad.foamIds.length, 0) + shimmed)
    const project = demo('harbour')
    const bare = {
      ...project,
      drawer: { ...project.drawer, foams: project.drawer.foams.map((f) => ({ ...f, count: 0 })) },
    }
    for (const use of depthPlan(bare).foamUse)
      expect(use.packs).toBe(Math.ceil(use.needed / use.foam.perPack))
  })
})

describe('gaps fitted to the frame', () => {
  const foam = (thicknessMm: number): Foam => ({
    ...starterFoams[0]!,
    id: `f${thicknessMm}`,
    name: `${thicknessMm}`,
    widthMm: 6,
    heightMm: 6,
    thicknessMm,
    perPack: 100,
    pricePerPack: 1,
    count: 100,
  })
  const four = (foams: Foam[]) => {
    const project = stack(
      'frame',
      plate('a', 0, [0, 0, 200, 200]),
      plate('b', 2, [0, 0, 200, 200]),
      plate('c', 2, [0, 0, 200, 200]),
      plate('d', 2, [0, 0, 200, 200]),
    )
    return { ...project, drawer: { ...project.drawer, foams } }
  }

  it('are the best there are: no other choice of foam is nearer to the profile', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom(0.5, 1, 1.5, 2, 3), { minLength: 1, maxLength: 3 }),
        fc.double({ min: 2, max: 22, noNaN: true }),
        fc.constantFrom<'even' | 'front' | 'hero'>('even', 'front', 'hero'),
        (thicknesses, room, profile) => {
          const project = setPlan(four(thicknesses.map(foam)), { profile })
          const plan = planGaps(project, room)
          const fixed = 4 * CARD
          const targets = profileShares(project, freeLayers(project)).map(
            (s) => s * Math.max(0, room - fixed),
          )
          const cost = (gaps: number[]) =>
            gaps.reduce((sum, g, i) => sum + (g - targets[i]!) ** 2 + (g === 0 ? 400 : 0), 0)
          const choices = [0, ...gapChoices(project.drawer.foams).map((c) => c.gapMm)]
          let best = Infinity
          for (const x of choices)
            for (const y of choices)
              for (const z of choices)
                if (fixed + x + y + z <= room + 1e-9) best = Math.min(best, cost([x, y, z]))
          expect(cost(plan.gaps.map((g) => g.gapMm))).toBeCloseTo(best, 6)
          expect(plan.stackMm).toBeLessThanOrEqual(room + 1e-6)
        },
      ),
      { numRuns: 60 },
    )
  })

  it('share the depth where layers lie side by side, and come back where they were glued for want of room', () => {
    // Nine cards abreast on a backing, in 12 mm of room: each may have what foam makes of it.
    const abreast = stack(
      'frame',
      plate('back', 0, [0, 0, 200, 200]),
      ...Array.from({ length: 9 }, (_, i) => plate(`c${i}`, 2, [5 + i * 21, 40, 18, 100])),
    )
    const project = { ...abreast, drawer: { ...abreast.drawer, foams: [foam(1), foam(2), foam(3)] } }
    const plan = planGaps(project, 12)
    for (const { gapMm } of plan.gaps) expect(gapMm).toBe(6)
    expect(plan.stackMm).toBeCloseTo(2 * CARD + 6, 6)
    const deep = { ...project, mount: { ...project.mount, depthMm: 10, clearanceMm: 2 } as Project['mount'] }
    const flat = fitGaps({ ...deep, mount: { ...deep.mount, depthMm: 2.6 } as Project['mount'] })
    expect(flat.layers[1]!.joint).toMatchObject({ kind: 'glue', byFit: true })
    const again = fitGaps({ ...flat, mount: deep.mount })
    expect(again.layers[1]!.joint).toMatchObject({ kind: 'foam', gapMm: 6 })
    expect(again.layers[1]!.joint.byFit).toBeUndefined()
  })

  it('are the best where chains of layers cross: against every choice', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 3 }), fc.integer({ min: 1, max: 3 })), { minLength: 3, maxLength: 4 }), // prettier-ignore
        fc.double({ min: 2, max: 9, noNaN: true }),
        (list, room) => {
          const base = stack('frame', plate('back', 0, [0, 0, 200, 200]), ...list.map(([x, w], i) => plate(`l${i}`, 1, [x * 40, 10, w * 40, 80]))) // prettier-ignore
          const project = { ...base, drawer: { ...base.drawer, foams: [foam(1), foam(2)] } }
          const { gaps, stackMm } = planGaps(project, room)
          // Heights by hand: over all that lies under it.
          const height = (g: readonly number[]) => {
            const tops: number[] = []
            list.forEach(([x, w], i) => {
              const under = list.flatMap(([u, v], k) => (k < i && u < x + w && x < u + v ? [tops[k]!] : []))
              tops.push(Math.max(CARD, ...under) + g[i]! + CARD)
            })
            return Math.max(CARD, ...tops)
          }
          expect(stackMm).toBeCloseTo(height(gaps.map(({ gapMm }) => gapMm)), 6)
          expect(stackMm).toBeLessThanOrEqual(Math.max(room, height(list.map(() => 0))) + 1e-5)
          // No single gap could be the next larger one, nor two exchanged for less, and still fit better.
          const choices = [0, ...gapChoices(project.drawer.foams).map(({ gapMm }) => gapMm)]
          for (const k of list.keys()) {
            const own = gaps.map(({ gapMm }) => gapMm)
            if (own[k] !== 0) continue
            // Where a layer was glued, no foam at all fits there with the others as they are.
            const least = own.slice()
            least[k] = choices[1]!
            expect(height(least)).toBeGreaterThan(room - 1e-6)
          }
        },
      ),
      { numRuns: 40 },
    )
  })

  it('keep what is pinned, and say where even glue is too deep', () => {
    const project = setLayer(four([foam(1), foam(2)]), 'b', {
      joint: { kind: 'foam', gapMm: 7, pinned: true },
    })
    const fitted = fitGaps(project)
    expect(fitted.layers[1]!.joint).toEqual({ kind: 'foam', gapMm: 7, pinned: true })
    expect(depthPlan(fitted).stackMm).toBeLessThanOrEqual(22)
    expect(planGaps(project, 1).fits).toBe(false)
  })

  it('mend a stack that is too deep', () => {
    const project = demo('harbour')
    const shallow: Project = { ...project, mount: { ...project.mount, depthMm: 14 } as Project['mount'] }
    expect(depthSnags(shallow, depthPlan(shallow)).map((s) => s.code)).toContain('stack-too-deep')
    const fitted = fitGaps(shallow)
    expect(depthPlan(fitted).stackMm).toBeLessThanOrEqual(12)
    expect(depthSnags(fitted, depthPlan(fitted)).map((s) => s.code)).not.toContain('stack-too-deep')
  })

  it('leave a shim that goes into what is left', () => {
    const plan = depthPlan(demo('harbour'))
    expect(plan.shim!.mm).toBeLessThanOrEqual(plan.roomMm! - plan.stackMm + 1e-9)
    expect(plan.roomMm! - plan.stackMm - plan.shim!.mm).toBeLessThan(1)
  })
})

it('covers the card of every demo: heights exist for every piece that is built', () => {
  for (const name of demoNames) {
    const project = demo(name)
    const pieces = pieceHeights(project)
    const covered = pieces.reduce(
      (sum, p) => sum + p.parts.reduce((n, { region }) => n + regionArea(region), 0),
      0,
    )
    // Folds part a piece by slits far thinner than card.
    expect(covered / regionArea(builtLayers(project).flatMap(layerRegion))).toBeCloseTo(1, 3)
  }
})

describe('what foam and glue really make', () => {
  const codes = (project: Project) => depthSnags(project, depthPlan(project)).map(({ code }) => code)

  it('heights are of the foam that comes nearest to a typed gap, and it is told', () => {
    const six = stack('frame', plate('a', 0, [0, 0, 200, 200]), ...Array.from({ length: 6 }, (_, i) => plate(`l${i}`, 2.6, [0, 0, 200, 200]))) // prettier-ignore
    const foams = emptyDrawer().foams.filter(({ thicknessMm }) => thicknessMm === 3)
    const project = { ...six, drawer: { ...six.drawer, foams } }
    const plan = depthPlan(project)
    expect(plan.stackMm).toBeCloseTo(7 * CARD + 6 * 3, 6)
    for (const pad of plan.pads) expect(pad.thicknessMm).toBe(3)
    const snag = depthSnags(project, plan).find(({ code }) => code === 'gap-not-made')!
    expect(wordsIn(snag.message, 'mm')).toContain('2.6 mm are asked for')
    expect(snag.mend!.action).toMatchObject({ gapMm: 3 })
  })

  it('no foam of a height is not called too narrow', () => {
    const base = stack('frame', plate('a', 0, [0, 0, 200, 200]), plate('b', 0.4, [0, 0, 200, 200]))
    const foams = emptyDrawer().foams.filter(({ thicknessMm }) => thicknessMm >= 2)
    const project = { ...base, drawer: { ...base.drawer, foams } }
    expect(codes(project)).toContain('no-foam-of-height')
    expect(codes(project)).not.toContain('no-room-for-pads')
  })

  it('hot glue stands up by its own half millimetre, a joint with another glue does not', () => {
    const base = stack('frame', plate('a', 0, [0, 0, 200, 200]), plate('b', 0, [0, 0, 200, 200]))
    const hot = setPlan(base, { adhesiveId: 'glue-hot' })
    expect(depthPlan(hot).stackMm).toBeCloseTo(2 * CARD + 0.5, 6)
    const tacky = setLayer(hot, 'b', {
      joint: { kind: 'glue', gapMm: 0, pinned: false, adhesiveId: 'glue-tacky' },
    })
    expect(depthPlan(tacky).stackMm).toBeCloseTo(2 * CARD, 6)
  })

  it('a sliver carries nothing, and a dot that holds no pad tilts nothing', () => {
    // A dot of 4 mm under a sheet of 150: 13 of 22,500 mm².
    const dotted = stack(
      'frame',
      plate('a', 0, [0, 0, 200, 200]),
      card('dot', 0, [ellipse([100, 100], 2)]),
      plate('b', 2, [25, 25, 150, 150]),
    )
    const b = depthPlan(dotted).pieces.find(({ layer }) => layer.id === 'b')!
    expect(b.bottomMm).toBeCloseTo(CARD + 2, 6)
    expect(b.tiltMm).toBe(0)
    // A frame so deep leaves much air before so little work.
    expect(codes(dotted)).toEqual(['floats'])
    // Taller than the gap it still lifts.
    const tall = setLayer(dotted, 'dot', { joint: { kind: 'foam', gapMm: 0, pinned: false } })
    const high = stack('frame', plate('a', 0, [0, 0, 200, 200]), ...Array.from({ length: 9 }, (_, i) => card(`d${i}`, 0, [ellipse([100, 100], 2)])), plate('b', 2, [25, 25, 150, 150])) // prettier-ignore
    expect(depthPlan(tall).pieces.at(-1)!.bottomMm).toBeCloseTo(CARD + 2, 6)
    expect(depthPlan(high).pieces.at(-1)!.bottomMm).toBeCloseTo(10 * CARD, 6)
  })

  it('copies are padded as often as they are cut', () => {
    // Nothing to shim.
    const free = (project: Project): Project => ({ ...project, mount: { kind: 'free' } })
    const once = stack('frame', plate('a', 0, [0, 0, 200, 200]), plate('b', 2, [25, 25, 80, 80]))
    const needed = (project: Project) =>
      depthPlan(free(project)).foamUse.reduce((sum, use) => sum + use.needed, 0)
    expect(needed(setLayer(once, 'b', { copies: 3 }))).toBe(3 * needed(once))
  })
})

describe('where pads would show', () => {
  const paper = (id: string, more: object) => ({ ...demo('harbour').drawer.papers[0]!, id, ...more })
  const papers = [
    paper('vellum', { finish: 'vellum', gsm: 100, thicknessMm: 0.11 }),
    paper('white', { gsm: 216, colour: '#ffffff' }),
    paper('black', { gsm: 300, colour: '#101010' }),
    paper('text', { gsm: 100, colour: '#ffffff', thicknessMm: 0.13 }),
  ]
  const sheet = (
    id: string,
    gap: number,
    { paperId, region = [rectangle([0, 0], 140, 140)] }: { paperId: string; region?: Polygon[] },
  ) => ({
    ...card(id, gap, region),
    paperId,
  })
  const of = (...layers: Layer[]): Project => {
    const base = stack('card', plate('base', 0, [0, 0, 140, 140]), ...layers)
    return { ...base, drawer: { ...base.drawer, papers } }
  }
  const padsOf = (project: Project, id: string) => depthPlan(project).pads.filter((pad) => pad.layerId === id)

  it('text-weight card gets pads like any other, until a lamp is behind it', () => {
    const project = of(sheet('thin', 2, { paperId: 'text' }))
    expect(padsOf(project, 'thin').length).toBeGreaterThan(5)
    expect(padsOf(setPlan(project, { litFromBehind: true }), 'thin')).toEqual([])
    expect(
      padsOf(setPlan(of(sheet('thin', 2, { paperId: 'black' })), { litFromBehind: true }), 'thin').length,
    ).toBeGreaterThan(5)
    expect(
      padsOf(setPlan(of(sheet('thin', 2, { paperId: 'white' })), { litFromBehind: true }), 'thin'),
    ).toEqual([])
  })

  it('under vellum they hide from every side asked: the cover is drawn in by its height', () => {
    const cover = [ellipse([70, 70], 40)]
    const project = of(
      sheet('sheer', 2, { paperId: 'vellum' }),
      sheet('cover', 3, { paperId: 'black', region: cover }),
    )
    const own = padsOf(project, 'sheer')
    expect(own.length).toBeGreaterThan(0)
    // From the vellum's underside up to the cover's: the vellum and 3 mm of foam.
    const inside = offset(cover, -(0.11 + 3) * Math.tan(Math.PI / 6) + 0.1)
    for (const pad of own) expect(regionArea(subtract([padShape(pad)], inside))).toBeLessThan(0.2)
  })

  it('the lip hides them too, and clear foam may lie where white may not', () => {
    const base = stack('frame', plate('base', 0, [0, 0, 200, 200]), sheet('sheer', 1, { paperId: 'vellum', region: [rectangle([0, 0], 200, 200)] })) // prettier-ignore
    const framed = {
      ...base,
      drawer: { ...base.drawer, papers },
      mount: { ...base.mount, depthMm: 8, opening: { widthMm: 150, heightMm: 150 } } as Project['mount'],
    }
    const own = padsOf(framed, 'sheer')
    expect(own.length).toBeGreaterThan(3)
    const seen = offset([rectangle([25, 25], 150, 150)], 8 * Math.tan(Math.PI / 6) - 0.1)
    for (const pad of own) expect(regionArea(intersect([padShape(pad)], seen))).toBeLessThan(0.5)
    const clear = {
      ...emptyDrawer().foams.find(({ thicknessMm }) => thicknessMm === 1)!,
      id: 'clear',
      look: 'clear' as const,
    }
    const more = { ...framed, drawer: { ...framed.drawer, foams: [...framed.drawer.foams, clear] } }
    const inside = padsOf(more, 'sheer').filter((pad) => regionArea(intersect([padShape(pad)], seen)) > 1)
    expect(inside.length).toBeGreaterThan(0)
    for (const { foamIds } of inside) expect(foamIds).toEqual(['clear'])
  })
})
