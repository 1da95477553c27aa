// The bench: what dries through a reload, and a layer that is coloured by hand.
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
