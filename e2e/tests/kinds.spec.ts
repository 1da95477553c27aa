// What is held otherwise than by foam and glue, and several designs in one drawing.
import { choose, expect, test } from './app'

test.describe('one project', () => {
  test.use({ sharesPage: true })

  test('a backing sheet is pinned to fabric, a film is pressed on, and the bench says how', async ({
    app,
    page,
  }) => {
    await app.openDemo('Harbour at dusk')
    await page.getByRole('button', { name: 'Mat, pane, back' }).click()
    await choose(page, 'Back', 'fabric on board')
    await app.settled()
    await app.stage('Depth')
    await app.pick('sky')
    await page.getByRole('radio', { name: 'pins' }).click()
    await app.settled()
    await expect(app.figure('Pins')).toHaveText(/^[4-9]$/)
    const pins = await app.figure('Pins').textContent()
    await expect(page.locator('[data-pins]')).toHaveAttribute('data-pins', pins!)
    await expect(app.row('sky')).toContainText('on pins')

    // The pier becomes film: its paper says how hot, the joint presses it on.
    await app.stage('Paper')
    await app.pick('pier')
    await page.getByRole('switch', { name: 'pressed on' }).click()
    await app.type('How hot', '160')
    await app.settled()
    await app.stage('Depth')
    await page.getByRole('radio', { name: 'heat' }).click()
    await app.settled()
    await expect(app.panel).toContainText('160 °C for 15 s, peeled warm')
    await app.stage('Assembly')
    const steps = page.locator('[data-step]')
    await expect(steps.filter({ hasText: 'Press “Pier” on' })).toHaveCount(1)
    await expect(steps.filter({ hasText: 'Pin layer 1 to the fabric' })).toHaveCount(1)
    await expect(steps.filter({ hasText: 'Fix the stack' })).toHaveCount(0)
    // One undo for one press.
    await app.undo()
    await expect(steps.filter({ hasText: 'Press “Pier” on' })).toHaveCount(0)
  })
})

test('designs side by side in one drawing become projects on the same sheets', async ({ app, page }) => {
  const square = (x: number, inset: number) =>
    `<rect x="${x + inset}" y="${10 + inset}" width="${70 - 2 * inset}" height="${70 - 2 * inset}"/>`
  const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100">
    <g id="Back" fill="#2f5d8c">${square(5, 0)}${square(105, 0)}</g>
    <g id="Front" fill="#f3efe4">${square(5, 15)}${square(105, 20)}</g></svg>`
  await app.startNew('Frame')
  await app.stage('Layers')
  await app.bringIn('two.svg', drawing)
  await expect(app.panel.getByText('2 designs side by side')).toBeVisible()
  await app.panel.getByRole('button', { name: 'Part them' }).click()
  await expect(app.panel.getByText('2 designs side by side')).toHaveCount(0)
  await app.settled()
  await app.stage('Sheets')
  await expect(app.panel.getByRole('list', { name: 'Cut along with it' })).toContainText('design 2')
  await app.kept()
  await page.goto('/')
  await page.getByRole('button', { name: /^Open .*design 2/ }).click()
  await app.settled()
  await expect.poll(() => app.layerNames()).toEqual(['Front', 'Back'])
})

test('the journal looks back over all projects, and a note leads to what it names', async ({ app, page }) => {
  await app.openDemo('Bon voyage')
  await app.stage('Journal')
  await page.getByRole('button', { name: 'Note sheets as used' }).click()
  await expect(page.getByRole('button', { name: 'Note sheets as used' })).toBeDisabled()
  await page.getByRole('radio', { name: 'looking back' }).click()
  await expect(page.getByRole('img', { name: 'Sheets used, by paper' }).locator('svg')).toContainText('Chalk')
  await expect(page.getByRole('img', { name: 'Sheets at hand over time' }).locator('svg')).toBeVisible()
  await page.getByLabel('Note', { exact: true }).fill('The Small boat wants a slower cut')
  await page.getByLabel('Note', { exact: true }).blur()
  await page.getByRole('button', { name: 'Small boat', exact: true }).click()
  await app.settled()
  await expect(page.getByRole('navigation', { name: 'Stages' }).locator('[aria-current=page]')).toContainText(
    'Layers',
  )
})
