// Each demo through all seven stages, every figure against what the core computes by itself; three of them to the bench's end.
import { demo, type DemoName } from '@feuillet/core/demo'
import { loadGeometry } from '@feuillet/core/base/geometry'
import { starterStock } from '@feuillet/core/stages/paper'
import { builtLayers } from '@feuillet/core/project'
import { formatArea, formatLength, formatMinutes, formatShare, formatSize } from '@feuillet/core/base/units'
import { layerFigures } from '@feuillet/core/stages/layers'
import { results } from '../../core/test/results'
import { demoTitles, expect, test } from './app'

test.use({ sharesPage: true })
test.beforeAll(() => loadGeometry())

/** At whose bench each step is taken: a frame that is closed, sticks, and a garland. */
const BUILT: readonly DemoName[] = ['harbour', 'bon-voyage', 'lantern-street']

for (const name of Object.keys(demoTitles) as DemoName[])
  test(`${demoTitles[name]} goes through all stages with the core's figures`, async ({ app }) => {
    const project = demo(name)
    const derived = results(project, starterStock())
    const layers = builtLayers(project)
    await app.openDemo(demoTitles[name])

    const { roomMm } = derived.depth
    if (roomMm !== null)
      await expect(app.page.getByTestId('stack-height')).toContainText(formatLength(roomMm, 'mm'))
    await expect.poll(() => app.layerNames()).toEqual(layers.map((l) => l.name).toReversed())
    if (project.mount.kind === 'frame')
      await expect(app.figure('Backing sheet')).toHaveText(
        formatSize(project.mount.spacer.widthMm, project.mount.spacer.heightMm, 'mm'),
      )
    if (roomMm !== null)
      await expect(app.figure('Depth for card and foam')).toContainText(formatLength(roomMm, 'mm'))

    await app.stage('Layers')
    const layer = layers[1]!
    await app.pick(layer.id)
    const figures = layerFigures(layer)
    const seen = derived.visible.find((v) => v.id === layer.id)!
    await expect(app.figure('Card')).toHaveText(formatArea(figures.areaMm2, 'mm'))
    await expect(app.figure('Openings')).toHaveText(String(figures.openings))
    await expect(app.figure('Shows from the front')).toHaveText(
      `${formatArea(seen.visibleMm2, 'mm')} · ${formatShare(seen.visibleMm2 / seen.areaMm2)}`,
    )

    await app.stage('Paper')
    for (const need of derived.needed)
      await expect(app.panel.getByRole('row', { name: new RegExp(need.paper.name) })).toContainText(
        String(need.sheets),
      )

    await app.stage('Sheets')
    await expect(app.panel.getByRole('heading', { level: 1 })).toHaveText(`${derived.loads.length} loads`)
    await expect(app.figure('Cutting')).toHaveText(
      formatMinutes(derived.loads.reduce((sum, l) => sum + l.minutes, 0)),
    )
    await app.page
      .getByRole('region', { name: 'Order of loads' })
      .getByRole('button', { name: /^Load 1:/ })
      .click()
    await expect(app.figure('Path')).toHaveText(formatLength(derived.loads[0]!.outlineMm, 'mm'))
    await expect(app.page.locator('[data-piece]')).toHaveCount(derived.loads[0]!.pieces.length)

    await app.stage('Depth')
    await expect(app.figure('Stack')).toHaveText(formatLength(derived.depth.stackMm, 'mm'))
    await expect(app.figure('Pads in all')).toHaveText(String(derived.depth.pads.length))
    await expect(app.page.locator('[data-pad]')).toHaveCount(
      derived.depth.pads.filter((p) => p.layerId === layer.id).length,
    )

    await app.stage('Assembly')
    await expect(app.page.locator('[data-step]')).toHaveCount(derived.assembly.steps.length)
    await expect(app.figure('From start to end')).toHaveText(formatMinutes(derived.assembly.minutes))
    if (derived.depth.apart.length > 0) {
      // A part that is not begun on the bench takes that many steps less.
      await app.page.getByRole('radio', { name: 'in their place' }).click()
      await expect(app.page.locator('[data-step]')).toHaveCount(
        derived.assembly.steps.length - derived.depth.apart.length,
      )
      await app.undo()
    }

    await app.stage('Journal')
    await app.page.getByRole('radio', { name: 'what it costs' }).click()
    await expect(app.page.getByRole('img', { name: /Cost by paper/ }).locator('svg')).toBeVisible()
    await expect(app.page.getByRole('img', { name: /^What the cost goes to/ }).locator('svg')).toBeVisible()
    const planned = app.panel.locator('section', { hasText: 'Planned' }).last()
    await expect(planned.locator('dd').last()).toHaveText(`${derived.cost.total.toFixed(2)} €`)

    if (!BUILT.includes(name)) return
    // At the bench, from the first step to the last, each once.
    test.slow()
    await app.stage('Assembly')
    await app.page.getByRole('button', { name: 'To the bench' }).click()
    const title = app.page.getByRole('heading', { level: 1 })
    await expect(title).toHaveText(derived.assembly.steps[0]!.title)
    const told: string[] = []
    for (let k = 0; k <= derived.assembly.steps.length; k++) {
      const now = (await title.textContent())!
      if (now === 'It is built.') break
      told.push(now)
      // Steps of mounting have pictures of their own.
      if (now === 'Close the frame') await expect(app.page.locator('[data-frame-side]')).toBeVisible()
      if (/ sticks? to the back$/.test(now)) await expect(app.page.locator('[data-stick]')).not.toHaveCount(0)
      const dry = app.page.getByRole('button', { name: 'it is dry already' })
      if (await dry.isVisible()) await dry.click()
      else await app.page.keyboard.press('Space')
      // Looked at with every frame: there are a hundred steps.
      await app.page.waitForFunction((was) => document.querySelector('h1')?.textContent !== was, now)
    }
    await expect(title).toHaveText('It is built.')
    expect(told.toSorted()).toEqual(derived.assembly.steps.map((step) => step.title).toSorted())
  })

