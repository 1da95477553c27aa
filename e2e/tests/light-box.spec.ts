// The work in space: drawn with a browser of its own that draws in three dimensions (playwright.config.ts).
import { contentOf, expect, test } from './app'

test('the light box shows the work in space, turns by keys, lights it from behind and gives a still', async ({
  app,
  page,
}) => {
  await app.openDemo('Lantern street')
  await app.stage('Depth')
  await page.getByRole('radio', { name: 'light box' }).click()
  const box = page.locator('[data-light-box]')
  await expect(box).toHaveAttribute('data-light-box', 'drawn', { timeout: 60_000 })
  // How much of the picture is neither background nor black: what is drawn changes with every look.
  const picture = () =>
    box.locator('canvas').evaluate((canvas: HTMLCanvasElement) => {
      const small = document.createElement('canvas')
      small.width = small.height = 48
      const context = small.getContext('2d')!
      context.drawImage(canvas, 0, 0, 48, 48)
      return [...context.getImageData(0, 0, 48, 48).data].reduce(
        (sum, v, i) => (sum * 31 + v * (i % 7)) % 1_000_003,
        0,
      )
    })
  const first = await picture()
  await box.focus()
  await page.keyboard.press('ArrowRight')
  await expect.poll(picture).not.toBe(first)
  const turned = await picture()
  await page.getByRole('slider', { name: 'Built up to layer' }).fill('2')
  await expect.poll(picture).not.toBe(turned)
  const low = await picture()
  await page.getByRole('radio', { name: 'cool behind' }).click()
  await expect.poll(picture).not.toBe(low)
  const glazed = await picture()
  await page.getByRole('switch', { name: 'Pane in' }).click()
  await expect.poll(picture).not.toBe(glazed)
  const waiting = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Take a still' }).click()
  const still = await contentOf(await waiting)
  expect(still.subarray(1, 4).toString()).toBe('PNG')
  await page.getByRole('radio', { name: 'pads', exact: true }).click()
  await expect(page.locator('canvas')).toHaveCount(0)
})
