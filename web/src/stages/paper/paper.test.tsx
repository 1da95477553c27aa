// Papers for layers, the shared drawer with its tables, inks and films: what is chosen, typed, brought in, and undone.
import { describe, expect, it } from 'vitest'
import { colourOf, type Project } from '@feuillet/core/project'
import { store } from '../../state/store'
import {
  all,
  bring,
  choose,
  field,
  file,
  fireEvent,
  layer,
  one,
  open,
  panel,
  pick,
  press,
  project,
  saved,
  settled,
  shows,
  snags,
  the,
  toast,
  toStage,
  type,
  undo,
  user,
  waitFor,
} from '../../../test/screens'
import { smallFrame } from '../../../test/small'

const stock = () => store.getState().document.stock
const inDrawer = (name: string) => stock().find((paper) => paper.name === name)!
const paperName = (id: string) =>
  project().drawer.papers.find((paper) => paper.id === layer(id).paperId)?.name
const rows = () => [...document.querySelectorAll('[data-paper]')].map((row) => row.getAttribute('data-paper'))
/** Types into a cell of a table, and leaves it. */
async function cell(label: string, text: string): Promise<void> {
  await user.clear(field(label))
  await user.type(field(label), `${text}{Enter}`)
}

describe('papers', () => {
  it('are pressed for the picked layer, and found by name and finish', async () => {
    await open(smallFrame(), 'paper')
    await pick('swell')
    await user.type(field('Search the drawer'), 'buo')
    const found = all('button', /at hand$/).map((swatch) => swatch.getAttribute('aria-label'))
    expect(found).toHaveLength(1)
    await user.click(the('button', /^Buoy/))
    expect(paperName('swell')).toBe('Buoy')
    await undo()
    expect(paperName('swell')).not.toBe('Buoy')
    await user.clear(field('Search the drawer'))
    await choose('Finish', 'glitter')
    const glitter = all('button', /at hand$/).map((swatch) => swatch.getAttribute('aria-label')!)
    expect(glitter.length).toBeGreaterThan(0)
    expect(glitter.every((label) => label.includes('glitter'))).toBe(true)
    await user.type(field('Search the drawer'), 'no such')
    expect(all('button', /at hand$/)).toEqual([])
  })

  it('for layers that have none come nearest in colour', async () => {
    await open('bon-voyage', 'paper')
    const bare: Project = { ...project(), layers: project().layers.map((one) => ({ ...one, paperId: null, colour: '#203040' })) } // prettier-ignore
    await open(bare, 'paper')
    expect(panel().textContent).toContain('3 of 3 layers have no paper yet.')
    await press('Nearest papers for the bare layers')
    for (const { paperId } of project().layers) expect(paperId).not.toBeNull()
    // All three had one colour: one paper is nearest to all.
    expect(new Set(project().layers.map(({ paperId }) => paperId)).size).toBe(1)
    await undo()
    for (const { paperId } of project().layers) expect(paperId).toBeNull()
  })

  it('are known better by the maker: what she types is of the shared drawer, and of this project', async () => {
    await open(smallFrame(), 'paper')
    await pick('swell')
    const name = paperName('swell')!
    const before = inDrawer(name)
    await type('Thickness', '0.41')
    await type('Sheets at hand', '12')
    await type('Price a sheet', '1.85')
    expect(inDrawer(name)).toMatchObject({ thicknessMm: 0.41, count: 12, price: 1.85 })
    expect(project().drawer.papers.find((paper) => paper.name === name)).toMatchObject({ thicknessMm: 0.41 })
    await type('Sheets at hand', '1000')
    expect(the('alert').textContent).toContain('Between 0 and 999.')
    await user.keyboard('{Escape}')
    for (let k = 0; k < 3; k++) await undo()
    expect(inDrawer(name)).toEqual(before)
  })

  it('that are film say how they are pressed on', async () => {
    await open(smallFrame(), 'paper')
    await pick('swell')
    const name = paperName('swell')!
    await press('pressed on', 'switch')
    expect(inDrawer(name).press).toEqual({ tempC: 150, seconds: 15, peel: 'warm' })
    await type('How hot', '165')
    await choose('Peeled', 'cold')
    expect(inDrawer(name).press).toEqual({ tempC: 165, seconds: 15, peel: 'cold' })
    await press('pressed on', 'switch')
    expect(inDrawer(name).press).toBeNull()
  })

  it('too alike beside each other are a snag, and a ramp over all clears it', async () => {
    await open(smallFrame(), 'paper')
    const ids = project().layers.map(({ id }) => id)
    await pick(ids[1]!)
    await user.click(the('button', new RegExp(`^${paperName(ids[0]!)}, .*at hand$`)))
    await settled()
    expect(snags('too-alike').length).toBeGreaterThan(0)
    await press('Take this ramp')
    await settled()
    expect(snags('too-alike')).toEqual([])
    // One step takes all of it back.
    await undo()
    expect(snags('too-alike').length).toBeGreaterThan(0)
  })

  it('a ramp leaves alone what is not ticked, and goes between the ends that are wished', async () => {
    await open(smallFrame(), 'paper')
    const [back, second] = project().layers
    const before = colourOf(project(), second!)
    await press(`${second!.name} takes part`, 'checkbox')
    await choose('Back paper', 'Chalk')
    await choose('Front paper', 'Slate')
    await waitFor(() =>
      expect(one(`input[aria-label=Back]`)).toHaveProperty('value', inDrawer('Chalk').colour),
    )
    await press('Take this ramp')
    await waitFor(() => expect(paperName(back!.id)).toBe('Chalk'))
    expect(paperName(project().layers.at(-1)!.id)).toBe('Slate')
    expect(colourOf(project(), second!)).toBe(before)
  })

  it('that set layers off are few, as many as are wished, and leave alone what is not ticked', async () => {
    await open(smallFrame(), 'paper')
    const [back, ...others] = project().layers
    const before = paperName(back!.id)
    await press('contrast', 'radio')
    await press(`${back!.name} takes part`, 'checkbox')
    await type('Papers, at most', '2')
    const names = () =>
      [...one('ul[aria-label="Papers to take"]').querySelectorAll('li')].map((row) => row.textContent)
    await waitFor(() => expect(names()[0]).toContain('as it is'))
    await press('Take these papers')
    await settled()
    expect(paperName(back!.id)).toBe(before)
    const taken = others.map(({ id }) => paperName(id))
    expect(new Set(taken).size).toBeLessThanOrEqual(2)
    expect(taken.slice(1).every((name, i) => name !== taken[i])).toBe(true)
    expect(snags('too-alike')).toEqual([])
    await undo()
    expect(others.map(({ id }) => paperName(id))).not.toEqual(taken)
  })

  it('are coloured by hand with inks, and darker along the edges', async () => {
    await open('bon-voyage', 'paper')
    await pick('backing')
    await press('coloured', 'switch')
    expect(layer('backing').tint).toMatchObject({ edgeInkId: null, bleedMm: 4 })
    await choose('Edges with', /^slate/)
    await type('Edge as wide as', '6')
    await type('Past what shows', '9')
    expect(layer('backing').tint).toMatchObject({ edgeMm: 6, bleedMm: 9 })
    expect(layer('backing').tint!.edgeInkId).not.toBeNull()
    await choose('Edges with', 'nothing more')
    expect(layer('backing').tint!.edgeInkId).toBeNull()
    await press('coloured', 'switch')
    expect(layer('backing').tint).toBeNull()
  })
})

