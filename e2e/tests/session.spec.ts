// Nothing is lost: projects left in haste, two tabs, stores that refuse, workers that die, documents that are damaged.
import { writeProject, type Project } from '@feuillet/core/project'
import { loadGeometry } from '@feuillet/core/base/geometry'
import { demo } from '@feuillet/core/demo'
import type { BrowserContext, Page } from '@playwright/test'
import { App, contentOf, expect, test } from './app'

test.beforeAll(() => loadGeometry())

const projectFile = (page: Page, name: string, text: string) =>
  page
    .getByLabel('Project file')
    .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) })

/** A page of the same browser in which anything may go wrong. */
const anotherPage = async (context: BrowserContext, url: string): Promise<App> => {
  const page = await context.newPage()
  await page.goto(url)
  return new App(page)
}

test('a change right before the end is there, however the page is left', async ({ app, page, context }) => {
  const leave: [string, (page: Page) => Promise<unknown>][] = [
    ['the page is loaded anew', (page) => page.reload()],
    ['the way to the shelf', (page) => page.getByRole('link', { name: 'To the shelf of projects' }).click()],
    ['the way back', (page) => page.goBack()],
    ['the tab is closed', (page) => page.close({ runBeforeUnload: false })],
  ]
  await app.openDemo('Bon voyage')
  const { origin, pathname } = new URL(page.url())
  const url = origin + pathname
  await page.goto('about:blank')
  let one = await anotherPage(context, url)
  for (const [k, [how, go]] of leave.entries())
    await test.step(how, async () => {
      await one.settled()
      await one.page.evaluate(() => history.pushState(null, '', location.href))
      await one.type('Height it may have', String(11 + k))
      // A browser waits half a second for a page that closes; the page must have come to the key press by then.
      await one.page.evaluate(() => new Promise(requestAnimationFrame))
      await go(one.page)
      const next = await anotherPage(context, url)
      await next.settled()
      await expect(next.field('Height it may have')).toHaveValue(String(11 + k))
      // The project belongs to the one page that is left.
      if (!one.page.isClosed()) await one.page.close()
      await expect(next.page.getByText('This project is open in another tab')).toHaveCount(0)
      one = next
    })
})

test('two tabs: the second follows the first, takes over, and nothing is overwritten', async ({
  app,
  page,
  context,
}) => {
  await app.openDemo('Bon voyage')
  const second = await anotherPage(context, page.url())
  await expect(second.page.getByText('This project is open in another tab')).toBeVisible()
  await app.type('Height it may have', '21')
  await expect(second.field('Height it may have')).toHaveValue('21')
  await second.type('Height it may have', '5')
  await expect(second.page.getByText('take it over at the top')).toBeVisible()
  await second.page.getByRole('button', { name: 'Take it over' }).click()
  await expect(second.page.getByText('This project is open in another tab')).toHaveCount(0)
  await second.type('Height it may have', '22')
  await expect(app.field('Height it may have')).toHaveValue('22')
  await expect(page.getByText('This project is open in another tab')).toBeVisible()
  await second.page.close()
  await expect(page.getByText('This project is open in another tab')).toHaveCount(0)
  await app.type('Height it may have', '23')
  await app.kept()
})

test('a browser that keeps nothing is told of, and the work goes on', async ({ app, page }) => {
  await page.addInitScript(() => {
    Object.defineProperty(window, 'indexedDB', { get: () => undefined })
  })
  await page.goto('/')
  await expect(page.getByRole('alert')).toContainText('blocks storage')
  await page.getByRole('button', { name: 'Tide rose' }).first().click()
  await app.settled()
  await expect(page.getByText('This browser blocks storage')).toBeVisible()
  await app.type('Height it may have', '7')
  await page.getByRole('link', { name: 'To the shelf of projects' }).click()
  await page.getByRole('button', { name: 'Open Tide rose' }).click()
  await expect(app.field('Height it may have')).toHaveValue('7')
  const waiting = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save it as a file' }).click()
  expect((await contentOf(await waiting)).toString()).toContain('"depthMm": 7')
})

test('a full store is told of once, and a file is one press away', async ({ app, page }) => {
  await app.openDemo('Bon voyage')
  await app.kept()
  await page.evaluate(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('full', 'QuotaExceededError')
    }
  })
  for (const depth of ['9', '10', '11']) await app.type('Height it may have', depth)
  await expect(page.getByText('Not kept: the browser’s storage is full')).toBeVisible()
  await expect(page.locator('[data-sonner-toast]')).toHaveCount(1)
  const waiting = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save it as a file' }).click()
  expect((await contentOf(await waiting)).toString()).toContain('"depthMm": 11')
})

