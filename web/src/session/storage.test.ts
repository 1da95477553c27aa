import { beforeEach, describe, expect, it, vi } from 'vitest'
import { demo } from '@feuillet/core/demo'
import { starterStock } from '@feuillet/core/stages/paper'

/** Browser storage in memory: one map a store, and a switch that makes it full. */
const memory = vi.hoisted(() => ({ stores: new Map<string, Map<string, unknown>>(), full: false }))

vi.mock('localforage', () => ({
  default: {
    createInstance: ({ storeName }: { storeName: string }) => {
      const store = new Map<string, unknown>()
      memory.stores.set(storeName, store)
      return {
        setItem: (key: string, value: unknown) => {
          if (memory.full) return Promise.reject(new Error('full'))
          store.set(key, structuredClone(value))
          return Promise.resolve(value)
        },
        getItem: (key: string) => Promise.resolve(store.get(key) ?? null),
        removeItem: (key: string) => Promise.resolve(void store.delete(key)),
        iterate: (each: (value: unknown) => void) =>
          Promise.resolve([...store.values()].forEach((value) => each(value))),
      }
    },
  },
}))

const { loadProject, loadShelf, loadStock, removeProject, saveOrHold, saveProject, saveStock } =
  await import('./storage')
const store = (name: string) => memory.stores.get(name)!

beforeEach(() => {
  memory.full = false
  for (const each of memory.stores.values()) each.clear()
})

describe('projects in the browser', () => {
  const project = demo('bon-voyage')

  it('come back as they were, and leave no copy aside', async () => {
    await saveProject(project)
    expect(await loadProject(project.id)).toEqual(project)
    expect(store('aside').size).toBe(0)
    await removeProject(project.id)
    expect(await loadProject(project.id)).toBeNull()
  })

  it('survive a crash between writing aside and putting in place', async () => {
    await saveProject(project)
    const kept = store('projects').get(project.id) as { text: string; savedAt: number }
    store('aside').set(project.id, kept)
    store('projects').set(project.id, { ...kept, text: kept.text.slice(0, 100) })
    expect((await loadProject(project.id))?.name).toBe(project.name)
  })

  it('stand on the shelf the last saved first; damaged ones are passed over and kept', async () => {
    await saveProject(project)
    await saveProject({ ...project, id: 'other', name: 'Other' })
    ;(store('projects').get('other') as { savedAt: number }).savedAt += 1000
    store('projects').set('bad', { text: '{', savedAt: 0 })
    expect((await loadShelf()).map((entry) => entry.project.id)).toEqual(['other', project.id])
    expect(store('projects').has('bad')).toBe(true)
  })

  it('stay open for the page where the browser keeps nothing', async () => {
    memory.full = true
    expect(await saveOrHold({ ...project, id: 'held' })).toBe(false)
    expect((await loadProject('held'))?.name).toBe(project.name)
    memory.full = false
    expect(await saveOrHold({ ...project, id: 'kept' })).toBe(true)
  })

  it('say so where storage is full', async () => {
    memory.full = true
    await expect(saveProject(project)).rejects.toThrow('full')
  })
})

describe('the drawer in the browser', () => {
  it('starts stocked, and keeps what was changed', async () => {
    expect(await loadStock()).toEqual(starterStock())
    const [first, ...rest] = starterStock()
    await saveStock([{ ...first!, count: 77 }, ...rest])
    expect((await loadStock())[0]!.count).toBe(77)
  })

  it('gives papers of an older drawer the fields they lack', async () => {
    const old: Record<string, unknown> = { ...starterStock()[0]! }
    delete old['offCuts']
    delete old['note']
    store('shared').set('papers', [old])
    expect(await loadStock()).toEqual([starterStock()[0]])
  })
})
