// The session against a store that fails, pages that die at any moment, and tabs beside it: whatever was said to be kept is
// there afterwards.
import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { configureStore } from '@reduxjs/toolkit'
import fc from 'fast-check'
import { beforeEach, describe, expect, it } from 'vitest'
import {
  newProject,
  readProject,
  starterMount,
  writeProject,
  soundSupplies,
  type Project,
} from '@feuillet/core/project'
import { starterStock } from '@feuillet/core/stages/paper'
import document, { edited, redone, undone } from '../state/document'
import { guard } from '../state/guard'
import { entryOf } from './entry'
import { openVault } from './indexed-vault'
import { MemoryVault } from './memory-vault'
import { Session } from './session'
import type { Claim, Tabs } from './tabs'
import { MOST_VERSIONS, type Draft, type Vault } from './vault'

const sleep = (ms = 0) => new Promise((resolve) => setTimeout(resolve, ms))
const ID = 'p1'
/** So long a tab is waited for that is asked to hand a project over. */
const PATIENCE_MS = 1500
/** What comes by itself, however busy the machine is. */
const soon = <T>(what: () => T | Promise<T>) => expect.poll(what, { timeout: 10_000, interval: 5 })
const blank = (name: string): Project => ({ ...newProject(ID, name, starterMount('frame')), name })

/** One browser: its store, its pages, and the locks they hold. */
class Browser {
  readonly vault: Promise<Vault>
  readonly pages: Page[] = []
  holder: Page | null = null
  waiting: ((claim: Claim) => void)[] = []
  told: string[] = []
  time = 1_000_000

  constructor() {
    globalThis.indexedDB = new IDBFactory()
    this.vault = openVault()
  }

  async keep(project: Project): Promise<void> {
    const kept = {
      id: project.id,
      revision: 1,
      text: writeProject(project),
      savedAt: 1,
      label: '',
      page: '',
      seq: 0,
    }
    await (
      await this.vault
    ).save({ kept, entry: entryOf(project, 1, 1), base: null, keepVersion: false, stock: null })
  }

  /** Gives the right to change the project to whoever waits for it. */
  free(page: Page): void {
    if (this.holder !== page) return
    this.holder = null
    this.waiting.shift()?.(this.claimFor(page))
  }

  claimFor(page: Page): Claim {
    return { held: true, release: () => this.free(page) }
  }

  async nameKept(id = ID): Promise<string | undefined> {
    const kept = await (await this.vault).read(id)
    return kept && readProject(kept.text).name
  }

  /** Names of all projects on the shelf. */
  names = async (): Promise<string[]> => (await (await this.vault).entries()).map((entry) => entry.name)
}

/** A tab with a session of its own. Once it is dead nothing of it reaches the store or the others. */
class Page {
  readonly store = configureStore({
    reducer: { document },
    middleware: (base) => base({ serializableCheck: false, immutableCheck: false }).prepend(guard),
  })
  readonly session: Session
  dead = false
  /** Writes that are refused: by the browser, as where its storage is full. */
  refuse = false
  /** What reading and writing wait for, each time, before the answer of the store is handed on. */
  delay: () => Promise<unknown> = () => Promise.resolve()
  readonly held = new MemoryVault()
  private hear: Parameters<Tabs['listen']>[0] | null = null

