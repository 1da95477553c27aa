// Heights at which pieces really lie, what foam and glue make of typed gaps.
import { wordsIn } from '../../base/units'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { blocks } from '../../../test/arbitrary'
import { expectSoundPads } from '../../../test/pads'
import { card, plate, stack } from '../../../test/stack'
import { demo, demoNames } from '../../demo'
import { Cache } from '../../base'
import { Planner } from '../../planner'
import { allSnagsOf, mendProject } from '../index'
import { ellipse, intersect, regionArea } from '../../base/geometry'
import {
  builtLayers,
  emptyDrawer,
  layerRegion,
  setLayer,
  setPlan,
  starterMount,
  type Layer,
  type Project,
} from '../../project'
import { depthPlan, depthSnags, fitsOf, pieceHeights, planGaps, roomOf, withGaps } from './index'

const CARD = 0.29
const bottoms = (project: Project) => pieceHeights(project).map((p) => Number(p.bottomMm.toFixed(3)))

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
    const snag = depthSnags(project, plan).find((s) => s.code === 'nothing-beneath')!
    expect(snag.severity).toBe('stop')
    // On card behind all of it nothing hangs in the air.
    const backed = mendProject(project, snag.mend!.action, [])
    expect(depthPlan(backed).layers.flatMap(({ floating }) => floating)).toEqual([])
    // The flags that a maker grew hang one by one.
    const flags = { ...project, mount: starterMount('garland'), grown: demo('regatta').grown }
    const planner = new Planner(new Cache())
    planner.update({ project: flags, stock: [], found: new Map() })
    for (const list of [depthSnags(flags, plan), allSnagsOf(planner)])
      expect(list.find(({ code }) => code === 'nothing-beneath')!.mend).toBeUndefined()
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
