// The bench: what dries, what went wrong, what it took; the order of steps.
import { expect, test } from './app'

test('what dries runs on by itself, through a reload, and rings when it is over', async ({ app, page }) => {
  await app.openDemo('Bon voyage')
  await app.stage('Assembly')
  await page.getByRole('button', { name: 'To the bench' }).click()
  const title = page.getByRole('heading', { level: 1 })
  const main = page.getByRole('button', { name: /space bar/ })
  // On to the first joint that has to take hold.
  for (let k = 0; k < 14 && !/take hold/.test((await title.textContent()) ?? ''); k++) {
    const before = await title.textContent()
    await page.keyboard.press('Space')
    await expect(title).not.toHaveText(before!)
  }
  await expect(main).toContainText('Let it dry, 5 min')
  const drying = (await title.textContent())!
  await main.click()
  const clocks = page.getByRole('list', { name: 'What dries' }).getByRole('listitem')
  await expect(clocks).toHaveText(new RegExp(`${drying}.*[45]:\\d\\d`))
  await expect(page.getByText('It waits for what still dries')).toBeVisible()
  // It runs on wherever the maker looks.
  await page.keyboard.press('Escape')
  await app.kept()
  await page.reload()
  await expect(clocks).toContainText(drying)
  // Ten minutes later.
  await page.clock.setFixedTime(Date.now() + 600_000)
  await expect(clocks.first()).toHaveAttribute('data-over', 'true')
  await clocks.getByRole('button', { name: 'It is dry' }).click()
  await expect(clocks).toHaveCount(0)
  await page.getByRole('button', { name: 'To the bench' }).click()
  await expect(title).not.toHaveText(drying)
  await expect(page.getByText('It waits for what still dries')).toHaveCount(0)
})

test('a piece that tears is cut again, and what was stuck on it comes off first', async ({ app, page }) => {
  await app.openDemo('Bon voyage')
  await app.stage('Journal')
  await page.getByRole('button', { name: 'Note sheets as used' }).click()
  await expect(page.getByRole('button', { name: 'Note sheets as used' })).toBeDisabled()
  await app.stage('Assembly')
  await page.getByRole('button', { name: 'To the bench' }).click()
  const title = page.getByRole('heading', { level: 1 })
  for (let k = 0; k < 14 && !/^Lay layer 2/.test((await title.textContent()) ?? ''); k++) {
    const before = await title.textContent()
    await page.keyboard.press('Space')
    await expect(title).not.toHaveText(before!)
  }
  await page.keyboard.press('Space')
  await page.getByRole('button', { name: '← back' }).click()
  await page.getByRole('button', { name: 'something went wrong' }).click()
  const panel = page.getByRole('dialog', { name: 'Something went wrong' })
  await panel.getByRole('radio', { name: 'torn' }).click()
  await expect(panel.getByTestId('savings')).toContainText('off-cuts of the paper come first')
  await panel.getByRole('button', { name: 'Cut it again' }).click()
  await expect(page.getByText('One piece is to be cut again')).toBeVisible()
  await expect(title).toHaveText(/^Cut load 4/)
  await page.keyboard.press('Escape')
  await app.stage('Sheets')
  await expect(app.panel).toContainText('1 load')
})

test('minutes of the bench are noted, corrected, and the next plan learns from them', async ({
  app,
  page,
}) => {
  await app.openDemo('Bon voyage')
  await app.stage('Assembly')
  await page.getByRole('button', { name: 'To the bench' }).click()
  // Time passes while it lies ready.
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Lay everything ready')
  await page.clock.setFixedTime(Date.now() + 6 * 60_000)
  await page.keyboard.press('Space')
  await page.keyboard.press('Escape')
  await app.stage('Journal')
  const took = page.locator('[data-took=prepare]')
  await expect(took).toContainText('3 min')
  await expect(took.getByRole('textbox')).toHaveValue(/^6(\.\d+)?$/)
  await took.getByRole('textbox').fill('6')
  await took.getByRole('textbox').blur()
  await page.getByRole('radio', { name: 'what it taught' }).click()
  // Twice as long, once: the fourth root of two.
  await expect(page.locator('[data-factor=prepare]')).toContainText('× 1.19')
  await app.stage('Assembly')
  await page
    .getByRole('button', { name: '1 step done' })
    .or(page.getByRole('button', { name: '1 step done' }))
    .click()
  await expect(page.locator('[data-step=prepare]')).toContainText('3 min 34')
  await app.stage('Journal')
  await page.getByRole('radio', { name: 'what it taught' }).click()
  await page.getByRole('button', { name: 'Back to our values' }).click()
  await expect(page.locator('[data-factor=prepare]')).toHaveCount(0)
  await app.undo()
  await expect(page.locator('[data-factor=prepare]')).toHaveCount(1)
})

test('a step is moved within what waits for what, which is drawn', async ({ app, page }) => {
  await app.openDemo('Bon voyage')
  await app.stage('Assembly')
  await page.locator('[data-step=dry-fit]').getByText('Fit everything dry').click()
  await page.getByRole('button', { name: 'Earlier' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'Not moved' })).toContainText('waits for')
  const second = page.locator('[data-step^=weed-]').nth(1)
  await second.getByText(/^Weed load/).click()
  const title = (await app.panel.getByRole('heading', { name: /^Weed load/ }).textContent())!
  await page.getByRole('button', { name: 'Later', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Leave it to the plan' })).toBeVisible()
  await page.getByRole('radio', { name: 'what waits for what' }).click()
  await expect(page.getByRole('button', { name: new RegExp(`^${title}`) })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  await expect(page.locator('[data-critical]').first()).toBeVisible()
  await page.getByRole('button', { name: 'Leave it to the plan' }).click()
  await expect(page.getByRole('button', { name: 'Leave it to the plan' })).toHaveCount(0)
})

test('a layer is coloured by hand: a colour of its own, a step that dries, a guide on the bench', async ({
  app,
  page,
}) => {
  await app.openDemo('Bon voyage')
  await app.stage('Paper')
  await page
    .getByRole('button', { name: /^Backing/ })
    .first()
    .click()
  await page.getByRole('switch', { name: 'coloured' }).click()
  await page.getByRole('combobox', { name: 'Edges with' }).click()
  await page.getByRole('option', { name: 'slate' }).click()
  await app.stage('Assembly')
  await page.getByText('Colour “Backing” with sepia').click()
  await expect(app.panel).toContainText('Then slate along the edges only, about 3 mm wide')
  await expect(page.getByText('Let the colour of “Backing” dry')).toBeVisible()
  await page.getByRole('button', { name: 'To the bench' }).click()
  const title = page.getByRole('heading', { level: 1 })
  for (let k = 0; k < 14 && !/^Colour/.test((await title.textContent()) ?? ''); k++) {
    const before = await title.textContent()
    await page.keyboard.press('Space')
    await expect(title).not.toHaveText(before!)
  }
  await expect(page.locator('[data-colouring] path').first()).toBeAttached()
})
