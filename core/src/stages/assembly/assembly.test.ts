import { wordsIn } from '../../base/units'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../../test/stack'
import { intersect, regionArea } from '../../base/geometry'
import { demo, demoNames } from '../../demo'
import { depthPlan } from '../depth'
import { builtLayers, layerRegion, setLayer, setPlan, type Project } from '../../project'
import { planLoads, nestProject } from '../sheets'
import { planAssembly, schedule, type AssemblyPlan, type Task } from './index'

const planOf = (project: Project): AssemblyPlan =>
  planAssembly({
    project,
    loads: planLoads(project, { runs: nestProject(project, 0) }),
    depth: depthPlan(project),
  })
const startOf = (plan: AssemblyPlan, id: string) => plan.steps.find((s) => s.id === id)!.startMin
const stickingOrder = (plan: AssemblyPlan) =>
  plan.steps
    .filter((s) => (s.kind === 'lay' || s.kind === 'glue') && !s.id.startsWith('begin-'))
    .map((s) => s.layerId)

/** What must hold of any schedule: nobody starts early, cutter and hands do one thing at a time. */
function expectSound(plan: AssemblyPlan): void {
  const byId = new Map(plan.steps.map((s) => [s.id, s]))
  expect(byId.size).toBe(plan.steps.length)
  for (const step of plan.steps) {
    expect(step.endMin).toBeGreaterThanOrEqual(step.startMin)
    for (const id of step.after)
      if (byId.has(id))
        expect(step.startMin, `${step.id} after ${id}`).toBeGreaterThanOrEqual(byId.get(id)!.endMin - 1e-9)
  }
  for (const resource of ['cutter', 'hands'] as const) {
    // Hands put a sheet in, and are free again while it is cut.
    const busy = plan.steps
      .map((s): [number, number] => [
        s.startMin,
        s.needs.includes(resource) ? s.minutes : resource === 'hands' ? (s.handsMin ?? 0) : 0,
      ]) // prettier-ignore
      .filter(([, minutes]) => minutes > 0)
      .toSorted(([a], [b]) => a - b)
    for (let i = 1; i < busy.length; i++)
      expect(busy[i]![0]).toBeGreaterThanOrEqual(busy[i - 1]![0] + busy[i - 1]![1] - 1e-9)
  }
}

describe.each(demoNames)('the steps of %s', (name) => {
  const project = demo(name)
  const plan = planOf(project)

  it('keep their order, one thing at a time', () => {
    expectSound(plan)
    expect(plan.minutes).toBe(Math.max(...plan.steps.map((s) => s.endMin)))
  })

  it('take hands to put each sheet in, which are free while it is cut', () => {
    const { loadMin } = project.drawer.cutter
    const cuts = plan.steps.filter((s) => s.kind === 'cut')
    expect(cuts.every((s) => s.handsMin === loadMin && s.minutes > loadMin)).toBe(true)
    const all = plan.steps.filter((s) => s.needs.includes('hands')).reduce((sum, s) => sum + s.minutes, 0)
    expect(plan.handsMinutes).toBeCloseTo(all + cuts.length * loadMin, 9)
  })

  it('cut and weed every load, fit dry before anything is stuck, and lay every layer back to front', () => {
    expect(plan.steps.filter((s) => s.kind === 'cut').length).toBe(
      plan.steps.filter((s) => s.kind === 'weed').length,
    )
    const dry = plan.steps.find((s) => s.kind === 'dry-fit')!
    for (const step of plan.steps)
      if (['lay', 'glue', 'pad'].includes(step.kind)) expect(step.startMin).toBeGreaterThanOrEqual(dry.endMin)
    // What the frame or the twine holds is not stuck to the stack.
    const stuck = builtLayers(project).filter(({ joint }) => joint.kind === 'foam' || joint.kind === 'glue')
    const order = stickingOrder(plan)
    expect(order.toSorted()).toEqual(stuck.map((l) => l.id).toSorted())
    // Of two that lie over each other the one beneath comes first; a part is built on the bench beside the stack.
    stuck.forEach((upper, i) => {
      for (const lower of stuck.slice(0, i)) {
        if (upper.assemblyId !== null || lower.assemblyId !== null) continue
        if (regionArea(intersect(layerRegion(upper), layerRegion(lower))) < 0.1) continue
        expect(order.indexOf(lower.id), `${lower.name} before ${upper.name}`).toBeLessThan(
          order.indexOf(upper.id),
        )
      }
    })
  })

  it('name every step by an id that stays when the plan is made again', () =>
    expect(planOf(project).steps.map((s) => s.id)).toEqual(plan.steps.map((s) => s.id)))
})

