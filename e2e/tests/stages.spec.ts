// What the maker does on each stage, and what she then sees.
import { contentOf, duneSvg, expect, test } from './app'

test.use({ sharesPage: true })

test.describe('Measure', () => {
  test('takes lengths as a ruler has them, and both units', async ({ app }) => {
    await app.openDemo('Harbour at dusk')
    await app.type('Spacer width', '8 1/2')
    await expect(app.field('Spacer width')).toHaveValue('215.9')
    await app.type('Spacer width', '21.6cm')
    await expect(app.field('Spacer width')).toHaveValue('216')
    await app.page.getByRole('button', { name: 'Units: mm' }).click()
    await expect(app.field('Opening width')).toHaveValue('7 5/16 in')
    await expect(app.figure('Backing sheet')).toHaveText('8 1/2 × 7 7/8 in')
    await app.type('Spacer width', 'wide')
    await expect(app.page.getByRole('alert')).toContainText('Type a length such as 8 1/2')
    await app.field('Spacer width').press('Escape')
    await expect(app.field('Spacer width')).toHaveValue('8 1/2 in')
  })
})

test.describe('Layers', () => {
  test('a file can be dropped, and nothing of it runs', async ({ app, page }) => {
    await app.startNew('Card')
    await app.stage('Layers')
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="50mm" height="50mm" viewBox="0 0 50 50"><script>window.ran = 1</script><g id="A" onload="window.ran = 2"><rect width="50" height="50" fill="#c33" onclick="window.ran = 3"/></g></svg>`
    const data = await page.evaluateHandle((text) => {
      const transfer = new DataTransfer()
      transfer.items.add(new File([text], 'dropped.svg', { type: 'image/svg+xml' }))
      return transfer
    }, svg)
    await page.getByText('Drop a layered SVG or DXF here').dispatchEvent('drop', { dataTransfer: data })
    await expect(app.panel.getByRole('status')).toContainText('dropped.svg: 1 layer')
    expect(await page.evaluate(() => (window as unknown as { ran?: number }).ran)).toBeUndefined()
  })

  test('are moved by keys and by drag, renamed, hidden, merged and left out, and all of it is undone', async ({
    app,
    page,
  }) => {
    await app.startNew('Frame')
    await app.stage('Layers')
    await app.bringIn('dunes.svg', duneSvg)
    await app.settled()
    const start = ['Grass', 'Dunes', 'Dusk']
    await expect.poll(() => app.layerNames()).toEqual(start)
    await page.keyboard.press('k')
    await page.keyboard.press(']')
    await expect.poll(() => app.layerNames()).toEqual(['Grass', 'Dusk', 'Dunes'])
    await app.undo()
    const from = await page.locator('[data-row]', { hasText: 'Grass' }).boundingBox()
    const to = await page.locator('[data-row]', { hasText: 'Dusk' }).boundingBox()
    await page.mouse.move(from!.x + 40, from!.y + 15)
    await page.mouse.down()
    await page.mouse.move(from!.x + 40, from!.y + 60, { steps: 4 })
    await page.mouse.move(to!.x + 40, to!.y + 15, { steps: 8 })
    await page.mouse.up()
    await expect.poll(() => app.layerNames()).toEqual(['Dunes', 'Dusk', 'Grass'])
    await app.undo()
    await page.locator('[data-row]', { hasText: 'Dunes' }).getByRole('button').first().click()
    const name = page.getByLabel('Name', { exact: true })
    await name.fill('Far dunes')
    await name.press('Enter')
    await expect.poll(() => app.layerNames()).toContain('Far dunes')
    await page.locator('[data-row]', { hasText: 'Far dunes' }).hover()
    await page.getByRole('button', { name: 'Hide Far dunes' }).click()
    await expect(page.getByRole('button', { name: 'Show Far dunes' })).toBeVisible()
    await page.getByLabel('Optional: reads without it too').check()
    await page.getByLabel('Leave it out this time').check()
    await expect(page.locator('[data-row]', { hasText: 'Far dunes' })).toContainText('left out')
    for (let i = 0; i < 4; i++) await app.undo()
    await page.getByRole('button', { name: 'Merge with below' }).click()
    await expect.poll(() => app.layerNames()).toEqual(['Grass', 'Dunes'])
    await app.undo()
    await expect.poll(() => app.layerNames()).toEqual(start)
  })

  test('show pieces and loose bits, and only the picked one at a key', async ({ app, page }) => {
    await app.openDemo('Harbour at dusk')
    await app.stage('Layers')
    await app.pick('swell')
    await expect(app.figure('Pieces')).toHaveText('2')
    await expect(app.figure('Loose bits')).toHaveText('1')
    await app.figure('Loose bits').locator('..').getByRole('button').click()
    await expect(app.panel.getByText(/^Pieces that come free of the sheet/)).toBeVisible()
    await page.getByRole('heading', { name: 'Layers' }).click()
    await page.keyboard.press('x')
    await expect(page.getByLabel(/Only the picked/)).toBeChecked()
    await expect(page.locator('[data-layer]')).toHaveCount(1)
    await page.keyboard.press('x')
    await expect(page.locator('[data-layer]')).toHaveCount(8)
  })
})

test.describe('Paper', () => {
  test('is chosen by a press and by a drag onto a layer', async ({ app, page }) => {
    await app.openDemo('Tide rose')
    await app.stage('Paper')
    await app.pick('current')
    await page.getByRole('button', { name: 'Buoy, smooth' }).click()
    await expect(app.panel).toContainText('Buoy')
    const paper = await page.getByRole('button', { name: 'Gorse, smooth' }).boundingBox()
    const row = await app.row('eddies').boundingBox()
    await page.mouse.move(paper!.x + 30, paper!.y + 20)
    await page.mouse.down()
    await page.mouse.move(paper!.x, paper!.y - 30, { steps: 4 })
    await page.mouse.move(row!.x + 50, row!.y + 17, { steps: 10 })
    await page.mouse.up()
    await app.pick('eddies')
    await expect(app.panel).toContainText('Gorse')
    await app.settled()
    await expect(app.panel.getByRole('row', { name: /Gorse/ })).toBeVisible()
  })
})

test.describe('Sheets', () => {
  test('a piece is dragged and pinned; where it may not lie it says why and stays', async ({ app, page }) => {
    await app.openDemo('Harbour at dusk')
    await app.stage('Sheets')
    await page
      .getByRole('button', { name: /^Load .*layers 6$/ })
      .first()
      .click()
    const piece = page.locator('[data-piece]').first()
    const before = (await piece.boundingBox())!
    const drag = async (dx: number, dy: number) => {
      const box = (await piece.boundingBox())!
      await page.mouse.move(box.x + 8, box.y + box.height / 2)
      await page.mouse.down()
      await page.mouse.move(box.x + 8 + dx / 2, box.y + box.height / 2 + dy / 2, { steps: 4 })
      await page.mouse.move(box.x + 8 + dx, box.y + box.height / 2 + dy, { steps: 4 })
      await page.mouse.up()
    }
    await drag(0, 400)
    await expect(page.getByRole('alert')).toContainText('It cannot lie there: it lies in the rim')
    expect((await piece.boundingBox())!.y).toBeCloseTo(before.y, -1)
    await drag(40, 60)
    await expect(app.figure('Place')).toHaveText('pinned by hand')
    await app.settled()
    expect((await piece.boundingBox())!.y).toBeCloseTo(before.y + 60, -1)
    await page.keyboard.press('r')
    await expect(app.figure('Turn')).toHaveText('90°')
    await app.page.getByRole('button', { name: 'Take the pin out' }).click()
    await expect(app.figure('Place')).toHaveText('as nested')
  })

  test('a longer search shows progress, leaves typing alone, and stops when told', async ({ app, page }) => {
    await app.openDemo('Bon voyage')
    await app.stage('Layers')
    await app.pick('backing')
    await app.type('Copies to cut', '7')
    await app.stage('Sheets')
    await page.getByRole('button', { name: 'Search', exact: true }).click()
    const bar = page.getByRole('progressbar', { name: 'Search for fewer sheets' })
    await expect(bar).toBeVisible()
    await expect(page.getByTestId('search-gains')).toContainText('at\u00a0first')
    await app.stage('Journal')
    await page.getByLabel('Note').fill('blade 4, twice')
    await expect(page.getByLabel('Note')).toHaveValue('blade 4, twice')
    await app.stage('Sheets')
    await expect(bar).toBeVisible()
    await page.getByRole('button', { name: 'Stop' }).click()
    await expect(bar).toHaveCount(0)
    await expect(page.getByRole('button', { name: 'Search', exact: true })).toBeEnabled()
  })

  test('the order of loads changes with the plan, one SVG comes per load', async ({ app, page }) => {
    await app.openDemo('Harbour at dusk')
    await app.stage('Sheets')
    const strip = page.getByRole('region', { name: 'Order of loads' })
    await app.panel.getByText('as built').click()
    await app.settled()
    await expect(strip.getByRole('button').first()).toContainText('1')
    const waiting = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Cut files' }).click()
    await page.getByRole('menuitem', { name: /^Load 5/ }).click()
    const download = await waiting
    expect(download.suggestedFilename()).toBe('load-05-harbour-blue.svg')
    expect((await contentOf(download)).toString()).toContain('width="304.8mm"')
  })
})

test.describe('Assembly and journal', () => {
  // Ticks take foam, and notes take sheets, from the drawer of all projects.
  test.use({ sharesPage: false })

  test('steps are ticked with the space bar at the bench, and remembered', async ({ app, page }) => {
    await app.openDemo('Bon voyage')
    await app.stage('Assembly')
    await page.getByRole('button', { name: 'To the bench' }).click()
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Lay everything ready')
    await page.keyboard.press('Space')
    await page.keyboard.press('Space')
    await expect(page.getByText('step 3 of 16')).toBeVisible()
    await page.getByRole('button', { name: /back/ }).first().click()
    await expect(page.getByText('step 2 of 16')).toBeVisible()
    await page.keyboard.press('Space')
    await page.keyboard.press('Escape')
    await expect(app.panel).toContainText('2 of 16 steps done.')
    await app.kept()
    await page.reload()
    await expect(app.panel).toContainText('2 of 16 steps done.')
    await app.settled()
    await page.getByRole('button', { name: '2 steps done' }).click()
    await expect(page.locator('[data-step="prepare"]').getByRole('checkbox')).toBeChecked()
  })
})
