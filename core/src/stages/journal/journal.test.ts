import { describe, expect, it } from 'vitest'
import { demo } from '../../demo'
import {
  newProject,
  newThing,
  setLayer,
  setPlan,
  starterMount,
  starterSupplies,
  tickTaking,
  untickAll,
  type Project,
} from '../../project'
import { results } from '../../../test/results'
import {
  billOf,
  boughtOf,
  costByPart,
  costSoFar,
  digestOf,
  mentionsOf,
  versionOf,
  versionsMade,
  drawerOverTime,
  packsOf,
  packWords,
  sheetsUsedOf,
  shoppingOf,
  toBuy,
  wantsOf,
  type CostKind,
  type CostLine,
  minutesPlanned,
  minutesSpent,
  noteSheets,
  runningStage,
  startTimer,
  stopTimer,
} from './index'

const MIN = 60_000

describe('timers', () => {
  const empty = newProject('p', 'P', starterMount('frame'))

  it('run one at a time', () => {
    const cutting = startTimer(empty, 'sheets', 0)
    const building = startTimer(cutting, 'assembly', 10 * MIN)
    expect(runningStage(building)).toBe('assembly')
    expect(minutesSpent(building, 'sheets', 99 * MIN)).toBe(10)
    expect(minutesSpent(building, 'assembly', 25 * MIN)).toBe(15)
    const stopped = stopTimer(building, 40 * MIN)
    expect(runningStage(stopped)).toBeNull()
    expect(minutesSpent(startTimer(stopped, 'assembly', 60 * MIN), 'assembly', 65 * MIN)).toBe(35)
  })

  it('never run backwards when the clock is set back', () => {
    const started = startTimer(empty, 'assembly', 100 * MIN)
    expect(minutesSpent(started, 'assembly', 50 * MIN)).toBe(0)
    expect(minutesSpent(stopTimer(started, 50 * MIN), 'assembly', 200 * MIN)).toBe(0)
  })
})

it.each(['machine', 'knife'] as const)('what is planned by %s has its minutes in one stage', (tool) => {
  const bare = demo('bon-voyage')
  const { cutter } = bare.drawer
  const project = { ...bare, drawer: { ...bare.drawer, cutter: { ...cutter, tool } } }
  const { loads, assembly } = results(project)
  const planned = minutesPlanned(assembly.steps)
  expect(planned.sheets).toBeCloseTo(
    loads.reduce((sum, { minutes }) => sum + minutes, 0),
    9,
  )
  const worked = assembly.steps.filter(({ needs }) => needs.length > 0)
  expect(planned.sheets! + planned.assembly!).toBeCloseTo(
    worked.reduce((sum, { minutes }) => sum + minutes, 0),
    9,
  )
})