describe('steps from the joints', () => {
  it('name pads where there is foam and glue where there is none', () => {
    const project = stack(
      'card',
      plate('a', 0, [0, 0, 140, 140]),
      plate('b', 2, [20, 20, 100, 100]),
      plate('c', 0, [40, 40, 40, 40]),
    )
    const plan = planOf(project)
    const kinds = new Map(plan.steps.filter((s) => s.layerId).map((s) => [s.id, s.kind]))
    expect(kinds.get('pad-b')).toBe('pad')
    expect(kinds.get('lay-b')).toBe('lay')
    expect(kinds.get('glue-c')).toBe('glue')
    expect(kinds.has('pad-c')).toBe(false)
    const pads = depthPlan(project).pads.filter((p) => p.layerId === 'b')
    const words = wordsIn(plan.steps.find((s) => s.id === 'pad-b')!.detail, 'mm')
    for (const [w, h] of new Set(pads.map(({ widthMm, heightMm }) => [widthMm, heightMm] as const))) {
      const n = pads.filter(({ widthMm, heightMm }) => widthMm === w && heightMm === h).length
      expect(words).toMatch(new RegExp(`${n} pads? of [a-z ]+, ${w} × ${h} mm, 2 mm high`))
    }
    expect(plan.steps.find((s) => s.id === 'pad-b')!.minutes).toBeCloseTo((pads.length * 8) / 60, 9)
  })

  it('wait for the chosen glue, and not for one that holds at once', () => {
    const project = stack('card', plate('a', 0, [0, 0, 140, 140]), plate('b', 0, [20, 20, 100, 100]))
    const waits = (adhesiveId: string) =>
      planOf(setPlan(project, { adhesiveId }))
        .steps.filter((s) => s.kind === 'dry')
        .map((s) => s.minutes)
    expect(waits('glue-tacky')).toEqual([10, 60, 60])
    expect(waits('glue-tape')).toEqual([])
  })

  it('turn round when the stack is built face down', () => {
    const plan = planOf(setPlan(demo('harbour'), { direction: 'face-down' }))
    expectSound(plan)
    expect(stickingOrder(plan)).toEqual(
      demo('harbour')
        .layers.map((l) => l.id)
        .toReversed(),
    )
    expect(plan.steps.find((s) => s.id === 'lay-front-border')!.title).toContain('face down')
  })

  it('name the pieces of a padded layer that are too narrow for a pad', () => {
    const project = stack(
      'card',
      plate('back', 0, [0, 0, 140, 140]),
      plate('mid', 2, [10, 10, 60, 60], [80, 10, 1.5, 60], [90, 10, 1.5, 60]),
      plate('front', 2, [5, 5, 130, 130]),
    )
    const lay = planOf(project).steps.find((s) => s.id === 'lay-mid')!
    expect(wordsIn(lay.detail, 'mm')).toContain('2 pieces of it are too narrow for a pad')
  })

  it('bring what is on the pane there after the stack is fixed, and before the pane is set', () => {
    const project = setLayer(demo('harbour'), 'front-border', { lives: 'behind-pane', cutMirrored: true })
    const plan = planOf(project)
    const at = (id: string) => plan.steps.find((s) => s.id === id)!
    expect(at('pane-front-border').startMin).toBeGreaterThanOrEqual(at('mount').endMin)
    expect(at('glaze').startMin).toBeGreaterThanOrEqual(at('pane-front-border').endMin)
    expect(plan.steps.some((s) => s.id === 'lay-front-border')).toBe(false)
    expect(wordsIn(at('pane-front-border').detail, 'mm')).toContain('cut in the mirror')
  })

  it('score folds flat, after weeding and before anything is tried on', () => {
    const project = setLayer(demo('harbour'), 'pier', { folds: [{ line: [10, 10, 60, 10], way: 'up', deg: 30 }, { line: [10, 20, 60, 20], way: 'down', deg: 90 }] }) // prettier-ignore
    const plan = planOf(project)
    expectSound(plan)
    const score = plan.steps.find((s) => s.id === 'score-pier')!
    expect(score.detail).toContain(
      '1 fold up by 30°, scored on the back; 1 down by 90°, scored on the front.',
    )
    expect(score.after.every((id) => id.startsWith('weed-'))).toBe(true)
    expect(plan.steps.find((s) => s.kind === 'dry-fit')!.startMin).toBeGreaterThanOrEqual(score.endMin)
    expect(planOf(demo('harbour')).steps.some((s) => s.kind === 'score')).toBe(false)
  })

  it('leave out what is left out', () => {
    const project = setLayer(demo('bon-voyage'), 'boat', { leftOut: true })
    expect(planOf(project).steps.some((s) => s.layerId === 'boat')).toBe(false)
  })

  it('glaze and close a frame last, with cautions where someone can be hurt', () => {
    const plan = planOf(demo('harbour'))
    expect(plan.steps.slice(-3).map((s) => s.kind)).toEqual(['mount', 'glaze', 'close'])
    expect(startOf(plan, 'glaze')).toBeGreaterThanOrEqual(startOf(plan, 'mount'))
    expect(plan.steps.find((s) => s.kind === 'glaze')!.caution).toMatch(/gloves/)
    for (const step of plan.steps.filter((s) => s.kind === 'cut')) expect(step.caution).toMatch(/sharp/)
    expect(planOf(demo('bon-voyage')).steps.find((s) => s.kind === 'mount')!.caution).toMatch(/food-safe/)
  })

  it.each(demoNames)(
    'of %s caution of the glue wherever it is laid, and of a light before and after',
    (name) => {
      const own = demo(name)
      const project = setPlan(
        {
          ...own,
          layers: own.layers.map((layer) => ({ ...layer, joint: { ...layer.joint, adhesiveId: null, pieces: [] } })), // prettier-ignore
          mount: own.mount.kind === 'topper' ? { ...own.mount, stickGlueId: null } : own.mount,
        },
        { adhesiveId: 'glue-hot', litFromBehind: true },
      )
      const { steps } = planOf(project)
      const laid = steps.filter(
        ({ kind, needs, detail }) =>
          kind !== 'prepare' && needs.includes('hands') && /hot glue/i.test(wordsIn(detail, 'mm')),
      )
      for (const { id, caution } of laid) expect(caution, id).toMatch(/burn skin/)
      expect(laid.length).toBeGreaterThan(0)
      expect(steps[0]!.caution).toMatch(/never a candle/)
      const closing = steps.find(({ kind, id }) => kind === 'close' || id === 'mount')
      if (closing?.kind === 'close') expect(closing.caution).toMatch(/never a candle/)
    },
  )

  it('warn of glitter near food, and of no light where there is none', () => {
    const project = demo('bon-voyage')
    expect(planOf(project).steps.some(({ caution }) => caution?.includes('candle'))).toBe(false)
    const mount = (p: Project) => planOf(p).steps.find((s) => s.kind === 'mount')!.caution
    expect(mount(project)).not.toMatch(/sheds/)
    const papers = project.drawer.papers.map((paper) => ({ ...paper, finish: 'glitter' as const }))
    expect(mount({ ...project, drawer: { ...project.drawer, papers } })).toMatch(/food-safe.*sheds/)
  })

  it('are none without layers', () =>
    expect(planOf(stack('frame'))).toEqual({ steps: [], minutes: 0, handsMinutes: 0 }))
})

