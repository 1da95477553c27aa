// Intake of files, single pieces on the board, and what shows.
import { fileURLToPath } from 'node:url'
import { contentOf, duneSvg, expect, test } from './app'

const square =
  '0\nLWPOLYLINE\n8\nTide\n90\n4\n70\n1\n10\n0\n20\n0\n10\n60\n20\n0\n10\n60\n20\n40\n10\n0\n20\n40\n'
const dxf = `0\nSECTION\n2\nENTITIES\n${square}0\nCIRCLE\n8\nMoon\n10\n30\n20\n20\n40\n8\n0\nLINE\n8\nMoon\n10\n0\n20\n0\n11\n5\n21\n5\n0\nENDSEC\n0\nEOF\n`

const file = (name: string, text: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(text) })

test.use({ sharesPage: true })

test('several files come in together: DXF, SVG and a project, each with what was left out', async ({
  app,
  page,
}) => {
  await app.startNew('Frame')
  await app.stage('Layers')
  await page
    .getByLabel('Drawing files')
    .setInputFiles([file('tide.dxf', dxf), file('dunes.svg', duneSvg), file('broken.dxf', dxf.slice(0, 90))])
  // In the order of their names.
  await expect(app.panel.getByRole('status').nth(1)).toHaveText(
    'tide.dxf: 2 layers. Left out: 1 × open line.',
  )
  await expect(app.panel.getByRole('status').last()).toHaveText(
    /^tide.dxf does not say how large it is: with 1 mm to a unit/,
  )
  await expect(app.panel.getByRole('alert')).toContainText('broken.dxf: the DXF breaks off')
  await expect.poll(() => app.layerNames()).toEqual(['Moon', 'Tide', 'Grass', 'Dunes', 'Dusk'])
  await app.undo()
  expect(await app.layerNames()).toEqual([])
})

test('text is shown where it was left out, and set in a font that the maker brings', async ({
  app,
  page,
}) => {
  await app.startNew('Frame')
  await app.stage('Layers')
  await app.bringIn('dunes.svg', duneSvg)
  await expect(page.locator('[data-left="text"]')).toHaveCount(1)
  const font = fileURLToPath(
    import.meta.resolve('@expo-google-fonts/zilla-slab/700Bold/ZillaSlab_700Bold.ttf'),
  )
  await page.getByLabel('Font for the text').setInputFiles(font)
  await expect(app.panel.getByRole('status')).toHaveText('dunes.svg: 4 layers. Nothing was left out.')
  await expect(page.locator('[data-left]')).toHaveCount(0)
})

test('loose bits are tied, outlines and mirrors made, and all is undone', async ({ app, page }) => {
  await app.openDemo('Harbour at dusk')
  await app.stage('Layers')
  await app.pick('swell')
  await expect(page.locator('[data-loose]')).toHaveCount(1)
  await page.getByRole('button', { name: 'Tie loose bits' }).click()
  await expect(app.figure('Pieces')).toHaveText('1')
  await expect(page.locator('[data-loose]')).toHaveCount(0)
  await app.undo()
  await expect(app.figure('Pieces')).toHaveText('2')
  await page.getByRole('button', { name: 'Add its outline as a layer' }).click()
  await expect.poll(() => app.layerNames()).toContain('Swell, outline')
  await app.undo()
  await page.getByRole('radio', { name: 'this layer' }).click()
  await page.getByRole('button', { name: 'Add a mirrored copy' }).click()
  await expect.poll(() => app.layerNames()).toContain('Swell, mirrored')
  await app.undo()
  await page.getByRole('radio', { name: 'everything' }).click()
  await app.page.getByRole('button', { name: 'Mirror everything' }).click()
  await app.settled()
  await expect(app.figure('Size')).toHaveText('200 × 200 mm')
  await app.type('Width, proportions locked', '100')
  await expect(app.figure('Size')).toHaveText('100 × 100 mm')
})

test('what looks right when it is wrong is said, on the stage and at the bench', async ({ app, page }) => {
  await app.openDemo('Harbour at dusk')
  await app.stage('Layers')
  await app.pick('far-hills')
  await expect(app.panel).toContainText('Looks right face down (3 % differs), but is not.')
  await app.pick('sky')
  await expect(app.panel).toContainText('other ways round: no way of laying it is wrong')
  await app.stage('Assembly')
  await page.locator('[data-step="lay-far-hills"]').getByRole('button').click()
  await expect(app.panel).toContainText('It looks right face down as well: check before it touches.')
})

