// What every file of tests of screens begins with: a document, and the browser's parts that jsdom does not have. Workers run in the
// process of the test (page-workers.ts); the application's files are read from disk.
import 'fake-indexeddb/auto'
import { readFile } from 'node:fs/promises'
import { afterAll, vi } from 'vitest'
import { atEnd, offered, saved } from './outlasting'
import { PageWorker } from './page-workers'

vi.mock(import('comlink'), async (original) => {
  const real = await original()
  const expose: typeof real.expose = (api, end, origins) => {
    // A worker's code offers itself to what it runs in, and names no end.
    if (end) real.expose(api, end, origins)
    else offered.last = api as object
  }
  return { ...real, expose }
})
vi.mock(import('../src/session/save-file'), async (original) => ({
  ...(await original()),
  saveFile: (name: string, content: unknown) => void saved.push({ name, content }),
}))
afterAll(async () => {
  for (const leave of atEnd.splice(0)) await leave()
  saved.length = 0
})

vi.stubGlobal('Worker', PageWorker)

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