  constructor(
    private readonly browser: Browser,
    readonly name: string,
  ) {
    browser.pages.push(this)
    const others = () => browser.pages.filter((page) => page !== this && !page.dead)
    const tabs: Tabs = {
      listen: (hear) => (this.hear = hear),
      say: (word) => {
        if (this.dead) return
        for (const page of others()) queueMicrotask(() => page.take(word))
      },
      claim: () => {
        if (browser.holder && browser.holder !== this && !browser.holder.dead)
          return Promise.resolve({ held: false, release: () => undefined })
        browser.holder = this
        return Promise.resolve(browser.claimFor(this))
      },
      whenFree: () =>
        new Promise((resolve) =>
          browser.waiting.push(() => {
            browser.holder = this
            resolve(browser.claimFor(this))
          }),
        ),
      takeOver: async (id, claim) => {
        const given = new Promise((resolve) => (browser.waiting = [resolve]))
        for (const page of others()) page.take({ kind: 'wanted', id })
        if (browser.holder) await Promise.race([given, sleep(PATIENCE_MS)])
        browser.waiting = []
        browser.holder = this
        claim.held = true
        claim.release = () => browser.free(this)
      },
      waiting: () => ({ held: false, release: () => undefined }),
    }
    const vault = async (): Promise<Vault> => {
      const real = await browser.vault
      return new Proxy(real, {
        get: (target, key: keyof Vault) => {
          const value = target[key]
          if (key === 'save' || key === 'changeStock')
            return async (...args: never[]) => {
              if (this.dead) return new Promise(() => undefined)
              if (this.refuse) throw Object.assign(new Error('full'), { name: 'QuotaExceededError' })
              const answer = (value as (...all: never[]) => unknown).apply(target, args)
              await this.delay()
              return answer
            }
          return typeof value === 'function' ? value.bind(target) : value
        },
      })
    }
    this.session = new Session({
      document: () => this.store.getState().document,
      dispatch: (action) => !this.dead && this.store.dispatch(action),
      vault,
      readKept: async (id) => {
        const kept = (await this.held.read(id)) ?? (await (await browser.vault).read(id))
        await this.delay()
        return kept
      },
      hold: (what) => this.held.save({ ...what, base: null }),
      letGo: (id) => this.held.remove(id),
      loadStock: async () => (await (await browser.vault).readStock()) ?? starterStock(),
      loadSupplies: async () => soundSupplies(await (await browser.vault).readSupplies()),
      loadShelf: async () => (await browser.vault).entries(),
      tabs,
      page: name,
      now: () => (browser.time += 7),
      newId: () => `copy-${browser.time}`,
      tell: (sentence) => browser.told.push(sentence),
    })
    let seen = 0
    this.store.subscribe(() => {
      const { revision } = this.doc
      if (revision === seen) return
      seen = revision
      if (!this.dead) this.session.changed()
    })
  }

  get doc() {
    return this.store.getState().document
  }

  take(word: Parameters<Tabs['say']>[0]): void {
    if (this.dead || !this.hear) return
    if (word.kind === 'drawer') this.hear.drawer()
    else this.hear[word.kind](word.id)
  }

  edit(name: string): void {
    const { project } = this.doc
    if (project) this.store.dispatch(edited({ label: `to ${name}`, project: { ...project, name } }))
  }

  /** The tab is closed: what it can still begin to write is written, nothing else. */
  shut(): void {
    this.session.leaveInHaste()
    this.crash()
  }

  /** The tab is gone, with no word. */
  crash(): void {
    this.dead = true
    this.browser.free(this)
  }
}

let browser: Browser
beforeEach(async () => {
  browser = new Browser()
  await browser.keep(blank('start'))
})
const open = async (name: string) => {
  const page = new Page(browser, name)
  expect(await page.session.open(ID)).toMatchObject({ kind: 'open' })
  return page
}

describe('a change', () => {
  it('is kept within half a second, however fast others follow, and said to be kept only then', async () => {
    const page = await open('a')
    const start = performance.now()
    let n = 0
    while (performance.now() - start < 900) {
      page.edit(`n${++n}`)
      expect(page.doc.kept).toBeLessThan(page.doc.revision)
      await sleep(20)
    }
    const kept = Number((await browser.nameKept())!.slice(1))
    expect(kept).toBeGreaterThan(n - 500 / 20)
    await page.session.flush()
    expect(await browser.nameKept()).toBe(`n${n}`)
    expect(page.doc.kept).toBe(page.doc.revision)
  })

  it.each([
    ['the tab is closed', (page: Page) => page.shut()],
    ['the project is left', (page: Page) => page.session.close()],
  ])('made right before %s is there the next time', async (_, leave) => {
    for (const wait of [0, 1, 5, 40, 210]) {
      const page = await open(`a${wait}`)
      page.edit(`before ${wait}`)
      await sleep(wait)
      page.edit(`last ${wait}`)
      leave(page)
      await page.session.idle().catch(() => undefined)
      const next = await open(`b${wait}`)
      expect(next.doc.project!.name).toBe(`last ${wait}`)
      next.session.close()
      await next.session.idle()
      next.crash()
    }
  })

  it('that comes while one is being kept is kept after it', async () => {
    const page = await open('a')
    page.edit('one')
    await sleep(1)
    page.edit('two')
    await soon(() => browser.nameKept()).toBe('two')
    await soon(() => page.doc.kept).toBe(page.doc.revision)
  })

  it('undone is kept as undone', async () => {
    const page = await open('a')
    page.edit('one')
    await page.session.flush()
    page.store.dispatch(undone())
    await page.session.flush()
    expect(await browser.nameKept()).toBe('start')
  })
})

