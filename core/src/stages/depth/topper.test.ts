import { describe, expect, it } from 'vitest'
import { card, stack } from '../../../test/stack'
import { demo } from '../../demo'
import { ellipse, intersect, rectangle, regionArea, subtract } from '../../base/geometry'
import { layerRegion, setLayer, starterMount, type Layer, type Mount, type Project } from '../../project'
import { sagMm } from '../layers/sticks'
import { planAssembly } from '../assembly'
import { mendProject } from '../mend'
import { depthPlan } from './depth'
import { addCover, coverOf, topperHold } from './topper'
import { topperSnags } from './topper-snags'

const mount = { ...starterMount('topper'), sticks: 2 } as Extract<Mount, { kind: 'topper' }>
const topper = (project: Project, more: Partial<typeof mount> = {}): Project => ({
  ...project,
  mount: { ...mount, ...more },
})
const strip = (id: string, joint: 'glue' | 'foam') => ({
  ...card(id, 1, [rectangle([0, 0], 120, 20)]),
  joint: { kind: joint, gapMm: joint === 'foam' ? 1 : 0, pinned: false },
})

describe('a topper on its sticks', () => {
  it('weighs what its card weighs, about the middle of all of it', () => {
    const project = topper(
      stack('free', card('a', 0, [rectangle([0, 0], 100, 20)]), card('b', 0, [rectangle([80, 0], 20, 20)])),
    )
    const held = topperHold(project)!
    // 216 gsm where no paper is chosen: 2000 mm² about x 50 and 400 mm² about x 90.
    expect(held.massG).toBeCloseTo((2400 / 1e6) * 216, 9)
    expect(held.centre.x).toBeCloseTo((2000 * 50 + 400 * 90) / 2400, 9)
    expect(held.centre.y).toBeCloseTo(10, 9)
    expect(topperHold(stack('card', card('a', 0, [rectangle([0, 0], 9, 9)])))).toBeNull()
  })

  it('sinks at its ends as a beam does: glued sheets as one, sheets on foam each by itself', () => {
    const at = { sticks: 1, stickPlacesMm: [60] }
    const one = topperHold(topper(stack('free', strip('a', 'glue')), at))!
    // The card's own density, 216 gsm over 0.29 mm, against the 745 kg/m³ of the formula.
    const density = 216 / 0.29 / 745
    expect(one.sagMm / (sagMm(60, 0.29) * density)).toBeCloseTo(1, 1)
    const glued = topperHold(topper(stack('free', strip('a', 'glue'), strip('b', 'glue')), at))!
    expect(one.sagMm / glued.sagMm).toBeCloseTo(4, 3)
    const onFoam = topperHold(topper(stack('free', strip('a', 'glue'), strip('b', 'foam')), at))!
    expect(onFoam.sagMm).toBeCloseTo(one.sagMm, 6)
    expect(one.reachMm).toBeCloseTo(60, 9)
  })

  it('is told where it leans, where a stick holds on nothing, and where it droops; and nothing of the demo', () => {
    const codes = (more: object, project = topper(stack('free', strip('a', 'glue')), more)) =>
      topperSnags(topperHold(project)).map(({ code }) => code)
    expect(codes({ sticks: 2 })).toEqual([])
    expect(codes({ sticks: 1, stickPlacesMm: [20] })).toContain('topper-turns')
    expect(codes({ sticks: 2, stickPlacesMm: [40, 130] })).toContain('stick-without-card')
    // What is left to the plan already cannot be left to it.
    const mendsOf = (more: object, shape: Layer) =>
      topperSnags(topperHold(topper(stack('free', shape), more))).map(({ mend }) => mend?.action.kind)
    expect(mendsOf({ sticks: 1, stickPlacesMm: [20] }, strip('a', 'glue'))).toContain('free-sticks')
    const narrow = card('a', 0, [rectangle([0, 0], 2, 60), rectangle([100, 0], 2, 60)])
    expect(mendsOf({ sticks: 2, stickPlacesMm: [] }, narrow)).toEqual(['back-round'])
    expect(mendsOf({ sticks: 2, stickPlacesMm: [20, 80] }, narrow).filter(Boolean)).toEqual([])
    // Each is told no more after its one press.
    const pole = card('a', 0, [rectangle([0, 0], 5, 60)])
    expect(mendsOf({ sticks: 2, stickPlacesMm: [] }, pole)).toEqual(['take-sticks'])
    for (const shape of [narrow, pole]) {
      const project = topper(stack('free', shape), { sticks: 2, stickPlacesMm: [] })
      const [snag] = topperSnags(topperHold(project))
      expect(codes({}, mendProject(project, snag!.mend!.action, []))).toEqual([])
    }
    // What covers the sticks stays behind the new card.
    const covered = stack('free', { ...card('c', 0, [rectangle([0, 0], 2, 50)]), role: 'cover' }, narrow)
    expect(mendProject(topper(covered), { kind: 'back-round' }, []).layers.map(({ role }) => role)).toEqual(['cover', 'backing', 'plain']) // prettier-ignore
    const long = topper(stack('free', card('a', 0, [rectangle([0, 0], 300, 20)])), { sticks: 1 })
    expect(codes({}, long)).toEqual(['topper-droops'])
    expect(codes({}, demo('bon-voyage'))).toEqual([])
  })

  it('holds by the glue and what the sticks touch, so many times its weight', () => {
    const { glues, massG, sticks } = topperHold(topper(stack('free', strip('a', 'glue'))))!
    const touched = sticks.reduce(
      (sum, { headMm, footMm, widthMm }) => sum + (footMm - headMm) * widthMm * 0.4,
      0,
    )
    for (const { adhesive, holdsN, times } of glues) {
      expect(holdsN).toBeCloseTo((touched * adhesive.holdsKPa) / 1000, 9)
      expect(times).toBeCloseTo(holdsN / ((massG / 1000) * 9.81), 6)
    }
  })

  it('has a cover that hides within the back, is cut mirrored, and goes on when the sticks are dry', () => {
    const back = subtract([ellipse([40, 30], 30)], [ellipse([40, 30], 8)])
    const project = addCover(
      topper(stack('free', card('back', 0, back), card('front', 1, [ellipse([40, 30], 20)]))),
    )
    const cover = coverOf(project)!
    expect(project.layers[0]).toBe(cover)
    expect(cover.cutMirrored).toBe(true)
    const area = regionArea(layerRegion(cover))
    expect(area).toBeCloseTo(Math.PI * 29.5 ** 2, -1)
    expect(regionArea(intersect(layerRegion(cover), [ellipse([40, 30], 30)]))).toBeCloseTo(area, 3)
    expect(addCover(project)).toBe(project)
    // The sticks still go onto the back, not onto the cover.
    expect(topperHold(setLayer(project, 'cover', { pieces: cover.pieces }))!.sticks).toHaveLength(2)
    const steps = planAssembly({ project, loads: [], depth: depthPlan(project) }).steps.map(({ id }) => id)
    expect(steps.filter((id) => /^(lay|glue|mount|dry-sticks|cover)/.test(id))).toEqual([
      'lay-back',
      expect.stringMatching(/-front$/),
      'mount',
      'dry-sticks',
      'cover-cover',
    ])
  })
})
