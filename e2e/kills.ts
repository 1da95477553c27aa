// Kills the browser at random in the midst of edits and saves, opens it again, and compares what is there with what the page had
// called saved: `npx tsx e2e/kills.ts [times] [seed]`. The built application must be there (npm run build). Prints one line a kill
// and a sum; ends with 1 where anything was lost.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { seededRandom } from '@feuillet/core/base'
import { chromium, type BrowserContext } from '@playwright/test'
import { createApp } from '../server/src/app'
import { browserArgs, chromiumPath } from './browser'

const [times = 60, seed = 1] = process.argv.slice(2).map(Number)
const port = 4193
const random = seededRandom(seed)
const home = mkdtempSync(join(tmpdir(), 'kills-'))
const server = createApp(fileURLToPath(new URL('../web/dist', import.meta.url))).listen(port, '127.0.0.1')

const launch = (): Promise<BrowserContext> =>
  chromium.launchPersistentContext(home, {
    executablePath: chromiumPath,
    args: browserArgs,
    viewport: { width: 1280, height: 800 },
  })

const killAll = (): void => {
  try {
    execFileSync('pkill', ['-9', '-f', `user-data-dir=${home}`])
  } catch {
    // None was left.
  }
}

/** The last height that was typed, and the last that the page called saved. */
let typed = 20
let saved = 20
let lost = 0
let behind = 0

async function open(context: BrowserContext, first: boolean) {
  const page = context.pages()[0] ?? (await context.newPage())
  await page.goto(`http://127.0.0.1:${port}/${first ? '?demo' : ''}`)
  const field = page.getByRole('textbox', { name: 'Height it may have', exact: true })
  const card = page.getByRole('button', { name: 'Open Bon voyage', exact: true })
  await card.click()
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Measure' }).click()
  await field.waitFor()
  return { page, field }
}

try {
  for (let k = 0; k <= times; k++) {
    const context = await launch()
    const { page, field } = await open(context, k === 0)
    const there = Number(await field.inputValue())
    if (k > 0) {
      if (there < saved) lost++
      if (there < typed) behind++
      console.log(
        `${k}: typed ${typed}, called saved ${saved}, there ${there}${there < saved ? '  LOST' : ''}`,
      )
    }
    if (k === times) break
    typed = there
    saved = there
    await page.exposeFunction('tellSaved', (value: number) => {
      if (value > saved) saved = value
    })
    await page.evaluate(() => {
      // What was entered last: a press of Enter is taken in before the mark beside the name can change again.
      let entered = NaN
      document.addEventListener(
        'keydown',
        ({ key, target }) => {
          if (key === 'Enter' && target instanceof HTMLInputElement) entered = Number(target.value)
        },
        true,
      )
      const tell = (window as unknown as { tellSaved: (value: number) => void }).tellSaved
      new MutationObserver((changes) => {
        const now = document.querySelector('[data-kept]')?.getAttribute('data-kept')
        if (changes.some((change) => change.oldValue !== now) && now === 'saved') tell(entered)
      }).observe(document.body, { subtree: true, attributeFilter: ['data-kept'], attributeOldValue: true })
    })
    const until = performance.now() + 100 + random() * 2500
    const killed = new Promise<void>((resolve) =>
      setTimeout(() => {
        killAll()
        resolve()
      }, until - performance.now()),
    )
    while (performance.now() < until) {
      try {
        const next = Math.round((typed + 0.1) * 10) / 10
        await field.fill(String(next))
        await field.press('Enter')
        typed = next
        await page.waitForTimeout(random() * 700)
      } catch {
        break
      }
    }
    await killed
    await context.close().catch(() => undefined)
  }
  console.log(`${times} kills: ${lost} lost what was called saved, ${behind} lacked the last edit`)
} finally {
  killAll()
  server.close()
  rmSync(home, { recursive: true, force: true, maxRetries: 5 })
}
process.exit(lost > 0 ? 1 : 0)
