import { configureStore } from '@reduxjs/toolkit'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { demo } from '@feuillet/core/demo'
import { setLayer, tickStep, type Project } from '@feuillet/core/project'

const derive = vi.hoisted(() => vi.fn<(project: Project) => Promise<unknown>>())
const keep = vi.hoisted(() => ({
  saveProject: vi.fn<() => Promise<void>>(),
  saveStock: vi.fn<() => Promise<void>>(),
}))
const told = vi.hoisted(() => vi.fn<(words: string) => void>())
vi.mock('../workers/compute', () => ({ compute: { derive } }))
vi.mock('../session/storage', () => ({
  ...keep,
  sharedStore: { getItem: () => Promise.resolve(null), setItem: () => Promise.resolve() },
}))
vi.mock('sonner', () => ({ toast: { error: told } }))

const { listener } = await import('./listener')
const { default: work, edited, opened, undone } = await import('../state/document')
const { default: results } = await import('./results')

const project = demo('bon-voyage')
const make = () =>
  configureStore({
    reducer: { work, results },
    middleware: (base) =>
      base({ serializableCheck: false, immutableCheck: false }).prepend(listener.middleware),
  })
let store: ReturnType<typeof make>
const wait = (ms: number) => vi.advanceTimersByTimeAsync(ms)

beforeEach(() => {
  vi.useFakeTimers()
  derive.mockReset().mockImplementation((p) => Promise.resolve({ of: p.name, snags: [] }))
  keep.saveProject.mockReset().mockResolvedValue()
  keep.saveStock.mockReset().mockResolvedValue()
  told.mockReset()
  store = make()
  store.dispatch(opened({ project, stock: [] }))
})
afterEach(() => vi.useRealTimers())

describe('after a change', () => {
  it('results are computed at once when a project opens', async () => {
    expect(store.getState().results.busy).toBe(true)
    await wait(1)
    expect(derive).toHaveBeenCalledTimes(1)
    expect(store.getState().results).toMatchObject({ busy: false, derived: { of: project.name } })
  })

  it('a burst of edits is computed once, with the last', async () => {
    await wait(1)
    for (let copies = 2; copies < 6; copies++) {
      store.dispatch(edited({ label: 'copies', project: setLayer(project, 'backing', { copies }) }))
      await wait(50)
    }
    await wait(500)
    expect(derive).toHaveBeenCalledTimes(2)
    expect(derive.mock.lastCall![0].layers[0]!.copies).toBe(5)
  })

  it('ticks and names compute nothing, but are saved', async () => {
    await wait(1)
    store.dispatch(edited({ label: 'tick', project: tickStep(project, 'prepare', true) }))
    await wait(1000)
    expect(derive).toHaveBeenCalledTimes(1)
    expect(keep.saveProject).toHaveBeenCalledTimes(1)
    expect(store.getState().work.saved).toBe('saved')
  })

  it('an answer that comes too late is let go', async () => {
    await wait(1)
    let late: (value: unknown) => void = () => undefined
    derive.mockImplementationOnce(() => new Promise((done) => (late = done)))
    store.dispatch(edited({ label: 'copies', project: setLayer(project, 'backing', { copies: 2 }) }))
    await wait(200)
    store.dispatch(
      edited({ label: 'name', project: setLayer({ ...project, name: 'Newer' }, 'backing', { copies: 3 }) }),
    )
    await wait(200)
    late({ of: 'too late', snags: [] })
    await wait(1)
    expect(store.getState().results.derived).toMatchObject({ of: 'Newer' })
  })

  it('trouble in the worker is said, and goes away with the next answer', async () => {
    await wait(1)
    derive.mockRejectedValueOnce(new Error('out of card'))
    store.dispatch(edited({ label: 'copies', project: setLayer(project, 'backing', { copies: 2 }) }))
    await wait(200)
    expect(store.getState().results.trouble).toBe('out of card')
    store.dispatch(undone())
    await wait(200)
    expect(store.getState().results.trouble).toBeNull()
  })

  it('a browser that keeps nothing is told of once the save fails', async () => {
    keep.saveProject.mockRejectedValueOnce(new Error('full'))
    store.dispatch(edited({ label: 'copies', project: setLayer(project, 'backing', { copies: 2 }) }))
    expect(store.getState().work.saved).toBe('saving')
    await wait(600)
    expect(store.getState().work.saved).toBe('failed')
    expect(told).toHaveBeenCalledWith(expect.stringContaining('Save it as a file'))
  })
})
