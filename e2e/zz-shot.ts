// usage: tsx zz-shot.ts SPEC.json — SPEC: {project?, demo?, unit?, size:[w,h], views:[{name, stage, do?}], out, cols, scale}
import { chromium, type Page } from '@playwright/test'
import { readFileSync, writeFileSync } from 'node:fs'
import { createApp } from '../server/src/app'
import { browserArgs, chromiumPath } from './browser'
import { choose } from './tests/app'
const spec = (await import(process.argv[2]!)).default
const server = createApp('/work/main/web/dist').listen(0, '127.0.0.1')
await new Promise((r) => server.once('listening', r))
const origin = `http://127.0.0.1:${(server.address() as any).port}`
const browser = await chromium.launch({ executablePath: chromiumPath, args: browserArgs })
const tools = { choose, origin }
const [w, h] = spec.size ?? [1280, 800]
const page = await browser.newPage({ viewport: { width: w, height: h } })
page.on('console', (m) => { if (m.type() === 'error' || m.type() === 'warning') console.log('CONSOLE', m.text().slice(0, 300)) })
page.on('pageerror', (e) => console.log('PAGEERROR', e.message))
await page.goto(`${origin}/${spec.demo ? '?demo' : ''}`)
if (spec.demo) await page.getByRole('button', { name: `Open ${spec.demo}`, exact: true }).click()
else if (spec.project) await page.getByLabel('Project file').setInputFiles({ name: 'x.feuillet.json', mimeType: 'application/json', buffer: Buffer.from(spec.project) })
if (spec.demo || spec.project) await page.getByRole('navigation', { name: 'Stages' }).waitFor()
const shots: Buffer[] = []
for (const view of spec.views) {
  if (view.stage) {
    await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: view.stage }).click()
    await page.locator('[data-plan=settled]').waitFor({ timeout: 60000 })
  }
  await page.waitForTimeout(view.wait ?? 700)
  try { if (view.do) await view.do(page, tools) } catch (e) { console.log('DO', String(e).slice(0, 600)) }
  if (view.do) await page.waitForTimeout(600)
  const over = await page.evaluate(() => [document.documentElement.scrollWidth > innerWidth, document.documentElement.scrollHeight > innerHeight])
  if (over[0] || over[1]) console.log(view.stage ?? view.name, 'frame scrolls', over)
  const cut = await page.evaluate(() => [...document.querySelectorAll('nav a, button, th, dt, dd, h2, label')].filter((e) => e.scrollWidth > e.clientWidth + 1 && getComputedStyle(e).overflowX !== 'visible' && (e as HTMLElement).offsetWidth > 0 && !e.closest('.sr-only')).map((e) => e.tagName + ':' + (e.textContent ?? '').slice(0, 40)).slice(0, 8))
  if (cut.length) console.log(view.stage ?? view.name, 'cut', JSON.stringify(cut))
  shots.push(await page.screenshot())
}
if (shots.length === 1) writeFileSync(spec.out, shots[0]!)
else {
  const cols = spec.cols ?? 2
  const cell = spec.cell ?? 960
  const sheet = await browser.newPage({ viewport: { width: cols * cell, height: Math.ceil(shots.length / cols) * Math.round(cell * h / w) } })
  await sheet.setContent(`<body style="margin:0;display:grid;grid-template-columns:repeat(${cols},${cell}px);gap:0">${shots.map((s) => `<img style="width:${cell}px;outline:1px solid red" src="data:image/png;base64,${s.toString('base64')}">`).join('')}</body>`)
  await sheet.waitForTimeout(300)
  await sheet.screenshot({ path: spec.out })
}
await browser.close(); server.close()
process.exit(0)
