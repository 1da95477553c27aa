// Intake of any file, what may tear, and what shows.
import { fileURLToPath } from 'node:url'
import { contentOf, duneSvg, expect, test } from './app'

const square =
  '0\nLWPOLYLINE\n8\nTide\n90\n4\n70\n1\n10\n0\n20\n0\n10\n60\n20\n0\n10\n60\n20\n40\n10\n0\n20\n40\n'
const dxf = `0\nSECTION\n2\nENTITIES\n${square}0\nCIRCLE\n8\nMoon\n10\n30\n20\n20\n40\n8\n0\nLINE\n8\nMoon\n10\n0\n20\n0\n11\n5\n21\n5\n0\nENDSEC\n0\nEOF\n`
const hairlines =
  '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="80mm" viewBox="0 0 80 80"><path d="M5 5H75V75H5ZM20 20H40V40H20Z" fill="none" stroke="#c00" stroke-width="0.05"/></svg>'
const weak =
  '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60"><path fill="#36a" d="M0 0H40V20.6H80V0H120V40H80V21.2H40V40H0Z"/></svg>'

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
  await expect(app.panel.getByRole('status').first()).toHaveText(
    'tide.dxf: 2 layers. Left out: 1 × open line.',
  )
  await expect(app.panel.getByRole('alert')).toContainText('broken.dxf: the DXF breaks off')
  await expect.poll(() => app.layerNames()).toEqual(['Grass', 'Dunes', 'Dusk', 'Moon', 'Tide'])
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

test('hairlines are outlines of pieces, or lines, as the maker says', async ({ app }) => {
  await app.startNew('Frame')
  await app.stage('Layers')
  await app.bringIn('cut.svg', hairlines)
  await expect(app.figure('Card')).toHaveText('45.0 cm²')
  await app.panel.getByRole('radio', { name: 'thin lines' }).click()
  await expect(app.figure('Card')).not.toHaveText('45.0 cm²')
  await app.panel.getByRole('radio', { name: 'outlines of pieces' }).click()
  await expect(app.figure('Card')).toHaveText('45.0 cm²')
  expect(await app.layerNames()).toHaveLength(1)
})

test('a weak neck is shown where it is, and one press makes it wide enough', async ({ app, page }) => {
  await app.startNew('Frame')
  await app.stage('Layers')
  await app.bringIn('weak.svg', weak)
  await expect(app.snag('weak-neck')).toContainText(
    'one strip under 1.2 mm, the narrowest 0.6 mm; one will tear',
  )
  await expect(app.figure('All strips pass at')).toContainText('× 2')
  await page.locator('[data-row] [role=button]').first().click()
  await expect(page.locator('[data-neck="neck"]')).toHaveCount(1)
  await app.snag('weak-neck').getByRole('button', { name: 'Make it 1.2 mm wide' }).click()
  await expect(app.snag('weak-neck')).toHaveCount(0)
  await app.undo()
  await expect(app.snag('weak-neck')).toBeVisible()
})

test('a cartoon painted shape by shape: outlines are gathered, a sheet put behind, specks dropped all at once', async ({
  app,
  page,
}) => {
  await app.startNew('Frame')
  await app.stage('Layers')
  const tiles = ['#c22', '#2a2', '#22c', '#ca2'].map((fill, i) => {
    const x = 10 + i * 30
    return `<rect x="${x}" y="20" width="30" height="40" fill="${fill}" stroke="#111" stroke-width="3"/><rect x="${x + 10}" y="70" width="1" height="1" fill="${fill}"/>`
  })
  await app.bringIn(
    'tiles.svg',
    `<svg xmlns="http://www.w3.org/2000/svg" width="150mm" height="90mm" viewBox="0 0 150 90">${tiles.join('')}</svg>`,
  )
  await expect(app.snag('strewn-colour')).toContainText('comes in 4 layers')
  await app.snag('strewn-colour').getByRole('button', { name: 'Gather them in one layer' }).click()
  await expect.poll(() => app.layerNames()).toHaveLength(5)
  await expect(app.snag('strewn-colour')).toHaveCount(0)
  await app.snag('board-shows').getByRole('button', { name: 'Put a full sheet behind' }).click()
  await expect.poll(async () => (await app.layerNames()).at(-1)).toBe('Backing')
  await expect(app.snag('board-shows')).toHaveCount(0)
  await expect(app.snag('specks').first()).toBeVisible()
  await app.panel.getByText('3 more of this kind').click()
  await expect(app.snag('specks').last()).toBeVisible()
  await app.panel.getByRole('button', { name: 'Mend all 4 of this kind' }).click()
  await expect(app.snag('specks')).toHaveCount(0)
  await app.undo()
  await expect(app.panel.getByText('3 more of this kind')).toBeVisible()
  await expect(page.getByRole('alert')).toHaveCount(0)
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

test('with three sheets of card the backmost and the most seen stay', async ({ app, page }) => {
  await app.openDemo('Harbour at dusk')
  await app.stage('Layers')
  await page.getByRole('button', { name: 'Leave the others out' }).click()
  await app.settled()
  await app.stage('Sheets')
  await expect(app.panel.getByRole('heading', { level: 1 })).toHaveText('3 loads')
  await app.undo()
  await expect(app.panel.getByRole('heading', { level: 1 })).toHaveText('8 loads')
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
