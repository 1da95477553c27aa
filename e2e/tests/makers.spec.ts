// Layers grown from less, previewed before they are taken, and adjusted afterwards.
import { choose, duneSvg, expect, test } from './app'

const grow = async (page: import('@playwright/test').Page, name: RegExp) => {
  await page.getByRole('button', { name: 'Grow layers' }).click()
  await page.getByRole('menuitem', { name }).click()
}

test.use({ sharesPage: true })

test('words become a joined piece on a backing, and can be set anew with paper and place kept', async ({
  app,
  page,
}) => {
  await app.startNew('Topper')
  await app.stage('Layers')
  await grow(page, /^Lettering/)
  await page.getByRole('textbox', { name: 'Words' }).fill('low tide')
  await expect(app.figure('Pieces of the words')).toHaveText('2')
  await expect(app.figure('Size')).toContainText('150 ×')
  expect(await app.layerNames()).toEqual([])
  await page.getByRole('button', { name: 'Take these layers' }).click()
  await expect.poll(() => app.layerNames()).toEqual(['Words', 'Backing'])
  await app.stage('Paper')
  await app.pick('words')
  await page.getByRole('button', { name: 'Gorse, smooth' }).click()
  await app.stage('Layers')
  await grow(page, /^Adjust the lettering/)
  await expect(page.getByRole('textbox', { name: 'Words' })).toHaveValue('low tide')
  await choose(page, 'Font', 'Alfa Slab')
  await app.type('Backing steps', '2')
  await expect(app.figure('Layers')).toHaveText('3')
  await page.getByRole('button', { name: 'Take the changes' }).click()
  await expect.poll(() => app.layerNames()).toEqual(['Words', 'Backing 2', 'Backing 1'])
  await app.pick('words')
  await expect(app.panel).toContainText('Gorse')
  await app.undo()
  await expect.poll(() => app.layerNames()).toEqual(['Words', 'Backing'])
})

test('a setting that is not possible says why and takes nothing', async ({ app, page }) => {
  await app.startNew('Topper')
  await app.stage('Layers')
  await grow(page, /^Lettering/)
  await expect(app.figure('Layers')).toHaveText('2')
  await page.getByRole('textbox', { name: 'Words' }).fill('漢字')
  await expect(app.panel.getByRole('alert')).toContainText('Not possible: the font has no sign for')
  await expect(page.getByRole('button', { name: 'Take these layers' })).toBeDisabled()
  await page
    .getByLabel('Font file')
    .setInputFiles({ name: 'odd.ttf', mimeType: 'font/ttf', buffer: Buffer.from('no font') })
  await expect(page.getByText('odd.ttf: this is not a TTF, OTF or WOFF font')).toBeVisible()
  await page.getByRole('button', { name: 'Leave it' }).click()
  expect(await app.layerNames()).toEqual([])
})

test('words are joined, apart on a backing, or cut out of sheets of the measured size', async ({
  app,
  page,
}) => {
  await app.startNew('Frame')
  await app.stage('Layers')
  await grow(page, /^Lettering/)
  await page.getByRole('textbox', { name: 'Words' }).fill('low\ntide')
  await choose(page, 'Font', 'Alfa Slab')
  await app.type('Width in all', '120')
  await expect(app.figure('Layers')).toHaveText('2')
  await app.panel.getByRole('radio', { name: 'apart' }).click()
  await expect(app.figure('Pieces of the words')).toHaveText('8')
  await expect(app.field('Letters joined by')).toHaveCount(0)
  await app.panel.getByRole('radio', { name: 'cut out' }).click()
  await expect(app.figure('Layers')).toHaveText('5')
  await expect(app.field('Backing reaches out')).toHaveCount(0)
  await app.type('Each wider by', '1.5')
  await app.type('Wider sheets in front', '4')
  await expect(app.figure('Layers')).toHaveText('6')
  await app.type('Sheet width', '90')
  await expect(app.panel.getByRole('alert')).toContainText('make them smaller or the sheet larger')
  await app.type('Sheet width', '200')
  await page.getByRole('button', { name: 'Take these layers' }).click()
  await expect
    .poll(() => app.layerNames())
    .toEqual(['Step 4', 'Step 3', 'Step 2', 'Step 1', 'Words', 'Backing'])
  await app.pick('backing')
  await expect(app.figure('Size')).toHaveText('200 × 200 mm')
})

