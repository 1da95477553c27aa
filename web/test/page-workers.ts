// The page's workers, which run their own code in the process of the test, behind a channel as in a browser.
import { expose } from 'comlink'
import { offered } from './outlasting'
import { StandIn } from './worker'

const code: Record<string, () => Promise<unknown>> = {
  edit: () => import('../src/workers/edit.worker'),
  planner: () => import('../src/workers/planner.worker'),
  nest: () => import('../src/workers/nest.worker'),
}
const apis = new Map<string, Promise<object>>()
let loading: Promise<unknown> = Promise.resolve()

/** What a worker's code offers; loaded once, one worker after the other. */
export function apiOf(name: string): Promise<object> {
  let api = apis.get(name)
  if (!api) {
    loading = api = loading.then(code[name]).then(() => offered.last)
    apis.set(name, api)
  }
  return api
}

/** Workers that the page started, the newest last. */
export const startedWorkers: { name: string; worker: StandIn }[] = []

export class PageWorker extends StandIn {
  constructor(url: URL | string) {
    const name = /(\w+)\.worker/.exec(String(url))![1]!
    super((inside) => apiOf(name).then((api) => expose(api, inside)))
    startedWorkers.push({ name, worker: this })
  }
}
