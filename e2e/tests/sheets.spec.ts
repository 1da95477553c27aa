// The maker's hand on sheets, marks on the card, the drawer and what goes back into it.
import { strFromU8, unzipSync } from 'fflate'
import { choose, contentOf, expect, test, type App } from './app'

test.use({ sharesPage: true })

/** Four backings of the topper on one sheet, opened large. */
async function openBackings(app: App): Promise<void> {
  await app.openDemo('Bon voyage')
  await app.stage('Layers')
  await app.pick('backing')
  await app.type('Copies to cut', '4')
  await app.settled()
  await app.stage('Sheets')
  await app.page
    .getByRole('region', { name: 'Order of loads' })
    .getByRole('button', { name: /^Load 1:/ })
    .click()
  await expect(app.page.locator('[data-piece]')).toHaveCount(4)
}

test.describe('By hand', () => {
  test('several pieces are picked, moved together, settled, sent to a fresh sheet, and all of it is undone', async ({
    app,
    page,
  }) => {
    await openBackings(app)
    const pieces = page.locator('[data-piece]')
    const middle = async (k: number) => {
      const box = (await pieces.nth(k).boundingBox())!
      return { x: box.x + box.width / 2, y: box.y + box.height / 2 }
    }
    await page.keyboard.press('a')
    await expect(app.panel.getByRole('heading', { name: '4 pieces' })).toBeVisible()
    const before = await middle(0)
    await page.mouse.move(before.x, before.y)
    await page.mouse.down()
    await page.mouse.move(before.x, before.y + 60, { steps: 4 })
    await page.mouse.move(before.x, before.y + 200, { steps: 4 })
    await page.mouse.up()
    await expect(app.figure('Place')).toHaveText('pinned by hand')
    await app.settled()
    expect((await middle(0)).y).toBeCloseTo(before.y + 200, -1)
    await app.panel.getByRole('button', { name: 'Settle' }).click()
    await expect.poll(async () => Math.abs((await middle(0)).y - before.y)).toBeLessThan(30)
    await app.settled()
    // Two of them are let go, and stay: a sheet that all leave is no load any more.
    await page.keyboard.down('Shift')
    for (const k of [0, 1]) {
      const { x, y } = await middle(k)
      await page.mouse.click(x, y)
    }
    await page.keyboard.up('Shift')
    await expect(app.panel.getByRole('heading', { name: '2 pieces' })).toBeVisible()
    await choose(page, 'Send to', 'a fresh sheet')
    await expect(page.getByRole('region', { name: 'Order of loads' }).getByRole('button')).toHaveCount(4)
    for (let k = 0; k < 3; k++) await app.undo()
    await expect(page.getByRole('region', { name: 'Order of loads' }).getByRole('button')).toHaveCount(3)
    await expect.poll(async () => Math.abs((await middle(0)).y - before.y)).toBeLessThan(4)
  })

  test('a piece turns by a typed angle and by its grip; the rest is laid round what is pinned', async ({
    app,
    page,
  }) => {
    await openBackings(app)
    const key = await page.locator('[data-piece]').last().getAttribute('data-piece')
    const piece = page.locator(`[data-piece="${key}"]`)
    const box = (await piece.boundingBox())!
    await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2)
    const turn = Number((await app.figure('Turn').textContent())!.replace('°', ''))
    const turned = `${Number(((turn + 30) % 360).toFixed(1))}°`
    const box2 = (await page.locator('[data-grip]').boundingBox())!
    // Far down where there is room, then turned there.
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
    await page.mouse.down()
    await page.mouse.move(box.x + box.width / 2, box.y + 100, { steps: 4 })
    await page.mouse.move(520, 480, { steps: 6 })
    await page.mouse.up()
    await expect(app.figure('Place')).toHaveText('pinned by hand')
    await app.settled()
    await app.type('Turn by', '30')
    await expect(app.figure('Turn')).toHaveText(turned)
    await app.settled()
    const grip = (await page.locator('[data-grip]').boundingBox())!
    expect(grip.y).toBeGreaterThan(box2.y)
    await page.mouse.move(grip.x + 8, grip.y + 8)
    await page.mouse.down()
    await page.mouse.move(grip.x + 40, grip.y + 60, { steps: 6 })
    await page.mouse.up()
    await expect(app.figure('Turn')).not.toHaveText(turned)
    await app.settled()
    const where = (await piece.boundingBox())!
    await app.panel.getByRole('button', { name: 'Fill the rest' }).click()
    await app.settled()
    await expect.poll(async () => Math.abs((await piece.boundingBox())!.y - where.y)).toBeLessThan(2)
    await expect(page.getByRole('button', { name: 'Undo', exact: true })).toHaveAttribute(
      'aria-description',
      /fill the rest/,
    )
  })

  test('loads are dragged into an order of the maker’s own', async ({ app, page }) => {
    await app.openDemo('Harbour at dusk')
    await app.stage('Sheets')
    const tabs = page.getByRole('region', { name: 'Order of loads' }).getByRole('button')
    await expect(tabs).toHaveCount(8)
    await tabs.first().hover()
    const first = await tabs.first().getAttribute('aria-label')
    const from = (await tabs.nth(0).boundingBox())!
    const to = (await tabs.nth(2).boundingBox())!
    await page.mouse.move(from.x + 20, from.y + 20)
    await page.mouse.down()
    await page.mouse.move(from.x + 60, from.y + 20, { steps: 4 })
    await page.mouse.move(to.x + 30, to.y + 20, { steps: 8 })
    await expect.poll(async () => (await tabs.nth(0).boundingBox())!.x).toBeGreaterThan(from.x + 60)
    await page.mouse.up()
    await expect(app.panel.getByText('by hand', { exact: true })).toBeVisible()
    await app.settled()
    await expect(tabs.nth(2)).toHaveAttribute('aria-label', first!.replace('Load 1', 'Load 3'))
  })
})

