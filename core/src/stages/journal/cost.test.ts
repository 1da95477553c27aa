// What a work costs, against sums by hand.
import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../../test/stack'
import { results } from '../../../test/results'
import { regionArea } from '../../base/geometry'
import { newThing, setPlan, type Project } from '../../project'
import { assignNearest, starterStock } from '../paper'
import {
  COST_KINDS,
  costByPart,
  costLines,
  inOrder,
  sheetLines,
  sumOf,
  workLines,
  type CostKind,
  type CostLine,
} from './cost'

const plain = stack(
  'frame',
  plate('back', 0, [0, 0, 180, 180]),
  plate('mid', 2, [10, 10, 90, 60], [120, 30, 40, 40]),
)
const project = assignNearest(plain, ['back', 'mid'], starterStock())
const { loads, depth, cost } = results(project)
const line = (
  kind: CostKind,
  { amount, price, what = kind }: { amount: number; price: number; what?: string },
): CostLine => ({
  kind,
  what,
  amount,
  unit: '',
  cost: amount * price,
  basis: '',
  partId: null,
})
const of = (lines: readonly CostLine[], kind: CostKind) => lines.filter((one) => one.kind === kind)
const sum = (lines: readonly CostLine[]) => lines.reduce((total, one) => total + one.cost, 0)

describe('what follows from the sheets', () => {
  const lines = sheetLines(project, loads)

  it('is every sheet that is cut into, at its price', () => {
    const prices = loads.filter(({ onOffCut }) => !onOffCut).map(({ paper }) => paper.price)
    expect(prices.length).toBeGreaterThan(0)
    expect(sum(of(lines, 'paper'))).toBeCloseTo(
      prices.reduce((total, price) => total + price, 0),
      9,
    )
    expect(of(lines, 'paper').reduce((n, { amount }) => n + amount, 0)).toBe(prices.length)
  })

  it('is less by what is kept of them where paper is paid by share, and never more', () => {
    const byShare = setPlan(project, { pricing: { ...project.plan.pricing, paperBy: 'share' } })
    const kept = loads.reduce(
      (total, { offCut, outline, paper }) =>
        total + (offCut ? (paper.price * offCut.widthMm * offCut.heightMm) / regionArea([outline]) : 0),
      0,
    )
    expect(kept).toBeGreaterThan(0)
    expect(sum(of(sheetLines(byShare, loads), 'paper'))).toBeCloseTo(sum(of(lines, 'paper')) - kept, 9)
  })

  it('is the wear of blade, mats and machine by what they last', () => {
    const { cutter } = project.drawer
    const metres = loads.reduce(
      (total, { outlineMm, setting }) =>
        total + (outlineMm / 1000) * setting.passes * (setting.hardOnBlade ? 3 : 1),
      0,
    )
    expect(sum(of(lines, 'blade'))).toBeCloseTo((metres * cutter.bladePrice) / cutter.bladeM, 9)
    const minutes = loads.reduce((total, load) => total + load.minutes, 0)
    expect(sum(of(lines, 'machine'))).toBeCloseTo((minutes / 60) * cutter.hourCost, 9)
  })

  it('is a frame for each of a batch, at the maker’s price once there is one', () => {
    const frames = (p: Project) => of(sheetLines(p, loads), 'part')
    expect(frames(setPlan(project, { batch: 3 }))).toMatchObject([{ what: 'frame', amount: 3, cost: 27 }])
    // The drawer's price, until this work has one of its own.
    const priced = {
      ...project,
      drawer: { ...project.drawer, things: [{ ...newThing('frame', 'a'), price: 11 }] },
    }
    expect(frames(priced)).toMatchObject([{ what: 'frame', cost: 11 }])
    const own = { id: 'frame', what: 'oak frame', amount: 1, unit: '', price: 14 }
    expect(frames(setPlan(priced, { parts: [own] }))).toMatchObject([{ what: 'oak frame', cost: 14 }])
    const lamp = { id: 'lamp', what: 'lamp', amount: 2, unit: '', price: 1.5 }
    expect(frames(setPlan(project, { parts: [own, lamp] })).map((one) => [one.what, one.cost])).toEqual([
      ['oak frame', 14],
      ['lamp', 3],
    ])
  })

  it('is no sheet and no wear where another project pays for the cutting', () => {
    const along = setPlan(project, { cutWith: { projectId: 'other', name: 'Other' } })
    expect(sheetLines(along, loads).map(({ kind }) => kind)).toEqual(['part'])
  })
})

