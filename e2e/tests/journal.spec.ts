// Which to make for a fair.
import { expect, test } from './app'

test('for a fair the best numbers are chosen from what is at hand', async ({ app, page }) => {
  await app.openDemo('Bon voyage')
  await app.stage('Journal')
  await page.getByRole('radio', { name: 'for a fair' }).click()
  await expect(page.getByText(/^Counting/)).toHaveCount(0, { timeout: 60_000 })
  await app.type('Evenings until then', '1')
  await app.type('Hours an evening', '1')
  await page.getByRole('button', { name: 'Choose the best' }).click()
  // An hour, of which one takes sixteen minutes and a half.
  await expect(page.getByTestId('make-Bon voyage')).toHaveText('3')
  await page.getByLabel('At least of Bon voyage').fill('9')
  await page.getByRole('button', { name: 'Choose the best' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'No choice' })).toContainText('more than')
  await page.getByRole('radio', { name: 'all projects' }).click()
  await expect(page.locator('[data-want="Chalk"]')).toContainText('Bon voyage')
})
