// The shelf, files, keys, find, and reading by other means than the eye.
import type { Page } from '@playwright/test'
import AxeBuilder from '@axe-core/playwright'
import { contentOf, expect, test, type StageTitle } from './app'

const STAGES: StageTitle[] = ['Measure', 'Layers', 'Paper', 'Sheets', 'Depth', 'Assembly', 'Journal']

test.describe('the shelf', () => {
  test('saves a project as a file and takes it back; a bad file is told in a sentence', async ({
    app,
    page,
  }) => {
    await app.openDemo('Bon voyage')
    await page.goto('/')
    const waiting = page.waitForEvent('download')
    await page.getByRole('button', { name: 'More for Bon voyage' }).click()
    await page.getByRole('menuitem', { name: 'Save as a project file' }).click()
    const download = await waiting
    expect(download.suggestedFilename()).toBe('bon-voyage.feuillet.json')
    const file = (name: string, buffer: Buffer) =>
      page.getByLabel('Project file').setInputFiles({ name, mimeType: 'application/json', buffer })
    await file('oops.json', Buffer.from('{"a":1}'))
    await expect(page.getByRole('alert')).toContainText('oops.json: this is not a Feuillet project')
    await file('bon-voyage.feuillet.json', await contentOf(download))
    await app.settled()
    await page.goto('/')
    await expect(page.getByRole('button', { name: 'Open Bon voyage' })).toHaveCount(2)
  })

  test('stands the demos up once when asked to', async ({ app }) => {
    const { page } = app
    await page.goto('/?demo')
    await expect(page.getByRole('button', { name: /^Open (Harbour|Tide|Bon)/ })).toHaveCount(3)
    await page.goto('/?demo')
    await expect(page.getByRole('button', { name: /^Open (Harbour|Tide|Bon)/ })).toHaveCount(3)
  })
})

test('work is saved as it is done, and undone and redone', async ({ app, page }) => {
  await app.openDemo('Harbour at dusk')
  await app.type('Depth', '30')
  await app.settled()
  await app.kept()
  await page.reload()
  await app.settled()
  await expect(app.field('Depth')).toHaveValue('30')
  await app.type('Depth', '28')
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('Control+z')
  await expect(app.field('Depth')).toHaveValue('30')
  await page.keyboard.press('Control+Shift+z')
  await expect(app.field('Depth')).toHaveValue('28')
})

test.describe('the frame of a project', () => {
  test.use({ sharesPage: true })

  test('keys lead everywhere, and find goes to what is named', async ({ app, page }) => {
    await app.openDemo('Harbour at dusk')
    await page.getByRole('heading', { level: 1 }).click()
    for (const [i, title] of STAGES.entries()) {
      await page.keyboard.press(String(i + 1))
      await expect(page.locator('nav [aria-current=page]')).toContainText(title)
    }
    await page.keyboard.press('Control+k')
    await page.keyboard.type('headland')
    await page.keyboard.press('Enter')
    await expect(page.locator('nav [aria-current=page]')).toContainText('Layers')
    await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Headland light')
    // What menus have can be found as well.
    await page.keyboard.press('Control+k')
    await page.keyboard.type('grow mandala')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('button', { name: 'Take these layers' })).toBeVisible()
    await page.getByRole('button', { name: 'Leave it' }).click()
    await page.getByRole('heading', { level: 1 }).click()
    await page.keyboard.press('?')
    await expect(page.getByRole('dialog')).toContainText('layer below')
  })

  const SIZES = [
    { width: 1024, height: 768 },
    { width: 2560, height: 1300 },
    { width: 1280, height: 800 },
  ]

  test('nothing scrolls the frame, however large it is, and each stage prints as one page', async ({
    app,
    page,
  }) => {
    await app.openDemo('Harbour at dusk')
    for (const title of STAGES) {
      await app.stage(title)
      for (const size of SIZES) {
        await page.setViewportSize(size)
        const over = () =>
          page.evaluate(() => [
            document.documentElement.scrollWidth - innerWidth,
            document.documentElement.scrollHeight - innerHeight,
          ])
        await expect.poll(over, `${title} at ${size.width} × ${size.height}`).toEqual([0, 0])
        await expect.poll(() => cutShort(page), `${title} at ${size.width} × ${size.height}`).toEqual([])
      }
      // Printed it is one page, whatever scrolls on screen.
      const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1')
      expect(pdf.match(/\/Type ?\/Page[^s]/g), title).toHaveLength(1)
      await expect(page.locator('html.printing')).toHaveCount(0)
    }
  })
})

