// The vault of a page: what the shelf shows of whatever lies in the browser, what an older Feuillet kept, and a browser that keeps nothing.
import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { newProject, readProject, SCHEMA_VERSION, starterMount, writeProject } from '@feuillet/core/project'
import { starterStock } from '@feuillet/core/stages/paper'
import type { KeptProject, ShelfEntry } from './vault'

/** The modules of a page that was just opened, in the browser as it is. */
async function page() {
  vi.resetModules()
  return import('./store')
}

const project = (id: string, name: string) => ({ ...newProject(id, name, starterMount('card')), name })
const kept = (id: string, text: unknown, savedAt: number): KeptProject => ({
  id,
  revision: 1,
  text: text as string,
  savedAt,
  label: '',
  page: '',
  seq: 0,
})

/** Puts records into the browser's store by hand, as they may have come there. */
async function put(what: { projects?: KeptProject[]; index?: unknown[]; papers?: unknown }): Promise<void> {
  await (await page()).vault()
  const db = await new Promise<IDBDatabase>((done, fail) => {
    const asked = indexedDB.open('feuillet-vault')
    asked.onsuccess = () => done(asked.result)
    asked.onerror = () => fail(asked.error!)
  })
  const tx = db.transaction(['projects', 'index', 'shared'], 'readwrite')
  for (const one of what.projects ?? []) tx.objectStore('projects').put(one)
  for (const one of what.index ?? []) tx.objectStore('index').put(one)
  if (what.papers) tx.objectStore('shared').put(what.papers, 'papers')
  await new Promise((done) => (tx.oncomplete = done))
  db.close()
}

beforeEach(() => {
  globalThis.indexedDB = new IDBFactory()
})
afterEach(() => vi.unstubAllGlobals())

describe('the shelf', () => {
  it('shows what was saved last first, by its index alone', async () => {
    const entry = (id: string, savedAt: number): Partial<ShelfEntry> => ({
      id,
      name: `as the index has ${id}`,
      savedAt,
      guestIds: [],
      cutForIds: [],
      trouble: null,
      schemaVersion: SCHEMA_VERSION,
    })
    // Texts that nobody reads for it.
    await put({
      projects: [kept('a', '{', 1), kept('b', '{', 3), kept('c', '{', 2)],
      index: [entry('a', 1), entry('b', 3), entry('c', 2)],
    })
    const shelf = await (await page()).loadShelf()
    expect(shelf.map(({ name }) => name)).toEqual(['b', 'c', 'a'].map((id) => `as the index has ${id}`))
  })

  it('reads anew what the index lacks or has wrongly, and lets go of what is no more', async () => {
    await put({
      projects: [
        kept('a', writeProject(project('a', 'Anchor')), 1),
        kept('b', writeProject(project('b', 'Buoy')), 2),
      ],
      index: [
        { id: 'b', name: 7 },
        { id: 'gone', name: 'Gone', savedAt: 9, guestIds: [] },
      ],
    })
    expect((await (await page()).loadShelf()).map(({ name }) => name)).toEqual(['Buoy', 'Anchor'])
    // From then on the index has it.
    const again = await page()
    expect((await (await again.vault()).entries()).map(({ name }) => name)).toContain('Anchor')
  })

  it('passes over nothing in silence: damaged, newer and empty records stand there with why', async () => {
    const text = writeProject(project('d', 'Driftwood'))
    const newer = JSON.stringify({ ...(JSON.parse(text) as object), schemaVersion: SCHEMA_VERSION + 1 })
    await put({
      projects: [
        kept('d', text.slice(0, text.length / 2), 3),
        kept('n', newer.replace('"Driftwood"', '"Nautilus"'), 2),
        kept('e', 17, 1),
      ],
    })
    const shelf = await (await page()).loadShelf()
    expect(shelf.map(({ id, trouble }) => [id, trouble?.kind])).toEqual([
      ['d', 'damaged'],
      ['n', 'newer'],
      ['e', 'damaged'],
    ])
    expect(shelf.map(({ name }) => name)).toEqual(['Driftwood', 'Nautilus', 'A project that cannot be read'])
    for (const { trouble } of shelf) expect(trouble!.sentence).toMatch(/^[A-Z].*\.$/)
    // What there is of it stays to be exported.
    expect((await (await page()).readKept('d'))?.text).toBe(text.slice(0, text.length / 2))
  })

  it('shows what could not be kept before what the browser holds of it', async () => {
    const here = await page()
    await here.keepProject(project('a', 'As kept'), '')
    const { entryOf } = await import('./entry')
    const now = project('a', 'As it is')
    const what = {
      kept: { ...kept('a', writeProject(now), Date.now()), revision: 2 },
      entry: entryOf(now, 2, Date.now()),
      base: 1,
      keepVersion: false,
      stock: null,
    }
    await here.hold(what)
    expect((await here.loadShelf()).map(({ name }) => name)).toEqual(['As it is'])
    expect(readProject((await here.readKept('a'))!.text).name).toBe('As it is')
    await here.letGo('a')
    expect((await here.loadShelf()).map(({ name }) => name)).toEqual(['As kept'])
  })
})

describe('a project that is kept without being opened', () => {
  it('follows upon its last state, which becomes a past version, or takes its place', async () => {
    const { keepProject, vault, readKept } = await page()
    await keepProject(project('a', 'one'), 'begun')
    await keepProject(project('a', 'two'), 'next', { isNext: true })
    expect(await readKept('a')).toMatchObject({ revision: 2, label: 'next' })
    expect((await (await vault()).versions('a')).map(({ label }) => label)).toEqual(['begun'])
    await keepProject(project('a', 'three'), 'instead')
    expect(await readKept('a')).toMatchObject({ revision: 1, label: 'instead' })
    expect(await (await vault()).versions('a')).toHaveLength(1)
  })
})

describe('the drawer', () => {
  it('begins with some papers; one that is damaged in part keeps the rest', async () => {
    expect(await (await page()).loadStock()).toEqual(starterStock())
    const [first, second] = starterStock()
    await put({ papers: [first, { ...second, widthMm: 'wide' }, 'no paper', null] })
    expect(await (await page()).loadStock()).toEqual([first])
  })
})

describe('a browser that keeps nothing', () => {
  it('is told of in a sentence, and the page remembers', async () => {
    globalThis.indexedDB = {
      open: () => {
        throw new DOMException('blocked', 'SecurityError')
      },
    } as unknown as IDBFactory
    const here = await page()
    expect((await here.vault()).lasting).toBe(false)
    expect(here.whyNotLasting).toMatch(/^This browser blocks storage/)
    await here.keepProject(project('a', 'For now'), '')
    expect((await here.loadShelf()).map(({ name }) => name)).toEqual(['For now'])
    expect(await here.loadStock()).toEqual(starterStock())
  })
})

describe('what an older Feuillet kept', () => {
  it('is brought over once: what is thrown away afterwards does not come back', async () => {
    const { default: localforage } = await import('localforage')
    const of = (storeName: string) => localforage.createInstance({ name: 'feuillet', storeName })
    // The library holds on to the browser that it was first loaded in.
    await of('shared').clear()
    const old = of('projects')
    await old.setItem('o', { text: writeProject(project('o', 'Old harbour')), savedAt: 5 })
    await old.setItem('x', { savedAt: 6 })
    const here = await page()
    expect((await here.loadShelf()).map(({ name, savedAt }) => [name, savedAt])).toEqual([['Old harbour', 5]])
    await (await here.vault()).remove('o')
    expect(await (await page()).loadShelf()).toEqual([])
  })
})
