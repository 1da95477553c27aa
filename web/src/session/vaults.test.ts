// What both vaults promise, the browser's store and the page's memory: one answer for the same asked of them; and what the store alone
// has to keep: refused saves change nothing, drafts of pages that are being closed, a store that does not answer.
import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { newProject, starterMount, stockChanges, writeProject } from '@feuillet/core/project'
import { starterStock } from '@feuillet/core/stages/paper'
import { entryOf } from './entry'
import { openVault } from './indexed-vault'
import { MemoryVault } from './memory-vault'
import { MOST_VERSIONS, type Draft, type ToSave, type Vault } from './vault'

const named = (name: string, id = 'p') => ({ ...newProject(id, name, starterMount('frame')), name })

function toSave(name: string, revision: number, more: Partial<ToSave> = {}, id = 'p'): ToSave {
  const project = named(name, id)
  const kept = {
    id,
    revision,
    text: writeProject(project),
    savedAt: revision * 1000,
    label: `to ${name}`,
    page: 'a',
    seq: 0,
  }
  const base = revision > 1 ? revision - 1 : null
  return {
    kept,
    entry: entryOf(project, revision, kept.savedAt),
    base,
    keepVersion: false,
    stock: null,
    ...more,
  }
}

beforeEach(() => {
  globalThis.indexedDB = new IDBFactory()
})
afterEach(() => vi.unstubAllGlobals())

const kinds: [string, () => Promise<Vault>][] = [
  ['the browser’s store', () => openVault()],
  ['the page’s memory', () => Promise.resolve(new MemoryVault())],
]

describe.each(kinds)('%s', (_, make) => {
  it('gives back what was saved last, and shows it on the shelf', async () => {
    const vault = await make()
    expect(await vault.read('p')).toBeUndefined()
    await vault.save(toSave('one', 1))
    expect(await vault.save(toSave('two', 2))).toMatchObject({ ok: true, stock: null, supplies: null })
    await vault.save(toSave('other', 1, {}, 'q'))
    expect(await vault.read('p')).toMatchObject({ revision: 2, label: 'to two' })
    expect((await vault.entries()).map(({ name }) => name).toSorted()).toEqual(['other', 'two'])
    expect((await vault.ids()).toSorted()).toEqual(['p', 'q'])
  })

  it('keeps the last past versions, each as it was before the save that asked for it', async () => {
    const vault = await make()
    await vault.save(toSave('v1', 1))
    for (let k = 2; k <= MOST_VERSIONS + 4; k++) await vault.save(toSave(`v${k}`, k, { keepVersion: true }))
    const labels = (await vault.versions('p')).map(({ label }) => label)
    expect(labels).toEqual(Array.from({ length: MOST_VERSIONS }, (_, k) => `to v${k + 4}`))
    expect(await vault.versions('q')).toEqual([])
  })

  it('forgets a project that is taken off the shelf, but not its past', async () => {
    const vault = await make()
    await vault.save(toSave('one', 1))
    await vault.save(toSave('two', 2, { keepVersion: true }))
    await vault.remove('p')
    expect(await vault.read('p')).toBeUndefined()
    expect(await vault.entries()).toEqual([])
    expect(await vault.versions('p')).toHaveLength(1)
  })

  it('changes of the drawer what was changed, with a save or without, and leaves the rest', async () => {
    const vault = await make()
    const before = starterStock()
    const took = (k: number, sheets: number) =>
      stockChanges(
        before,
        before.map((paper, i) => (i === k ? { ...paper, count: paper.count - sheets } : paper)),
      )!
    const saved = await vault.save(toSave('one', 1, { stock: took(0, 1) }))
    await vault.changeStock(took(1, 2))
    // Counted from what is there, not put back to what it was: another page took of the same paper.
    const papers = await vault.changeStock(took(0, 1))
    expect(await vault.readStock()).toEqual(papers)
    expect(papers.map(({ count }, i) => before[i]!.count - count)).toEqual(
      before.map((_paper, i) => (i < 2 ? 2 : 0)),
    )
    expect(saved.ok && saved.stock?.[0]?.count).toBe(before[0]!.count - 1)
  })
})

describe('the browser’s store alone', () => {
  it('refuses a save that does not go on from what it holds, and nothing of it is kept', async () => {
    const vault = await openVault()
    await vault.save(toSave('one', 1))
    await vault.save(toSave('two', 2))
    const late = toSave('late', 2, { keepVersion: true })
    expect(await vault.save(late)).toEqual({ ok: false, revision: 2 })
    expect(await vault.read('p')).toMatchObject({ label: 'to two' })
    expect((await vault.entries()).map(({ name }) => name)).toEqual(['two'])
    expect(await vault.versions('p')).toEqual([])
    // With no base it takes the place of whatever is there.
    expect(await vault.save({ ...late, base: null })).toMatchObject({ ok: true })
    expect(await vault.read('p')).toMatchObject({ label: 'to late' })
  })

  it('has what another page kept', async () => {
    const [a, b] = [await openVault(), await openVault()]
    await a.save(toSave('of a', 1))
    expect(await b.read('p')).toMatchObject({ label: 'to of a' })
    expect(await b.save(toSave('of b', 2))).toMatchObject({ ok: true })
    expect(await a.save(toSave('of a again', 2))).toEqual({ ok: false, revision: 2 })
  })

  it('is not waited for where it does not answer', async () => {
    globalThis.indexedDB = { open: () => new IDBOpenDBRequest() } as unknown as IDBFactory
    await expect(openVault('feuillet-vault', 20)).rejects.toThrow('does not answer')
  })

  describe('keeps drafts', () => {
    const draft = (seq: number): Draft => ({
      key: 'a p',
      id: 'p',
      base: 1,
      page: 'a',
      seq,
      text: `text ${seq}`,
      savedAt: seq,
      label: '',
      stock: null,
    })
    /** Storage that is written at once, of so many characters at the most. */
    function storage(most = Infinity) {
      const kept = new Map<string, string>()
      return {
        kept,
        get length() {
          return kept.size
        },
        key: (k: number) => [...kept.keys()][k] ?? null,
        getItem: (key: string) => kept.get(key) ?? null,
        setItem: (key: string, value: string) => {
          if (value.length > most) throw new Error('full')
          kept.set(key, value)
        },
        removeItem: (key: string) => void kept.delete(key),
      }
    }

    it('until they are dropped, by their project', async () => {
      const vault = await openVault()
      vault.putDraft(draft(1))
      await expect.poll(async () => (await vault.drafts('p')).map(({ seq }) => seq)).toEqual([1])
      expect(await vault.drafts('q')).toEqual([])
      await vault.dropDraft('a p')
      expect(await vault.drafts('p')).toEqual([])
    })

    it('beside the store too, where that is written at once: the latest counts, and once', async () => {
      vi.stubGlobal('localStorage', storage())
      const vault = await openVault()
      vault.putDraft(draft(1))
      vault.putDraft(draft(2))
      expect((await vault.drafts('p')).map(({ seq }) => seq)).toEqual([2])
      await vault.dropDraft('a p')
      expect(await vault.drafts('p')).toEqual([])
    })

    it('in the store alone where there is no more room beside it, or what lies there cannot be read', async () => {
      const own = storage(10)
      vi.stubGlobal('localStorage', own)
      const vault = await openVault()
      vault.putDraft(draft(3))
      await expect.poll(async () => (await vault.drafts('p')).map(({ seq }) => seq)).toEqual([3])
      own.kept.set('feuillet draft b p', '{"id":"p"')
      expect((await vault.drafts('p')).map(({ seq }) => seq)).toEqual([3])
    })
  })
})
