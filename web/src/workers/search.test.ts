// A longer search over the workers that take part: what is better counts, whoever found it, and a stop gives what there is.
import { expose, type ProxyMarked } from 'comlink'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { NestLayout, Searched } from '@feuillet/core/stages/sheets'
import type { NestProgress } from './nest.worker'
import { StandIn } from '../../test/worker'
import { Search, type SearchProgress } from './search'

type Told = ((progress: NestProgress) => Promise<void>) & ProxyMarked
type Better = ((fingerprint: string, layout: NestLayout) => Promise<void>) & ProxyMarked
type Way = (task: { runs: Searched[]; seconds: number; seed: number }, tell: Told, better: Better) => unknown

/** What each worker does, in the order in which they are started. */
let ways: Way[] = []
const asked: { paused: unknown[]; rests: number[]; seeds: number[]; ended: number } = {
  paused: [],
  rests: [],
  seeds: [],
  ended: 0,
}

class Searching extends StandIn {
  constructor() {
    const way = ways.shift()!
    super((inside) =>
      expose(
        {
          search: async (...what: Parameters<Way>) => {
            asked.seeds.push(what[0].seed)
            await way(...what)
          },
          pause: (on: boolean) => void asked.paused.push(on),
          rest: (ms: number) => void asked.rests.push(ms),
        },
        inside,
      ),
    )
  }

  override terminate(): void {
    asked.ended++
    super.terminate()
  }
}

const layout = (score: number) => ({ score, placements: [], sheets: 1, utilisation: 0 }) as NestLayout
const run = (fingerprint: string, score: number) =>
  ({ fingerprint, instance: { pieces: [{}] }, layout: layout(score) }) as unknown as Searched
const never = () => new Promise(() => undefined)

const scores = (found: readonly [string, NestLayout][]) => found.map(([name, { score }]) => [name, score])

beforeEach(() => {
  Object.assign(asked, { paused: [], rests: [], seeds: [], ended: 0 })
  vi.stubGlobal('Worker', Searching)
  vi.stubGlobal('navigator', { hardwareConcurrency: 4 })
})
afterEach(() => vi.unstubAllGlobals())

describe('a longer search', () => {
  it('keeps of all workers what is better than what was there, and the best of it', async () => {
    const told: SearchProgress[] = []
    ways = [
      async (_, tell, better) => {
        await better('a', layout(1.4))
        await better('b', layout(2.5))
        await tell({ share: 0.5, steps: 10 })
      },
      async (_, tell, better) => {
        await better('a', layout(1.6))
        await better('a', layout(1.3))
        await tell({ share: 0.6, steps: 7 })
      },
    ]
    const best = await new Search().start([run('a', 1.5), run('b', 2)], 1, (progress) => told.push(progress))
    expect(scores(best)).toEqual([['a', 1.3]])
    // Steps are those of all of them, the score what all papers come to.
    expect(Math.max(...told.map(({ steps }) => steps))).toBe(17)
    expect(Math.min(...told.map(({ score }) => score))).toBeCloseTo(3.3)
  })

  it('hands over the closest on its way, each once, and the more seldom the longer it goes on', async () => {
    let nowMs = 0
    vi.spyOn(performance, 'now').mockImplementation(() => nowMs)
    const handed: [atS: number, what: unknown[]][] = []
    ways = [
      async (_, tell, better) => {
        for (let k = 1; k <= 600; k++) {
          nowMs = k * 100
          await better('a', layout(2 - k / 1000))
          if (k === 300) await better('b', layout(1))
          await tell({ share: k / 600, steps: k })
        }
      },
    ]
    vi.stubGlobal('navigator', { hardwareConcurrency: 1 })
    const best = await new Search().start([run('a', 2), run('b', 2)], 60, ({ found }) => {
      if (found.length > 0) handed.push([nowMs / 1000, scores(found)])
    })
    vi.mocked(performance.now).mockRestore()
    expect(handed.slice(0, 2)).toEqual([[2, [['a', 1.98]]], [4, [['a', 1.96]]]]) // prettier-ignore
    // A run is handed over once for what it came to last.
    expect(handed.filter(([, what]) => what.length === 2)).toHaveLength(1)
    const gaps = handed.slice(1).map(([at], k) => at - handed[k]![0])
    gaps.forEach((gap, k) => expect(gap).toBeGreaterThanOrEqual(Math.max(2, handed[k + 1]![0] / 8) - 1e-9))
    expect(handed.length).toBeGreaterThan(12)
    expect(scores(best)).toEqual([['a', 1.4], ['b', 1]]) // prettier-ignore
  })

  it('has workers that begin elsewhere, no more than there are cores, all ended afterwards', async () => {
    ways = [() => undefined, () => undefined]
    await new Search().start([run('a', 1)], 1, () => undefined)
    expect(new Set(asked.seeds).size).toBe(2)
    expect(asked.ended).toBe(2)
    vi.stubGlobal('navigator', { hardwareConcurrency: 1 })
    ways = [() => undefined]
    await new Search().start([run('a', 1)], 1, () => undefined)
    expect(asked.ended).toBe(3)
  })

  it('goes on with the others where one breaks off', async () => {
    ways = [
      () => Promise.reject(new Error('out of memory')),
      async (_, _tell, better) => better('a', layout(0.9)),
    ]
    expect(scores(await new Search().start([run('a', 1)], 1, () => undefined))).toEqual([['a', 0.9]])
  })

  it('that is stopped gives what was found so far, though its workers never end', async () => {
    let begun!: () => void
    const ready = new Promise<void>((resolve) => (begun = resolve))
    ways = [
      async (_, _tell, better) => {
        await better('a', layout(0.8))
        begun()
        await never()
      },
      never,
    ]
    const own = new Search()
    const searching = own.start([run('a', 1)], 60, () => undefined)
    await ready
    own.pause(true)
    own.rest(200)
    own.stop()
    expect(scores(await searching)).toEqual([['a', 0.8]])
    expect(asked.ended).toBe(2)
  })

  it('that is begun again ends the one before', async () => {
    ways = [never, never, () => undefined, () => undefined]
    const own = new Search()
    const first = own.start([run('a', 1)], 60, () => undefined)
    const second = own.start([run('a', 1)], 1, () => undefined)
    expect(await first).toEqual([])
    expect(await second).toEqual([])
  })
})
