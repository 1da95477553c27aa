// The simulated cutter, run from the sheets stage.
import { choose, expect, test } from './app'

test.describe.configure({ mode: 'serial' })

test('cuts a load: the right sheet only, pause, a slip, and the log knows', async ({ app, page }) => {
  await app.openDemo('Harbour at dusk')
  await app.stage('Sheets')
  await page.getByRole('button', { name: 'Cutter', exact: true }).click()
  await choose(page, 'Pace', '× 5')
  await app.panel.getByText('Mat slips on the way').click()
  await page.getByRole('button', { name: 'Send to the cutter' }).click()
  await expect(app.panel.getByRole('status')).toContainText('Waits for the sheet: Night tide')
  await page.getByRole('button', { name: 'Tag 7, Night tide' }).click()
  await expect(app.panel.getByRole('status')).toContainText('Cutting, pass 1 of 1')
  const blade = page.locator('[data-blade]')
  const before = await blade.getAttribute('transform')
  await expect.poll(() => blade.getAttribute('transform')).not.toBe(before)
  // What is cut stays drawn, and grows.
  const cutWays = page.locator('[data-cut-so-far]')
  await expect.poll(async () => Number(await cutWays.getAttribute('data-cut-so-far'))).toBeGreaterThan(1)
  await page.getByRole('button', { name: 'Pause' }).click()
  await expect(app.panel.getByRole('status')).toContainText('Paused')
  await page.getByRole('button', { name: 'Go on' }).click()
  await choose(page, 'Pace', '× 60')
  await expect(app.panel.getByRole('status')).toContainText('The mat has slipped')
  await page.getByRole('button', { name: 'Go on' }).click()
  await expect(app.panel.getByRole('status')).toContainText('Done.')
  await expect(page.getByRole('button', { name: /Next: load 2/ })).toBeVisible()
  await page.getByRole('button', { name: 'Back to the sheets' }).click()
  await app.stage('Journal')
  await expect(page.locator('[data-run]')).toContainText('✓ cut through')
  await app.stage('Assembly')
  await expect(page.locator('[data-step^="cut-"] [role=checkbox]').first()).toBeChecked()
})

test('a power cut loses nothing, even over a reload; a worn blade wants one more pass', async ({
  app,
  page,
}) => {
  await app.openDemo('Bon voyage')
  await app.stage('Sheets')
  await page.getByRole('button', { name: 'Cutter', exact: true }).click()
  await choose(page, 'Pace', '× 60')
  await app.panel.getByText('Power fails on the way').click()
  await app.panel.getByText('Blade is worn').click()
  await page.getByRole('button', { name: 'Send to the cutter' }).click()
  await page.getByRole('button', { name: /^Tag / }).first().click()
  await expect(app.panel.getByRole('status')).toContainText('The power is gone')
  await app.kept()
  await page.reload()
  await app.settled()
  await page.getByRole('button', { name: 'Cutter', exact: true }).click()
  await page.getByRole('button', { name: 'Switch it on' }).click()
  await page.getByRole('button', { name: 'Go on' }).click()
  await expect(app.panel.getByRole('status')).toContainText('Not cut through')
  await page.getByRole('button', { name: 'Go over it again' }).click()
  await expect(app.panel.getByRole('status')).toContainText('Done.')
  await app.panel.getByText('Blade is worn').click()
  await page.getByRole('button', { name: 'Back to the sheets' }).click()
  await app.stage('Journal')
  await expect(page.locator('[data-run]')).toHaveCount(2)
})

test('without the server the files are offered, and a plain word why', async ({ app, page }) => {
  await page.route('**/api/cutter', (route) =>
    route.fulfill({ status: 200, contentType: 'text/html', body: '<!doctype html>' }),
  )
  await app.openDemo('Bon voyage')
  await app.stage('Sheets')
  await page.getByRole('button', { name: 'Cutter', exact: true }).click()
  await expect(app.panel).toContainText('No cutter answers.')
  await page.getByRole('button', { name: 'Back to the sheets' }).click()
  await expect(page.getByRole('button', { name: 'Cut files' })).toBeEnabled()
})