test('what shows changes with the eye, and goes out as a picture', async ({ app, page }) => {
  await app.openDemo('Harbour at dusk')
  await app.stage('Layers')
  await app.pick('sky')
  await page.getByLabel('What shows').check()
  const ahead = await page.getByTestId('shows-share').textContent()
  await app.type('From aside by', '40')
  await expect(page.getByTestId('shows-share')).not.toHaveText(ahead!)
  await app.type('From aside by', '0')
  await expect(page.getByTestId('shows-share')).toHaveText(ahead!)
  const waiting = page.waitForEvent('download')
  await page.getByRole('button', { name: /Save as a picture/ }).click()
  const svg = (await contentOf(await waiting)).toString()
  expect(svg).toContain('width="200mm"')
  expect(svg.match(/<path/g)).toHaveLength(8)
})

test('single pieces and openings are picked on the board, filled, tied by a strip, and brought back', async ({
  app,
  page,
}) => {
  await app.openDemo('Tide rose')
  await app.stage('Layers')
  await page.getByRole('button', { name: 'Layer Current' }).press('Enter')
  await expect(app.figure('Openings')).toHaveText('12')
  await page.keyboard.press('i')
  await page.getByRole('button', { name: 'Opening 1.1', exact: true }).press('Enter')
  await page.getByRole('button', { name: 'Fill it' }).click()
  await expect(app.figure('Openings')).toHaveText('11')
  await page.keyboard.press('Control+z')
  await expect(app.figure('Openings')).toHaveText('12')
  // A strip across an opening parts it in two.
  await page.getByRole('radio', { name: 'lay strip' }).click()
  const opening = [41, 34, 63, 40] as const
  const at = await page.locator('[data-grip=strip]').evaluate((rect, [x1, y1, x2, y2]) => {
    const map = (rect as SVGRectElement).getScreenCTM()!
    return [new DOMPoint(x1, y1).matrixTransform(map), new DOMPoint(x2, y2).matrixTransform(map)].map(
      ({ x, y }) => [x, y] as const,
    )
  }, opening)
  await page.mouse.move(...at[0]!)
  await page.mouse.down()
  await page.mouse.move(...at[1]!, { steps: 4 })
  await page.mouse.up()
  await expect(app.figure('Openings')).not.toHaveText('12')
  // It can be moved, made wider, and taken out again.
  await page.getByRole('radio', { name: 'pick', exact: true }).click()
  const tie = page.getByRole('button', { name: 'Tie 1' })
  const y = async () => Number(await tie.getAttribute('y1'))
  const before = await y()
  await tie.press('ArrowUp')
  await expect.poll(y).toBeCloseTo(before - 0.5, 6)
  await expect(page.getByText('Tie 1: ')).toBeVisible()
  await page.getByRole('textbox', { name: 'Width of the tie' }).fill('3')
  await page.getByRole('textbox', { name: 'Width of the tie' }).press('Enter')
  await expect(app.figure('Openings')).not.toHaveText('12')
  await page.getByRole('button', { name: 'Take it out' }).click()
  await expect(app.figure('Openings')).toHaveText('12')
  await expect(tie).toHaveCount(0)
  await page.keyboard.press('i')
  await page.getByRole('button', { name: 'Give it this edge' }).click()
  await expect(app.figure('Size')).not.toHaveText('115.9 × 115.9 mm')
})

test('a colour is merged into another by keys, and says what that saves', async ({ app, page }) => {
  await app.openDemo('Tide rose')
  await app.stage('Paper')
  const first = page.getByRole('button', { name: 'Sea cave, 1 layer' })
  await first.focus()
  await page.keyboard.press('Space')
  await page.keyboard.press('ArrowDown')
  await expect(page.getByText(/^“Sea cave” lies over “.*”: let go/)).toBeAttached()
  await page.keyboard.press('Space')
  await expect(page.getByText(/“Sea cave” merged into .* in all/)).toBeVisible()
  await expect(page.getByRole('button', { name: /, 2 layers$/ })).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(first).toBeVisible()
})
