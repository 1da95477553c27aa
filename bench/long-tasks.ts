// The longest task of the page on each screen, when it is opened first and again, over all demos, as a share of the 100 ms
// that a press may wait. The built application must be there (npm run build). `tsx bench/long-tasks.ts [demo …]`.
import { chromium, type Page } from '@playwright/test'
import { fileURLToPath } from 'node:url'
import { loadGeometry } from '@feuillet/core/base/geometry'
import { demo, demoNames } from '@feuillet/core/demo'
import { STAGES } from '@feuillet/core/project'
import { browserArgs, chromiumPath } from '../e2e/browser'
import { createApp } from '../server/src/app'

const LIMIT_MS = 100
const port = 4193
const wanted = process.argv.slice(2)

/** The longest task since the last call, ms; 0 where none took 50 ms. */
async function longest(page: Page): Promise<number> {
  await page.waitForTimeout(400)
  return page.evaluate(() => Math.max(0, ...(window as unknown as { tasks: number[] }).tasks.splice(0)))
}

await loadGeometry()
const server = createApp(fileURLToPath(new URL('../web/dist', import.meta.url))).listen(port, '127.0.0.1')
for (const { name } of demoNames.map(demo)) {
  if (wanted.length > 0 && !wanted.some((word) => name.toLowerCase().includes(word.toLowerCase()))) continue
  const browser = await chromium.launch({ executablePath: chromiumPath, args: browserArgs })
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.addInitScript(() => {
    const tasks: number[] = []
    Object.assign(window, { tasks })
    new PerformanceObserver((list) => tasks.push(...list.getEntries().map((task) => task.duration))).observe({
      entryTypes: ['longtask'],
    })
  })
  const found: [string, number][] = []
  await page.goto(`http://127.0.0.1:${port}/?demo`)
  await page.getByRole('button', { name: `Open ${name}`, exact: true }).waitFor()
  found.push(['shelf', await longest(page)])
  await page.getByRole('button', { name: `Open ${name}`, exact: true }).click()
  await page.locator('[data-plan=settled]').waitFor()
  found.push(['opening', await longest(page)])
  for (const again of ['', ' again'])
    for (const stage of STAGES) {
      const link = page.getByRole('navigation', { name: 'Stages' }).getByRole('link')
      await link.nth(STAGES.indexOf(stage)).click()
      await page.locator('[data-plan=settled]').waitFor()
      found.push([stage + again, await longest(page)])
    }
  await browser.close()
  const most = Math.max(...found.map(([, ms]) => ms))
  const over70 = found
    .filter(([, ms]) => ms > 0.7 * LIMIT_MS)
    .map(([at, ms]) => `${at} ${(ms / LIMIT_MS).toFixed(2)}`)
  console.log(
    `${name.padEnd(20)} longest ${(most / LIMIT_MS).toFixed(2)}  over 0.70: ${over70.join(', ') || 'none'}`,
  )
}
server.close()
