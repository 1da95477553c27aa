// Workers that look like plain async functions.
import { wrap, type Remote } from 'comlink'
import type { ComputeApi } from './compute.worker'
import type { NestApi } from './nest.worker'

let worker: Worker

function start(): Remote<ComputeApi> {
  worker = new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module', name: 'compute' })
  return wrap<ComputeApi>(worker)
}

export let compute = start()

/** Ends whatever the worker does and starts it afresh; answers under way never come. */
export function restartCompute(): void {
  worker.terminate()
  compute = start()
}

/** The search workers, started when they are first asked for: one a core, two at most. */
let nesters: Remote<NestApi>[] | undefined

export function nestWorkers(): Remote<NestApi>[] {
  nesters ??= Array.from({ length: navigator.hardwareConcurrency > 1 ? 2 : 1 }, (_, i) =>
    wrap<NestApi>(
      new Worker(new URL('./nest.worker.ts', import.meta.url), { type: 'module', name: `nest-${i + 1}` }),
    ),
  )
  return nesters
}