test('a drawing goes in and cut files in mm come out whose pieces add up', async ({ app }) => {
  const { readSvg } = await import('@feuillet/core/io/read')
  const { regionArea } = await import('@feuillet/core/base/geometry')
  const { contentOf, duneSvg } = await import('./app')
  const { unzipSync, strFromU8 } = await import('fflate')
  await app.startNew('Frame')
  await app.stage('Layers')
  await app.bringIn('dunes.svg', duneSvg)
  await expect(app.panel.getByRole('status')).toContainText('3 layers. Left out: 1 × text')
  await app.stage('Paper')
  await app.page.getByRole('button', { name: 'Nearest papers for the bare layers' }).click()
  await app.stage('Sheets')
  const waiting = app.page.waitForEvent('download')
  await app.page.getByRole('button', { name: 'Cut files' }).click()
  await app.page.getByRole('menuitem', { name: /Everything in one zip/ }).click()
  const files = unzipSync(await contentOf(await waiting))
  const sheets = Object.entries(files).filter(([file]) => file.endsWith('.svg'))
  expect(sheets).toHaveLength(3)
  const cut = sheets.reduce(
    (sum, [, bytes]) =>
      sum + readSvg(strFromU8(bytes)).shapes.reduce((s, shape) => s + regionArea(shape.region), 0),
    0,
  )
  const drawn = readSvg(duneSvg).shapes.reduce((sum, shape) => sum + regionArea(shape.region), 0)
  expect(Math.abs(cut / drawn - 1)).toBeLessThan(0.002)
  for (const ending of ['.dxf', '.hpgl', '.pdf', '.csv'])
    expect(Object.keys(files).some((f) => f.endsWith(ending))).toBe(true)
})