describe('cost', () => {
  it('so far counts sheets noted, pads of ticked steps and the hours of the clocks', () => {
    const project = demo('harbour')
    const derived = results(project)
    const planned = { lines: derived.cost.lines, steps: derived.assembly.steps }
    expect(costSoFar(project, 0, planned).total).toBe(0)
    const shell = project.drawer.papers.find((p) => p.name === 'Shell')!
    const used = noteSheets(project, [{ paperId: shell.id, count: 2 }], 0)
    const worked = stopTimer(startTimer(used, 'assembly', 0), 30 * MIN)
    const cost = costSoFar(worked, 30 * MIN, planned)
    expect(cost.paper).toBeCloseTo(2 * shell.price, 9)
    expect(cost.hands).toBeCloseTo(6, 9)
    expect(cost.foam).toBe(0)
    const held = { project: worked, supplies: starterSupplies() }
    const ticked = derived.assembly.steps.reduce(
      (now, { id, takes = [] }) => tickTaking(now, id, { done: true, foams: takes }),
      held,
    )
    expect(costSoFar(ticked.project, 30 * MIN, planned).foam).toBeCloseTo(derived.cost.foam, 9)
    // All is ticked: other things have cost what was planned; half the cutting costs half of its wear.
    expect(costSoFar(ticked.project, 30 * MIN, planned).other).toBeCloseTo(derived.cost.other, 9)
    const cuts = derived.assembly.steps.filter(({ kind }) => kind === 'cut')
    const some = cuts.slice(0, 3)
    const share =
      some.reduce((sum, step) => sum + step.minutes, 0) / cuts.reduce((sum, step) => sum + step.minutes, 0)
    const wear = derived.cost.lines
      .filter(({ kind }) => ['blade', 'mat', 'machine'].includes(kind))
      .reduce((sum, line) => sum + line.cost, 0)
    const halfCut = { ...project, progress: { ...project.progress, done: some.map(({ id }) => id) } }
    expect(costSoFar(halfCut, 0, planned).other).toBeCloseTo(wear * share, 9)
    // What is unticked is given back, to the pad.
    const back = untickAll(ticked)
    expect(costSoFar(back.project, 30 * MIN, planned).foam).toBe(0)
    expect(back.supplies).toEqual(held.supplies)
  })

  it('planned adds up from its lines', () => {
    const { cost, needed, assembly } = results(demo('harbour'))
    expect(cost.paper).toBeCloseTo(
      needed.reduce((sum, n) => sum + n.sheets * n.paper.price, 0),
      9,
    )
    expect(cost.hands).toBeCloseTo((assembly.handsMinutes / 60) * 12, 9)
    expect(cost.total).toBeCloseTo(cost.paper + cost.foam + cost.other + cost.hands, 9)
    expect(cost.lines.reduce((sum, line) => sum + line.cost, 0)).toBeCloseTo(cost.total, 9)
  })
})

describe('what costs rest on', () => {
  const project = demo('kittiwake')
  /** What lines of a kind come to. */
  const costs = (of: Project) => {
    const { lines } = results(of).cost
    return (kind: string) => lines.filter((one) => one.kind === kind).reduce((sum, { cost }) => sum + cost, 0)
  }

  it('is the maker’s to say: a printed page, and how much glue is lost', () => {
    const [ours, dearer] = [costs(project), costs(setPlan(project, { printPrice: 1, glueLost: 3 }))]
    // A start of ours is 0.40 a page and twice the glue that is laid.
    expect(ours('print')).toBeGreaterThan(0)
    expect(dearer('print')).toBeCloseTo(ours('print') / 0.4, 9)
    expect(ours('glue')).toBeGreaterThan(0)
    expect(dearer('glue')).toBeCloseTo(ours('glue') * 1.5, 9)
  })
})

describe('what a make and a note are about', () => {
  const project = demo('harbour')
  const make = (id: string, p: Project, at: number) => ({
    id,
    at,
    count: 1,
    fate: 'kept' as const,
    whom: '',
    price: 0,
    note: '',
    version: versionOf(p),
  })

  it('numbers the versions that were made, and knows which is as now', () => {
    const renamed = setLayer(project, project.layers[0]!.id, { name: 'Other sky' })
    const other = setLayer(project, project.layers[1]!.id, { paperId: project.layers[2]!.paperId })
    const makes = [
      make('a', project, 1),
      make('b', other, 2),
      make('c', renamed, 3),
      { ...make('d', project, 0), version: '' },
    ]
    const versions = versionsMade({ ...project, journal: { ...project.journal, makes } })
    // A name changes nothing of what is made.
    expect(Object.fromEntries(versions)).toEqual({
      a: { version: 1, isNow: true },
      b: { version: 2, isNow: false },
      c: { version: 1, isNow: true },
    })
  })

  it('finds layers and papers by their names: whole words, whatever their case, the longer name first', () => {
    const { layers, drawer } = project
    const pier = layers.find(({ name }) => name === 'Pier')!
    const blue = drawer.papers.find(({ name }) => name === 'Harbour blue')!
    const named = mentionsOf(`Cut the PIER slower; ${blue.name} is fine. No piers, no blues.`, project)
    expect(named.map(({ kind, id }) => [kind, id])).toEqual([
      ['layer', pier.id],
      ['paper', blue.id],
    ])
    expect(mentionsOf('piers and skyline', project)).toEqual([])
    expect(mentionsOf('', project)).toEqual([])
  })
})

