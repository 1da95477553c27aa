// Browsers, their tabs and their store, for tests of the session: pages that die at any moment, a store that fails.
import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { configureStore } from '@reduxjs/toolkit'
import { expect } from 'vitest'
import {
  newProject,
  readProject,
  starterMount,
  writeProject,
  soundSupplies,
  type Project,
} from '@feuillet/core/project'
import { starterStock } from '@feuillet/core/stages/paper'
import { entryOf } from '../src/session/entry'
import { openVault } from '../src/session/indexed-vault'
import { MemoryVault } from '../src/session/memory-vault'
import { Session } from '../src/session/session'
import type { Claim, Tabs } from '../src/session/tabs'
import type { Vault } from '../src/session/vault'
import document, { edited } from '../src/state/document'
import { guard } from '../src/state/guard'

export const sleep = (ms = 0) => new Promise((resolve) => setTimeout(resolve, ms))
/** The project that a browser begins with. */
export const ID = 'p1'
/** So long a tab is waited for that is asked to hand a project over. */
const PATIENCE_MS = 1500
/** What comes by itself, however busy the machine is. */
export const soon = <T>(what: () => T | Promise<T>) => expect.poll(what, { timeout: 10_000, interval: 5 })
export const blank = (name: string): Project => ({ ...newProject(ID, name, starterMount('frame')), name })

/** One browser: its store, its pages, and the locks they hold. */
export class Browser {
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
export class Page {
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

  /** Opens the project that the browser began with. */
  async open(): Promise<this> {
    expect(await this.session.open(ID)).toMatchObject({ kind: 'open' })
    return this
  }

  get doc() {
    return this.store.getState().document
  }

  take(word: Parameters<Tabs['say']>[0]): void {
    if (this.dead || !this.hear) return
    if (word.kind === 'drawer') this.hear.drawer()
    else if (word.kind === 'kept') this.hear.kept(word.id, word.about)
    else this.hear.wanted(word.id)
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
