// What it costs, what to ask for it, whether it may be sold, which to make.
import { readFileSync } from 'node:fs'
import { expect, test } from './app'

test('the price follows from its lines, fees and what an hour is to bring', async ({ app, page }) => {
  await app.openDemo('Bon voyage')
  await app.stage('Journal')
  await page.getByRole('radio', { name: 'what it costs' }).click()
  await expect(app.figure('Price of one')).toHaveText('7.00 €')
  const price = page.getByLabel('Price of sticks')
  await price.fill('2.15')
  await price.blur()
  // Four more of material, a third on top: 5.32 + 4.00 = 9.32, × 1.3 = 12.12.
  await expect(app.figure('Price of one')).toHaveText('12.50 €')
  await app.type('Fair or shop takes', '20')
  await expect(app.figure('Price of one')).toHaveText('15.50 €')
  await page.getByRole('radio', { name: 'a price' }).click()
  await app.type('Price you would ask', '10')
  await expect(app.figure('Left for the hands')).toHaveText('1.37 €')
  await app.type('Fair or shop takes', '95')
  await app.type('Tax in the price', '20')
  await page.getByRole('radio', { name: 'by mark-up' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'Fees and tax take all' })).toBeVisible()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ])
  expect(readFileSync(await file.path(), 'utf8')).toContain('sticks')
})

test('a licence is counted down by what is sold, and a card goes with the piece', async ({ app, page }) => {
  await app.openDemo('Bon voyage')
  await app.stage('Journal')
  await page.getByRole('radio', { name: 'what was made' }).click()
  await page.getByRole('radio', { name: 'may be sold' }).click()
  await app.type('At most, 0 for any number', '2')
  await page.getByLabel('Design of').fill('a friend')
  await page.getByLabel('Design of').blur()
  await expect(app.snag('credit')).toBeVisible()
  await page.getByLabel('Credit that must stand with it').fill('Design: a friend')
  await page.getByLabel('Credit that must stand with it').blur()
  await expect(app.snag('credit')).toHaveCount(0)
  await page.getByRole('button', { name: 'One sold' }).click()
  await page.getByRole('button', { name: 'One given' }).click()
  await expect(app.figure('May still be sold')).toHaveText('1')
  await page.getByLabel('How many').first().fill('3')
  await expect(app.snag('rights')).toContainText('3 pieces sold')
  await expect(page.getByRole('button', { name: 'One sold' })).toBeDisabled()
  const [card] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the card (PDF)' }).click(),
  ])
  expect(
    readFileSync(await card.path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-')
})

test('for a fair the best numbers are chosen from what is at hand', async ({ app, page }) => {
  await app.openDemo('Bon voyage')
  await app.stage('Journal')
  await page.getByRole('radio', { name: 'for a fair' }).click()
  await expect(page.getByText(/^Counting/)).toHaveCount(0, { timeout: 60_000 })
  await app.type('Evenings until then', '1')
  await app.type('Hours an evening', '1')
  await page.getByRole('button', { name: 'Choose the best' }).click()
  // An hour, of which one takes thirteen minutes and a half.
  await expect(page.getByTestId('make-Bon voyage')).toHaveText('4')
  await page.getByLabel('At least of Bon voyage').fill('9')
  await page.getByRole('button', { name: 'Choose the best' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'No choice' })).toContainText('more than')
  await page.getByRole('radio', { name: 'all projects' }).click()
  await expect(page.locator('[data-want="Chalk"]')).toContainText('Bon voyage')
})
