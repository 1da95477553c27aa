// The link to the planner with a worker of its own making: what arrives late, of whom, and what of it counts.
import { expose, type Remote } from 'comlink'
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest'
import { demo } from '@feuillet/core/demo'
import type { PlannerApi, Report } from '../workers/planner.worker'
import { PlannerLink } from './link'
import reducer, { forgotten, reported } from './plan'

type Told = Parameters<Parameters<typeof connect>[0]>[0]

// Here no browser keeps locks.
beforeAll(() => void vi.stubGlobal('navigator', {}))
afterAll(() => void vi.unstubAllGlobals())

const started: PlannerLink[] = []
afterEach(() => {
  for (const link of started.splice(0)) link.host.end()
})

/** A link whose worker notes what it is told and says what a test lets it say. */
function connect(note: (told: { what: string; revision: number; name?: string }) => void) {
  let say: (report: Report) => Promise<void> = () => Promise.reject(new Error('nobody listens'))
  const api = {
    ping: () => 1,
    holdLife: () => new Promise<void>(() => undefined),
    listen: (to: Remote<(report: Report) => void>) => {
      say = async (report) => void (await (to as unknown as (r: Report) => Promise<void>)(report))
    },
    watch: () => undefined,
    open: (revision: number, { project }: { project: { name: string } }) =>
      note({ what: 'open', revision, name: project.name }),
    revise: (revision: number) => note({ what: 'revise', revision }),
    close: () => note({ what: 'close', revision: -1 }),
  }
  let state = reducer(undefined, forgotten())
  let workers = 0
  const link = new PlannerLink(
    {
      dispatch: (action) => (state = reducer(state, action)),
      layouts: () => Promise.resolve([]),
      keep: () => undefined,
    },
    () => {
      workers++
      const { port1, port2 } = new MessageChannel()
      expose(api as unknown as PlannerApi, port2)
      port1.start()
      return Object.assign(port1, { terminate: () => port1.close() }) as unknown as Worker
    },
  )
  started.push(link)
  return { link, say: (report: Report) => say(report), state: () => state, workers: () => workers }
}

const report = (revision: number, more: Partial<Report> = {}): Report => ({
  revision,
  views: [],
  fresh: [],
  failed: [],
  doing: null,
  ...more,
})
const inputs = (name: string) => ({ project: { ...demo('bon-voyage'), name }, stock: [] })

describe('the link to the planner', () => {
  it('keeps a view that arrives after the next change, but does not take it for fresh', async () => {
    const told: Told[] = []
    const { link, say, state } = connect((one) => told.push(one))
    await link.open(inputs('one'))
    const opened = told.find(({ what }) => what === 'open')!.revision
    link.change(inputs('two'))
    // The worker answered the first revision while the second was on its way; it will not send that view again.
    await say(report(opened, { views: [['loads', ['none']]], fresh: ['loads'] }))
    expect(state().views['loads']).toEqual(['none'])
    expect(state().fresh['loads']).toBeUndefined()
    expect(state().settled).toBeNull()
    await say(report(opened + 1, { fresh: ['loads'] }))
    expect(state().fresh['loads']).toBe(opened + 1)
    expect(state().settled).toBe(opened + 1)
  })

  it('lets nothing of a project that was open before in', async () => {
    const told: Told[] = []
    const { link, say, state } = connect((one) => told.push(one))
    await link.open(inputs('one'))
    const first = told.at(-1)!.revision
    await link.open(inputs('another'))
    await say(report(first, { views: [['loads', ['of another']]], fresh: ['loads'] }))
    expect(state().views['loads']).toBeUndefined()
    link.close()
    await say(report(first + 1, { views: [['loads', ['of one that is closed']]] }))
    expect(state().views['loads']).toBeUndefined()
  })

  it('has one worker, whether it was woken before it was asked or not, and another once that was ended', async () => {
    const told: Told[] = []
    const { link, workers } = connect((one) => told.push(one))
    expect(workers()).toBe(0)
    link.host.wake()
    link.host.wake()
    expect(workers()).toBe(1)
    await link.open(inputs('one'))
    expect(told.map(({ what }) => what)).toEqual(['open'])
    expect(workers()).toBe(1)
    link.host.end()
    link.host.wake()
    await link.host.ask((api) => api.ping())
    expect(workers()).toBe(2)
  })

  it('sends what was changed while the worker opened, and each change after it', async () => {
    const told: Told[] = []
    const { link } = connect((one) => told.push(one))
    const opening = link.open(inputs('one'))
    link.change(inputs('two'))
    await opening
    link.change(inputs('three'))
    await link.host.ask((api) => api.ping())
    // Opened with what it was by then.
    expect(told.map(({ what, name }) => [what, name])).toEqual([
      ['open', 'two'],
      ['revise', undefined],
    ])
    const revisions = told.map(({ revision }) => revision)
    expect(revisions).toEqual(revisions.toSorted((a, b) => a - b))
    expect(new Set(revisions).size).toBe(2)
  })
})

describe('what the planner told', () => {
  it('of a late report the views alone count', () => {
    const before = reducer(undefined, reported(report(4, { fresh: ['a'], doing: 'b' })))
    const after = reducer(
      before,
      reported({ ...report(3, { views: [['a', 1]], failed: [['c', 'why']] }), late: true }),
    )
    expect(after).toMatchObject({ views: { a: 1 }, fresh: { a: 4 }, failed: {}, doing: 'b', settled: null })
  })
})
