// Pictures of the main views from the demo data, for the README: docs/screenshots/NAME.png at 1280 × 800.
// The built application must be there (npm run build). Names as arguments take only those.
import { choose } from './tests/app'
import { chromium, type Page } from '@playwright/test'
import { fileURLToPath } from 'node:url'
import { createApp } from '../server/src/app'
import { browserArgs, chromiumPath, spaceArgs } from './browser'

const port = 4192
const origin = `http://127.0.0.1:${port}`
const folder = process.env['SHOTS'] ?? fileURLToPath(new URL('../docs/screenshots/', import.meta.url))

async function openDemo(page: Page, title: string, stage: string): Promise<void> {
  await page.goto(`${origin}/?demo`)
  await page.getByRole('button', { name: `Open ${title}`, exact: true }).click()
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: stage }).click()
  await page.locator('[data-plan=settled]').waitFor()
  await page.waitForTimeout(900)
}

const pickLayer = (page: Page, id: string) => page.locator(`[data-row="${id}"] [role=button]`).first().click()

/** A made-up picture, painted in the page: a gull on a post before the evening sky. PNG. */
async function paintedGull(): Promise<number[]> {
  const canvas = document.createElement('canvas')
  canvas.width = 480
  canvas.height = 480
  const c = canvas.getContext('2d')!
  const sky = c.createLinearGradient(0, 0, 0, 360)
  sky.addColorStop(0, '#42598c')
  sky.addColorStop(0.6, '#c98f8a')
  sky.addColorStop(1, '#f2bea1')
  // Ellipses: fill, middle, half width and height, turn.
  const shapes = [
    ['#f4f1e8', 230, 260, 112, 76, -0.1],
    ['#f4f1e8', 330, 180, 52, 52, 0],
    ['#8b8f98', 200, 262, 92, 40, 0.25],
    ['#e0a030', 400, 190, 34, 12, 0.2],
    ['#1d1c1e', 344, 170, 10, 10, 0],
    ['#ffffff', 348, 166, 3.5, 3.5, 0],
  ] as const
  c.fillStyle = sky
  c.fillRect(0, 0, 480, 360)
  c.fillStyle = '#2f426f'
  c.fillRect(0, 340, 480, 140)
  c.fillStyle = '#6b553f'
  c.fillRect(205, 330, 60, 150)
  for (const [style, x, y, rx, ry, turn] of shapes) {
    c.fillStyle = style
    c.beginPath()
    c.ellipse(x, y, rx, ry, turn, 0, 7)
    c.fill()
  }
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'))
  return [...new Uint8Array(await blob!.arrayBuffer())]
}