test('a planner that is ended from outside is started anew, and its figures come back', async ({
  app,
  page,
}) => {
  await app.openDemo('Harbour at dusk')
  await app.stage('Depth')
  const stack = await app.figure('Stack').textContent()
  for (let k = 0; k < 2; k++) {
    const worker = page.workers().find((one) => one.url().includes('planner'))!
    // As a browser does that runs short of memory.
    await worker.evaluate(() => self.close()).catch(() => undefined)
    await expect(page.getByText('The planner broke off and was started anew').first()).toBeVisible()
    await app.settled()
    await expect(app.figure('Stack')).toHaveText(stack!)
  }
  await app.panel.getByRole('radio', { name: '3 mm', exact: true }).click()
  await app.settled()
  await expect(app.figure('Stack')).not.toHaveText(stack!)
})

test('past versions can be looked at and gone back to', async ({ app, page }) => {
  await app.openDemo('Bon voyage')
  await app.type('Height it may have', '14')
  await app.kept()
  await page.getByRole('button', { name: /^Project:/ }).click()
  await page.getByRole('menuitem', { name: 'Past versions' }).click()
  const dialog = page.getByRole('dialog')
  await expect(
    dialog.getByRole('list', { name: 'Versions, the newest first' }).getByRole('listitem'),
  ).toHaveCount(1)
  await expect(dialog.locator('svg').first()).toBeVisible()
  await dialog.getByRole('button', { name: 'Go back to this version' }).click()
  await expect(app.field('Height it may have')).toHaveValue('3')
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(app.field('Height it may have')).toHaveValue('14')
})

