// Depth by hand: pads put and taken away, foam of the drawer, a ring before the work, heights read off a section.
import { choose, expect, test } from './app'

test.use({ sharesPage: true })

test('pads are dragged, taken away and planned again, by mouse and keys', async ({ app, page }) => {
  await app.openDemo('Harbour at dusk')
  await app.stage('Depth')
  const pads = page.locator('[data-pad]')
  const hand = page.locator('[data-pad=hand]')
  await pads.first().waitFor()
  await pads.first().hover()
  const at = (await pads.first().boundingBox())!
  await page.mouse.down()
  await page.mouse.move(at.x + 30, at.y + 12, { steps: 4 })
  await page.mouse.up()
  await expect(hand).toHaveCount(1)
  await expect(page.getByText(/^Put by you/)).toBeVisible()
  await hand.focus()
  await page.keyboard.press('r')
  await expect(page.getByLabel('Turned')).not.toHaveValue('0')
  // Over the edge it does not hold, and says so at once; the mend leaves it to the plan.
  await page.getByLabel('From the left').fill('1')
  await page.getByLabel('From the left').press('Enter')
  await expect(page.getByText(/A pad that you put under .* seen from aside/)).toBeVisible()
  await page.getByRole('button', { name: 'Leave its place to the plan' }).click()
  await expect(hand).toHaveCount(0)
  await pads.nth(1).focus()
  await page.keyboard.press('Delete')
  await expect(page.getByRole('button', { name: /Plan all again \(0 put, 1 spot kept free\)/ })).toBeVisible()
  await page.getByRole('button', { name: /Plan all again/ }).click()
  await expect(page.getByRole('button', { name: /Plan all again/ })).toHaveCount(0)

  // A single piece of a layer on foam is glued flat, and goes back.
  await app.pick('swell')
  await app.settled()
  const before = await pads.count()
  await page.getByRole('combobox', { name: /^A piece of/ }).click()
  await page.getByRole('option', { name: /^2:/ }).click()
  await expect(page.locator('[data-picked-piece]')).toBeVisible()
  await page.getByRole('radio', { name: 'glued flat' }).click()
  await expect.poll(() => pads.count()).toBeLessThan(before)
  await expect(page.locator('[data-glue] [data-dot], [data-glue] path').first()).toBeVisible()
  await choose(page, 'Glue of this piece', 'tape runner')
  await expect(page.getByRole('combobox', { name: /^A piece of/ })).toContainText('glued flat')
  await page.getByRole('button', { name: 'All as the layer' }).click()
  await expect.poll(() => pads.count()).toBe(before)
  // On foam of its own it stands higher than the rest of its layer.
  await page.getByRole('radio', { name: 'own foam' }).click()
  await choose(page, 'Foam under this piece', '3 mm')
  await expect(page.getByRole('combobox', { name: /^A piece of/ })).toContainText('3 mm of foam')
  await app.undo()
  await app.undo()
  await expect(page.getByRole('radio', { name: 'as its layer' })).toBeChecked()
})

test('a ring stands the work off the pane as sheets that are cut; a section is read off', async ({
  app,
  page,
}) => {
  await app.openDemo('Harbour at dusk')
  await app.stage('Depth')
  // Pads under the lip fill what else is filled behind.
  await expect(app.figure('To shim behind')).toContainText('mm')
  await page.getByRole('radio', { name: 'along the lip' }).click()
  await expect(app.figure('Pads along the lip')).toContainText('mm')
  await expect(app.figure('To shim behind')).toHaveCount(0)
  await app.undo()
  await page.getByRole('button', { name: 'Stand off from the pane' }).click()
  await expect(page.getByRole('button', { name: 'Without the ring' })).toBeVisible()
  await expect(page.getByTestId('stack-height')).toHaveText(/^17\.\d of 22 mm/)
  await app.stage('Assembly')
  await expect(page.getByText('Build the stand-off ring')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('Build the stand-off ring')).toHaveCount(0)

  // The section is cut where its line is moved to.
  await app.stage('Depth')
  await page.getByRole('radio', { name: 'section' }).click()
  const section = page.getByRole('img', { name: /^Section across/ })
  await expect(section).toBeVisible()
  const cards = page.locator('[data-cut-card]')
  const before = await cards.count()
  await page.getByRole('slider', { name: 'Line of the section' }).focus()
  for (let n = 0; n < 6; n++) await page.keyboard.press('Shift+ArrowDown')
  await expect(section).toHaveAccessibleName(/160 mm/)
  expect(await cards.count()).not.toBe(before)
  const box = (await section.boundingBox())!
  await page.mouse.move(box.x + 45, box.y + 60)
  await expect(page.getByTestId('section-reading')).toHaveText(/layer 1 from 0 mm to 0\.3 mm; .*layer 8 from/)

  // Every fit of the gaps is a slide away.
  await page.getByRole('button', { name: 'Show every fit' }).click()
  const slide = page.getByRole('slider', { name: 'From shallow to deep' })
  await slide.press('End')
  await app.settled()
  const stack = async () => Number.parseFloat(await app.figure('Stack').innerText())
  const deep = await stack()
  await slide.press('Home')
  await app.settled()
  await expect.poll(stack).toBeLessThan(deep - 8)
  // All of the slide is one step.
  await app.undo()
  await expect(app.figure('Stack')).toHaveText('17.4 mm')
})

test.describe('The drawer of all projects', () => {
  test.use({ sharesPage: false })

  test('foam and glue are edited in one drawer for all projects; ticks take pads and give them back', async ({
    app,
    page,
  }) => {
    await app.openDemo('Harbour at dusk')
    await app.stage('Paper')
    await page.getByRole('button', { name: 'Drawer as a table' }).click()
    await page.getByRole('radio', { name: 'foam' }).click()
    const row = page.locator('[data-foam="narrow strips"]')
    const left = row.getByLabel('pads left of narrow strips')
    await expect(left).toHaveValue('120')
    // Ten stacked, measured and divided by ten.
    await row.getByLabel('thick of narrow strips').fill('21 : 10')
    await row.getByLabel('thick of narrow strips').press('Enter')
    await expect(row.getByLabel('thick of narrow strips')).toHaveValue('2.1')
    await page.getByRole('radio', { name: 'glue' }).click()
    await page.getByRole('button', { name: 'New glue' }).click()
    await expect(page.locator('[data-glue="New glue 1"]')).toBeVisible()
    await app.stage('Assembly')
    const pad = page.getByRole('checkbox', { name: /^Done: .*pads/i }).first()
    // Steps that come in just then move away under the mouse.
    await expect(async () => {
      if (!(await pad.isChecked())) await pad.click()
      await expect(pad).toBeChecked({ timeout: 2000 })
    }).toPass()
    await app.stage('Paper')
    await page.getByRole('button', { name: 'Drawer as a table' }).click()
    await page.getByRole('radio', { name: 'foam' }).click()
    const counts = () =>
      page
        .getByLabel(/^pads left of/)
        .evaluateAll((fields) =>
          fields.reduce((n, field) => n + Number((field as HTMLInputElement).value), 0),
        )
    const taken = await counts()
    expect(taken).toBeLessThan(1870)
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect.poll(counts).toBe(1870)
  })
})
