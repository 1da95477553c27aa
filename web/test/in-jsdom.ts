// What every test of screens begins with: a document, and the browser's parts that jsdom does not have. Workers run their own
// code in the process of the test, behind a channel as in a browser; the application's files are read from disk.
import 'fake-indexeddb/auto'
import { readFile } from 'node:fs/promises'
import { afterAll, vi } from 'vitest'
import { expose } from 'comlink'
import { StandIn } from './worker'

const offered = vi.hoisted(() => ({ last: {} as object }))
vi.mock(import('comlink'), async (original) => {
  const real = await original()
  const expose: typeof real.expose = (api, end, origins) => {
    // A worker's code offers itself to what it runs in, and names no end.
    if (end) real.expose(api, end, origins)
    else offered.last = api as object
  }
  return { ...real, expose }
})

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

class PageWorker extends StandIn {
  constructor(url: URL | string) {
    const name = /(\w+)\.worker/.exec(String(url))![1]!
    super((inside) => apiOf(name).then((api) => expose(api, inside)))
    startedWorkers.push({ name, worker: this })
  }
}
vi.stubGlobal('Worker', PageWorker)
// What still works then has nobody to tell.
afterAll(() => {
  for (const { worker } of startedWorkers) worker.terminate()
})

/** The application's own files, which Vite names by where they lie; no server answers. */
vi.stubGlobal('fetch', async (address: string | URL) => {
  const path = decodeURI(String(address)).replace(/^\/@fs/, '')
  if (path.startsWith('/api/')) return new Response(null, { status: 404 })
  return new Response(await readFile(path.startsWith('/node_modules/') ? path.slice(1) : path))
})

/** Here everything is of one size, px, and a place in a drawing is where the mouse is. */
const SIZE = { width: 800, height: 600 }
Element.prototype.getBoundingClientRect = () => new DOMRect(0, 0, SIZE.width, SIZE.height)
Object.assign(SVGElement.prototype, { getScreenCTM: () => ({ inverse: () => undefined }) })
vi.stubGlobal(
  'DOMPoint',
  class {
    constructor(
      readonly x: number,
      readonly y: number,
    ) {}
    matrixTransform = () => ({ x: this.x, y: this.y })
  },
)

/** Tells once of what it observes, as browsers do: that it is in sight, and of what size. */
class OnceObserver {
  private isOff = false
  constructor(private readonly tell: (entries: object[]) => void) {}
  observe(target: Element): void {
    const rect = target.getBoundingClientRect()
    const entry = {
      target,
      isIntersecting: true,
      intersectionRatio: 1,
      intersectionRect: rect,
      boundingClientRect: rect,
      contentRect: rect,
    }
    setTimeout(() => this.isOff || this.tell([entry]))
  }
  unobserve = () => undefined
  disconnect = () => void (this.isOff = true)
}
vi.stubGlobal('ResizeObserver', OnceObserver)
vi.stubGlobal('IntersectionObserver', OnceObserver)
vi.stubGlobal('matchMedia', () => ({
  matches: false,
  addEventListener: () => undefined,
  removeEventListener: () => undefined,
}))
HTMLCanvasElement.prototype.getContext = () => null
Object.assign(Element.prototype, {
  scrollIntoView: () => undefined,
  setPointerCapture: () => undefined,
  releasePointerCapture: () => undefined,
  hasPointerCapture: () => false,
})
