// A longer search for fewer sheets, in a worker of its own so that everything else stays at hand meanwhile.
import { expose } from 'comlink'
import wasmUrl from 'clipper2-wasm/wasm?url'
import { loadGeometry } from '@feuillet/core/base/geometry'
import { Effort, Nester, Rivals, type NestLayout, type Searched } from '@feuillet/core/stages/sheets'

/** How far a search is: the share of its time, and the steps taken. */
export interface NestProgress {
  share: number
  steps: number
}

const ready = loadGeometry(wasmUrl)
let stopped = false
let paused = false
/** Until when it rests, to leave the machine to the maker's hand (ms). */
let restUntil = 0

/** A search listens this often, and tells how far it is that often (ms). */
const LISTEN_MS = 16
const TELL_MS = 100

/** Lets messages in, so that a search can be stopped between steps. */
const breathe = (ms = 0) => new Promise((resolve) => setTimeout(resolve, ms))

/** All of what comes in parts, with messages let in between them; null where it was stopped. */
async function unhurried<T>(parts: Generator<undefined, T>): Promise<T | null> {
  while (!stopped) {
    const next = parts.next()
    if (next.done) return next.value
    await breathe()
  }
  return null
}

const api = {
  /** Searches for the given seconds, mostly where that saves most; what is better than before is handed over as it is found. */
  async search(
    { runs, seconds, seed }: { runs: Searched[]; seconds: number; seed: number },
    onProgress: (progress: NestProgress) => void,
    onBetter: (fingerprint: string, layout: NestLayout) => void,
  ): Promise<void> {
    await ready
    stopped = false
    paused = false
    const open: { run: Searched; nester: Nester }[] = []
    for (const run of runs) {
      const nester = await unhurried(Nester.inParts(run.instance, seed))
      if (!nester) return
      nester.offer(run.layout)
      if (!nester.done) open.push({ run, nester })
    }
    const work = open.map(({ run, nester }) => ({
      run,
      // So long each has where they share the time alike.
      rivals: new Rivals({ instance: run.instance, seed, seconds: seconds / open.length }, nester),
      best: run.layout.score,
    }))
    const effort = new Effort(work.map(({ run }) => run))
    let start = performance.now()
    let steps = 0
    let heard = start
    let told = start
    while (work.length > 0 && !stopped && performance.now() - start < seconds * 1000) {
      const k = effort.next()
      const item = work[k]!
      const before = performance.now()
      item.rivals.step((before - start) / (seconds * 1000))
      effort.note(k, performance.now() - before, item.rivals.best.score)
      steps++
      if (item.rivals.best.score < item.best - 1e-9) {
        item.best = item.rivals.best.score
        onBetter(item.run.fingerprint, item.rivals.best)
      }
      if (performance.now() - heard < LISTEN_MS) continue
      heard = performance.now()
      if (heard - told > TELL_MS) {
        told = heard
        onProgress({
          share: (heard - start) / (seconds * 1000),
          steps,
        })
      }
      await breathe()
      while ((paused || performance.now() < restUntil) && !stopped) await breathe(25)
      // Time stands still while it is paused or rests.
      start += performance.now() - heard
      heard = performance.now()
    }
  },
  stop(): void {
    stopped = true
  },
  pause(on: boolean): void {
    paused = on
  },
  /** Stands aside for a moment. */
  rest(ms: number): void {
    restUntil = performance.now() + ms
  },
}

export type NestApi = typeof api

expose(api)