describe('tables of the drawer', () => {
  it('take what can be, say what cannot, and bring papers in from CSV', async () => {
    await open('bon-voyage', 'paper')
    await press('Drawer as a table')
    await waitFor(() => expect(rows().length).toBe(stock().length))
    const count = stock().length
    await cell('sheets of Shell', 'many')
    await waitFor(() =>
      expect(document.body.textContent).toContain('sheets of Shell: a number from 0 to 9999'),
    )
    expect(field('sheets of Shell').value).toBe(String(inDrawer('Shell').count))
    await cell('wide of Shell', '12 in')
    expect(inDrawer('Shell').widthMm).toBeCloseTo(304.8, 6)
    await cell('wide of Shell', '3')
    await waitFor(() =>
      expect(document.body.textContent).toContain('wide of Shell: a length from 20 mm to 2000 mm.'),
    )
    await choose('core of Shell', 'white')
    await press('One-way pattern of Shell', 'checkbox')
    expect(inDrawer('Shell')).toMatchObject({ core: 'white', oneWay: true })
    const colour = one('input[type=color][aria-label="Colour of Shell"]')
    fireEvent.change(colour, { target: { value: '#112233' } })
    fireEvent.change(colour, { target: { value: '#112244' } })
    expect(inDrawer('Shell').colour).toBe('#112244')
    // Shades on the way are one step.
    await undo()
    expect(inDrawer('Shell').colour).not.toBe('#112233')
    await bring(
      'Table of papers',
      file('more.csv', 'name,count,finish\nMarram,5,\nTern,2,feathered\n', 'text/csv'),
    )
    expect((await waitFor(() => the('alert', /Row 3/))).textContent).toContain(
      'Row 3 (Tern): “finish” is “feathered”',
    )
    expect(stock()).toHaveLength(count + 1)
    expect(inDrawer('Marram').count).toBe(5)
  })

  it('get a paper, are searched, and go out as CSV', async () => {
    await open('bon-voyage', 'paper')
    await press('Drawer as a table')
    await press('New paper')
    await waitFor(() => expect(rows()).toEqual(['New paper 1']))
    await cell('paper of New paper 1', 'Sea pink')
    expect(inDrawer('Sea pink')).toBeTruthy()
    await user.clear(field('Search the table'))
    await press('Save as CSV')
    await waitFor(() => expect(saved.at(-1)?.name).toBe('drawer.csv'))
    const lines = String(saved.at(-1)!.content).trim().split('\n')
    expect(lines).toHaveLength(stock().length + 1)
    expect(lines.some((line) => line.startsWith('Sea pink,'))).toBe(true)
    await undo()
    await undo()
    expect(stock().some(({ name }) => name === 'Sea pink')).toBe(false)
  })

  it.each([
    ['foam', /foam/i],
    ['glue', /glue/i],
    ['inks', /ink/i],
    ['frames, twine', /thing/i],
    ['cutters', /cutter/i],
    ['settings', /setting|nothing/i],
  ])('of %s stand beside those of papers', async (what, words) => {
    await open('bon-voyage', 'paper')
    await press('Drawer as a table')
    await press(what, 'radio')
    await waitFor(() =>
      expect(one('section[aria-label="Foam, glue, things, cutters and settings"]').textContent).toMatch(
        words,
      ),
    )
  })

  it('of foam, glue, inks and things go out as CSV and come back', async () => {
    await open('bon-voyage', 'paper')
    await press('Drawer as a table')
    for (const [tab, what, list] of [
      ['foam', 'foams', 'foams'],
      ['glue', 'glues', 'adhesives'],
      ['inks', 'inks', 'inks'],
      ['frames, twine', 'things', 'things'],
    ] as const) {
      await press(tab, 'radio')
      const held = () => store.getState().document.supplies[list]
      await bring(`Table of ${what}`, file('more.csv', 'name,kind\nPlain,frame\n', 'text/csv'))
      await waitFor(() => expect(held().some(({ name }) => name === 'Plain')).toBe(true))
      const kept = held()
      await press('Save as CSV')
      await waitFor(() => expect(saved.at(-1)?.name).toBe(`${what}.csv`))
      await bring(`Table of ${what}`, file(`${what}.csv`, String(saved.at(-1)!.content), 'text/csv'))
      await toast(new RegExp(`${what}.csv: all of it is in the drawer already.`))
      expect(held()).toBe(kept)
      await bring(`Table of ${what}`, file('odd.csv', 'a,b\n1,2\n', 'text/csv'))
      await waitFor(() => the('alert', /There is no column “name”/))
      await undo()
      expect(held().some(({ name }) => name === 'Plain')).toBe(false)
    }
  })

  it('of cutters and glue say what wears out and what it costs, in the maker’s unit', async () => {
    await open('bon-voyage', 'paper')
    const held = () => store.getState().document.supplies
    await press('Drawer as a table')
    await press('glue', 'radio')
    const [glue] = held().adhesives
    await waitFor(() => field(`a bottle of ${glue!.name}`))
    await cell(`a bottle of ${glue!.name}`, '6.5')
    await cell(`in it of ${glue!.name}`, '120')
    expect(held().adhesives[0]).toMatchObject({ pricePerPack: 6.5, packMl: 120 })
    await user.click(the('button', /^Units/))
    // Of the United States: 29.5735 ml each.
    await waitFor(() => expect(field(`in it of ${glue!.name}`).value).toBe('4.06'))
    await cell(`in it of ${glue!.name}`, '8')
    expect(held().adhesives[0]!.packMl).toBeCloseTo(8 * 29.5735, 2)
    await press('cutters', 'radio')
    const { name } = project().drawer.cutter
    await waitFor(() => expect(field(`cuts of ${name}`).value).toBe('984'))
    await cell(`cuts of ${name}`, '500')
    await cell(`blade of ${name}`, '11')
    await cell(`hour of ${name}`, '0.2')
    const { bladeM, bladePrice, hourCost } = project().drawer.cutter
    expect([bladePrice, hourCost]).toEqual([11, 0.2])
    expect(bladeM).toBeCloseTo(500 * 0.3048, 9)
    // 60 mm/s is 2.36 in/s; what is out of bounds (5,000 mm/s) is put back.
    expect(field(`speed of ${name}`).value).toBe('2.36')
    await cell(`speed of ${name}`, '2')
    expect(project().drawer.cutter.speedMmPerS).toBeCloseTo(50.8, 9)
    await cell(`speed of ${name}`, '200')
    expect(project().drawer.cutter.speedMmPerS).toBeCloseTo(50.8, 9)
    await cell(`price of ${project().drawer.cutter.mats[0]!.name}`, '14')
    expect(project().drawer.cutter.mats[0]!.price).toBe(14)
  })

  it('of sticks and twine are counted, and used up when all is laid ready', async () => {
    const things = () => store.getState().document.supplies.things
    const counted = () => one('[data-thing]').textContent
    await open('bon-voyage', 'paper')
    await press('Drawer as a table')
    await press('frames, twine', 'radio')
    await press('New thing')
    expect(things()).toMatchObject([{ kind: 'sticks', widthMm: 4, heightMm: null, count: 0, price: 0.15 }])
    await cell('left of New sticks 1', '5')
    await press('Back to the stack')
    // Two sticks, five at hand, none to buy.
    await waitFor(() => expect(counted()).toBe('New sticks 1250'))
    await toStage('measure')
    await shows('New sticks 1', '5 at hand')
    await toStage('assembly')
    const ready = () => all('checkbox', 'Done: Lay everything ready')[0]!
    await user.click(await waitFor(ready))
    await waitFor(() => expect(things()[0]!.count).toBe(3))
    await undo()
    await waitFor(() => expect(things()[0]!.count).toBe(5))
    // Not counted, it is nothing to buy either.
    await toStage('paper')
    await press('Drawer as a table')
    await press('frames, twine', 'radio')
    await cell('left of New sticks 1', '')
    expect(things()[0]!.count).toBeNull()
    await press('Bin New sticks 1')
    expect(things()).toEqual([])
  })

  it('of twine are told by the foot where lengths are inches', async () => {
    const things = () => store.getState().document.supplies.things
    await open('regatta', 'paper')
    await press('Drawer as a table')
    await press('frames, twine', 'radio')
    await press('New thing')
    await user.click(the('button', /^Units/))
    await cell('left of New twine 1', '10')
    await cell('price of New twine 1', '0.1')
    expect(things()[0]!.count).toBeCloseTo(3.048, 9)
    // A tenth a foot.
    expect(things()[0]!.price).toBeCloseTo(0.1 / 0.3048, 9)
    await waitFor(() => expect(field('left of New twine 1').value).toBe('10'))
    await press('Back to the stack')
    await waitFor(() => expect(one('[data-thing]').textContent).toMatch(/^New twine 1[\d.]+ ft10 ft/))
  })

  it('of papers and the panel take sheets as they are sold, and any other size', async () => {
    await open('bon-voyage', 'paper')
    await pick('words')
    const chalk = () => store.getState().document.stock.find(({ name }) => name === 'Chalk')!
    await choose('Sheet', 'A4')
    expect(chalk()).toMatchObject({ widthMm: 210, heightMm: 297 })
    await choose('Sheet', 'another size')
    await type('Sheet, wide', '300 / 2')
    await waitFor(() => expect(chalk()).toMatchObject({ widthMm: 150, heightMm: 297 }))
    await undo()
    await undo()
    expect(chalk()).toMatchObject({ widthMm: 12 * 25.4, heightMm: 12 * 25.4 })
  })

  it('of papers read pounds, and thickness goes with weight until it is measured', async () => {
    await open('bon-voyage', 'paper')
    await press('Drawer as a table')
    const now = (name: string) => store.getState().document.stock.find((paper) => paper.name === name)!
    await waitFor(() => field('weight of Shell'))
    await cell('weight of Shell', '110 lb')
    expect(now('Shell')).toMatchObject({ gsm: 297, thicknessMm: 0.4 })
    await cell('weight of Shell', 'heavy')
    expect(now('Shell').gsm).toBe(297)
    await cell('thick of Shell', '0.33')
    await cell('weight of Shell', '216')
    expect(now('Shell')).toMatchObject({ gsm: 216, thicknessMm: 0.33 })
    await user.click(the('button', /^Units/))
    await press('Back to the stack')
    await waitFor(() => the('button', /^Shell, smooth 216 gsm \(80 lb\), /))
  })

  it('of glue and foam are changed for all projects', async () => {
    await open('bon-voyage', 'paper')
    const { supplies } = store.getState().document
    await press('Drawer as a table')
    await press('foam', 'radio')
    const [foam] = supplies.foams
    await waitFor(() => field(`a pack of ${foam!.name}`))
    await cell(`a pack of ${foam!.name}`, '7.25')
    expect(store.getState().document.supplies.foams[0]!.pricePerPack).toBe(7.25)
    await undo()
    expect(store.getState().document.supplies).toEqual(supplies)
  })
})

it('what is to be bought follows from what is at hand', async () => {
  await open('bon-voyage', 'paper')
  await pick('backing')
  await type('Sheets at hand', '0')
  await settled()
  await waitFor(() => expect(panel().textContent).toMatch(/▲ \d/))
  // Bought, it is in the drawer; undo takes it out again.
  const backing = project().layers.find(({ id }) => id === 'backing')!.paperId!
  const counts = () => [stock(), project().drawer.papers].map((list) => list.find(({ id }) => id === backing)!.count) // prettier-ignore
  await press('All bought')
  expect(counts()).toEqual([1, 1])
  await settled()
  await waitFor(() => expect(panel().querySelector('table')!.textContent).not.toMatch(/▲/))
  expect(all('button', 'All bought')).toEqual([])
  await undo()
  expect(counts()).toEqual([0, 0])
  await type('Sheets at hand', '9')
  await settled()
  await waitFor(() => expect(panel().querySelector('table')!.textContent).not.toMatch(/▲/))
  await toStage('sheets')
  await shows('Card used', /%$/)
})