describe('two tabs', () => {
  it('do not overwrite each other: the second follows, and takes over when asked', async () => {
    const a = await open('a')
    const b = await open('b')
    expect(b.doc.role).toBe('following')
    a.edit('from a')
    await a.session.flush()
    await soon(() => b.doc.project!.name).toBe('from a')
    b.edit('not from b')
    expect(b.doc.project!.name).toBe('from a')
    a.edit('last of a')
    await b.session.takeOver()
    expect([a.doc.role, b.doc.role]).toEqual(['following', 'writing'])
    expect(b.doc.project!.name).toBe('last of a')
    b.edit('from b')
    await b.session.flush()
    await soon(() => a.doc.project!.name).toBe('from b')
  })

  it('pass the right on when the first is closed or dies', async () => {
    const a = await open('a')
    const b = await open('b')
    a.edit('from a')
    await a.session.flush()
    a.crash()
    await soon(() => b.doc.role).toBe('writing')
    b.edit('from b')
    await b.session.flush()
    expect(await browser.nameKept()).toBe('from b')
  })

  it('that both change a project without locks lose nothing: the later stands beside the other', async () => {
    const a = await open('a')
    browser.holder = null
    const b = await open('b')
    a.edit('from a')
    await a.session.flush()
    b.edit('from b')
    await b.session.flush()
    expect(await browser.nameKept()).toBe('from a')
    expect(await browser.names()).toEqual(expect.arrayContaining(['from a', 'from b, from another tab']))
    expect(browser.told.join(' ')).toContain('stands on the shelf as “from b, from another tab”')
    expect(b.doc.project!.name).toBe('from a')
  })

  it('lose nothing where one is still reading what the other kept when it becomes the one that writes', async () => {
    const a = await open('a')
    const b = await open('b')
    let answer: () => void = () => undefined
    const slow = new Promise<void>((resolve) => (answer = resolve))
    let reads = 0
    b.delay = () => (++reads === 1 ? slow : Promise.resolve())
    a.edit('from a')
    await a.session.flush()
    await soon(() => reads).toBeGreaterThan(0)
    const taken = b.session.takeOver()
    await sleep(50)
    if (b.doc.role === 'writing') b.edit('from b')
    answer()
    await taken
    if (b.doc.project!.name !== 'from b') b.edit('from b')
    await sleep(50)
    expect(b.doc).toMatchObject({ role: 'writing', project: { name: 'from b' } })
    await b.session.flush()
    expect(await browser.nameKept()).toBe('from b')
  })

  it('keep beside the other what is done while the store is still asked', async () => {
    const a = await open('a')
    browser.holder = null
    const b = await open('b')
    a.edit('from a')
    await a.session.flush()
    let answer: () => void = () => undefined
    const slow = new Promise<void>((resolve) => (answer = resolve))
    b.delay = () => slow
    b.edit('one')
    const kept = b.session.flush()
    await sleep(20)
    b.edit('two')
    answer()
    await kept
    expect((await browser.names()).toSorted()).toEqual(['from a', 'two, from another tab'])
    expect(b.doc).toMatchObject({ role: 'following', project: { name: 'from a' } })
  })

  it('count sheets taken from the drawer together', async () => {
    await browser.keep({ ...blank('other'), id: 'p2' })
    const a = await open('a')
    const b = new Page(browser, 'b')
    browser.holder = null
    await b.session.open('p2')
    const before = a.doc.stock[0]!.count
    const take = (page: Page, n: number) => {
      const { project, stock } = page.doc
      const fewer = stock.map((paper, i) => (i === 0 ? { ...paper, count: paper.count - n } : paper))
      page.store.dispatch(
        edited({ label: 'sheets', project: { ...project!, name: `${project!.name}!` }, stock: fewer }),
      )
    }
    take(a, 1)
    take(b, 1)
    await Promise.all([a.session.flush(), b.session.flush()])
    const kept = (await (await browser.vault).readStock())![0]!.count
    expect(kept).toBe(before - 2)
    await soon(() => [a.doc.stock[0]!.count, b.doc.stock[0]!.count]).toEqual([kept, kept])
  })
})