test.describe('Marks', () => {
  test('numbers stand where they hide, are drawn or cut or left out, and crosses come when asked for', async ({
    app,
    page,
  }) => {
    await app.openDemo('Harbour at dusk')
    await app.stage('Layers')
    await app.pick('swell')
    await expect(app.figure('Number')).toHaveText('hidden')
    await expect(page.locator('[data-number-place]').first()).toBeVisible()
    await app.panel.getByText('Bears its number').click()
    await expect(app.figure('Number')).toHaveText('bears none')
    await expect(page.locator('[data-number-place]')).toHaveCount(0)
    await app.stage('Sheets')
    const marks = page.locator('[data-mark]')
    await expect.poll(() => marks.count()).toBeGreaterThan(3)
    const drawn = await marks.count()
    await app.panel.getByText('Crosses where pieces go').click()
    await expect.poll(() => marks.count()).toBeGreaterThan(drawn)
    await app.panel.getByRole('radio', { name: 'none', exact: true }).click()
    await app.panel.getByText('Crosses where pieces go').click()
    await expect(marks).toHaveCount(0)
  })

  test('everything comes in one zip: cut files, plot, pictures, tags, lists', async ({ app, page }) => {
    await app.openDemo('Bon voyage')
    await app.stage('Sheets')
    const waiting = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Cut files' }).click()
    await page.getByRole('menuitem', { name: /Everything in one zip/ }).click()
    const files = unzipSync(new Uint8Array(await contentOf(await waiting)))
    const names = Object.keys(files)
    for (const ending of ['.svg', '.dxf', '.hpgl', '.png', '.pdf', '.csv'])
      expect(names.filter((name) => name.endsWith(ending)).length, ending).toBeGreaterThan(0)
    expect(names).toContain('sheet-tags.pdf')
    const picture = files[names.find((name) => name.endsWith('.png'))!]!
    expect(strFromU8(picture.slice(1, 4))).toBe('PNG')
    expect(picture.length).toBeGreaterThan(2000)
  })
})