test('a ladder grows from the picked layer on sheets of the measured size', async ({ app, page }) => {
  await app.startNew('Frame')
  await app.stage('Layers')
  await app.bringIn(
    'heart.svg',
    '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="120mm" viewBox="0 0 120 120"><path d="M60 105C10 70 5 45 15 30C28 10 52 15 60 35C68 15 92 10 105 30C115 45 110 70 60 105Z"/></svg>',
  )
  await expect.poll(() => app.layerNames()).toHaveLength(1)
  await grow(page, /^Ladder/)
  await expect(app.figure('Layers')).toHaveText('6')
  await expect(app.field('Sheet width')).toHaveValue('200')
  await app.type('Steps', '30')
  await expect(app.panel).toContainText('30 steps were asked for')
  await app.type('One step', '1/4')
  await app.type('Steps', '3')
  await expect(app.figure('Layers')).toHaveText('5')
  await page.getByRole('button', { name: 'Take these layers' }).click()
  await expect.poll(() => app.layerNames()).toHaveLength(6)
})

test('a photo becomes tones; thresholds move by hand and come back', async ({ app, page }) => {
  await app.startNew('Frame')
  await app.stage('Layers')
  const photo = await page.evaluate(async () => {
    const canvas = document.createElement('canvas')
    canvas.width = 200
    canvas.height = 150
    const c = canvas.getContext('2d')!
    c.fillStyle = '#eeeeee'
    c.fillRect(0, 0, 200, 150)
    for (const [r, grey] of [
      [60, '#999999'],
      [40, '#666666'],
      [20, '#222222'],
    ] as const) {
      c.fillStyle = grey
      c.beginPath()
      c.arc(100, 75, r, 0, 7)
      c.fill()
    }
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'))
    return [...new Uint8Array(await blob!.arrayBuffer())]
  })
  await page
    .getByLabel('Photo')
    .setInputFiles({ name: 'target.png', mimeType: 'image/png', buffer: Buffer.from(photo) })
  await expect(app.figure('Layers')).toHaveText('4')
  await expect(page.getByRole('img', { name: 'The photo in greys' })).toBeVisible()
  const best = await app.figure('Thresholds').textContent()
  await page.getByRole('slider', { name: 'Threshold 1' }).press('ArrowLeft')
  await expect(app.figure('Thresholds')).not.toHaveText(best!)
  await page.getByRole('button', { name: 'Take the best thresholds again' }).click()
  await expect(app.figure('Thresholds')).toHaveText(best!)
  // A dab of the brush, by keys, is a piece more; and is taken back.
  const pieces = await app.figure('Pieces').textContent()
  await page.getByRole('radio', { name: 'brush' }).click()
  await app.type('Tone of the brush, 1 is the back', '4')
  const surface = page.getByRole('application', { name: 'Brush over the picture' })
  for (let k = 0; k < 24; k++) await surface.press('ArrowUp')
  await surface.press('Enter')
  await expect(app.figure('Pieces')).toHaveText(String(Number(pieces) + 3))
  await page.getByRole('button', { name: 'Take back a stroke (1)' }).click()
  await expect(app.figure('Pieces')).toHaveText(pieces!)
  // By the papers of the drawer each tone is one of them.
  await page.getByRole('radio', { name: 'my papers' }).click()
  await expect(page.getByRole('img', { name: 'The photo', exact: true })).toBeVisible()
  await expect(app.figure('Colours')).toBeVisible()
  await page.getByRole('radio', { name: 'greys' }).click()
  await expect(app.figure('Thresholds')).toHaveText(best!)
  await page.getByRole('button', { name: 'Take these layers' }).click()
  await expect.poll(() => app.layerNames()).toEqual(['Tone 4', 'Tone 3', 'Tone 2', 'Backing tone'])
  await page
    .getByLabel('Photo')
    .setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('not a picture') })
  await expect(page.getByText('notes.png: this is not a PNG, JPEG or WebP picture')).toBeVisible()
})

