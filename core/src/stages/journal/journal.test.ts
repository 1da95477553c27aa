import { describe, expect, it } from 'vitest'
import { demo } from '../../demo'
import { newProject, starterMount, starterSupplies, tickTaking, untickAll } from '../../project'
import { results } from '../../../test/results'
import { costSoFar, minutesSpent, noteSheets, runningStage, startTimer, stopTimer } from './index'

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

describe('cost', () => {
  it('so far counts sheets noted, pads of ticked steps and the hours of the clocks', () => {
    const project = demo('harbour')
    const derived = results(project)
    expect(costSoFar(project, 0).total).toBe(0)
    const shell = project.drawer.papers.find((p) => p.name === 'Shell')!
    const used = noteSheets(project, [{ paperId: shell.id, count: 2 }], 0)
    const worked = stopTimer(startTimer(used, 'assembly', 0), 30 * MIN)
    const cost = costSoFar(worked, 30 * MIN)
    expect(cost.paper).toBeCloseTo(2 * shell.price, 9)
    expect(cost.hands).toBeCloseTo(6, 9)
    expect(cost.foam).toBe(0)
    const held = { project: worked, supplies: starterSupplies() }
    const ticked = derived.assembly.steps.reduce(
      (now, { id, takes = [] }) => tickTaking(now, id, { done: true, foams: takes }),
      held,
    )
    expect(costSoFar(ticked.project, 30 * MIN).foam).toBeCloseTo(derived.cost.foam, 9)
    // What is unticked is given back, to the pad.
    const back = untickAll(ticked)
    expect(costSoFar(back.project, 30 * MIN).foam).toBe(0)
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