test.describe('The drawer', () => {
  // Of all projects.
  test.use({ sharesPage: false })

  test('is a table: sorted, searched, edited, and in and out as CSV', async ({ app, page }) => {
    await app.openDemo('Harbour at dusk')
    await app.stage('Paper')
    await page.getByRole('button', { name: 'Drawer as a table' }).click()
    const rows = page.locator('[data-paper]')
    await expect(rows).toHaveCount(38)
    await page.getByRole('button', { name: /^weight/ }).click()
    await page.getByRole('button', { name: /^weight/ }).click()
    await expect(rows.first()).toHaveAttribute('data-paper', 'Parcel board')
    await page.getByRole('textbox', { name: 'Search the table' }).fill('shell')
    await expect(rows).toHaveCount(1)
    const sheets = page.getByRole('textbox', { name: 'sheets of Shell' })
    await sheets.fill('many')
    await sheets.press('Enter')
    await expect(page.getByText('sheets of Shell: a number from 0 to 9999, no fraction.')).toBeVisible()
    await expect(sheets).toHaveValue('4')
    await sheets.fill('11')
    await sheets.press('Enter')
    const waiting = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Save as CSV' }).click()
    const csv = (await contentOf(await waiting)).toString()
    expect(csv).toContain('Shell,#f2bea1,smooth,216,0.29,solid')
    expect(csv.split('\n').find((line) => line.startsWith('Shell'))).toContain(',11,')
    await page.getByLabel('Table of papers').setInputFiles({
      name: 'more.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('name,count,finish\nMarram,5,\nTern,2,feathered\n'),
    })
    await expect(page.getByRole('alert')).toContainText('Row 3 (Tern): “finish” is “feathered”')
    await page.getByRole('textbox', { name: 'Search the table' }).fill('')
    await expect(rows).toHaveCount(39)
    await app.undo()
    await expect(rows).toHaveCount(38)
  })

  test('gets off-cuts back when sheets are noted, and the next plan uses them', async ({ app, page }) => {
    await app.openDemo('Harbour at dusk')
    await app.stage('Journal')
    await page.getByRole('switch', { name: /^Shell, odd, 207/ }).check()
    await page.getByRole('button', { name: 'Note sheets as used' }).click()
    await expect(page.getByText('9 off-cuts put back.')).toBeVisible()
    await app.stage('Paper')
    await page.getByRole('button', { name: 'Drawer as a table' }).click()
    await expect(
      page.locator('[data-paper="Shell"]').getByRole('button', { name: /Bin the off-cut/ }),
    ).toHaveCount(2)
    await app.kept()
    // A topper on the same paper: its small pieces go onto the off-cut.
    await app.openDemo('Bon voyage')
    await app.stage('Paper')
    await app.pick('words')
    await page.getByRole('button', { name: /^Shell, smooth/ }).click()
    await app.settled()
    await app.stage('Sheets')
    await expect(page.getByText(/off-cut, 9[67] × 305|off-cut, 9[67] × 304.8|off-cut/).first()).toBeVisible()
    const strip = page.getByRole('region', { name: 'Order of loads' })
    await strip.getByRole('button', { name: /Shell/ }).click()
    await expect(page.getByText(/^off-cut, /)).toBeVisible()
  })
})

test.describe('What is cut', () => {
  // Of all projects.
  test.use({ sharesPage: false })

  test('stays cut: a torn piece is laid again, another shape spoils it, and the book knows the setting', async ({
    app,
    page,
  }) => {
    await app.openDemo('Harbour at dusk')
    await app.stage('Sheets')
    const strip = page.getByRole('region', { name: 'Order of loads' })
    const tabs = strip.getByRole('button')
    await expect(tabs).toHaveCount(8)
    await strip.getByRole('button', { name: /Sea holly/ }).click()
    await app.panel.getByRole('button', { name: 'corners hung' }).click()
    await expect(app.panel.getByText('a step on: corners hung last time')).toBeVisible()
    await app.panel.getByRole('button', { name: 'All of it is cut' }).click()
    await expect(tabs).toHaveCount(7)
    // A moved layer stays cut, a scaled one does not.
    const sheet = page.locator('[data-cut-sheet]')
    await expect(sheet).toContainText('Sea holly')
    await sheet.getByRole('button').first().click()
    await choose(page, /^Piece p1 of Open sea/, 'torn')
    await expect(tabs).toHaveCount(8)
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect(tabs).toHaveCount(7)
    await app.stage('Assembly')
    await expect(page.locator('[data-step^="cut-"]').getByRole('checkbox', { checked: true })).toHaveCount(1)
    await app.stage('Layers')
    await app.pick('open-sea')
    await expect(page.getByText(/A piece of it is cut: another shape, size or paper spoils it/)).toBeVisible()
    await app.stage('Sheets')
    // It is looked at still.
    await page.getByRole('button', { name: 'Not cut after all' }).click()
    await expect(tabs).toHaveCount(8)
    await app.stage('Paper')
    await page.getByRole('button', { name: 'Drawer as a table' }).click()
    await page.getByRole('radio', { name: 'settings' }).click()
    await expect(page.locator('[data-setting="Sea holly"]')).toContainText('corners hung')
  })
})

test.describe('One paper in several sizes', () => {
  // In the drawer of all projects.
  test.use({ sharesPage: false })

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
})
