// A longer search for fewer sheets, in workers that the planner starts for it: one a core, two at most.
import { proxy, wrap, type Remote } from 'comlink'
import type { Kept, KeptLayout, NestLayout, Searched } from '@feuillet/core/stages/sheets'
import type { NestApi, NestProgress } from './nest.worker'

/** How far a search is, and the sheets that all papers together come to so far (the sum of their scores). */
export interface SearchProgress extends NestProgress {
  score: number
  /** The closest layouts since some were handed over last, by the fingerprints of their runs; most often none. */
  found: KeptLayout[]
}

/** Layouts are handed over so often at most (ms), and the more seldom the longer it has searched: all that hangs on them comes anew. */
const HAND_OVER_MS = 2000
const HAND_OVER_SHARE = 1 / 8

/** The second searcher begins elsewhere. */
const SEED_STEP = 7919

export class Search {
  private workers: { worker: Worker; api: Remote<NestApi> }[] = []
  private ended: (() => void) | null = null

  /** Searches for some seconds; gives the best layouts of those runs for which a better one was found, and some of them on the way. */
  async start(
    runs: readonly Searched[],
    seconds: number,
    onProgress: (progress: SearchProgress) => void,
  ): Promise<KeptLayout[]> {
    this.stop()
    const task = runs.filter(({ instance }) => instance.pieces.length > 0)
    const laidOf = new Map(task.map(({ fingerprint, laid }) => [fingerprint, laid]))
    const best = new Map<string, Kept>()
    const fresh = new Map<string, Kept>()
    const startedAt = performance.now()
    let handedAt = startedAt
    const handOver = (): KeptLayout[] => {
      const now = performance.now()
      const isDue = now - handedAt >= Math.max(HAND_OVER_MS, HAND_OVER_SHARE * (now - startedAt))
      if (fresh.size === 0 || !isDue) return []
      handedAt = now
      const found = [...fresh]
      fresh.clear()
      return found
    }
    const scoreOf = new Map(task.map(({ fingerprint, layout }) => [fingerprint, layout.score]))
    const cores = navigator.hardwareConcurrency > 1 ? 2 : 1
    const steps = new Array<number>(cores).fill(0)
    const own = Array.from({ length: cores }, (_, i) => {
      const worker = new Worker(new URL('./nest.worker.ts', import.meta.url), {
        type: 'module',
        name: `nest-${i + 1}`,
      })
      return { worker, api: wrap<NestApi>(worker) }
    })
    this.workers = own
    const stopped = new Promise<void>((resolve) => (this.ended = resolve))
    const under = own.map(({ worker, api }, i) => {
      const failed = new Promise<void>((resolve) => worker.addEventListener('error', () => resolve()))
      const progress = ({ share, steps: taken }: NestProgress) => {
        steps[i] = taken
        const score = [...scoreOf.values()].reduce((a, b) => a + b, 0)
        onProgress({ share, score, steps: steps.reduce((a, b) => a + b, 0), found: handOver() })
      }
      const better = (fingerprint: string, layout: NestLayout) => {
        if (layout.score >= scoreOf.get(fingerprint)! - 1e-9) return
        scoreOf.set(fingerprint, layout.score)
        const kept = { ...layout, laid: laidOf.get(fingerprint) }
        best.set(fingerprint, kept)
        fresh.set(fingerprint, kept)
      }
      const searching = api.search(
        { runs: task, seconds, seed: 1 + i * SEED_STEP },
        proxy(progress),
        proxy(better),
      )
      // One that breaks off leaves the others to go on.
      return Promise.race([searching.catch(() => undefined), failed])
    })
    await Promise.race([Promise.all(under), stopped])
    for (const { worker } of own) worker.terminate()
    // Another may have been begun by now, whose workers go on.
    if (this.workers === own) {
      this.workers = []
      this.ended = null
    }
    return [...best]
  }

  /** Stops at once; what was found so far is given. */
  stop(): void {
    this.ended?.()
  }

  pause(on: boolean): void {
    for (const { api } of this.workers) void api.pause(on)
  }

  /** Stands aside for a moment, to leave the machine to the maker's hand. */
  rest(ms: number): void {
    for (const { api } of this.workers) void api.rest(ms)
  }
}
