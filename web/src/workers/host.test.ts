// Workers that die, throw or never answer: whoever waits is told, and the next call finds another.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { answeringWith, type StandIn } from '../../test/worker'
import { Host, WorkerGone, type Answering } from './host'

interface Api extends Answering {
  double: (n: number) => number
  never: () => Promise<number>
}

const started: StandIn[] = []
const lost: string[] = []
let ping: () => number | Promise<number> = () => 1
let host: Host<Api>

beforeEach(() => {
  started.length = lost.length = 0
  ping = () => 1
  vi.stubGlobal('navigator', {})
  vi.stubGlobal('document', { visibilityState: 'visible' })
  host = new Host<Api>({
    name: 'stand-in',
    start: () => {
      const worker = answeringWith({
        ping: () => ping(),
        holdLife: () => new Promise<void>(() => undefined),
        double: (n: number) => 2 * n,
        never: () => new Promise<number>(() => undefined),
      })
      started.push(worker)
      return worker as unknown as Worker
    },
    patienceMs: 5000,
    onLost: (why) => lost.push(why),
  })
})
afterEach(() => {
  host.end()
  vi.restoreAllMocks()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('a worker', () => {
  it('is started when it is first called, and only once', async () => {
    expect(started).toHaveLength(0)
    expect(await Promise.all([host.ask((api) => api.double(3)), host.ask((api) => api.double(4))])).toEqual([
      6, 8,
    ])
    expect(started).toHaveLength(1)
  })

  it('that dies is told of to whoever waits, and another answers the next call', async () => {
    const waiting = host.ask((api) => api.never())
    started[0]!.dispatchEvent(new Event('error'))
    await expect(waiting).rejects.toBeInstanceOf(WorkerGone)
    expect(lost).toEqual(['died'])
    expect(started[0]!.isEnded).toBe(true)
    expect(await host.ask((api) => api.double(5))).toBe(10)
    expect(started).toHaveLength(2)
  })

  it('that was ended on purpose is not lost', async () => {
    const waiting = host.ask((api) => api.never())
    host.end()
    await expect(waiting).rejects.toBeInstanceOf(WorkerGone)
    expect(lost).toEqual([])
  })

  it('that was replaced says nothing of the one that took its place', async () => {
    host.wake()
    host.end()
    host.wake()
    started[0]!.dispatchEvent(new Event('error'))
    expect(lost).toEqual([])
    expect(await host.ask((api) => api.double(1))).toBe(2)
    expect(started).toHaveLength(2)
  })

  it('whose message cannot be read has died', async () => {
    const waiting = host.ask((api) => api.never())
    started[0]!.dispatchEvent(new Event('messageerror'))
    await expect(waiting).rejects.toThrow('the stand-in was ended')
    expect(lost).toEqual(['died'])
  })
})

describe('a worker that does not answer', () => {
  beforeEach(() => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'performance'] })
    ping = () => new Promise<number>(() => undefined)
  })

  it('is ended once that has lasted too long, not before', async () => {
    const waiting = host.ask((api) => api.never())
    const told = expect(waiting).rejects.toBeInstanceOf(WorkerGone)
    vi.advanceTimersByTime(4500)
    expect(lost).toEqual([])
    vi.advanceTimersByTime(2000)
    expect(lost).toEqual(['hung'])
    await told
  })

  it('has as long again when the page itself was hidden', () => {
    host.wake()
    vi.stubGlobal('document', { visibilityState: 'hidden' })
    vi.advanceTimersByTime(60_000)
    expect(lost).toEqual([])
    vi.stubGlobal('document', { visibilityState: 'visible' })
    vi.advanceTimersByTime(4000)
    expect(lost).toEqual([])
    vi.advanceTimersByTime(4000)
    expect(lost).toEqual(['hung'])
  })

  it('is not taken for hung by a page that stood still itself', () => {
    host.wake()
    const now = performance.now.bind(performance)
    vi.advanceTimersByTime(1000)
    vi.spyOn(performance, 'now').mockImplementation(() => now() + 60_000)
    vi.advanceTimersByTime(4000)
    expect(lost).toEqual([])
    vi.advanceTimersByTime(2000)
    expect(lost).toEqual(['hung'])
  })
})
