// Pictures that are printed on layers: brought in, placed by hand and by number, seen on the sheets, printed, windowed.
import type { Page } from '@playwright/test'
import { unzipSync } from 'fflate'
import { choose, contentOf, expect, test } from './app'

/** A made-up picture of 600 × 300 pixels, painted in the page. */
test.use({ sharesPage: true })

async function picture(page: Page): Promise<{ name: string; mimeType: string; buffer: Buffer }> {
  const bytes = await page.evaluate(async () => {
    const canvas = document.createElement('canvas')
    canvas.width = 600
    canvas.height = 300
    const c = canvas.getContext('2d')!
    c.fillStyle = '#5fa3ab'
    c.fillRect(0, 0, 600, 300)
    c.fillStyle = '#c9463d'
    c.fillRect(0, 0, 300, 150)
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'))
    return [...new Uint8Array(await blob!.arrayBuffer())]
  })
  return { name: 'flag.png', mimeType: 'image/png', buffer: Buffer.from(bytes) }
}

test('a picture is printed on a layer, placed by hand and by number, and told of where it is coarse or short', async ({
  app,
  page,
}) => {
  await app.openDemo('Bon voyage')
  await app.stage('Layers')
  await app.pick('backing')
  await page.getByLabel('Picture to print').setInputFiles(await picture(page))
  await expect(app.figure('Fineness')).toHaveText(/^\d+ dpi$/)
  await expect(app.snag('print-coarse')).toContainText('dpi')
  const width = Number(await app.field('Width of the picture').inputValue())
  // 600 pixels over its width.
  const dpi = Number((await app.figure('Fineness').textContent())!.replace(' dpi', ''))
  expect(dpi).toBe(Math.round((600 / width) * 25.4))
  await app.type('Width of the picture', '90')
  await expect(app.snag('print-bare')).toBeVisible()
  await expect(app.snag('print-coarse')).toHaveCount(0)
  await app.snag('print-bare').getByRole('button', { name: 'Let it cover all' }).click()
  await expect(app.snag('print-bare')).toHaveCount(0)
  // Dragged and nudged, and back by undo.
  await page.getByRole('switch', { name: 'Move the picture, not the card' }).click()
  const left = async () => Number(await app.field('Its middle, from the left').inputValue())
  const before = await left()
  const box = (await page.locator('[data-picture]').boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2 + 10, { steps: 4 })
  await page.mouse.up()
  await expect.poll(left).toBeGreaterThan(before + 5)
  await expect(app.snag('print-bare')).toBeVisible()
  await app.undo()
  await expect.poll(left).toBeCloseTo(before, 2)
  await page
    .locator('svg [data-board]')
    .first()
    .focus()
    .catch(() => undefined)
  await page.keyboard.press('Shift+ArrowRight')
  await expect.poll(left).toBeCloseTo(before + 5, 2)
  await page.getByRole('button', { name: 'No picture' }).click()
  await expect(page.getByRole('button', { name: 'Print a picture on it' })).toBeVisible()
  await app.undo()
  await expect(app.figure('Fineness')).toBeVisible()
})

test('a photo window is grown round a picture, and its print sheet goes out with the cut files', async ({
  app,
  page,
}) => {
  await app.startNew('Frame')
  await app.stage('Layers')
  await page.getByRole('button', { name: 'Grow layers' }).click()
  await page.getByRole('menuitem', { name: /^Photo window/ }).click()
  await expect(app.panel).toContainText('No picture is chosen')
  await page.getByLabel('Picture of the window').setInputFiles(await picture(page))
  await expect(app.figure('Fineness')).toBeVisible()
  await choose(page, 'Opening', 'heart')
  await app.type('Picture under the ring', '12')
  await expect(app.panel.getByRole('alert')).toContainText('stands out beside it')
  await app.type('Picture under the ring', '4')
  await page.getByRole('button', { name: 'Take these layers' }).click()
  await expect.poll(() => app.layerNames()).toEqual(['Ring', 'Clear pane', 'Picture'])
  await expect(page.locator('[data-print]').first()).toBeVisible()
  await app.stage('Sheets')
  await expect(page.locator('[data-print]').first()).toBeVisible()
  const waiting = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Cut files' }).click()
  await expect(page.getByRole('menuitem', { name: /^Print sheet of load \d+, Print card/ })).toBeVisible()
  await page.getByRole('menuitem', { name: /^Everything in one zip/ }).click()
  const files = unzipSync(new Uint8Array(await contentOf(await waiting)))
  const name = Object.keys(files).find((file) => file.endsWith('-print.pdf'))!
  expect(new TextDecoder('latin1').decode(files[name]!.subarray(0, 5))).toBe('%PDF-')
  const svg = new TextDecoder().decode(files[name.replace('-print.pdf', '.svg')])
  expect(svg).toContain('id="print-marks"')
  await app.stage('Assembly')
  await expect(page.getByText(/^Let the ink of load \d+ dry$/)).toBeVisible()
})