describe('scheduling', () => {
  const task = (
    id: string,
    { after, needs, minutes }: { after: string[]; needs: Task['needs']; minutes: number },
  ): Task => ({
    id,
    kind: 'cut',
    title: id,
    detail: '',
    after,
    needs,
    minutes,
    layerId: null,
    loadId: null,
    caution: null,
  })

  it('lets hands work while glue dries and the cutter cuts', () => {
    const steps = schedule([
      task('glue', { after: [], needs: ['hands'], minutes: 2 }),
      task('dry', { after: ['glue'], needs: [], minutes: 60 }),
      task('weed', { after: [], needs: ['hands'], minutes: 10 }),
      task('cut', { after: [], needs: ['cutter'], minutes: 5 }),
      task('mount', { after: ['dry', 'weed'], needs: ['hands'], minutes: 3 }),
    ])
    expect(Math.max(...steps.map((s) => s.endMin))).toBe(65)
    expect(steps.find((s) => s.id === 'glue')!.startMin).toBe(0)
  })

  it('is never shorter than the longest chain nor than the work of one pair of hands', () => {
    const tasks = fc.array(
      fc.tuple(
        fc.array(fc.nat(9), { maxLength: 3 }),
        fc.constantFrom<Task['needs']>([], ['hands'], ['cutter'], ['cutter', 'hands']),
        fc.nat(20),
        fc.nat(3),
      ),
      { minLength: 1, maxLength: 10 },
    )
    fc.assert(
      fc.property(tasks, (list) => {
        const made = list.map(([after, needs, minutes, put], i) =>
          task(`t${i}`, {
            after: after.filter((k) => k < i).map((k) => `t${k}`),
            needs,
            minutes,
            ...(needs.join() === 'cutter' && put > 0 && { handsMin: Math.min(put, minutes) }),
          }),
        )
        const steps = schedule(made)
        expectSound({ steps, minutes: 0, handsMinutes: 0 })
        expect(steps).toHaveLength(made.length)
        const end = Math.max(...steps.map((s) => s.endMin))
        for (const r of ['hands', 'cutter'] as const)
          expect(end).toBeGreaterThanOrEqual(
            made.filter((t) => t.needs.includes(r)).reduce((sum, t) => sum + t.minutes, 0) - 1e-9,
          )
      }),
    )
  })

  it('says so where steps wait for each other', () =>
    expect(() =>
      schedule([
        task('a', { after: ['b'], needs: [], minutes: 1 }),
        task('b', { after: ['a'], needs: [], minutes: 1 }),
      ]),
    ).toThrow(/wait for each other/))
})

