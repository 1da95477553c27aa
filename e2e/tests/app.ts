// What every test starts from: a browser that fails the test on any console error, and a few maker's moves.
import type { DemoName } from '@feuillet/core/demo'
import { readFileSync } from 'node:fs'
import {
  test as base,
  expect,
  type ConsoleMessage,
  type Download,
  type Locator,
  type Page,
  type Request,
} from '@playwright/test'
import { origin } from '../browser'

export type StageTitle = 'Measure' | 'Layers' | 'Paper' | 'Sheets' | 'Depth' | 'Assembly' | 'Journal'

/** The demo projects as the shelf names them. */
export const demoTitles = {
  harbour: 'Harbour at dusk',
  'tide-rose': 'Tide rose',
  'bon-voyage': 'Bon voyage',
  'lantern-street': 'Lantern street',
  'dune-garden': 'Dune garden',
  regatta: 'Regatta',
  kittiwake: 'Kittiwake',
} as const satisfies Record<DemoName, string>
export type DemoTitle = (typeof demoTitles)[DemoName]

export class App {
  constructor(readonly page: Page) {}

  /** To the shelf: an empty one on a page of its own; on a shared page with what was left there, as by the browser's Back. */
  async toShelf(): Promise<void> {
    if (this.page.url() === 'about:blank') await this.page.goto('/')
    else
      await this.page.evaluate(() => {
        history.pushState({}, '', '/')
        dispatchEvent(new PopStateEvent('popstate'))
      })
    await expect(this.page.getByRole('heading', { name: 'Feuillet', exact: true })).toBeVisible()
  }

  /** Opens a demo from the shelf, as a project of its own. */
  async openDemo(title: DemoTitle): Promise<void> {
    await this.toShelf()
    await this.page.getByRole('button', { name: title }).first().click()
    await this.settled()
  }

  async startNew(kind: 'Frame' | 'Card' | 'Topper' | 'Garland'): Promise<void> {
    await this.toShelf()
    await this.page.getByRole('button', { name: new RegExp(`^${kind}`) }).click()
    await expect(this.page.getByRole('navigation', { name: 'Stages' })).toBeVisible()
  }

  async stage(title: StageTitle): Promise<void> {
    await this.page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: title }).click()
    await expect(
      this.page.getByRole('navigation', { name: 'Stages' }).locator('[aria-current=page]'),
    ).toContainText(title)
    await this.settled()
  }

  /** Waits until the planner has answered for all that is on screen. */
  async settled(): Promise<void> {
    await this.page.locator('[data-plan=settled]').waitFor()
  }

  /** Waits until what is on screen is kept. */
  async kept(): Promise<void> {
    await this.page.locator('[data-kept=saved]').waitFor()
  }

  get panel(): Locator {
    return this.page.locator('aside').last()
  }

  /** The value beside a figure's name in the panel. */
  figure(name: string): Locator {
    return this.panel
      .locator('dl > div', { has: this.page.locator('dt', { hasText: new RegExp(`^${name}`) }) })
      .locator('dd')
      .first()
  }

  snag(code: string): Locator {
    return this.panel.locator(`[data-snag="${code}"]`)
  }

  row(layerId: string): Locator {
    return this.page.locator(`[data-row="${layerId}"]`)
  }

  async pick(layerId: string): Promise<void> {
    await this.row(layerId).getByRole('button').first().click()
  }

  /** Layer names front to back, as the section lists them. */
  async layerNames(): Promise<string[]> {
    const rows = this.page.locator('[data-row]')
    const tops = await rows.evaluateAll((list) =>
      list.map((row) => ({
        top: row.getBoundingClientRect().top,
        name: row.querySelector('[data-name]')?.textContent ?? '',
      })),
    )
    return tops.toSorted((a, b) => a.top - b.top).map((row) => row.name)
  }

  field(label: string): Locator {
    return this.page.getByRole('textbox', { name: label, exact: true })
  }

  async type(label: string, text: string): Promise<void> {
    const field = this.field(label)
    await field.fill(text)
    await field.press('Enter')
  }

  async bringIn(name: string, svg: string): Promise<void> {
    await this.page
      .getByLabel('Drawing files')
      .setInputFiles({ name, mimeType: 'image/svg+xml', buffer: Buffer.from(svg) })
  }

  async undo(): Promise<void> {
    await this.page.getByRole('button', { name: 'Undo', exact: true }).click()
    await this.settled()
  }
}

interface Own {
  app: App
  /** The test works on a page that others of its worker worked on before: quick, for what changes nothing but its own project. */
  sharesPage: boolean
}

export const test = base.extend<Own, { sharedPage: Page }>({
  sharesPage: [false, { option: true }],

  sharedPage: [
    async ({ browser }, use) => {
      const context = await browser.newContext({ baseURL: origin, viewport: { width: 1280, height: 800 } })
      await use(await context.newPage())
      await context.close()
    },
    { scope: 'worker' },
  ],

  page: async ({ context, sharesPage, sharedPage }, use) => {
    await use(sharesPage ? sharedPage : await context.newPage())
  },

  app: async ({ page }, use) => {
    const errors: string[] = []
    const hears = {
      console: (message: ConsoleMessage) => {
        // The binding of three.js to React still uses a clock that three.js has renamed.
        if (message.text().startsWith('THREE.Clock')) return
        if (message.type() === 'error' || message.type() === 'warning') errors.push(message.text())
      },
      pageerror: (error: Error) => errors.push(error.message),
      request: (request: Request) => {
        if (!/^(blob:|data:|http:\/\/127\.0\.0\.1:)/.test(request.url()))
          errors.push(`asked for ${request.url()}`)
      },
    }
    page.on('console', hears.console)
    page.on('pageerror', hears.pageerror)
    page.on('request', hears.request)
    await use(new App(page))
    page.off('console', hears.console)
    page.off('pageerror', hears.pageerror)
    page.off('request', hears.request)
    expect(errors).toEqual([])
  },
})

export const contentOf = async (download: Download): Promise<Buffer> => readFileSync(await download.path())

/** A layered drawing of a frame's size that exists nowhere but here. */
export const duneSvg = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="200mm" viewBox="0 0 200 200">
  <g id="Dusk"><rect width="200" height="200" fill="#e9c9a0"/></g>
  <g id="Dunes" fill="#b07a4a"><path d="M0 0H200V200H0ZM24 24V120C60 90 110 130 176 100V24Z" fill-rule="evenodd"/></g>
  <g id="Grass" fill="#4d5c2f"><path d="M0 0H200V200H0ZM14 14V150C70 130 120 160 186 140V14Z" fill-rule="evenodd"/><rect x="60" y="40" width="30" height="30"/></g>
  <text x="10" y="10">words</text>
</svg>`

export { expect }

/** Picks an option of a list that opens. */
export async function choose(page: Page, label: string | RegExp, option: string | RegExp): Promise<void> {
  await page.getByRole('combobox', { name: label }).click()
  await page.getByRole('option', { name: option, exact: typeof option === 'string' }).click()
}
