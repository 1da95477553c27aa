// A worker that looks like plain async functions, and that nothing waits for in vain: one that dies, throws or does not
// answer is ended and started anew, and what waited for it is told.
import { wrap, type Remote } from 'comlink'

/** Why a call got no answer: its worker was ended while it waited. */
export class WorkerGone extends Error {
  override name = 'WorkerGone'
}

/** What every worker answers beside its own functions. */
export interface Answering {
  ping: () => number
  /** Takes a lock and holds it for as long as the worker lives: its release tells that the worker is gone. */
  holdLife: (name: string) => Promise<void>
}

export interface HostOptions {
  name: string
  start: () => Worker
  /** So long a worker may work without answering before it counts as hung (ms). */
  patienceMs?: number
  /** Called after a new worker stands in for one that died or hung; not when it was ended on purpose. */
  onLost?: (why: 'died' | 'hung') => void
}

const PING_MS = 2000
const PATIENCE_MS = 20_000

export class Host<Api extends Answering> {
  private worker: Worker | null = null
  private remote: Remote<Api> | null = null
  private waiting = new Set<(gone: WorkerGone) => void>()
  private generation = 0
  private silentMs = 0
  private lookedAt = 0
  private pinging: ReturnType<typeof setInterval> | undefined

  constructor(private readonly options: HostOptions) {}

  /** Calls the worker, which is started when it is first called. Rejects with WorkerGone where it ends before it answers. */
  async ask<T>(work: (api: Remote<Api>) => T): Promise<Awaited<T>> {
    const api = this.api()
    let gone!: (error: WorkerGone) => void
    const lost = new Promise<never>((_, reject) => (gone = reject))
    this.waiting.add(gone)
    try {
      return await Promise.race([work(api), lost])
    } finally {
      this.waiting.delete(gone)
    }
  }

  /** Starts the worker, so that the first call finds it ready. */
  wake(): void {
    this.api()
  }

  /** Ends the worker with all that it does. The next call starts another. */
  end(): void {
    this.generation++
    clearInterval(this.pinging)
    this.worker?.terminate()
    this.worker = null
    this.remote = null
    const waiting = [...this.waiting]
    this.waiting.clear()
    for (const gone of waiting) gone(new WorkerGone(`the ${this.options.name} was ended`))
  }

  private api(): Remote<Api> {
    if (this.remote) return this.remote
    const { name, start } = this.options
    const generation = ++this.generation
    const worker = start()
    this.worker = worker
    this.remote = wrap<Api>(worker)
    this.silentMs = 0
    this.lookedAt = performance.now()
    worker.addEventListener('error', () => this.lost(generation, 'died'))
    worker.addEventListener('messageerror', () => this.lost(generation, 'died'))
    this.watchLife(`${name} ${crypto.randomUUID()}`, generation)
    this.pinging = setInterval(() => this.ping(generation), PING_MS)
    return this.remote
  }

  /** A lock that the worker holds comes free only when it is gone, by whatever hand. */
  private watchLife(lock: string, generation: number): void {
    if (!('locks' in navigator)) return
    const api = this.remote as unknown as Remote<Answering>
    Promise.resolve(api.holdLife(lock))
      .then(() => navigator.locks.request(lock, () => this.lost(generation, 'died')))
      .catch(() => undefined)
  }

  private ping(generation: number): void {
    if (generation !== this.generation || !this.remote) return
    const api = this.remote as unknown as Remote<Answering>
    Promise.resolve(api.ping())
      .then(() => (this.silentMs = 0))
      .catch(() => undefined)
    // A page that stood still itself (asleep, or drawing for long) had no answer to read either: it counts as one look.
    const now = performance.now()
    this.silentMs =
      document.visibilityState === 'hidden' ? 0 : this.silentMs + Math.min(now - this.lookedAt, PING_MS)
    this.lookedAt = now
    if (this.silentMs > (this.options.patienceMs ?? PATIENCE_MS)) this.lost(generation, 'hung')
  }

  private lost(generation: number, why: 'died' | 'hung'): void {
    if (generation !== this.generation) return
    this.end()
    this.options.onLost?.(why)
  }
}
