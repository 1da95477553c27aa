// The main path without a pointer: from an empty shelf to cut files.
import { duneSvg, expect, test } from './app'
import type { Locator, Page } from '@playwright/test'

/** Goes on with Tab until a control has the focus; what has it must be in sight with a ring of its own. */
async function tabTo(page: Page, wanted: Locator, most = 80): Promise<void> {
  for (let k = 0; k < most; k++) {
    if (await wanted.evaluate((element) => element === document.activeElement).catch(() => false)) {
      const ring = await wanted.evaluate((element) => {
        const { outlineStyle, outlineWidth, boxShadow } = getComputedStyle(element)
        return outlineStyle !== 'none' && parseFloat(outlineWidth) > 0 ? 'ring' : boxShadow
      })
      expect(ring).not.toBe('none')
      return
    }
    await page.keyboard.press('Tab')
  }
  throw new Error('the focus never came there')
}

test('from an empty shelf to cut files by keyboard alone', async ({ app, page }) => {
  await page.goto('/')
  await tabTo(page, page.getByRole('button', { name: /^Frame/ }))
  await page.keyboard.press('Enter')
  await expect(page.getByRole('navigation', { name: 'Stages' })).toBeVisible()
  await tabTo(page, page.getByRole('textbox', { name: 'Depth', exact: true }))
  await page.keyboard.type('30')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  // Stages by their figures, once no field has the focus.
  await tabTo(page, page.getByRole('link', { name: 'Layers' }))
  await page.keyboard.press('Enter')
  const chooser = page.waitForEvent('filechooser')
  await tabTo(page, page.getByRole('button', { name: 'Bring in a drawing' }))
  await page.keyboard.press('Enter')
  await (
    await chooser
  ).setFiles({ name: 'dune.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(duneSvg) })
  await expect.poll(() => app.layerNames()).toHaveLength(3)
  await app.settled()
  await page.keyboard.press('3')
  await tabTo(page, page.getByRole('button', { name: 'Nearest papers for the bare layers' }))
  await page.keyboard.press('Enter')
  await app.settled()
  await page.keyboard.press('4')
  await app.settled()
  await tabTo(page, page.getByRole('button', { name: 'Cut files' }))
  await page.keyboard.press('Enter')
  const waiting = page.waitForEvent('download')
  await expect(page.getByRole('menu')).toBeVisible()
  await page.keyboard.press('Enter')
  expect((await waiting).suggestedFilename()).toMatch(/\.(zip|svg)$/)
})

test.describe('in a project', () => {
  test.use({ sharesPage: true })

  test('pieces on a sheet and layers on the board are picked by keyboard', async ({ app, page }) => {
    await app.openDemo('Harbour at dusk')
    await page.keyboard.press('2')
    await app.settled()
    const pier = page.getByRole('button', { name: 'Layer Pier', exact: true })
    await pier.focus()
    await page.keyboard.press('Enter')
    await expect(pier).toHaveAttribute('aria-pressed', 'true')
    await page.keyboard.press('4')
    await app.settled()
    await page
      .getByRole('button', { name: /^Load 1:/ })
      .first()
      .focus()
    await page.keyboard.press('Enter')
    const piece = page.locator('[data-piece]').first().locator('xpath=ancestor-or-self::*[@role="button"]')
    await piece.focus()
    await page.keyboard.press('Space')
    await expect(piece).toHaveAttribute('aria-pressed', 'true')
    await page.keyboard.press('ArrowDown')
    await expect(app.figure('Place')).toHaveText('pinned by hand')
  })
})