describe('what follows from the work', () => {
  it('is foam by the pad, glue by what is laid, and hands by the hour', () => {
    const { adhesives } = project.drawer
    const used = adhesives[0]!
    const glue = [{ layerId: 'a', mlOf: [{ adhesiveId: used.id, ml: 1.5 }] }]
    const plan = { hourlyRate: 18, batch: 2, glueLost: 2 }
    const lines = workLines({
      project: setPlan(project, plan),
      depth,
      glue: glue as unknown as Parameters<typeof workLines>[0]['glue'],
      handsMinutes: 40,
    })
    expect(sum(of(lines, 'hands'))).toBeCloseTo(12, 9)
    expect(sum(of(lines, 'glue'))).toBeCloseTo((1.5 * 2 * 2 * used.pricePerPack) / used.packMl, 9)
    const foam = depth.foamUse.reduce(
      (total, { foam: one, needed }) => total + (needed * one.pricePerPack) / one.perPack,
      0,
    )
    expect(foam).toBeGreaterThan(0)
    expect(sum(of(lines, 'foam'))).toBeCloseTo(foam, 9)
  })

  it('leaves out what takes nothing', () => {
    const lines = workLines({ project, depth: { foamUse: [] }, glue: [], handsMinutes: 0 })
    expect(lines).toEqual([])
  })
})

describe('lines of cost', () => {
  it('are told in one order, of sheets and work alike, and add up to what is planned', () => {
    const all = costLines({ project, loads, depth, glue: [], handsMinutes: 30 })
    const places = all.map(({ kind }) => COST_KINDS.indexOf(kind))
    expect(places).toEqual(places.toSorted((a, b) => a - b))
    expect(sum(cost.lines)).toBeCloseTo(cost.total, 9)
    // What is told first is part of what is told in the end.
    expect(cost.lines).toEqual(expect.arrayContaining(sheetLines(project, loads)))
  })

  it('keep their order within a kind', () => {
    const mixed = [
      line('hands', { amount: 1, price: 1 }),
      line('paper', { amount: 1, price: 1, what: 'b' }),
      line('foam', { amount: 1, price: 1 }),
      line('paper', { amount: 1, price: 1, what: 'a' }),
    ]
    expect(inOrder(mixed).map(({ what }) => what)).toEqual(['b', 'a', 'foam', 'hands'])
  })

  it('add up by what the maker asks for: off-cuts are paper, wear and glue are other things', () => {
    const lines = COST_KINDS.map((kind, k) => line(kind, { amount: 1, price: 2 ** k }))
    const at = (...kinds: CostKind[]) =>
      kinds.reduce((total, kind) => total + 2 ** COST_KINDS.indexOf(kind), 0)
    expect(sumOf(lines)).toEqual({
      paper: at('paper', 'off-cut'),
      foam: at('foam'),
      other: at('glue', 'print', 'part', 'blade', 'mat', 'machine'),
      hands: at('hands'),
      total: 2 ** COST_KINDS.length - 1,
    })
  })

  it('go by name where that is a glue or a thing, the dearest first', () => {
    const lines = [
      line('paper', { amount: 2, price: 1, what: 'Shell' }),
      line('paper', { amount: 1, price: 1, what: 'Oyster' }),
      line('glue', { amount: 1, price: 0.5, what: 'tacky glue' }),
      line('part', { amount: 1, price: 9, what: 'frame' }),
      line('mat', { amount: 1, price: 0 }),
    ]
    expect(costByPart(lines)).toEqual([
      { name: 'frame', cost: 9 },
      { name: 'paper', cost: 3 },
      { name: 'tacky glue', cost: 0.5 },
    ])
  })
})
