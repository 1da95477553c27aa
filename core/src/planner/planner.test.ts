import { describe, expect, it } from 'vitest'
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
  type Project,
} from '../project'
import { nodes, SNAG_NODES, type NodeName } from '../stages'
import { starterStock } from '../stages/paper'
import { Failure, later, node, Planner, refName, type Ref } from './index'

const stock = starterStock()

/** Small enough to be computed anew two hundred times, with openings, copies, glue and foam. */
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
    'smallest',
    'depth',
    'nested',
    'loads',
    'sketches',
    'needed',
    'left',
    'assembly',
    'cost',
    ...SNAG_NODES,
  ] as const
  const perLayer = ['figures', 'visible', 'shownPath', 'sound', 'weakPaths', 'padMap'] as const
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

describe('the planner', () => {
  it('gives after any edits what a fresh one gives', () => {
    const random = seededRandom(11)
    const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
    const guest = { ...stack('free', plate('a', 0, [0, 0, 30, 20])), id: 'guest', name: 'Guest' }
    const edits: ((p: Project, id: string) => Project)[] = [
      (p, id) => setLayer(p, id, { name: one(['Sea', 'Sky', 'Sand']) }),
      (p, id) => setLayer(p, id, { copies: one([1, 2, 3]) }),
      (p, id) => setLayer(p, id, { leftOut: random() < 0.4, optional: true }),
      (p, id) =>
        setLayer(p, id, {
          joint: { kind: one(['foam', 'glue', 'foam']), gapMm: one([1, 2, 3, 4.3]), pinned: false },
        }),
      (p, id) =>
        setLayer(p, id, { role: one(['plain', 'backing', 'border']), numbered: one([true, false, null]) }),
      (p, id) =>
        setLayer(p, id, {
          sharing: one(['any', 'one-sheet', 'own-sheets']),
          colour: one(['#cc0000', '#00cc88']),
        }),
      (p, id) =>
        setLayer(p, id, {
          folds: [{ line: [40, 40, 60, 40], way: one(['up', 'down']), deg: one([20, 90]) }],
        }),
      (p, id) => moveLayer(p, id, Math.floor(random() * p.layers.length)),
      (p, id) => (p.layers.length > 3 ? removeLayer(p, id) : addMirrored(p, id, 100)),
      (p, id) => transformLayers(p, [1, 0, 0, 1, one([-6, 4, 9]), one([-5, 3])], [id]),
      (p, id) => transformLayers(p, [0.9, 0, 0, 0.9, 2, 2], [id]),
      (p, id) => assignPaper(p, [id], { paper: one(stock), stock }),
      (p) => setPlan(p, { hourlyRate: one([10, 20]), adhesiveId: one(['glue-stick', 'glue-hot', null]) }),
      (p) => setPlan(p, { thrift: one(['sparing', 'steady', 'sale']), viewingDeg: one([0, 30, 45]) }),
      (p) => setPlan(p, { litFromBehind: random() < 0.5, padMarginMm: one([0.5, 2]) }),
      (p) => setPlan(p, { cutOrder: one(['changes', 'build']), numbers: one(['drawn', 'cut', 'none']) }),
      (p) =>
        setPlan(p, {
          gapMm: one([1, 3]),
          turns: one(['free', 'quarter', 'fixed']),
          placeMarks: random() < 0.5,
        }),
      (p) =>
        setPlan(p, {
          batch: one([1, 2]),
          direction: one(['face-up', 'face-down']),
          alignment: one(['by-eye', 'one-edge']),
        }),
      (p) => (p.plan.guests.length === 0 ? takeAlong(p, guest) : setPlan(p, { guests: [] })),
      (p) => ({
        ...p,
        mount: { ...p.mount, depthMm: one([12, 24, 30]), airMm: one([2, 9]) } as Project['mount'],
      }),
      (p) => ({ ...p, unit: one(['mm', 'in']), name: one(['One', 'Two']) }),
      (p) => tickStep(p, 'prepare', random() < 0.5),
      (p) => ({
        ...p,
        drawer: {
          ...p.drawer,
          cutter: { ...p.drawer.cutter, rimMm: one([4, 6.35]), speedMmPerS: one([30, 60]) },
        },
      }),
    ]
    const found = new Map()
    const planner = new Planner(new Cache())
    // The planner's side keeps a copy of its own, brought up to date by what is sent.
    let mine = small()
    let theirs = structuredClone(mine)
    for (let k = 0; k < 200; k++) {
      const next = one(edits)(mine, one(mine.layers).id)
      theirs = applyDelta(theirs, structuredClone(deltaOf(mine, next))) as Project
      mine = next
      planner.update({ project: theirs, stock, found })
      const fresh = new Planner(new Cache())
      fresh.update({ project: structuredClone(mine), stock, found })
      expect(viewsOf(planner, mine)).toEqual(viewsOf(fresh, mine))
    }
    // Two hundred projects from cold: a busy machine takes a while.
  }, 120_000)

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