test('mandalas and rosettes change with their numbers', async ({ app, page }) => {
  await app.startNew('Card')
  await app.stage('Layers')
  await grow(page, /^Mandala/)
  await expect(app.figure('Layers')).toHaveText('5')
  const openings = await app.figure('Openings').textContent()
  await app.type('Repeats round the centre', '7')
  await expect(app.figure('Openings')).not.toHaveText(openings!)
  await page.getByRole('button', { name: 'Leave it' }).click()
  await grow(page, /^Rosette/)
  await expect(app.figure('Layers')).toHaveText('10')
  await expect(page.locator('[data-fold]')).toHaveCount(2)
  // The leaves reach out beyond the rings: all of them must be in sight, clear of the rulers' side.
  const board = (await page.locator('[data-board]').boundingBox())!
  const leaves = (await page.locator('[data-layer="leaves"]').boundingBox())!
  expect(leaves.x).toBeGreaterThanOrEqual(board.x - 2)
  expect(leaves.x + leaves.width).toBeLessThanOrEqual(board.x + board.width + 2)
  await app.type('Leaves', '0')
  await expect(app.figure('Layers')).toHaveText('9')
  await app.type('Rolled centre, 0 for none', '20')
  await expect(app.figure('Strip for the centre')).toHaveText('466 × 24 mm')
  await page.getByRole('button', { name: 'Take these layers' }).click()
  await expect.poll(() => app.layerNames()).toHaveLength(9)
})

test('nothing of a maker stays behind when it is left', async ({ app, page }) => {
  await app.startNew('Frame')
  await app.stage('Layers')
  await app.bringIn('dunes.svg', duneSvg)
  await expect.poll(() => app.layerNames()).toHaveLength(3)
  await grow(page, /^Mandala/)
  await expect(app.figure('Layers')).toHaveText('5')
  await app.stage('Measure')
  await app.stage('Layers')
  await expect.poll(() => app.layerNames()).toHaveLength(3)
})

test('flags, wings and standing pieces are grown, taken, and adjusted where they were put', async ({
  app,
  page,
}) => {
  await app.startNew('Garland')
  await app.stage('Layers')
  await grow(page, /^Garland/)
  await app.type('Flags', '5')
  await app.type('Hook to hook, 0 if not known', '600')
  await expect(app.figure('Twine to buy')).toHaveText('1230 mm')
  await page.getByRole('radio', { name: 'mirrored' }).click()
  await page.getByRole('button', { name: 'Take these layers' }).click()
  await expect.poll(() => app.layerNames()).toEqual(['Flags 3', 'Flags 2, 4', 'Flags 1, 5'])
  await grow(page, /^Adjust the garland/)
  await app.type('Flags', '6')
  await expect(app.figure('Flags')).toHaveText('6 of 110 × 140 mm')
  await page.getByRole('button', { name: 'Take the changes' }).click()
  await expect.poll(() => app.layerNames()).toEqual(['Flags 3, 4', 'Flags 2, 5', 'Flags 1, 6'])
  await grow(page, /^Wings/)
  await app.type('Wings turned up by', '0')
  await expect(app.figure('Tips rise by')).toHaveText('0 mm')
  await app.type('Body that is glued', '200')
  await expect(page.getByRole('alert')).toContainText('leaves no wings')
  await page.getByRole('button', { name: 'Leave it' }).click()
  await grow(page, /^Standing piece/)
  await page.getByRole('radio', { name: 'band' }).click()
  await expect(app.figure('Band in all')).toBeVisible()
})

test('a letter and a line are set by themselves, on the board and by keys', async ({ app, page }) => {
  await app.startNew('Topper')
  await app.stage('Layers')
  await grow(page, /^Lettering/)
  await page.getByRole('textbox', { name: 'Words' }).fill('baker\nbay')
  await expect(page.getByRole('group', { name: 'Line 2' })).toBeVisible()
  const wide = async () => (await page.locator('[data-letter="0 1"]').boundingBox())!.height
  const before = await wide()
  await page.locator('[data-letter="0 1"]').click()
  await app.type('Size, times', '1.6')
  await expect.poll(wide).toBeGreaterThan(before * 1.2)
  // Another shape of the b that the font offers.
  await page.getByRole('button', { name: 'Letter 1, b' }).first().press('Enter')
  await page.getByRole('radio', { name: 'shape 1' }).click()
  await expect(page.getByRole('radio', { name: 'shape 1' })).toHaveAttribute('aria-checked', 'true')
  await page.getByRole('group', { name: 'Line 2' }).getByRole('button', { name: 'whole line' }).click()
  await choose(page, 'Font of the line', 'Alfa Slab')
  await expect(app.figure('Pieces of the words')).toHaveText('1')
  await page.getByRole('button', { name: 'Take these layers' }).click()
  await grow(page, /^Adjust the lettering/)
  await page.getByRole('group', { name: 'Line 2' }).getByRole('button', { name: 'whole line' }).click()
  await expect(page.getByRole('combobox', { name: 'Font of the line' })).toContainText('Alfa Slab')
  await page.getByRole('button', { name: 'As the rest' }).click()
  await expect(page.getByRole('combobox', { name: 'Font of the line' })).toContainText('as the rest')
})
