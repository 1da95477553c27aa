// Who may change a project, among pages of one browser: with locks as the standard has them, by force, and where there are none.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { browserTabs } from './tabs'

interface Asked {
  give: (lock: object | null) => void
  refuse: (error: Error) => void
  signal: AbortSignal | undefined
}

/** Locks of one browser: one holder a name, the others in a row; what is stolen is refused to whom it was taken from. */
class Locks {
  private held = new Map<string, Asked>()
  private rows = new Map<string, Asked[]>()

  request(
    name: string,
    options: { signal?: AbortSignal; steal?: boolean },
    work: (lock: object | null) => Promise<void> | undefined,
  ): Promise<void> {
    return new Promise((done, refuse) => {
      const asked: Asked = {
        give: (lock) => {
          this.held.set(name, asked)
          void Promise.resolve(work(lock)).then(() => {
            if (this.held.get(name) === asked) this.free(name)
            done()
          })
        },
        refuse,
        signal: options.signal,
      }
      const holder = this.held.get(name)
      if (options.steal) {
        holder?.refuse(new DOMException('stolen', 'AbortError'))
        queueMicrotask(() => asked.give({}))
      } else if (!holder) queueMicrotask(() => asked.give({}))
      else {
        const row = this.rows.get(name) ?? []
        this.rows.set(name, [...row, asked])
        options.signal?.addEventListener('abort', () => {
          this.rows.set(
            name,
            this.rows.get(name)!.filter((other) => other !== asked),
          )
          if (this.held.get(name) !== asked) refuse(new DOMException('no longer waited for', 'AbortError'))
        })
      }
    })
  }

  private free(name: string): void {
    this.held.delete(name)
    const [next, ...others] = this.rows.get(name) ?? []
    this.rows.set(name, others)
    next?.give({})
  }
}

const lost: string[] = []
const nobody = () => undefined
const lose = (name: string) => () => void lost.push(name)

beforeEach(() => {
  lost.length = 0
  vi.stubGlobal('navigator', { locks: new Locks() })
  vi.stubGlobal('BroadcastChannel', undefined)
  // What is not there must be missing, not merely undefined.
  Reflect.deleteProperty(globalThis, 'BroadcastChannel')
  vi.useFakeTimers()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('the right to change a project', () => {
  it('is one page’s; the next one follows, after it has waited for a page that is being closed', async () => {
    const [a, b] = [browserTabs(), browserTabs()]
    expect(await a.claim('p', lose('a'))).toMatchObject({ held: true })
    const second = b.claim('p', lose('b'))
    await vi.advanceTimersByTimeAsync(300)
    let answered = false
    void second.then(() => (answered = true))
    await Promise.resolve()
    expect(answered).toBe(false)
    await vi.advanceTimersByTimeAsync(200)
    expect(await second).toMatchObject({ held: false })
    expect(lost).toEqual([])
  })

  it('of a page that goes meanwhile is the next one’s at once', async () => {
    const [a, b] = [browserTabs(), browserTabs()]
    const first = await a.claim('p', lose('a'))
    const second = b.claim('p', lose('b'))
    await vi.advanceTimersByTimeAsync(100)
    first.release()
    expect(await second).toMatchObject({ held: true })
    expect(lost).toEqual([])
  })

  it('is each project’s own', async () => {
    const [a, b] = [browserTabs(), browserTabs()]
    expect(await a.claim('p', nobody)).toMatchObject({ held: true })
    expect(await b.claim('q', nobody)).toMatchObject({ held: true })
  })

  it('goes to who waits for it when it is let go', async () => {
    const [a, b] = [browserTabs(), browserTabs()]
    const first = await a.claim('p', nobody)
    const waiting = b.whenFree('p', nobody)
    await vi.advanceTimersByTimeAsync(60_000)
    first.release()
    expect(await waiting).toMatchObject({ held: true })
  })

  it('is taken by force from a page that does not answer, which is told', async () => {
    const [a, b] = [browserTabs(), browserTabs()]
    await a.claim('p', lose('a'))
    const claim = b.waiting()
    const taking = b.takeOver('p', claim, lose('b'))
    await vi.advanceTimersByTimeAsync(1000)
    expect(claim.held).toBe(false)
    expect(lost).toEqual([])
    await vi.advanceTimersByTimeAsync(1000)
    await taking
    expect(claim.held).toBe(true)
    expect(lost).toEqual(['a'])
  })

  it('is handed over without force by a page that answers, and is free again afterwards', async () => {
    const [a, b, c] = [browserTabs(), browserTabs(), browserTabs()]
    const first = await a.claim('p', lose('a'))
    const claim = b.waiting()
    const taking = b.takeOver('p', claim, lose('b'))
    await vi.advanceTimersByTimeAsync(200)
    first.release()
    await taking
    expect(claim.held).toBe(true)
    expect(lost).toEqual([])
    claim.release()
    await vi.advanceTimersByTimeAsync(1)
    expect(await c.claim('p', nobody)).toMatchObject({ held: true })
  })

  it('is every page’s in a browser without locks: saves are refused there instead', async () => {
    vi.stubGlobal('navigator', {})
    const [a, b] = [browserTabs(), browserTabs()]
    expect(await a.claim('p', nobody)).toMatchObject({ held: true })
    expect(await b.claim('p', nobody)).toMatchObject({ held: true })
    expect(await b.whenFree('p', nobody)).toBeNull()
  })
})

describe('what pages tell one another', () => {
  it('reaches the others, each word by its kind, and not the page that says it', () => {
    const channels: { onmessage: ((event: { data: unknown }) => void) | null }[] = []
    vi.stubGlobal(
      'BroadcastChannel',
      class {
        onmessage: ((event: { data: unknown }) => void) | null = null
        constructor() {
          channels.push(this)
        }
        postMessage(data: unknown) {
          for (const other of channels) if (other !== this) other.onmessage?.({ data })
        }
      },
    )
    const heard: string[] = []
    const tabs = ['a', 'b'].map((name) => {
      const own = browserTabs()
      own.listen({
        kept: (id, about) => heard.push(`${name} kept ${id}, about ${about.join()}`),
        drawer: () => heard.push(`${name} drawer`),
        wanted: (id) => heard.push(`${name} wanted ${id}`),
      })
      return own
    })
    tabs[0]!.say({ kind: 'kept', id: 'p', about: ['q'] })
    tabs[1]!.say({ kind: 'drawer' })
    void tabs[1]!.takeOver('p', tabs[1]!.waiting(), nobody)
    expect(heard).toEqual(['b kept p, about q', 'a drawer', 'a wanted p'])
  })
})
