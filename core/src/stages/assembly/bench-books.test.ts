// Work at the bench: steps ticked and taken back, things that dry, mishaps, a plan that changes meanwhile. A walk at random, after every step of
// which ticks, clocks, sheets and foam must agree.
import { describe, expect, it } from 'vitest'
import { Cache, seededRandom } from '../../base'
import { demo, type DemoName } from '../../demo'
import { Planner } from '../../planner'
import {
  driedOff,
  letDry,
  refreshSupplies,
  setLayer,
  setPlan,
  starterSupplies,
  tickTaking,
  uncut,
  untickAll,
  type Paper,
  type Project,
  type Supplies,
} from '../../project'
import { nodes } from '../index'
import { freezeSheets, sheetOf, type NestLayout } from '../sheets'
import { afterMishap, mishapsOf, type Step } from './index'

class Bench {
  private readonly planner = new Planner(new Cache())
  private found = new Map<string, NestLayout>()
  private at = 1
  private stock: readonly Paper[]
  supplies: Supplies = starterSupplies()
  /** Pads of each foam that there would be if nothing were stuck. */
  readonly bought = new Map(this.supplies.foams.map(({ id, count }) => [id, count]))

  constructor(public project: Project) {
    this.stock = project.drawer.papers
    this.take({ project })
  }

  take({ project, supplies = this.supplies }: { project: Project; supplies?: Supplies }): void {
    this.supplies = supplies
    this.project = refreshSupplies(project, supplies)
    this.planner.update({ project: this.project, stock: this.stock, found: this.found })
  }

  get steps(): Step[] {
    return this.planner.get(nodes.assembly()).steps
  }

  stepsThatAre(ticked: boolean): Step[] {
    const done = new Set(this.project.progress.done)
    return this.steps.filter(({ id }) => done.has(id) === ticked)
  }

  /** Ticks a step or takes its tick back, as the page does. */
  tick(step: Step, done: boolean): void {
    const { project, stock, supplies } = this
    const batch = step.nth === undefined ? project.plan.batch : 1
    const foams = (step.takes ?? []).map(({ foamId, count }) => ({ foamId, count: count * batch }))
    if (step.kind !== 'cut') this.take(tickTaking({ project, supplies }, step.id, { done, foams }))
    else if (done) {
      const load = this.planner.get(nodes.loads()).find(({ id }) => id === step.loadId)!
      const runs = this.planner.get(nodes.nested())
      const sheets = [sheetOf(project, load, { stock })]
      const frozen = freezeSheets({ project, stock }, { sheets, runs, kept: [], at: this.at++ })
      this.found = new Map([...this.found, ...frozen.found])
      this.stock = frozen.stock
      this.take(frozen)
    } else {
      const back = uncut({ project, stock }, step.loadId!)
      this.stock = back.stock
      this.take(back)
    }
  }
}

function faultsOf({ project, supplies, bought, steps }: Bench): string[] {
  const { done, drying, took } = project.progress
  const faults = done.filter((id, k) => done.indexOf(id) !== k).map((id) => `${id} is ticked twice`)
  for (const { stepId } of drying) if (done.includes(stepId)) faults.push(`${stepId} is done and dries`)
  for (const { stepId } of took)
    if (!done.includes(stepId) && !/ spent \d+$/.test(stepId))
      faults.push(`${stepId} is not done and took foam`)
  for (const { id, count } of supplies.foams) {
    const stuck = took.flatMap(({ foams }) => foams).filter(({ foamId }) => foamId === id)
    const there = stuck.reduce((left, one) => left - (one.count - one.missing), bought.get(id)!)
    if (count !== there) faults.push(`${id}: ${count} in the drawer for ${there}`)
  }
  const names = steps.map(({ id }) => id)
  faults.push(...names.filter((id, k) => names.indexOf(id) !== k).map((id) => `${id} is there twice`))
  const cut = project.cut.map(({ id }) => `cut-${id}`).sort()
  const ticked = done.filter((id) => id.startsWith('cut-')).toSorted()
  if (ticked.join() !== cut.join()) faults.push(`ticked ${ticked.join()} for ${cut.join()}`)
  return faults
}

type One = <T>(list: readonly T[]) => T | undefined

/** The next step: mostly what is at hand, begun to dry where it dries. */
function goOn(bench: Bench, one: One): string {
  const open = bench.stepsThatAre(false)
  const step = one([open[0], open[0], open[0], one(open)])
  if (!step) return 'all is done'
  if (step.kind === 'dry' && one([true, false]))
    bench.take({ project: letDry(bench.project, { stepId: step.id, title: step.title, endsAt: 9 }) })
  else bench.tick(step, true)
  return `on with ${step.id}`
}

/** One step of the walk, and what it is called. */
const MOVES: ((bench: Bench, one: One) => string)[] = [
  goOn,
  goOn,
  goOn,
  goOn,
  (bench, one) => {
    const step = one(bench.stepsThatAre(true))
    if (step) bench.tick(step, false)
    return `back from ${step?.id}`
  },
  (bench, one) => {
    const { steps, project, supplies, bought } = bench
    const step = one(steps.filter((each) => mishapsOf(each).length > 0))!
    const mishap = one(mishapsOf(step))!
    const layer = project.layers.find(({ id }) => id === step.layerId)
    const foamIds = mishap === 'foam ran out' ? (step.takes ?? []).map(({ foamId }) => foamId) : []
    for (const id of new Set(foamIds))
      bought.set(id, bought.get(id)! - supplies.foams.find((foam) => foam.id === id)!.count)
    const pieceIds = layer && one([true, false]) ? [one(layer.pieces)!.id] : []
    bench.take(afterMishap({ project, supplies }, steps, { step, mishap, pieceIds, foamIds }))
    return `${mishap} at ${step.id}`
  },
  (bench, one) => {
    const clock = one(bench.project.progress.drying)
    if (clock) bench.take({ project: driedOff(bench.project, clock.stepId, one([true, true, false])!) })
    return `clock of ${clock?.stepId}`
  },
  (bench, one) => {
    if (one([true, false])) return 'nothing'
    bench.take(untickAll(bench))
    return 'untick all'
  },
  (bench, one) => {
    bench.take({ project: setPlan(bench.project, { batch: one([1, 2])! }) })
    return `batch ${bench.project.plan.batch}`
  },
  (bench, one) => {
    const layer = one(bench.project.layers)!
    const gapMm = one([0, 1, 2, 3])!
    const joint = { ...layer.joint, kind: gapMm > 0 ? ('foam' as const) : ('glue' as const), gapMm }
    bench.take({ project: setLayer(bench.project, layer.id, { joint }) })
    return `${layer.id} ${gapMm} mm up`
  },
]

describe('work at the bench', () => {
  it.each<[DemoName, number]>([
    ['bon-voyage', 8],
    ['tide-rose', 2],
  ])('ticks, clocks, sheets and foam agree after every step (%s)', (name, seed) => {
    const random = seededRandom(seed)
    const one: One = (list) => list[Math.floor(random() * list.length)]
    const bench = new Bench(demo(name))
    const told: string[] = []
    for (let k = 0; k < 60; k++) {
      told.push(one(MOVES)!(bench, one))
      expect(faultsOf(bench), told.join('; ')).toEqual([])
    }
  })
})