describe('a store that refuses', () => {
  it('is told once; the work goes on, survives the way to the shelf, and is kept once there is room', async () => {
    const page = await open('a')
    page.refuse = true
    for (const name of ['one', 'two', 'three']) {
      page.edit(name)
      await page.session.flush()
    }
    expect(browser.told).toHaveLength(1)
    expect(page.doc.trouble).toMatch(/full/)
    expect(page.doc.kept).toBeLessThan(page.doc.revision)
    page.session.close()
    await page.session.idle()
    await page.session.open(ID)
    expect(page.doc.project!.name).toBe('three')
    page.refuse = false
    page.edit('four')
    await page.session.flush()
    expect(await browser.nameKept()).toBe('four')
    expect(page.doc.trouble).toBeNull()
  })

  it('for good leaves a memory that does the same for as long as the page is open', async () => {
    const memory = new MemoryVault()
    const kept = {
      id: ID,
      revision: 1,
      text: writeProject(blank('a')),
      savedAt: 1,
      label: 'x',
      page: '',
      seq: 0,
    }
    const what = {
      kept,
      entry: entryOf(blank('a'), 1, 1),
      base: null,
      keepVersion: true,
      stock: null,
    }
    await memory.save(what)
    for (let k = 0; k < 14; k++) await memory.save({ ...what, kept: { ...kept, savedAt: 10 + k } })
    expect(await memory.versions(ID)).toHaveLength(MOST_VERSIONS)
    expect((await memory.entries()).map((entry) => entry.name)).toEqual(['a'])
    await memory.remove(ID)
    expect(await memory.ids()).toEqual([])
  })
})

describe('past versions', () => {
  it('are kept at the first change of a sitting and every ten minutes, the last ten', async () => {
    const page = await open('a')
    for (let k = 0; k < 14; k++) {
      page.edit(`v${k}`)
      await page.session.flush()
      page.edit(`v${k} again`)
      await page.session.flush()
      browser.time += 11 * 60_000
    }
    const versions = await (await browser.vault).versions(ID)
    expect(versions).toHaveLength(MOST_VERSIONS)
    expect(readProject(versions.at(-1)!.text).name).toBe('v12 again')
    const back = page.session.restore(versions[0]!)!
    page.store.dispatch(edited({ label: 'back', project: back }))
    await page.session.flush()
    expect(await browser.nameKept()).toBe(readProject(versions[0]!.text).name)
    const after = await (await browser.vault).versions(ID)
    expect(readProject(after.at(-1)!.text).name).toBe('v13 again')
  })
})

describe('what cannot be opened', () => {
  const put = async (text: unknown) => {
    const kept = { id: ID, revision: 3, text: text as string, savedAt: 1, label: '', page: '', seq: 0 }
    await (
      await browser.vault
    ).save({
      kept,
      entry: entryOf(blank('x'), 3, 1),
      base: null,
      keepVersion: true,
      stock: null,
    })
  }

  it('is said in a sentence, with its text and its past versions, and stays as it is', async () => {
    await put('{"layers":[')
    const page = new Page(browser, 'a')
    const answer = await page.session.open(ID)
    expect(answer).toMatchObject({
      kind: 'unreadable',
      text: '{"layers":[',
      sentence: expect.stringMatching(/damaged/) as string,
    })
    expect(answer.kind === 'unreadable' && answer.versions).toHaveLength(1)
    expect((await (await browser.vault).read(ID))!.text).toBe('{"layers":[')
  })

  it('of a newer version is opened to be looked at, and not changed', async () => {
    const newer = JSON.stringify({ ...blank('of tomorrow'), schemaVersion: 99, sparkle: true })
    await put(newer)
    const page = await open('a')
    expect(page.doc.role).toBe('reading')
    page.edit('spoilt')
    await page.session.flush()
    expect((await (await browser.vault).read(ID))!.text).toBe(newer)
  })

  it('is told where there is none', async () => {
    expect(await new Page(browser, 'a').session.open('nobody')).toEqual({ kind: 'missing' })
  })
})