describe('who waits for whom', () => {
  const glued = (id: string, ...boxes: number[][]) =>
    setGlue(plate(id, 0, ...(boxes as [number, number, number, number][])))
  const setGlue = (layer: ReturnType<typeof plate>) => ({
    ...layer,
    joint: { kind: 'glue' as const, gapMm: 0, pinned: false },
  })
  const sheet = plate('back', 0, [0, 0, 140, 140])
  const at = (plan: AssemblyPlan, id: string) => plan.steps.find((step) => step.id === id)!

  it('only what lies on a wet joint waits until it holds', () => {
    const plan = planOf(
      stack('card', sheet, glued('left', [10, 10, 40, 40]), glued('right', [80, 80, 40, 40]), glued('top', [15, 15, 20, 20])), // prettier-ignore
    )
    expectSound(plan)
    expect(at(plan, 'glue-right').after).not.toContain('hold-left')
    expect(at(plan, 'glue-top').after).toContain('hold-left')
    expect(at(plan, 'glue-top').after).not.toContain('hold-right')
    expect(at(plan, 'glue-right').startMin).toBeLessThan(at(plan, 'hold-left').endMin)
  })

  it('the maker may go on while glue is wet, or wait for every joint', () => {
    const work = stack('card', sheet, glued('left', [10, 10, 40, 40]), glued('right', [80, 80, 40, 40]), glued('top', [15, 15, 20, 20])) // prettier-ignore
    const [wet, touching, each] = (['go on', 'touching', 'each'] as const).map((glueWait) =>
      planOf(setPlan(work, { glueWait })),
    ) as [AssemblyPlan, AssemblyPlan, AssemblyPlan]
    for (const plan of [wet, touching, each]) expectSound(plan)
    const holds = (plan: AssemblyPlan, id: string) => at(plan, id).after.filter((a) => a.startsWith('hold-'))
    expect(['glue-left', 'glue-right', 'glue-top'].map((id) => holds(wet, id))).toEqual([[], [], []])
    expect(holds(touching, 'glue-top')).toEqual(['hold-left'])
    expect(holds(each, 'glue-right')).toEqual(['hold-left'])
    expect(holds(each, 'glue-top')).toEqual(['hold-left', 'hold-right'])
    // Only what is set down on wet glue says so.
    const told = (plan: AssemblyPlan, id: string) => wordsIn(at(plan, id).detail, 'mm').includes('wet still')
    expect([told(wet, 'glue-right'), told(wet, 'glue-top'), told(touching, 'glue-top')]).toEqual([
      false,
      true,
      false,
    ])
    expect(wet.minutes).toBeLessThan(touching.minutes)
    expect(touching.minutes).toBeLessThan(each.minutes)
    // Not mounted before all of it holds, whichever way.
    for (const plan of [wet, touching, each])
      for (const id of ['hold-left', 'hold-right', 'hold-top'])
        expect(at(plan, 'mount').startMin).toBeGreaterThanOrEqual(at(plan, id).endMin - 1e-9)
  })

  it('names the glue of each joint where it is used, and lays all of them ready', () => {
    const work = stack('card', sheet, glued('left', [10, 10, 40, 40]))
    const own = (layerId: string, adhesiveId: string) => (p: Project) =>
      setLayer(p, layerId, { joint: { ...p.layers.find(({ id }) => id === layerId)!.joint, adhesiveId } })
    const plan = planOf(own('left', 'glue-tape')(own('back', 'glue-hot')(work)))
    const words = (id: string) => wordsIn(at(plan, id).detail, 'mm')
    expect(words('mount')).toContain('Hot glue under the backmost layer')
    expect(words('glue-left')).toContain('tape runner')
    expect(words('prepare')).toContain('hot glue, tape runner.')
    expect(words('prepare')).not.toContain('tacky')
  })

  it('lays ready every pad that is set, those behind the backing too, and counts each to be peeled', () => {
    const project = demo('kittiwake')
    const plan = planOf(project)
    const pads = plan.steps.flatMap(({ takes = [] }) => takes).reduce((sum, { count }) => sum + count, 0)
    expect(wordsIn(at(plan, 'prepare').detail, 'mm')).toContain(`, ${pads} foam pads, `)
    // All that is used up is on the list of what is needed.
    const { foamUse, shim } = depthPlan(project)
    expect(pads).toBe(foamUse.reduce((sum, { needed }) => sum + needed, 0))
    // Five on each other take five times as long as one.
    expect(at(plan, 'mount').minutes).toBeCloseTo(3 + (shim!.at.length * shim!.foamIds.length * 8) / 60, 9)
  })

  it.each([
    ['harbour', 'the frame taken apart'],
    ['bon-voyage', '2 sticks'],
    // Nine flags of 90 mm, 15 mm between them, 350 mm free at either end.
    ['regatta', '1.63 m of twine'],
    ['tide-rose', 'the card'],
    ['dune-garden', 'the panel'],
  ] as const)('lays ready what %s goes into or onto: %s', (name, what) => {
    expect(wordsIn(at(planOf(demo(name)), 'prepare').detail, 'mm')).toContain(`, ${what}, tweezers`)
  })

  it('lays ready the tools and inks that steps ask for, and no others', () => {
    const readyFor = (project: Project) => wordsIn(at(planOf(project), 'prepare').detail, 'mm')
    const tools = (project: Project) => readyFor(project).replace(/^.*tweezers, /, '')
    expect(tools(demo('harbour'))).toBe('a weeding pick, water-based tacky glue.')
    expect(tools(demo('kittiwake'))).toContain(
      'a weeding pick, a blunt tool to score with, a ruler, transfer sheet, ',
    )
    // The bar of what is printed is measured too.
    const flat = demo('kittiwake').layers.map((layer) => ({ ...layer, folds: [] }))
    expect(tools({ ...demo('kittiwake'), layers: flat })).toContain(
      'a weeding pick, a ruler, transfer sheet, ',
    )
    const harbour = demo('harbour')
    const ink = { id: 'plum', name: 'plum', colour: '#775577', dryMin: 10, on: 'any card' as const }
    const tint = { inkId: 'plum', colour: '#775577', edgeInkId: null, edgeMm: 3, bleedMm: 4 }
    const coloured = {
      ...setLayer(setLayer(harbour, harbour.layers[2]!.id, { tint }), harbour.layers[3]!.id, { tint }),
      drawer: {
        ...harbour.drawer,
        inks: [ink, { ...ink, id: 'other', name: 'slate' }],
        cutter: { ...harbour.drawer.cutter, tool: 'knife' as const },
      },
    }
    expect(tools(coloured)).toBe(
      'a fresh blade, a cutting mat, a metal ruler, plum ink, water-based tacky glue.',
    )
  })

  it('nothing is mounted before all of it holds and is dry; drying begins with the glue', () => {
    const plan = planOf(stack('frame', sheet, glued('a', [10, 10, 40, 40]), glued('b', [12, 12, 20, 20])))
    const last = at(plan, 'glue-b')
    expect(at(plan, 'dry').startMin).toBeCloseTo(last.endMin, 9)
    for (const id of ['dry', 'hold-a', 'hold-b'])
      expect(at(plan, 'mount').startMin).toBeGreaterThanOrEqual(at(plan, id).endMin - 1e-9)
  })

  it('pieces that no one sheet carries are built where they stay, and never face down', () => {
    const bits = stack(
      'card',
      plate('leaves', 2, [10, 10, 30, 30], [90, 90, 30, 30]),
      plate('buds', 2, [15, 15, 15, 15], [95, 95, 15, 15]),
    )
    for (const direction of ['face-up', 'face-down'] as const) {
      const plan = planOf(setPlan(bits, { direction }))
      expectSound(plan)
      expect(at(plan, 'lay-leaves').title).toBe('Layer 1 onto the card')
      expect(wordsIn(at(plan, 'lay-leaves').detail, 'mm')).toContain('2 pieces')
      expect(plan.steps.some(({ id }) => id === 'mount')).toBe(false)
      expect(at(plan, 'lay-buds').title).not.toContain('face down')
    }
  })
})