describe('all projects together', () => {
  const supplies = starterSupplies()
  const papers = demo('harbour').drawer.papers.map((paper, k) => ({
    ...paper,
    count: 2,
    perPack: k === 0 ? 5 : 1,
    shop: k < 2 ? 'Quay' : '',
  }))
  const [first, second, third] = papers
  const foam = { ...supplies.foams[0]!, count: 10, perPack: 100, pricePerPack: 4, shop: 'Arcade' }
  const counted = [
    { name: 'A', wants: { sheets: { [first!.id]: 3, [third!.id]: 1 }, pads: { [foam.id]: 60 }, things: {} } },
    {
      name: 'B',
      wants: { sheets: { [first!.id]: 4, [second!.id]: 3, gone: 9 }, pads: { [foam.id]: 60 }, things: {} },
    },
  ]
  const wants = wantsOf(counted, { papers, foams: [foam], things: [] })

  it('want sheets and pads, of which the scarcest comes first, and whole packs are bought', () => {
    const of = (name: string) => wants.find((want) => want.name === name)!
    expect(of(first!.name)).toMatchObject({
      wanted: 7,
      atHand: 2,
      by: [
        { name: 'A', count: 3 },
        { name: 'B', count: 4 },
      ],
    })
    // Five sheets short, in packs of five; one short, by the sheet; none short.
    expect([first, second, third].map((paper) => packsOf(of(paper!.name)))).toEqual([1, 1, 0])
    // 110 pads short, in packs of a hundred.
    expect(packsOf(of(foam.name))).toBe(2)
    expect(boughtOf(wants)).toEqual({ sheets: { [first!.id]: 5, [second!.id]: 1, [third!.id]: 0 }, pads: { [foam.id]: 200 }, things: {} }) // prettier-ignore
    expect(wants[0]!.name).toBe(foam.name)
    expect(billOf(wants)).toBeCloseTo(5 * first!.price + second!.price + 2 * 4, 9)
  })

  it('want frames and twine as far as the drawer counts them', () => {
    const oak = { ...newThing('frame', 'oak'), name: 'oak', count: 1, price: 9 }
    const twine = { ...newThing('twine', 'twine'), count: 2.5, perPack: 10, price: 0.2 }
    const uncounted = newThing('sticks', 'sticks')
    const wanting = (name: string, things: Record<string, number>) => ({
      name,
      wants: { sheets: {}, pads: {}, things },
    })
    const list = [wanting('A', { oak: 3, sticks: 2 }), wanting('B', { twine: 3.25, gone: 1 })]
    const rows = wantsOf(list, { papers: [], foams: [], things: [oak, twine, uncounted] })
    expect(rows).toMatchObject([
      { name: 'oak', unit: '', atHand: 1, wanted: 3 },
      { name: 'twine', unit: 'm', atHand: 2.5, wanted: 3.25 },
    ])
    // Two frames of nine, and a roll of ten metres.
    expect([rows.map(packsOf), billOf(rows)]).toEqual([[2, 1], 20])
    expect(boughtOf(rows)).toEqual({ sheets: {}, pads: {}, things: { oak: 2, twine: 10 } })
    expect(packWords(1, { perPack: 10, by: 'm' }, 'mm')).toBe('10 m')
    expect(packWords(2, { perPack: 50, by: '' }, 'mm')).toBe('2 packs of 50')
  })

  it('of one are packs of paper, foam and what carries it', () => {
    const sticks = { ...newThing('sticks', 's'), count: 1, perPack: 20, price: 0.1 }
    const paper = { ...first!, perPack: 5, price: 0.5 }
    const needed = [{ paper, sheets: 8, offCuts: 0, buy: 6, packs: 2, cost: 4 }]
    const foamUse = [{ foam, needed: 30, taken: 0, packs: 1, cost: 1.2 }]
    const thing = { thing: sticks, needed: 2, taken: 0, packs: 1, cost: 2 }
    // Ten sheets at 0.5, a pack of foam at 4, twenty sticks at 0.1.
    expect(toBuy({ needed, foamUse, thing })).toEqual({
      packs: 4,
      cost: 11,
      bought: { sheets: { [paper.id]: 10 }, pads: { [foam.id]: 100 }, things: { s: 20 } },
    })
    expect(toBuy({})).toEqual({ packs: 0, cost: 0, bought: { sheets: {}, pads: {}, things: {} } })
  })

  it('are bought shop by shop', () => {
    const list = shoppingOf(wants)
    expect(list.map(({ shop }) => shop)).toEqual(['Arcade', 'Quay'])
    expect(list[1]!.wants.map(({ name }) => name).toSorted()).toEqual([first!.name, second!.name].toSorted())
    expect(list.reduce((sum, { bill }) => sum + bill, 0)).toBeCloseTo(billOf(wants), 9)
  })

  it('have their hours by stage, a timed step once, and their sheets by paper and by day', () => {
    const note = (kind: string, minutes: number, at: number) => ({
      stepId: `${kind}-${at}`,
      kind,
      title: kind,
      minutes,
      planned: 1,
      at,
    })
    const one = demo('harbour')
    const worked = noteSheets(
      stopTimer(startTimer(one, 'assembly', 0), 30 * MIN),
      [{ paperId: 'x', count: 2 }],
      5 * MIN,
    )
    const project = {
      ...worked,
      journal: {
        ...worked.journal,
        steps: [note('lay', 4, 10 * MIN), note('lay', 6, 90 * MIN), note('weed', 3, 95 * MIN)] as never,
      },
    }
    const { minutes } = digestOf(project, 99 * MIN)
    // The first was timed while the clock ran.
    expect(minutes.assembly).toBe(36)
    expect(minutes.sheets).toBe(3)
    const other = digestOf(noteSheets(one, [{ paperId: 'y', count: 5 }], 60 * MIN), 0)
    const all = [digestOf(project, 0), other]
    expect(sheetsUsedOf(all)).toEqual([
      { paperId: 'y', count: 5 },
      { paperId: 'x', count: 2 },
    ])
    const line = drawerOverTime(all, { atHand: 40, now: 100 * MIN })
    expect(line.map(({ sheets }) => sheets)).toEqual([47, 45, 45, 40, 40])
    expect(line.map(({ at }) => at / MIN)).toEqual([5, 5, 60, 60, 100])
  })
})

