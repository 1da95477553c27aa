// Batches, several projects on the same sheets, and one paper in several sizes.
import { choose, expect, test } from './app'

test('a project goes along onto another one’s sheets, is made several times, and is sent home', async ({
  app,
  page,
}) => {
  await app.openDemo('Bon voyage')
  await app.openDemo('Tide rose')
  await app.stage('Sheets')
  const loads = page.getByRole('region', { name: 'Order of loads' }).getByRole('button')
  const alone = await loads.count()
  await choose(page, 'Cut another project along', 'Bon voyage')
  await expect(app.panel.getByRole('list', { name: 'Cut along with it' })).toContainText('Bon voyage')
  await expect(loads.filter({ hasText: 'A1' }).first()).toBeVisible()
  expect(await loads.count()).toBeGreaterThan(alone)
  await app.settled()
  await app.type('The whole work, times', '2')
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toHaveAttribute(
    'aria-description',
    /how many are made/,
  )
  await app.settled()
  await app.stage('Journal')
  await expect(app.panel).toContainText('Each of 2')
  await app.kept()

  // The guest knows whose sheets it is cut from.
  await page.goto('/')
  await page.getByRole('button', { name: 'Open Bon voyage', exact: true }).click()
  await app.stage('Layers')
  await app.pick('backing')
  await app.type('Copies to cut', '3')
  await app.kept()
  await app.stage('Sheets')
  await expect(page.locator('main')).toContainText('Its pieces are cut along with “Tide rose”.')
  await page.getByRole('link', { name: 'To the sheets of “Tide rose”' }).click()

  // It was changed meanwhile.
  await expect(app.panel).toContainText('It has changed since.')
  await app.settled()
  await app.panel.getByRole('button', { name: 'Take it anew' }).click()
  await expect(app.panel).not.toContainText('It has changed since.')
  await app.settled()
  await app.panel.getByRole('button', { name: 'Send home' }).click()
  await expect(loads.filter({ hasText: 'A1' })).toHaveCount(0)
  await app.kept()
  await page.goto('/')
  await page.getByRole('button', { name: 'Open Bon voyage', exact: true }).click()
  await app.stage('Sheets')
  await expect(loads.first()).toBeVisible()
})

test('the same paper in a smaller size is found in the drawer and planned with', async ({ app, page }) => {
  await app.openDemo('Bon voyage')
  await app.stage('Paper')
  await page.getByRole('button', { name: 'Drawer as a table' }).click()
  const csv =
    'name,colour,finish,gsm,core,width mm,height mm,count,price,per pack\nDeep channel,#2f7682,smooth,216,solid,305,305,2,0.55,1\nDeep channel,#2f7682,smooth,216,solid,210,297,0,0.05,10\n'
  await page
    .getByLabel('Table of papers')
    .setInputFiles({ name: 'more.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) })
  await page.getByLabel('Search the table').fill('deep channel')
  await expect(page.locator('[data-paper="Deep channel"]')).toHaveCount(2)
  await expect(page.getByLabel('in a pack of Deep channel').last()).toHaveValue('10')
  // None at hand: buying comes after what is there.
  await app.stage('Sheets')
  await expect(app.snag('other-size-at-hand')).toHaveCount(0)
  await app.stage('Paper')
  await page.getByRole('button', { name: 'Drawer as a table' }).click()
  await page.getByLabel('Search the table').fill('deep channel')
  const count = page.getByLabel('sheets of Deep channel').last()
  await count.fill('4')
  await count.press('Enter')
  await app.stage('Sheets')
  await app.snag('other-size-at-hand').getByRole('button', { name: 'Plan with it too' }).click()
  await expect(app.snag('other-size-at-hand')).toHaveCount(0)
  await page
    .getByRole('button', { name: /^Load \d: Deep channel/ })
    .first()
    .click()
  await expect(page.locator('main')).toContainText('210 × 297 mm')
})
