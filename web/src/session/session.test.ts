// The session against a store that fails, and tabs beside it.
import { beforeEach, describe, expect, it } from 'vitest'
import {
  cutSheetSchema,
  readProject,
  takeAlong,
  writeProject,
  type Project,
  type Supplies,
} from '@feuillet/core/project'
import { starterStock } from '@feuillet/core/stages/paper'
import { blank, Browser, ID, Page, sleep, soon } from '../../test/browser'
import { edited, redone, undone } from '../state/document'
import { entryOf } from './entry'
import { MemoryVault } from './memory-vault'
import { MOST_VERSIONS } from './vault'

let browser: Browser
beforeEach(async () => {
  browser = new Browser()
  await browser.keep(blank('start'))
})
const open = (name: string) => new Page(browser, name).open()

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

  it('undo what was done here, and nothing that was done elsewhere meanwhile', async () => {
    await browser.keep({ ...blank('other'), id: 'p2' })
    const a = await open('a')
    const b = new Page(browser, 'b')
    browser.holder = null
    await b.session.open('p2')
    const { count } = a.doc.stock[0]!
    const { count: pads } = a.doc.supplies.foams[0]!
    const change = (page: Page, what: { sheets?: number; pads?: number; name?: string }) => {
      const { project, stock, supplies } = page.doc
      const [paper, ...papers] = stock
      const [foam, ...foams] = supplies.foams
      page.store.dispatch(
        edited({
          label: 'drawer',
          project: project!,
          stock: [
            { ...paper!, count: paper!.count + (what.sheets ?? 0), name: what.name ?? paper!.name },
            ...papers,
          ],
          supplies: { ...supplies, foams: [{ ...foam!, count: foam!.count + (what.pads ?? 0) }, ...foams] },
        }),
      )
      return page.session.flush()
    }
    const held = async () => {
      const vault = await browser.vault
      const [paper] = (await vault.readStock())!
      const { foams } = (await vault.readSupplies()) as Supplies
      return { sheets: paper!.count - count, pads: foams[0]!.count - pads, name: paper!.name }
    }
    await change(b, { sheets: 5, name: 'renamed' })
    await change(a, { sheets: -1, pads: -3 })
    await soon(() => b.doc.stock[0]!.count).toBe(count + 4)
    b.store.dispatch(undone())
    await b.session.flush()
    expect(await held()).toMatchObject({ sheets: -1, pads: -3, name: a.doc.stock[0]!.name })
    await change(a, { sheets: -1 })
    b.store.dispatch(redone())
    await b.session.flush()
    expect(await held()).toEqual({ sheets: 3, pads: -3, name: 'renamed' })
    a.store.dispatch(undone())
    a.store.dispatch(undone())
    await a.session.flush()
    expect(await held()).toEqual({ sheets: 5, pads: 0, name: 'renamed' })
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

describe('what was cut on the sheets of another', () => {
  const paper = starterStock()[0]!
  const piece = { pieceId: 'p1', folio: 'A1', layerName: 'Other: back', loose: false, printed: false, path: 'M0 0L9 0L9 9Z', x: 0, y: 0, rotation: 0 } // prettier-ignore
  const holder = (spoilt: 'torn' | null): Project => ({
    ...blank('holder'),
    id: 'holder',
    cut: [
      cutSheetSchema.parse({
        id: 's-1',
        number: 1,
        at: 5,
        paper,
        onOffCut: null,
        outline: 'M0 0L90 0L90 90Z',
        minutes: 3,
        pieces: [
          { ...piece, layerId: `${ID}:back`, guestId: ID },
          { ...piece, layerId: `${ID}:back`, guestId: ID, spoilt },
          { ...piece, layerId: 'own', guestId: null },
        ],
        took: { sheets: 1, offCut: null, keptIds: [] },
      }),
    ],
  })
  const known = (page: Page) =>
    page.doc.project!.cutElsewhere.map(({ projectId, name, sheets }) => [
      projectId,
      name,
      ...sheets.flatMap(({ pieces }) => pieces.map(({ layerId, pieceId }) => `${layerId}/${pieceId}`)),
    ])

  it('is known as its book has it whenever the project is opened, and stays when that is gone', async () => {
    expect(known(await open('a'))).toEqual([])
    browser.pages.at(-1)!.shut()
    await browser.keep(holder(null))
    const told = await open('b')
    expect(known(told)).toEqual([['holder', 'holder', 'back/p1', 'back/p1']])
    await told.session.flush()
    told.shut()
    await browser.keep(holder('torn'))
    const less = await open('c')
    expect(known(less)).toEqual([['holder', 'holder', 'back/p1']])
    await less.session.flush()
    less.shut()
    await (await browser.vault).remove('holder')
    const alone = await open('d')
    expect(known(alone)).toEqual([['holder', 'holder', 'back/p1']])
    // What is known already is not kept once more.
    expect(alone.doc.revision).toBe(alone.doc.kept)
  })

  it('is learned while it is open, and undo does not forget it', async () => {
    const page = await open('a')
    page.edit('before')
    const host = new Page(browser, 'b')
    browser.holder = null
    await browser.keep({ ...holder(null), cut: [], plan: takeAlong(blank('holder'), blank('start')).plan })
    await host.session.open('holder')
    host.edit('holder')
    await host.session.flush()
    await soon(() => page.doc.project!.plan.cutWith?.name).toBe('holder')
    host.store.dispatch(edited({ label: 'cut', project: { ...host.doc.project!, cut: holder(null).cut } }))
    await host.session.flush()
    await soon(() => known(page)).toEqual([['holder', 'holder', 'back/p1', 'back/p1']])
    host.store.dispatch(edited({ label: 'home', project: { ...host.doc.project!, plan: blank('x').plan } }))
    await host.session.flush()
    await soon(() => page.doc.project!.plan.cutWith).toBeNull()
    page.store.dispatch(undone())
    expect(known(page)).toEqual([['holder', 'holder', 'back/p1', 'back/p1']])
    expect(page.doc.project).toMatchObject({ name: 'start', plan: { cutWith: null } })
    host.store.dispatch(edited({ label: 'not cut', project: { ...host.doc.project!, cut: [] } }))
    await host.session.flush()
    await soon(() => known(page)).toEqual([])
    expect(page.doc.role).toBe('writing')
  })

  it('stays as it was known while its book cannot be read', async () => {
    await browser.keep(holder(null))
    const told = await open('a')
    await told.session.flush()
    told.shut()
    const vault = await browser.vault
    const kept = (await vault.read('holder'))!
    // It cuts along what is in its plan, as far as its index tells.
    const entry = entryOf({ ...holder(null), plan: takeAlong(blank('x'), blank('y')).plan }, 2, 2)
    await vault.save({ kept: { ...kept, revision: 2, text: '{"layers":[' }, entry, base: 1, keepVersion: false, stock: null }) // prettier-ignore
    const still = await open('b')
    expect(known(still)).toEqual([['holder', 'holder', 'back/p1', 'back/p1']])
    expect(still.doc.project!.plan.cutWith?.projectId).toBe('holder')
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
