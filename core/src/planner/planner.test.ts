import { afterEach, describe, expect, it, vi } from 'vitest'
import { altered } from '../../test/altered'
import { results } from '../../test/results'
import { plate, stack } from '../../test/stack'
import { applyDelta, Cache, deltaOf, seededRandom } from '../base'
import { demo } from '../demo'
import {
  addMirrored,
  assignPaper,
  moveLayer,
  removeLayer,
  setLayer,
  setPlan,
  takeAlong,
  tickStep,
  transformLayers,
  type Cutter,
  type Layer,
  type Project,
} from '../project'
import { nodes, SNAG_NODES, type NodeName } from '../stages'
import { assembly } from '../stages/assembly'
import { starterStock } from '../stages/paper'
import { Narrower } from './reads'
import { freezeSheets, sheetOf } from '../stages/sheets'
import { Failure, later, node, Planner, refName, type Ref } from './index'

const stock = starterStock()

/** Of so many edits one is followed by a planner from cold, which takes ten times as long as the edit. */
const LOOKED_AT = 4

/** Small enough to be computed anew fifty times, with openings, copies, glue and foam. */
const small = (): Project => ({
  ...stack(
    'frame',
    plate('back', 0, [10, 10, 180, 180]),
    plate('mid', 2, [20, 20, 90, 60], [120, 30, 40, 40]),
    plate('front', 2, [30, 30, 50, 40]),
    plate('top', 1, [40, 35, 20, 12], [125, 35, 12, 12]),
  ),
})

const refsOf = (project: Project): Ref<unknown>[] => {
  const whole = [
    'levels',
    'apart',
    'smallest',
    'depth',
    'hold',
    'space',
    'nested',
    'loads',
    'sketches',
    'cutLoads',
    'cutSketches',
    'needed',
    'left',
    'orderOfWork',
    'assembly',
    'thing',
    'sheetCost',
    'cost',
    ...SNAG_NODES,
  ] as const
  const perLayer = [
    'figures',
    'visible',
    'shownPath',
    'colouringMap',
    'sound',
    'weakPaths',
    'padMap',
    'glueMap',
  ] as const
  const of = (name: NodeName, arg?: string) => nodes[name](arg) as Ref<unknown>
  const built = project.layers.filter((layer) => !layer.leftOut)
  return [
    ...whole.map((name) => of(name)),
    ...built.flatMap(({ id }) => perLayer.map((name) => of(name, id))),
  ]
}

/** Computes a node with all that it needs; names what had to be computed, none of which may have failed. */
function compute(planner: Planner, ref: Ref<unknown>): string[] {
  const names: string[] = []
  const steps = planner.work(ref)
  for (let step = steps.next(); !step.done; step = steps.next()) {
    const value = planner.peek(step.value)
    if (value instanceof Failure) throw new Error(`${refName(step.value)}: ${value.sentence}`)
    names.push(refName(step.value))
  }
  return names
}

const viewsOf = (planner: Planner, project: Project): Record<string, unknown> =>
  Object.fromEntries(
    refsOf(project).map((ref) => {
      compute(planner, ref)
      return [refName(ref), (ref.node.view as (value: unknown) => unknown)(planner.get(ref))]
    }),
  )

/** The project with a third of its loads cut. */
function someCut(project: Project): Project {
  const planner = new Planner(new Cache())
  planner.update({ project, stock, found: new Map() })
  const loads = planner.get(nodes.loads())
  const sheets = loads.slice(0, Math.ceil(loads.length / 3)).map((load) => sheetOf(project, load, { stock }))
  const runs = planner.get(nodes.nested())
  return freezeSheets({ project, stock }, { sheets, runs, kept: [], at: 1 }).project
}

