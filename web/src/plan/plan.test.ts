// What the page believes of the planner's reports: views as they came last, fresh only for the revision they were told of.
import { describe, expect, it } from 'vitest'
import plan, { asked, forgotten, gained, reported, searching, troubled, type PlanState } from './plan'

type Report = Parameters<typeof reported>[0]
const report = (more: Partial<Report> = {}): Report => ({
  revision: 1,
  views: [],
  fresh: [],
  failed: [],
  doing: null,
  ...more,
})
const empty = plan(undefined, { type: 'nothing' })
const after = (...reports: Partial<Report>[]): PlanState =>
  reports.reduce((state, one) => plan(state, reported(report(one))), empty)

describe('reports of the planner', () => {
  it('bring views, and say for which revision they are true', () => {
    const state = after({
      views: [
        ['levels', [1]],
        ['depth', { stackMm: 9 }],
      ],
      fresh: ['levels', 'depth'],
    })
    expect(state.views).toEqual({ levels: [1], depth: { stackMm: 9 } })
    expect(state.fresh).toEqual({ levels: 1, depth: 1 })
    expect(state.settled).toBe(1)
  })

  it('keep what is there while something else comes, and name what is being computed', () => {
    const state = after(
      { views: [['levels', [1]]], fresh: ['levels'] },
      { revision: 2, views: [['loads', []]], fresh: ['loads'], doing: 'depth' },
    )
    expect(state.views).toEqual({ levels: [1], loads: [] })
    // The levels were true of the first revision; of the second nobody has said so yet.
    expect(state.fresh).toEqual({ levels: 1, loads: 2 })
    expect(state).toMatchObject({ doing: 'depth', settled: 1 })
  })

  it('of a view that stayed the same say that it is fresh, without sending it', () => {
    const state = after({ views: [['levels', [1]]], fresh: ['levels'] }, { revision: 2, fresh: ['levels'] })
    expect(state.views).toEqual({ levels: [1] })
    expect(state.fresh).toEqual({ levels: 2 })
  })

  it('that come late bring their views and nothing else', () => {
    const state = after(
      { revision: 3, views: [['levels', [3]]], fresh: ['levels'], doing: 'depth' },
      { revision: 2, views: [['depth', 'old']], fresh: ['depth'], failed: [['loads', 'no']], late: true },
    )
    expect(state.views).toEqual({ levels: [3], depth: 'old' })
    expect(state.fresh).toEqual({ levels: 3 })
    expect(state).toMatchObject({ failed: {}, doing: 'depth', settled: null })
  })

  it('tell why a node has no view until it has one', () => {
    const failed = after({
      failed: [
        ['loads', 'A piece is too large.'],
        ['depth', 'No foam.'],
      ],
    })
    expect(failed.failed).toMatchObject({
      loads: { sentence: 'A piece is too large.', revision: 1 },
      depth: { sentence: 'No foam.' },
    })
    const mended = plan(failed, reported(report({ revision: 2, views: [['loads', []]], fresh: ['loads'] })))
    expect(Object.keys(mended.failed)).toEqual(['depth'])
  })
})

describe('beside reports', () => {
  it('nothing is settled once more is asked for, and views stay', () => {
    const state = plan(after({ views: [['levels', [1]]], fresh: ['levels'] }), asked())
    expect(state).toMatchObject({ settled: null, views: { levels: [1] } })
  })

  it('trouble, a search and its gains are told until they are over or the project is left', () => {
    const busy = [
      troubled('The planner was started anew.'),
      searching({ share: 0.5, steps: 12 }),
      gained([]),
    ].reduce(plan, empty)
    expect(busy).toMatchObject({
      trouble: 'The planner was started anew.',
      search: { share: 0.5, steps: 12 },
    })
    expect(plan(busy, troubled(null)).trouble).toBeNull()
    expect(plan(busy, forgotten())).toEqual(empty)
  })
})