const views: Record<string, (page: Page) => Promise<void>> = {
  shelf: async (page) => {
    await page.goto(`${origin}/?demo`)
    await page.getByRole('button', { name: 'Open Bon voyage', exact: true }).waitFor()
    await page.waitForTimeout(600)
  },
  measure: (page) => openDemo(page, 'Harbour at dusk', 'Measure'),
  layers: async (page) => {
    await openDemo(page, 'Tide rose', 'Layers')
    await pickLayer(page, 'breakers')
  },
  lettering: async (page) => {
    await openDemo(page, 'Bon voyage', 'Layers')
    await page.getByRole('button', { name: 'Grow layers' }).click()
    await page.getByRole('menuitem', { name: /^Lettering/ }).click()
    await page.getByRole('textbox', { name: 'Words' }).fill('low tide')
    await page.waitForTimeout(2500)
  },
  tones: async (page) => {
    await openDemo(page, 'Harbour at dusk', 'Layers')
    const buffer = Buffer.from(await page.evaluate(paintedGull))
    await page.getByLabel('Photo').setInputFiles({ name: 'gull.png', mimeType: 'image/png', buffer })
    await page.waitForTimeout(1200)
    await page.getByRole('radio', { name: 'my papers' }).click()
    await page.getByRole('radio', { name: 'dark', exact: true }).click()
    await page.waitForTimeout(2000)
  },
  wreath: (page) => openDemo(page, 'Dune garden', 'Layers'),
  pieces: async (page) => {
    await openDemo(page, 'Tide rose', 'Layers')
    await pickLayer(page, 'current')
    await page.keyboard.press('i')
    await page.getByRole('button', { name: 'Opening 1.4', exact: true }).press('Enter')
  },
  paper: async (page) => {
    await openDemo(page, 'Harbour at dusk', 'Paper')
    await pickLayer(page, 'swell')
  },
  sheets: async (page) => {
    await openDemo(page, 'Harbour at dusk', 'Sheets')
    // The room for the sheets is measured a moment later.
    await page.waitForTimeout(500)
  },
  drawer: async (page) => {
    await openDemo(page, 'Harbour at dusk', 'Paper')
    await page.getByRole('button', { name: 'Drawer as a table' }).click()
    await page.waitForTimeout(300)
  },
  cutter: async (page) => {
    await openDemo(page, 'Harbour at dusk', 'Sheets')
    await page.getByRole('button', { name: 'Cutter', exact: true }).click()
    await choose(page, 'Pace', '× 5')
    await page.getByRole('button', { name: 'Send to the cutter' }).click()
    await page.getByRole('button', { name: /^Tag 7/ }).click()
    await page.waitForTimeout(3000)
  },
  depth: async (page) => {
    await openDemo(page, 'Harbour at dusk', 'Depth')
    await pickLayer(page, 'swell')
  },
  section: async (page) => {
    await openDemo(page, 'Harbour at dusk', 'Depth')
    await page.getByRole('radio', { name: 'section' }).click()
    await page.getByLabel('From the top').fill('150')
    await page.getByLabel('From the top').press('Enter')
    await page.waitForTimeout(600)
  },
  'light-box': async (page) => {
    await openDemo(page, 'Kittiwake', 'Depth')
    await page.getByRole('radio', { name: 'light box' }).click()
    await page.locator('[data-light-box=drawn]').waitFor({ timeout: 60_000 })
    await page.waitForTimeout(2500)
  },
  assembly: async (page) => {
    await openDemo(page, 'Bon voyage', 'Assembly')
    await page.getByRole('button', { name: 'Plan back from a date' }).click()
    await page.getByLabel('Ready by').fill('2026-12-20T18:00')
    await page.waitForTimeout(500)
  },
  bench: async (page) => {
    await openDemo(page, 'Harbour at dusk', 'Assembly')
    await page.getByRole('button', { name: /bench/i }).first().click()
    await page.waitForTimeout(500)
    for (let i = 0; i < 24; i++) await page.keyboard.press('Space')
    await page.waitForTimeout(500)
  },
  price: async (page) => {
    await openDemo(page, 'Harbour at dusk', 'Journal')
    await page.getByRole('radio', { name: 'what it costs' }).click()
    await page.waitForTimeout(1200)
  },
  graph: async (page) => {
    await openDemo(page, 'Bon voyage', 'Assembly')
    await page.getByRole('radio', { name: 'what waits for what' }).click()
    await page.waitForTimeout(1200)
  },
  journal: (page) => openDemo(page, 'Harbour at dusk', 'Journal'),
}

const server = createApp(fileURLToPath(new URL('../web/dist', import.meta.url))).listen(port, '127.0.0.1')
const wanted = process.argv.slice(2)
for (const [name, show] of Object.entries(views)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue
  // What draws in three dimensions takes up to a minute for a picture of a large drawing.
  const args = name === 'light-box' ? spaceArgs : browserArgs
  const browser = await chromium.launch({ executablePath: chromiumPath, args })
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  page.on('pageerror', (error) => process.stderr.write(`${name}: ${error.message}\n`))
  page.on(
    'console',
    (message) => message.type() === 'error' && process.stderr.write(`${name}: ${message.text()}\n`),
  )
  await show(page)
  await page.screenshot({ path: `${folder}/${name}.png`, timeout: 180_000 })
  await browser.close()
}
server.close()
