import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../demo'
import { setPlan } from '../../project'
import { results } from '../../../test/results'
import { leeways, letStepGo, moveStep, schedule, waitsFor, withOrder } from './index'

/** Small graphs without circles: each step waits for some of those before it. */
const graphs = fc
  .array(fc.tuple(fc.integer({ min: 0, max: 9 }), fc.array(fc.nat({ max: 6 }), { maxLength: 3 })), {
    minLength: 1,
    maxLength: 8,
  })
  .map((list) =>
    list.map(([minutes, before], k) => ({
      id: `s${k}`,
      minutes,
      needs: ['hands' as const],
      title: `S${k}`,
      after: [...new Set(before.filter((b) => b < k).map((b) => `s${b}`))],
    })),
  )

/** All ways through a graph from a step to an end, one by one. */
function ways(steps: readonly { id: string; after: string[] }[], from: string): string[][] {
  const next = steps.filter(({ after }) => after.includes(from))
  return next.length === 0 ? [[from]] : next.flatMap(({ id }) => ways(steps, id).map((way) => [from, ...way]))
}

describe('leeway', () => {
  it('is that of the longest of all ways through the graph', () => {
    fc.assert(
      fc.property(graphs, (steps) => {
        const minutes = new Map(steps.map(({ id, minutes: own }) => [id, own]))
        const all = steps.filter(({ after }) => after.length === 0).flatMap(({ id }) => ways(steps, id))
        const long = (way: string[]) => way.reduce((sum, id) => sum + minutes.get(id)!, 0)
        const end = Math.max(...all.map(long))
        const found = leeways(steps)
        for (const { id } of steps) {
          // Of the ways through a step the longest says how late it may be.
          const through = Math.max(...all.filter((way) => way.includes(id)).map(long))
          expect(found.get(id)!.slackMin).toBeCloseTo(end - through, 9)
        }
      }),
    )
  })
})

describe('more hands', () => {
  it('never do two things at once, never start before what is waited for, and are never slower', () => {
    fc.assert(
      fc.property(graphs, fc.integer({ min: 1, max: 3 }), (graph, people) => {
        const tasks = graph.map((one) => ({ ...one, kind: 'lay' as const, layerId: null, loadId: null, detail: '', caution: null })) // prettier-ignore
        const steps = schedule(tasks, people)
        const at = new Map(steps.map((step) => [step.id, step]))
        for (const step of steps) {
          for (const id of step.after) expect(at.get(id)!.endMin).toBeLessThanOrEqual(step.startMin + 1e-9)
          const middle = (step.startMin + step.endMin) / 2
          if (step.minutes > 0) expect(steps.filter((one) => one.startMin < middle && middle < one.endMin).length).toBeLessThanOrEqual(people) // prettier-ignore
        }
        const end = Math.max(...steps.map(({ endMin }) => endMin))
        // Never under the longest way, nor under the work shared evenly.
        const work = graph.reduce((sum, { minutes }) => sum + minutes, 0)
        const longest = Math.max(...[...leeways(graph)].map(([id, { earliestMin }]) => earliestMin + graph.find((one) => one.id === id)!.minutes)) // prettier-ignore
        expect(end).toBeGreaterThanOrEqual(Math.max(longest, work / people) - 1e-9)
        expect(end).toBeLessThanOrEqual(work + 1e-9)
      }),
    )
  })

  it('make a batch one by one, each a little quicker, the first under its own steps', () => {
    const project = setPlan(demo('bon-voyage'), { batch: 3, batchWay: 'one by one' })
    const { steps } = results(project).assembly
    const one = results(demo('bon-voyage')).assembly.steps
    const fits = steps.filter(({ kind }) => kind === 'dry-fit')
    expect(fits.map(({ id }) => id)).toEqual(['dry-fit', 'dry-fit-of-2', 'dry-fit-of-3'])
    expect(fits[1]!.minutes).toBeLessThan(fits[0]!.minutes)
    expect(fits[0]!.minutes).toBeCloseTo(one.find(({ kind }) => kind === 'dry-fit')!.minutes, 9)
    expect(fits[1]!.title).toMatch(/\(2 of 3\)$/)
    // Hands that get no quicker take as long each time.
    const even = results(setPlan(project, { batchRate: 1 })).assembly.steps
    expect(even.filter(({ kind }) => kind === 'dry-fit').map(({ minutes }) => minutes)).toEqual(
      Array(3).fill(fits[0]!.minutes),
    )
    expect(fits[1]!.startMin).toBeGreaterThanOrEqual(steps.findLast(({ id, needs }) => !/-of-/.test(id) && needs.includes('hands'))!.endMin) // prettier-ignore
  })
})

describe('moving a step', () => {
  const project = demo('bon-voyage')
  it('never makes steps wait for each other, and does what was asked where it may', () => {
    fc.assert(
      fc.property(
        graphs,
        fc.nat({ max: 7 }),
        fc.constantFrom('earlier' as const, 'later' as const),
        (steps, k, way) => {
          const own = steps[k % steps.length]!
          const moved = moveStep(project, steps, { id: own.id, way })
          const at = steps.indexOf(own)
          const other = steps[way === 'earlier' ? at - 1 : at + 1]
          const [first, then] = way === 'earlier' ? [own, other] : [other, own]
          const mayNot = !other || waitsFor(steps, first!.id).has(then!.id)
          expect(moved.ok).toBe(!mayNot)
          if (!moved.ok) return
          const next = withOrder(steps, moved.project.plan.stepOrder)
          expect(waitsFor(next, then!.id).has(first!.id)).toBe(true)
          for (const { id } of next) expect(waitsFor(next, id).has(id)).toBe(false)
        },
      ),
      { numRuns: 60 },
    )
  })

  it('holds in the plan until it is let go, and says why where it may not be', () => {
    const { steps } = results(project).assembly
    const weeds = steps.filter(({ kind }) => kind === 'weed')
    const moved = moveStep(project, steps, { id: weeds[0]!.id, way: 'later' })
    expect(moved.ok).toBe(true)
    if (!moved.ok) return
    const then = results(moved.project).assembly.steps.map(({ id }) => id)
    const [before, after] = moved.project.plan.stepOrder.map(({ first, then: next }) => [first, next])[0]!
    expect(then.indexOf(before!)).toBeLessThan(then.indexOf(after!))
    expect(letStepGo(moved.project, weeds[0]!.id).plan.stepOrder).toEqual([])
    const mount = steps.findLast(({ needs }) => needs.includes('hands'))!
    expect(moveStep(project, steps, { id: mount.id, way: 'later' })).toEqual({
      ok: false,
      why: 'it is the last',
    })
    const dry = steps.find(({ kind }) => kind === 'dry-fit')!
    expect(moveStep(project, steps, { id: dry.id, way: 'earlier' })).toMatchObject({
      ok: false,
      why: /waits for/,
    })
  })
})
