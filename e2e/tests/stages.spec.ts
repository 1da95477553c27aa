// What the maker does on each stage, and what she then sees.
import { contentOf, duneSvg, expect, test } from './app'

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

  test('warns where the design passes the opening, and one press mends it', async ({ app }) => {
    await app.openDemo('Harbour at dusk')
    await app.type('Spacer width', '180')
    await app.type('Opening width', '166')
    await app.settled()
    await expect(app.snag('design-over-opening')).toContainText('passes the opening by 27 mm at the right')
    await app
      .snag('design-over-opening')
      .getByRole('button', { name: /Fit it/ })
      .click()
    await app.settled()
    await expect(app.snag('design-over-opening')).toHaveCount(0)
    await expect(app.figure('Design now')).toHaveText('156 × 156 mm')
    await app.undo()
    await expect(app.snag('design-over-opening')).toBeVisible()
  })
})

test.describe('Layers', () => {
  test('a bad file changes nothing and says why in a sentence', async ({ app }) => {
    await app.openDemo('Tide rose')
    await app.stage('Layers')
    await app.bringIn('cut-off.svg', '<svg xmlns="http://www.w3.org/2000/svg"><rect width="4"')
    await expect(app.panel.getByRole('alert')).toContainText('cut-off.svg: the SVG breaks off or is damaged')
    expect(await app.layerNames()).toHaveLength(6)
  })

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
    expect(await app.layerNames()).toEqual(start)
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

  test('snags where neighbours are too alike, and the ramp clears it', async ({ app, page }) => {
    await app.openDemo('Tide rose')
    await app.stage('Paper')
    await app.pick('current')
    await page.getByRole('button', { name: 'Rock pool, smooth' }).click()
    await app.settled()
    await expect(app.snag('too-alike')).toContainText('too alike to tell apart')
    await app.page.getByRole('button', { name: 'Take this ramp' }).click()
    await app.settled()
    await expect(app.snag('too-alike')).toHaveCount(0)
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

test.describe('Depth', () => {
  test('gaps are set, pinned and fitted to the frame', async ({ app, page }) => {
    await app.openDemo('Harbour at dusk')
    await app.stage('Depth')
    await app.pick('swell')
    await app.panel.getByRole('radio', { name: '3 mm', exact: true }).click()
    await app.settled()
    await expect(app.figure('Stack')).toHaveText('18.4 mm')
    await app.panel.getByLabel('pinned').check()
    await page.getByRole('button', { name: 'Fit gaps to 22 mm' }).click()
    await app.settled()
    await expect(app.figure('Left')).toHaveText(/^(0|0\.\d+) mm$/)
    await expect(app.row('swell')).toContainText('3 mm foam')
    await app.stage('Measure')
    await app.type('Depth', '12')
    await app.settled()
    await app.stage('Depth')
    await expect(app.snag('stack-too-deep')).toBeVisible()
    await app
      .snag('stack-too-deep')
      .getByRole('button', { name: /Fit the gaps/ })
      .click()
    await app.settled()
    await expect(app.snag('stack-too-deep')).toHaveCount(0)
  })

  test('more foam for sale, less for own use', async ({ app }) => {
    await app.openDemo('Harbour at dusk')
    await app.stage('Depth')
    const pads = async () => Number(await app.figure('Pads in all').textContent())
    const steady = await pads()
    await app.panel.getByRole('radio', { name: 'for sale' }).click()
    await app.settled()
    expect(await pads()).toBeGreaterThan(steady)
    await app.panel.getByRole('radio', { name: 'sparing' }).click()
    await app.settled()
    expect(await pads()).toBeLessThan(steady)
  })
})

test.describe('Assembly and journal', () => {
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
    await page.getByRole('button', { name: '2 steps done' }).click()
    await expect(page.locator('[data-step="prepare"] [role=checkbox]')).toBeChecked()
  })

  test('the clock runs, sheets leave the drawer once, and cost follows', async ({ app, page }) => {
    await app.openDemo('Bon voyage')
    await app.stage('Journal')
    await page.getByRole('button', { name: 'Start the clock of Assembly' }).click()
    await expect(page.getByTestId('spent-assembly')).toHaveText(/[1-9]\d* s/)
    await page.getByRole('button', { name: 'Stop', exact: true }).click()
    await page.getByRole('button', { name: 'Note sheets as used' }).click()
    await expect(page.getByRole('button', { name: 'Note sheets as used' })).toBeDisabled()
    await expect(app.figure('Paper')).toHaveText('1.50 €')
    await app.stage('Paper')
    await expect(page.getByRole('button', { name: 'Chalk, smooth' })).toContainText('× 5')
    await app.undo()
    await expect(page.getByRole('button', { name: 'Chalk, smooth' })).toContainText('× 6')
  })
})

test('a topper’s sticks go where they hold, can be set by number, glued otherwise and covered', async ({
  app,
  page,
}) => {
  await app.openDemo('Bon voyage')
  await app.stage('Depth')
  await expect(app.figure('Weight')).toHaveText(/^\d+\.\d g$/)
  const first = () => app.field('Stick 1, from the left').inputValue()
  const best = await first()
  await app.type('Stick 1, from the left', '4')
  await app.type('Stick 2, from the left', '20')
  await expect(app.snag('topper-turns')).toBeVisible()
  await app.snag('topper-turns').getByRole('button', { name: 'Put the sticks where they hold' }).click()
  await expect(app.snag('topper-turns')).toHaveCount(0)
  expect(await first()).toBe(best)
  await page.getByRole('radio', { name: /^hot glue/ }).check()
  await page.getByRole('button', { name: 'Cover the sticks with a piece' }).click()
  await expect.poll(() => app.layerNames()).toContain('Cover behind the sticks')
  await page.getByRole('switch', { name: 'From behind', exact: true }).click()
  await expect(page.locator('[data-stick]')).toHaveCount(2)
  await app.stage('Layers')
  await expect(app.snag('hidden-layer')).toHaveCount(0)
  await app.stage('Assembly')
  await expect(page.getByText('Glue “Cover behind the sticks” over the sticks')).toBeVisible()
})

test('the light box shows the work in space, turns by keys, lights it from behind and gives a still', async ({
  app,
  page,
}) => {
  await app.openDemo('Tide rose')
  await app.stage('Depth')
  await page.getByRole('radio', { name: 'light box' }).click()
  const box = page.locator('[data-light-box]')
  await expect(box).toHaveAttribute('data-light-box', 'drawn', { timeout: 60_000 })
  // How much of the picture is neither background nor black: what is drawn changes with every look.
  const picture = () =>
    box.locator('canvas').evaluate((canvas: HTMLCanvasElement) => {
      const small = document.createElement('canvas')
      small.width = small.height = 48
      const context = small.getContext('2d')!
      context.drawImage(canvas, 0, 0, 48, 48)
      return [...context.getImageData(0, 0, 48, 48).data].reduce(
        (sum, v, i) => (sum * 31 + v * (i % 7)) % 1_000_003,
        0,
      )
    })
  const first = await picture()
  await box.focus()
  await page.keyboard.press('ArrowRight')
  await expect.poll(picture).not.toBe(first)
  const turned = await picture()
  await page.getByRole('slider', { name: 'Built up to layer' }).fill('2')
  await expect.poll(picture).not.toBe(turned)
  const low = await picture()
  await page.getByRole('radio', { name: 'warm behind' }).click()
  await expect.poll(picture).not.toBe(low)
  const waiting = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Take a still' }).click()
  const still = await contentOf(await waiting)
  expect(still.subarray(1, 4).toString()).toBe('PNG')
  await page.getByRole('radio', { name: 'pads', exact: true }).click()
  await expect(page.locator('canvas')).toHaveCount(0)
})