describe('what the cost goes to', () => {
  const line = (kind: CostKind, what: string, cost: number): CostLine => ({
    kind,
    what,
    cost,
    amount: 1,
    unit: '',
    basis: '',
    partId: null,
  })

  it('is told by part, the dearest first: papers together, glues and things by name, nothing that is free', () => {
    expect(
      costByPart([
        line('paper', 'Shell', 1),
        line('paper', 'Chalk', 2.5),
        line('glue', 'tacky glue', 0.2),
        line('part', 'frame', 6),
        line('part', 'twine', 0),
        line('hands', 'hands', 12),
      ]),
    ).toEqual([
      { name: 'hands', cost: 12 },
      { name: 'frame', cost: 6 },
      { name: 'paper', cost: 3.5 },
      { name: 'tacky glue', cost: 0.2 },
    ])
  })

  it('adds up to the whole for every demo', () => {
    for (const name of ['harbour', 'kittiwake'] as const) {
      const { lines } = results(demo(name)).cost
      const sum = costByPart(lines).reduce((total, { cost }) => total + cost, 0)
      // What is negative, such as a credit for off-cuts, is no part that it goes to.
      expect(sum).toBeCloseTo(
        lines.filter(({ cost }) => cost > 0).reduce((total, { cost }) => total + cost, 0),
        6,
      )
    }
  })
})
