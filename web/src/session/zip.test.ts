// All that one browser keeps comes back in another.
import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { newProject, readProject, starterMount, type Project } from '@feuillet/core/project'

/** A browser that has kept nothing yet, with the modules of a page that was just opened in it. */
async function freshBrowser() {
  globalThis.indexedDB = new IDBFactory()
  vi.resetModules()
  const store = await import('./store')
  const { packAll, unpackAll } = await import('./zip')
  const versions = async (id: string) => (await store.vault()).versions(id)
  return { ...store, packAll, unpackAll, versions }
}
type Browser = Awaited<ReturnType<typeof freshBrowser>>

const project = (id: string, name: string): Project => ({
  ...newProject(id, name, starterMount('frame')),
  name,
})

let here: Browser
beforeEach(async () => {
  here = await freshBrowser()
  await here.keepProject(project('p1', 'First state'), 'begun')
  await here.keepProject(project('p1', 'Second state'), 'a layer', { isNext: true })
  await here.keepProject(project('p1', 'Harbour'), 'a gap', { isNext: true })
  await here.keepProject(project('p2', 'Meadow'), 'begun')
})

const namesOn = async (browser: Browser) => (await browser.loadShelf()).map(({ name }) => name).toSorted()

describe('everything as one zip', () => {
  it('comes back in another browser, past versions and all', async () => {
    const zip = await here.packAll()
    const there = await freshBrowser()
    expect(await there.unpackAll(zip)).toEqual({ taken: 2, words: [] })
    expect(await namesOn(there)).toEqual(['Harbour', 'Meadow'])
    const past = await there.versions('p1')
    expect(past.map(({ text, label }) => [readProject(text).name, label])).toEqual([
      ['First state', 'begun'],
      ['Second state', 'a layer'],
    ])
    expect(past.map(({ savedAt }) => savedAt)).toEqual((await here.versions('p1')).map((one) => one.savedAt))
    expect(await there.versions('p2')).toEqual([])
    // What is there already is not taken twice.
    expect(await there.unpackAll(zip)).toEqual({ taken: 0, words: [] })
  })

  it('becomes a copy beside a project of the same id that was changed, with the past of its own', async () => {
    const zip = await here.packAll()
    const there = await freshBrowser()
    await there.keepProject(project('p1', 'Another harbour'), 'begun')
    expect((await there.unpackAll(zip)).taken).toBe(2)
    expect(await namesOn(there)).toEqual(['Another harbour', 'Harbour', 'Meadow'])
    const copy = (await there.loadShelf()).find(({ name }) => name === 'Harbour')!
    expect(copy.id).not.toBe('p1')
    expect(await there.versions(copy.id)).toHaveLength(2)
    expect(await there.versions('p1')).toEqual([])
  })

  it('brings papers and all else of the drawer that is not there yet, and leaves what is', async () => {
    const store = await here.vault()
    const [paper] = await here.loadStock()
    const own = await here.loadSupplies()
    const added = <T extends { id: string }>(one: T) => ({
      added: [{ ...one, id: `own-${one.id}` }],
      removed: [],
      changed: [],
    })
    await store.changeStock(added({ ...paper!, name: 'Moss' }))
    await store.changeSupplies({
      foams: added(own.foams[0]!),
      adhesives: added(own.adhesives[0]!),
      settings: null,
      cutters: added(own.cutters[0]!),
      inks: added(own.inks[0]!),
    })
    const zip = await here.packAll()
    const there = await freshBrowser()
    const before = await there.loadSupplies()
    const { words } = await there.unpackAll(zip)
    expect(words).toEqual([
      '1 paper came into the drawer.',
      '4 records of foam, glue, cutters, inks, frames, prices, settings or times came into the drawer.',
    ])
    expect((await there.loadStock()).some(({ name }) => name === 'Moss')).toBe(true)
    const after = await there.loadSupplies()
    for (const key of ['foams', 'adhesives', 'cutters', 'inks'] as const)
      expect(after[key].map(({ id }) => id)).toEqual([
        ...before[key].map(({ id }) => id),
        `own-${before[key][0]!.id}`,
      ])
    expect((await there.unpackAll(zip)).words).toEqual([])
  })

  it('tells what of it cannot be read, and takes the rest', async () => {
    const files = unzipSync(await here.packAll())
    const broken = zipSync({
      ...files,
      'projects/bad.feuillet.json': strToU8('{"layers":['),
      'drawer.json': strToU8('nonsense'),
      'labels.json': strToU8('nonsense'),
    })
    const there = await freshBrowser()
    const { taken, words } = await there.unpackAll(broken)
    expect(taken).toBe(2)
    expect(words).toHaveLength(2)
    expect(words[0]).toMatch(/^bad\.feuillet\.json: /)
    expect(words[1]).toBe('The drawer in it cannot be read.')
    expect((await there.versions('p1')).map(({ label }) => label)).toEqual(['', ''])
    await expect(there.unpackAll(strToU8('no zip'))).rejects.toThrow('this is no zip that can be read')
  })

  it('takes projects of a zip that was put together by hand', async () => {
    const text = strFromU8(
      Object.entries(unzipSync(await here.packAll())).find(([p]) => p.includes('p2'))![1],
    )
    const there = await freshBrowser()
    const { taken } = await there.unpackAll(
      zipSync({ 'Meadow.json': strToU8(text), 'readme.txt': strToU8('hello') }),
    )
    expect(taken).toBe(1)
    expect(await namesOn(there)).toEqual(['Meadow'])
  })
})