describe('the planner', () => {
  afterEach(() => {
    vi.restoreAllMocks()
  })

  it('gives after any edits what a fresh one gives', () => {
    const random = seededRandom(11)
    const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
    const guest = { ...stack('free', plate('a', 0, [0, 0, 30, 20])), id: 'guest', name: 'Guest' }
    type Edit = (p: Project, id: string) => Project
    // One thing at a time: what is remembered without regard to it shows only where nothing else changes with it.
    const ofLayer = (values: { [K in keyof Layer]?: readonly Layer[K][] }): Edit[] =>
      Object.entries(values).map(
        ([key, list]): Edit =>
          (p, id) =>
            setLayer(p, id, { [key]: one(list as readonly unknown[]) }),
      )
    const ofPlan = (values: { [K in keyof Project['plan']]?: readonly Project['plan'][K][] }): Edit[] =>
      Object.entries(values).map(
        ([key, list]): Edit =>
          (p) =>
            setPlan(p, { [key]: one(list as readonly unknown[]) }),
      )
    const ofCutter = (values: { [K in keyof Cutter]?: readonly Cutter[K][] }): Edit[] =>
      Object.entries(values).map(([key, list]): Edit => (p) => ({
        ...p,
        drawer: { ...p.drawer, cutter: { ...p.drawer.cutter, [key]: one(list as readonly unknown[]) } },
      }))
    const ofMount =
      (key: string, values: readonly number[]): Edit =>
      (p) =>
        ({ ...p, mount: { ...p.mount, [key]: one(values) } }) as Project
    const foam = (gapMm: number): Layer['joint'] => ({ kind: 'foam', gapMm, pinned: false })
    const fold = (way: 'up' | 'down', deg: number) => ({ line: [40, 40, 60, 40], way, deg }) as Layer['folds'][number] // prettier-ignore
    const edits: Edit[] = [
      ...ofLayer({
        name: ['Sea', 'Sky', 'Sand'],
        copies: [1, 2, 3],
        joint: [foam(1), foam(2), foam(4.3), { ...foam(2), kind: 'glue' }],
        role: ['plain', 'backing', 'border'],
        numbered: [true, false, null],
        sharing: ['any', 'one-sheet', 'own-sheets'],
        colour: ['#cc0000', '#00cc88'],
        folds: [[], [fold('up', 20)], [fold('down', 20)], [fold('up', 90)]],
      }),
      (p, id) => setLayer(p, id, { leftOut: random() < 0.4, optional: true }),
      (p, id) => moveLayer(p, id, Math.floor(random() * p.layers.length)),
      (p, id) => (p.layers.length > 3 ? removeLayer(p, id) : addMirrored(p, id, 100)),
      (p, id) => transformLayers(p, [1, 0, 0, 1, one([-6, 4, 9]), one([-5, 3])], [id]),
      (p, id) => transformLayers(p, [0.9, 0, 0, 0.9, 2, 2], [id]),
      (p, id) => assignPaper(p, [id], { paper: one(stock), stock }),
      ...ofPlan({
        hourlyRate: [10, 20],
        adhesiveId: ['glue-stick', 'glue-hot', null],
        thrift: ['sparing', 'steady', 'sale'],
        viewingDeg: [0, 30, 45],
        litFromBehind: [true, false],
        padMarginMm: [0.5, 2],
        cutOrder: ['changes', 'build'],
        numbers: ['drawn', 'cut', 'none'],
        gapMm: [1, 3],
        turns: ['free', 'quarter', 'fixed'],
        placeMarks: [true, false],
        batch: [1, 2],
        direction: ['face-up', 'face-down'],
        alignment: ['by-eye', 'one-edge'],
      }),
      (p) => (p.plan.guests.length === 0 ? takeAlong(p, guest) : setPlan(p, { guests: [] })),
      ofMount('depthMm', [12, 24, 30]),
      ofMount('airMm', [2, 9]),
      (p) => ({ ...p, unit: one(['mm', 'in']), name: one(['One', 'Two']) }),
      (p) => tickStep(p, 'prepare', random() < 0.5),
      ...ofCutter({ rimMm: [4, 6.35], speedMmPerS: [30, 60], overcutMm: [0, 0.4], liftS: [0.2, 0.6] }),
    ]
    const found = new Map()
    const planner = new Planner(new Cache())
    // The planner's side keeps a copy of its own, brought up to date by what is sent.
    let mine = small()
    let theirs = structuredClone(mine)
    for (let k = 0; k < 120; k++) {
      const next = one(edits)(mine, one(mine.layers).id)
      theirs = applyDelta(theirs, structuredClone(deltaOf(mine, next))) as Project
      mine = next
      planner.update({ project: theirs, stock, found })
      const views = viewsOf(planner, mine)
      // What an edit left outdated stays so: it is seen a few edits later too.
      if (k % LOOKED_AT !== LOOKED_AT - 1) continue
      const fresh = new Planner(new Cache())
      fresh.update({ project: structuredClone(mine), stock, found })
      expect(views).toEqual(viewsOf(fresh, mine))
    }
    // Thirty projects from cold: a busy machine takes a while.
  }, 120_000)

  // What is blank to a node shows only where it is otherwise than blank: each of these has shown something once.
  it.each([
    ['harbour', 0.1, 2],
    ['tide-rose', 0.25, 4],
    ['bon-voyage', 0.1, 2],
    ['lantern-street', 0.1, 1],
    ['dune-garden', 0.1, 3],
    ['regatta', 0.25, 3],
    ['kittiwake', 0.1, 3],
  ] as const)(
    'shows each node all that it reads: %s',
    (name, share, seed) => {
      const random = seededRandom(seed)
      const own = altered(demo(name), random, share)
      const single = { ...own, layers: own.layers.map((layer) => ({ ...layer, copies: 1 })) }
      const guest = altered(demo(name === 'harbour' ? 'kittiwake' : 'harbour'), random, share)
      const project = takeAlong(someCut(setPlan(single, { batch: 2 })), guest)
      const viewsNow = () => {
        const planner = new Planner(new Cache())
        planner.update({ project, stock, found: new Map() })
        return viewsOf(planner, project)
      }
      const narrowed = viewsNow()
      // A node of one layer takes the only one that there is; all else is as it is.
      vi.spyOn(Narrower.prototype, 'narrow').mockImplementation((whole, { layer }, id) =>
        layer ? { ...whole, layers: whole.layers.filter((one) => one.id === id) } : whole,
      )
      expect(narrowed).toEqual(viewsNow())
    },
    120_000,
  )

  it('computes nothing twice, and only what an edit makes stale', () => {
    const planner = new Planner(new Cache())
    const project = small()
    const found = new Map()
    const computed = (p: Project): string[] => {
      planner.update({ project: p, stock, found })
      return refsOf(p).flatMap((ref) => compute(planner, ref))
    }
    const cold = computed(project)
    // The search for a layout hands back control between its steps.
    const once = cold.filter((name) => !name.startsWith('layout'))
    expect(new Set(once).size).toBe(once.length)
    expect(computed(structuredClone(project))).toEqual([])
    expect(computed(tickStep(project, 'prepare', true))).toEqual([])
    expect(computed(setPlan(project, { hourlyRate: 99 }))).toEqual(['cost'])
    const renamed = computed(setLayer(project, 'mid', { name: 'Middle' }))
    expect(
      renamed.some((name) => /^(seen|necks|turns|number at|standing|held|layout|depth$)/.test(name)),
    ).toBe(false)
    const higher = computed(setLayer(project, 'front', { joint: { kind: 'foam', gapMm: 4, pinned: false } }))
    expect(higher).not.toContain('standing mid')
    // What hides a number from aside depends on the gap, and with it the marks on the loads; where pieces lie does not.
    expect(higher).toContain('number at back')
    expect(higher.some((name) => /^(seen|necks|turns|layout)/.test(name))).toBe(false)
    const moved = computed(transformLayers(project, [1, 0, 0, 1, 3, 0], ['top']))
    expect(moved).toContain('necks top')
    expect(moved).not.toContain('necks mid')
  })

  it('cautions of a light as soon as there is one, be it that heights stay as they are', () => {
    const glued = small()
    const flat = glued.layers.reduce(
      (p, { id }) => setLayer(p, id, { joint: { kind: 'glue', gapMm: 0, pinned: false } }),
      glued,
    )
    const planner = new Planner(new Cache())
    const caution = (litFromBehind: boolean) => {
      const project = setPlan(flat, { litFromBehind })
      planner.update({ project, stock, found: new Map() })
      for (const ref of refsOf(project)) compute(planner, ref)
      return planner.get(assembly())!.steps[0]!.caution
    }
    expect(caution(false)).toBeNull()
    expect(caution(true)).toMatch(/never a candle/)
    expect(caution(false)).toBeNull()
  })

  it('computes what a node may do without only where it asks for it', () => {
    const dear = node('dear', { stage: 'layers', reads: { plan: ['gapMm'] }, compute: () => 'dear' })
    const thrifty = node('thrifty', {
      stage: 'layers',
      reads: { plan: ['batch'] },
      needs: () => ({ own: later(dear()) }),
      *compute({ project }, { own }) {
        return project.plan.batch > 1 ? yield* own() : 'cheap'
      },
    })
    const planner = new Planner(new Cache())
    const after = (plan: { batch: number; gapMm: number }) => {
      planner.update({ project: setPlan(small(), plan), stock, found: new Map() })
      return [compute(planner, thrifty()), planner.get(thrifty())]
    }
    expect(after({ batch: 1, gapMm: 2 })).toEqual([['thrifty'], 'cheap'])
    expect(after({ batch: 2, gapMm: 2 })).toEqual([['dear', 'thrifty'], 'dear'])
    // What it might have asked for is part of its name all the same.
    expect(after({ batch: 2, gapMm: 3 })).toEqual([['dear', 'thrifty'], 'dear'])
    expect(after({ batch: 2, gapMm: 3 })).toEqual([[], 'dear'])
  })

  it('leaves be what needs a value that came out the same', () => {
    const sign = node('sign', {
      stage: 'layers',
      reads: { plan: ['gapMm'] },
      byValue: true,
      compute: ({ project }) => ({ isHigh: project.plan.gapMm > 2 }),
    })
    const told = node('told', {
      stage: 'layers',
      reads: { plan: ['hourlyRate'] },
      needs: () => ({ own: sign() }),
      compute: (_, { own }) => `high: ${own.isHigh}`,
    })
    const last = node('last', {
      stage: 'layers',
      reads: {},
      needs: () => ({ own: told() }),
      compute: (_, { own }) => own + '!',
    })
    const planner = new Planner(new Cache())
    const after = (gapMm: number) => {
      planner.update({ project: setPlan(small(), { gapMm }), stock, found: new Map() })
      const computed: string[] = []
      const steps = planner.work(last())
      let step = steps.next()
      for (; !step.done; step = steps.next()) computed.push(refName(step.value))
      expect(planner.peek(last())).toBe(step.value)
      return [step.value, ...computed]
    }
    expect(after(1)).toEqual(['high: false!', 'sign', 'told', 'last'])
    expect(after(2)).toEqual(['high: false!', 'sign'])
    expect(after(3)).toEqual(['high: true!', 'sign', 'told', 'last'])
    expect(after(1.5)).toEqual(['high: false!', 'sign'])
  })

  it('hands back control between any two nodes, and takes up new work at once', () => {
    const planner = new Planner(new Cache())
    planner.update({ project: demo('bon-voyage'), stock, found: new Map() })
    const steps = planner.work(nodes.assembly())
    for (let k = 0; k < 3; k++) expect(steps.next().done).toBe(false)
    const other = small()
    planner.update({ project: other, stock, found: new Map() })
    expect(planner.get(nodes.depth())).toEqual(results(other, stock).depth)
  })

  it('goes on without what cannot be computed, and says why', () => {
    const good = small()
    const bad = setLayer(good, 'front', { pieces: [{ id: 'p1', path: 'M0 0C1 1 2 2 3 3Z' }] })
    const planner = new Planner(new Cache())
    planner.update({ project: bad, stock, found: new Map() })
    const end = (ref: Ref<unknown>) => {
      const steps = planner.work(ref)
      let step = steps.next()
      while (!step.done) step = steps.next()
      return step.value
    }
    expect(end(nodes.figures('front'))).toBeInstanceOf(Failure)
    expect((end(nodes.figures('front')) as Failure).sentence).toMatch(/holds “C”/)
    for (const id of ['back', 'mid', 'top']) expect(end(nodes.figures(id))).not.toBeInstanceOf(Failure)
  })
})