/** What the model knows: the states that a page said are kept must be there afterwards, or a later one. */
type Move =
  | 'edit'
  | 'undo'
  | 'redo'
  | 'flush'
  | 'wait'
  | 'leave'
  | 'close tab'
  | 'crash'
  | 'second tab'
  | 'take over'
  | 'full'
  | 'room'
const moves: Move[] = [
  'edit',
  'edit',
  'edit',
  'undo',
  'redo',
  'flush',
  'wait',
  'leave',
  'close tab',
  'crash',
  'second tab',
  'take over',
  'full',
  'room',
]

describe('whatever happens', () => {
  it('what was said to be kept is there', async () => {
    let edits = 0
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.constantFrom(...moves), fc.nat(4)), { minLength: 3, maxLength: 22 }),
        async (steps) => {
          browser = new Browser()
          await browser.keep(blank('0'))
          let page = await open(`a${edits}`)
          let other: Page | null = null
          /** The last state that was said to be kept. */
          let said = '0'
          const note = () => {
            if (
              !page.dead &&
              page.doc.project &&
              page.doc.role === 'writing' &&
              page.doc.kept === page.doc.revision &&
              page.doc.trouble === null
            )
              said = page.doc.project.name
          }
          const anew = async () => {
            other?.crash()
            other = null
            browser.waiting = []
            page = await open(`a${++edits}`)
            // At the least what was said to be kept, and what a page that was shut began to write.
            expect(Number(page.doc.project!.name)).toBeGreaterThanOrEqual(Number(said))
          }
          for (const [move, wait] of steps) {
            if (move === 'edit') page.edit(String(++edits))
            else if (move === 'undo' || move === 'redo') {
              // Names rise with every state, so that later is larger.
              page.store.dispatch(move === 'undo' ? undone() : redone())
              page.edit(String(++edits))
            } else if (move === 'flush') await page.session.flush()
            else if (move === 'wait') await sleep(wait * 30)
            else if (move === 'leave') {
              const last = page.refuse ? said : page.doc.project!.name
              page.session.close()
              await page.session.idle()
              page.crash()
              await anew()
              expect(Number(page.doc.project!.name)).toBeGreaterThanOrEqual(Number(last))
            } else if (move === 'close tab') {
              const last = page.doc.role === 'writing' ? page.doc.project!.name : said
              page.shut()
              await anew()
              expect(Number(page.doc.project!.name)).toBeGreaterThanOrEqual(Number(last))
            } else if (move === 'crash') {
              note()
              page.crash()
              await anew()
            } else if (move === 'second tab') {
              if (!other) other = await open(`b${++edits}`)
            } else if (move === 'take over') {
              if (other && !page.refuse && page.doc.role === 'writing') {
                const last = page.doc.project!.name
                await other.session.takeOver()
                expect(Number(other.doc.project!.name)).toBeGreaterThanOrEqual(Number(last))
                ;[page, other] = [other, page]
              }
            } else page.refuse = move === 'full'
            await sleep(wait)
            note()
          }
        },
      ),
      { numRuns: 60, endOnFailure: true },
    )
  }, 120_000)

  it('a draft of a page that has gone on since is let go', async () => {
    const page = await open('a')
    page.edit('one')
    page.session.leaveInHaste()
    await page.session.flush()
    page.edit('two')
    await page.session.flush()
    page.crash()
    const drafts: Draft[] = await (await browser.vault).drafts(ID)
    expect(drafts.length).toBeLessThanOrEqual(1)
    expect((await open('b')).doc.project!.name).toBe('two')
  })
})