/** Words that are cut, and controls that are cut or lie under something else, by their names. */
const cutShort = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const found: string[] = []
    for (const one of document.querySelectorAll<HTMLElement>('.truncate, .line-clamp-2'))
      if (one.scrollWidth > one.clientWidth + 1 || one.scrollHeight > one.clientHeight + 2)
        found.push(`cut: ${one.textContent}`)
    const controls = 'button, a[href], input, [role=radio], [role=checkbox], [role=switch], [role=combobox]'
    for (const one of document.querySelectorAll<HTMLElement>(controls)) {
      const box = one.getBoundingClientRect()
      if (!one.checkVisibility({ visibilityProperty: true, opacityProperty: true }) || box.width < 2) continue
      let [left, top, right, bottom] = [box.left, box.top, box.right, box.bottom]
      let scrolls = false
      for (let around = one.parentElement; around; around = around.parentElement) {
        const { overflowX, overflowY } = getComputedStyle(around)
        if (overflowX === 'visible' && overflowY === 'visible') continue
        const room = around.getBoundingClientRect()
        ;[left, right] = [Math.max(left, room.left), Math.min(right, room.right)]
        ;[top, bottom] = [Math.max(top, room.top), Math.min(bottom, room.bottom)]
        scrolls ||= overflowX === 'auto' && around.scrollWidth > around.clientWidth
      }
      // What is scrolled out of sight is not cut.
      if (bottom - top < 4 || (scrolls && right - left < 4)) continue
      const name = one.getAttribute('aria-label') ?? one.textContent
      if (one.tagName !== 'INPUT' && one.scrollWidth > one.clientWidth + 1) found.push(`spills: ${name}`)
      const at = document.elementFromPoint((left + right) / 2, (top + bottom) / 2)
      if (right - left < box.width - 2 && !scrolls) found.push(`beyond its place: ${name}`)
      else if (at && !one.contains(at) && !at.contains(one) && !at.closest('label')?.contains(one))
        found.push(`covered: ${name}`)
    }
    return found
  })

/** What axe finds on the page as it stands, by place. */
async function troubles(page: Page, place: string): Promise<string[]> {
  // What is drawn on boards was looked at on Layers and Sheets; the same shapes again only take time.
  const builder = new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode(true)
  const drawn = ['shelf', 'Layers', 'Sheets'].includes(place)
  const { violations } = await (drawn ? builder : builder.exclude('[data-board]')).analyze()
  return violations.map(({ id, nodes }) => {
    const where = nodes.map((node) => node.target.join(' ')).slice(0, 3)
    return `${place}: ${id} ${where.join(' | ')}`
  })
}

test('every stage, dialog and menu can be read and worked without the eye', async ({ app, page }) => {
  // axe reads each of a dozen screens whole.
  test.slow()
  await app.toShelf()
  const found = await troubles(page, 'shelf')
  await app.openDemo('Harbour at dusk')
  for (const title of STAGES) {
    await app.stage(title)
    found.push(...(await troubles(page, title)))
  }
  const open: [place: string, how: () => Promise<void>][] = [
    ['finder', () => page.keyboard.press('Control+k')],
    ['keys', () => page.keyboard.press('?')],
    ['project menu', () => page.getByRole('button', { name: /^Project:/ }).click()],
  ]
  for (const [place, how] of open) {
    await how()
    await expect(page.locator('[role=dialog], [role=menu]')).toBeVisible()
    found.push(...(await troubles(page, place)))
    await page.keyboard.press('Escape')
    await expect(page.locator('[role=dialog], [role=menu]')).toHaveCount(0)
  }
  expect(found).toEqual([])
})

test.describe('beside the stages', () => {
  test.use({ sharesPage: true })

  test('the bench, the cutter, the drawer and a maker can be read and worked without the eye', async ({
    app,
    page,
  }) => {
    await app.openDemo('Harbour at dusk')
    const found: string[] = []
    await app.stage('Paper')
    await page.getByRole('button', { name: 'Drawer as a table' }).click()
    found.push(...(await troubles(page, 'drawer')))
    await app.stage('Sheets')
    await page.getByRole('button', { name: 'Cutter', exact: true }).click()
    await expect(page.getByRole('button', { name: 'Send to the cutter' })).toBeVisible()
    found.push(...(await troubles(page, 'cutter')))
    await app.stage('Layers')
    await page.getByRole('button', { name: 'Grow layers' }).click()
    await page.getByRole('menuitem', { name: /^Mandala/ }).click()
    await expect(page.getByRole('button', { name: 'Take these layers' })).toBeEnabled()
    found.push(...(await troubles(page, 'maker')))
    await page.getByRole('button', { name: 'Leave it' }).click()
    await app.stage('Assembly')
    await page.getByRole('button', { name: 'To the bench' }).click()
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    found.push(...(await troubles(page, 'bench')))
    expect(found).toEqual([])
  })
})