test('what cannot be opened stands on the shelf, can be exported, and is never overwritten', async ({
  app,
  page,
}) => {
  await app.openDemo('Bon voyage')
  await app.type('Height it may have', '16')
  await app.kept()
  const id = new URL(page.url()).pathname.split('/')[2]!
  await page.goto('/')
  // As a store is that lost a part of what it holds.
  await page.evaluate(async (key) => {
    const db = await new Promise<IDBDatabase>((done) => {
      const asked = indexedDB.open('feuillet-vault')
      asked.onsuccess = () => done(asked.result)
    })
    const tx = db.transaction(['projects', 'index'], 'readwrite')
    const store = tx.objectStore('projects')
    store.get(key).onsuccess = (event) => {
      const kept = (event.target as IDBRequest<{ text: string }>).result
      store.put({ ...kept, text: kept.text.slice(0, 900) })
    }
    tx.objectStore('index').delete(key)
    await new Promise((done) => (tx.oncomplete = done))
    db.close()
  }, id)
  await page.reload()
  const card = page.locator('[data-project="Bon voyage"]')
  await expect(card).toContainText('damaged: it can be exported')
  await projectFile(page, 'same.feuillet.json', writeProject({ ...demo('bon-voyage'), id }))
  await app.settled()
  expect(new URL(page.url()).pathname).not.toContain(id)
  await page.goto(`/project/${id}`)
  await expect(page.getByRole('alert')).toContainText('This project is damaged')
  const waiting = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save its text as a file' }).click()
  expect((await contentOf(await waiting)).toString()).toHaveLength(900)
  await page.getByRole('button', { name: 'Go back to it' }).click()
  await expect(app.field('Height it may have')).toHaveValue('3')
  // What could not be opened is among the past versions; nothing goes back to it, and its text can still be had.
  await page.getByRole('button', { name: /^Project:/ }).click()
  await page.getByRole('menuitem', { name: 'Past versions' }).click()
  const damaged = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Go back to this version' }).click()
  expect((await contentOf(await damaged)).toString()).toHaveLength(900)
  await expect(page.getByText('This version is damaged and cannot be opened.')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(app.field('Height it may have')).toHaveValue('3')
})

test('a project of a newer Feuillet is shown and not changed', async ({ app, page }) => {
  await app.openDemo('Bon voyage')
  await page.goto('/')
  const newer = { ...demo('bon-voyage'), id: 'of-tomorrow', name: 'Of tomorrow', schemaVersion: 9 }
  await page.evaluate(
    async ([key, text]) => {
      const db = await new Promise<IDBDatabase>((done) => {
        const asked = indexedDB.open('feuillet-vault')
        asked.onsuccess = () => done(asked.result)
      })
      const tx = db.transaction('projects', 'readwrite')
      tx.objectStore('projects').put({ id: key, revision: 1, text, savedAt: 1, label: '', page: '', seq: 0 })
      await new Promise((done) => (tx.oncomplete = done))
      db.close()
    },
    ['of-tomorrow', JSON.stringify(newer)] as const,
  )
  await page.reload()
  await expect(page.locator('[data-project="Of tomorrow"]')).toContainText('of a newer Feuillet')
  await page.getByRole('button', { name: 'Open Of tomorrow' }).click()
  await app.settled()
  await expect(page.getByText('It was written by a newer Feuillet').first()).toBeVisible()
  await app.type('Height it may have', '4')
  await expect(page.getByText('looked at and exported, not changed').first()).toBeVisible()
})

test('documents that are damaged in part open with the rest, and say what was left out', async ({
  app,
  page,
}) => {
  const base = demo('bon-voyage')
  const odd = (change: (p: Project) => unknown) => JSON.stringify(change(structuredClone(base)))
  const layer = base.layers[1]!
  const kinds: [string, string][] = [
    ...['M0 0L5 5', 'M-1e308 0L1e308 0L0 1e308Z'].map((path): [string, string] => [
      `a piece ${path}`,
      odd((p) => ({ ...p, layers: [...p.layers, { ...layer, id: 'odd', pieces: [{ id: 'x', path }] }] })),
    ]),
    [
      'a layer without pieces',
      odd((p) => ({ ...p, layers: [...p.layers, { ...layer, id: 'none', pieces: [] }] })),
    ],
    ['an id with a slash', odd((p) => ({ ...p, id: 'a/b?c#d%e' }))],
    [
      'ids of dots',
      odd((p) => ({
        ...p,
        id: '..',
        layers: p.layers.map((l, i) => ({ ...l, id: `${'.'.repeat(i + 1)}/#` })),
      })),
    ],
    ['a name of marks', odd((p) => ({ ...p, name: 'a' + '\u0301'.repeat(60_000) }))],
    [
      'a pin far out',
      odd((p) => ({
        ...p,
        plan: {
          ...p.plan,
          pins: [{ layerId: layer.id, pieceId: 'p1', copy: 1e9, sheet: 10_000, x: 0, y: 0, rotation: 0 }],
        },
      })),
    ],
    ['values in each other', `{"layers":${'['.repeat(20_000)}${']'.repeat(20_000)}}`],
    [
      'a bad off-cut',
      odd((p) => ({
        ...p,
        drawer: {
          ...p.drawer,
          papers: p.drawer.papers.map((paper) => ({
            ...paper,
            offCuts: [{ id: 'o', label: '', path: 'M0 0C' }],
          })),
        },
      })),
    ],
  ]
  for (const [kind, text] of kinds) {
    await test.step(kind, async () => {
      await app.toShelf()
      await projectFile(page, 'odd.json', text)
      const opened = page.locator('[data-plan=settled]')
      await expect(opened.or(page.getByRole('alert').filter({ hasText: 'odd.json: ' }))).toBeVisible()
      if (!(await opened.isVisible())) return
      for (const stage of ['Layers', 'Depth'] as const) {
        await app.stage(stage)
        await expect(page.getByText('This screen broke off')).toHaveCount(0)
      }
      // As it was kept it opens again.
      await app.toShelf()
      await page.goBack()
      await app.settled()
    })
  }
})

test('a shelf of many projects opens by its index', async ({ page }) => {
  await page.goto('/')
  // The store is made by the application, not by this test.
  await expect(page.getByRole('heading', { name: 'Feuillet', exact: true })).toBeVisible()
  const text = writeProject(demo('bon-voyage'))
  await page.evaluate(
    async ([project, many]) => {
      const db = await new Promise<IDBDatabase>((done) => {
        const asked = indexedDB.open('feuillet-vault')
        asked.onsuccess = () => done(asked.result)
      })
      const tx = db.transaction(['projects', 'index'], 'readwrite')
      const [x, y] = [0, 0]
      for (let k = 0; k < many; k++) {
        const id = `many-${k}`
        tx.objectStore('projects').put({
          id,
          revision: 1,
          text: project,
          savedAt: k,
          label: '',
          page: '',
          seq: 0,
        })
        tx.objectStore('index').put({
          id,
          name: `Project ${k}`,
          kind: 'topper',
          widthMm: 150,
          heightMm: 40,
          unit: 'mm',
          layers: 3,
          savedAt: k,
          revision: 1,
          picture: { box: [x, y, 150, 40], shapes: [{ path: 'M0 0L150 0L150 40Z', fill: '#884422' }] },
          guestIds: [],
          cutForIds: [],
          cutWith: null,
          schemaVersion: 2,
          trouble: null,
        })
      }
      await new Promise((done) => (tx.oncomplete = done))
      db.close()
    },
    [text, 300] as const,
  )
  await page.reload()
  await expect(page.getByRole('button', { name: /^Open Project/ })).toHaveCount(300)
})
