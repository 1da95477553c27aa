// How long presses and keys take from the event to the next paint, at rest and while all search workers are at it.
// The built application must be there (npm run build). `tsx bench/interaction.ts [rounds]`.
import { chromium, type Page } from '@playwright/test'
import { fileURLToPath } from 'node:url'
import { browserArgs, chromiumPath } from '../e2e/browser'
import { createApp } from '../server/src/app'

const ROUNDS = Number(process.argv[2] ?? 12)
const port = 4193

/** Durations (ms, in steps of 8) of the events since the last call, as the browser measured them. */
const durations = (page: Page): Promise<number[]> =>
  page.evaluate(() => {
    const seen = (window as unknown as { seen: number[] }).seen
    return seen.splice(0)
  })

async function interact(page: Page): Promise<number[]> {
  const tabs = page.getByRole('region', { name: 'Order of loads' }).getByRole('button')
  const count = await tabs.count()
  await durations(page)
  for (let round = 0; round < ROUNDS; round++) {
    await tabs.nth(round % count).click()
    await page.waitForTimeout(120)
    await page.keyboard.press('a')
    await page.waitForTimeout(120)
    await page.getByRole('button', { name: 'All sheets' }).click()
    await page.waitForTimeout(120)
  }
  await page.waitForTimeout(300)
  return (await durations(page)).sort((a, b) => a - b)
}

const server = createApp(fileURLToPath(new URL('../web/dist', import.meta.url))).listen(port, '127.0.0.1')
const browser = await chromium.launch({ executablePath: chromiumPath, args: browserArgs })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.addInitScript(() => {
  const seen: number[] = []
  Object.assign(window, { seen })
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries() as PerformanceEventTiming[])
      if (entry.interactionId > 0) seen.push(entry.duration)
  }).observe({ type: 'event', durationThreshold: 16 } as PerformanceObserverInit)
})
await page.goto(`http://127.0.0.1:${port}/?demo`)
await page.getByRole('button', { name: 'Open Harbour at dusk', exact: true }).click()
await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Sheets' }).click()
await page.locator('[data-plan=settled]').waitFor()
await page.waitForTimeout(1500)

const row = (name: string, list: number[]) => {
  const at = (share: number) => list[Math.min(list.length - 1, Math.floor(share * list.length))] ?? 0
  console.log(
    `${name.padEnd(24)} ${String(list.length).padStart(4)} events  median ${at(0.5)} ms  nine in ten ${at(0.9)} ms  longest ${at(1)} ms`,
  )
  return at(0.9)
}
const rest = row('at rest', await interact(page))
await page.getByRole('combobox', { name: 'How long to search' }).selectOption('60')
await page.getByRole('button', { name: 'Search', exact: true }).click()
await page.waitForTimeout(1500)
const busy = row('while workers search', await interact(page))
console.log(`nine in ten, searching against at rest: ${(busy / rest).toFixed(2)}`)
await browser.close()
server.close()
