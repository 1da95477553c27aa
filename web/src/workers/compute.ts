// Workers that look like plain async functions.
import { wrap, type Remote } from 'comlink'
import type { ComputeApi } from './compute.worker'
import type { NestApi } from './nest.worker'

function start(): Remote<ComputeApi> {
  const worker = new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module', name: 'compute' })
  return wrap<ComputeApi>(worker)
}

export const compute = start()

let nester: Remote<NestApi> | undefined

/** The search worker, started when it is first asked for. */
export function nestWorker(): Remote<NestApi> {
  nester ??= wrap<NestApi>(new Worker(new URL('./nest.worker.ts', import.meta.url), { type: 'module', name: 'nest' }))
  return nester
}
