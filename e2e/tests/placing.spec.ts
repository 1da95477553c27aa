// Parts on the board of layers: dragged, moved by keys and by number, copied, put together and taken apart.
import { ellipse, loadGeometry, rectangle } from '@feuillet/core/base/geometry'
import { newProject, starterMount, writeProject } from '@feuillet/core/project'
import { makeLayer } from '@feuillet/core/stages/layers'
import type { Page } from '@playwright/test'
import { expect, test, type App } from './app'

test.beforeAll(() => loadGeometry())

/** A panel of 200 mm with a leaf at its left and a square at its right. */
const bouquet = () =>
  writeProject({
    ...newProject('bouquet', 'Bouquet', starterMount('panel')),
    layers: [
      makeLayer({ id: 'back', name: 'Back' }, [rectangle([0, 0], 200, 200)], { role: 'backing' }),
      makeLayer({ id: 'leaf', name: 'Leaf' }, [ellipse([40, 150], 16, 6)], { colour: '#6f8f5c' }),
      makeLayer({ id: 'square', name: 'Square' }, [rectangle([120, 40], 30, 30)], { colour: '#c9584f' }),
    ],
  })

test.use({ sharesPage: true })

async function openBouquet(app: App, page: Page): Promise<void> {
  await app.toShelf()
  await page
    .getByLabel('Project file')
    .setInputFiles({ name: 'bouquet.json', mimeType: 'application/json', buffer: Buffer.from(bouquet()) })
  await app.settled()
  await app.stage('Layers')
  await page.keyboard.press('p')
  await expect(page.getByRole('switch', { name: 'Place parts (P)' })).toBeChecked()
}

const middle = async (page: Page, id: string) => {
  const box = (await page.locator(`[data-layer="${id}"]`).boundingBox())!
  return { x: box.x + box.width / 2, y: box.y + box.height / 2, width: box.width }
}

test('a part is dragged and drawn to the middle, moved by keys and number, and undo takes each back', async ({
  app,
  page,
}) => {
  await openBouquet(app, page)
  const at = await middle(page, 'square')
  const back = await middle(page, 'back')
  const mm = back.width / 200
  await page.mouse.move(at.x, at.y)
  await page.mouse.down()
  // A little beside the middle of the panel: it is drawn on to it, and the line is shown.
  await page.mouse.move(at.x - 20 * mm, at.y, { steps: 4 })
  await page.mouse.move(back.x + 0.6 * mm, at.y + 50 * mm, { steps: 4 })
  await expect(page.locator('[data-snap]').first()).toBeAttached()
  // Held past the edge it is found fault with before it is let go, and no more once it is back.
  const measure = page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Measure' })
  await page.mouse.move(back.x + 90 * mm, at.y, { steps: 2 })
  await expect(measure).toContainText('■ 1')
  await page.mouse.move(back.x + 0.6 * mm, at.y + 50 * mm, { steps: 2 })
  await expect(measure).not.toContainText('■')
  await page.mouse.up()
  await expect(app.field('Middle, from the left')).toHaveValue('100')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('Alt+ArrowRight')
  await expect(app.field('Middle, from the left')).toHaveValue('105.6')
  await app.type('Its width, proportions locked', '60')
  await expect(app.field('Its width, proportions locked')).toHaveValue('60')
  await app.type('Turn by', '45')
  await expect(app.field('Its width, proportions locked')).toHaveValue('84.85')
  await app.undo()
  await app.undo()
  // Three presses of the arrows are one step.
  await app.undo()
  await expect(app.field('Middle, from the left')).toHaveValue('100')
  await app.undo()
  await expect(app.field('Middle, from the left')).toHaveValue('135')
})

test('two wings from one, a ring of leaves, and parts that are put together, named and taken apart', async ({
  app,
  page,
}) => {
  await openBouquet(app, page)
  const leaf = await middle(page, 'leaf')
  await page.mouse.click(leaf.x, leaf.y)
  await page.getByRole('button', { name: 'Other wing' }).click()
  await expect(app.field('Middle, from the left')).toHaveValue('160')
  await expect.poll(() => app.layerNames()).toEqual(['Square', 'Leaf, copy', 'Leaf', 'Back'])
  // The copy is picked: with the leaf it becomes one part.
  await page.keyboard.down('Shift')
  await page.mouse.click(leaf.x, leaf.y)
  await page.keyboard.up('Shift')
  await page.getByRole('button', { name: 'Lower edges in line' }).click()
  await page.getByRole('button', { name: 'Make one part' }).click()
  await app.type('Name of the part', 'Wings')
  // Two wings beside each other hold nothing of each other.
  await expect(app.panel.getByText('its layers do not all hold each other')).toBeVisible()
  await page.getByRole('switch', { name: 'Built on the bench' }).click()
  await expect(app.panel.getByText('its layers do not all hold each other')).toHaveCount(0)
  await expect(page.getByRole('heading', { name: 'Wings' })).toBeVisible()
  await expect(app.field('Middle, from the left')).toHaveValue('100')
  await page.getByRole('button', { name: 'Several of it' }).click()
  await app.type('How many in all', '3')
  await page.getByRole('button', { name: 'Round the middle' }).click()
  await expect.poll(async () => (await app.layerNames()).length).toBe(8)
  await page.getByRole('button', { name: 'Take it apart' }).click()
  await expect(page.getByRole('heading', { name: '2 parts' })).toBeVisible()
})
