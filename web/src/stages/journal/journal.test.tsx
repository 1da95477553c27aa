// What it takes, costs, brings and teaches: clocks, sheets that leave the drawer, prices by hand calculation, licences, a fair.
import type { AssemblyPlan } from '@feuillet/core/stages/assembly'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { demo } from '@feuillet/core/demo'
import { newThing, type Thing } from '@feuillet/core/project'
import { keepProject } from '../../session'
import { changeSupplies } from '../../state/edits'
import { store } from '../../state/store'
import {
  all,
  bring,
  choose,
  clearShelf,
  field,
  figure,
  file,
  fireEvent,
  goTo,
  keepAs,
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
  soon,
  the,
  toStage,
  type,
  undo,
  user,
  waitFor,
} from '../../../test/screens'

afterEach(() => void vi.useRealTimers())
const sheetsAtHand = () => store.getState().document.stock.reduce((sum, { count }) => sum + count, 0)
const euros = (name: string) => Number.parseFloat(figure(name))
/** Types into a field that is left by a blur. */
async function put(label: string, text: string, k = 0): Promise<void> {
  const input = await waitFor(() => {
    const found = all('field', label)
    expect(found.length).toBeGreaterThan(k)
    return found[k]!
  })
  await user.clear(input)
  await user.type(input, text)
  fireEvent.focusOut(input)
}

// Before anything is noted in the drawer of all projects, and taught.
describe('what it costs', () => {
  beforeEach(async () => {
    await open('bon-voyage', 'journal')
    await press('what it costs', 'radio')
    await settled()
  })

  it('is the sum of its lines, and the price follows by mark-up or from an hour', async () => {
    await put('Price of sticks', '0.15')
    await shows('Price of one', '8.00 €')
    await put('Price of sticks', '2.15')
    await shows('Price of one', '13.00 €')
    await type('Fair or shop takes', '20')
    // A fifth goes: what is left is as before, up to the next half euro.
    await shows('Price of one', '16.50 €')
    await press('a price', 'radio')
    await type('Price you would ask', '10')
    await shows('Left for the hands', /€$/)
    await type('Fair or shop takes', '95')
    await type('Tax in the price', '20')
    await press('by mark-up', 'radio')
    await waitFor(() =>
      expect(all('alert').some((alert) => /Fees and tax take all/.test(alert.textContent))).toBe(true),
    )
  })

  it('lines are called otherwise, priced, and taken back', async () => {
    await shows('Price of one', /€$/)
    const [first, before] = [figure('Price of one'), project().drawer.things]
    await put('Price of sticks', '5')
    // Sticks cost as much in the next work: the drawer has their price.
    expect(project().plan.parts).toEqual([])
    expect(store.getState().document.supplies.things).toMatchObject([{ id: 'sticks', price: 5, count: null }])
    await waitFor(() => expect(figure('Price of one')).not.toBe(first))
    const priced = figure('Price of one')
    await put('Name of sticks', 'bamboo sticks')
    await waitFor(() => field('Name of bamboo sticks'))
    await put('Price of bamboo sticks', '6')
    expect(project().plan.parts).toMatchObject([{ what: 'bamboo sticks', price: 6 }])
    await put('Price of bamboo sticks', '5')
    await press('Take back bamboo sticks')
    expect(project().plan.parts).toEqual([])
    await waitFor(() => expect(figure('Price of one')).toBe(priced))
    for (let k = 0; k < 5; k++) await undo()
    await waitFor(() => expect(figure('Price of one')).toBe(first))
    expect(project().drawer.things).toEqual(before)
    await press('Save as CSV')
    await waitFor(() => expect(saved.at(-1)?.name).toMatch(/\.csv$/))
    expect(String(saved.at(-1)!.content)).toContain('sticks')
  })

  it('takes as much of a thing as the maker says, told by the foot where lengths are inches', async () => {
    await put('Amount of sticks', '3')
    expect(project().plan.parts).toMatchObject([{ id: 'sticks', amount: 3 }])
    await put('Amount of sticks', 'some')
    await waitFor(() =>
      expect(document.body.textContent).toContain('Amount of sticks: a number from 0 to 100000.'),
    )
    expect(project().plan.parts).toMatchObject([{ id: 'sticks', amount: 3 }])
    // None is taken, until some are again.
    await put('Amount of sticks', '0')
    await waitFor(() => expect(field('Amount of sticks').value).toBe('0.00'))
    await put('Amount of sticks', '2')
    expect(project().plan.parts).toMatchObject([{ id: 'sticks', amount: 2 }])
    await open('regatta', 'journal')
    await press('what it costs', 'radio')
    await waitFor(() => expect(field('Amount of twine').value).toBe('1.63'))
    await press(/^Units/)
    await waitFor(() => expect(field('Amount of twine').value).toBe('5.35'))
    // A price of a foot, and as many feet.
    await put('Price of twine', '0.10')
    await put('Amount of twine', '10')
    const [twine] = project().plan.parts
    expect(twine).toMatchObject({ id: 'twine', unit: 'm' })
    expect(twine!.price).toBeCloseTo(0.1 / 0.3048, 9)
    expect(twine!.amount).toBeCloseTo(3.048, 9)
    await waitFor(() =>
      expect(one('[data-cost=part]').textContent + one('[data-cost=blade]').textContent).toMatch(
        /1\.00.*ft.*for 984 ft/,
      ),
    )
  })

  it('in all is paper, foam, other things and hands', async () => {
    const [, planned] = [...panel().querySelectorAll('dl')].filter((list) => /In all/.test(list.textContent))
    const lines = [...planned!.querySelectorAll('dd')].map((value) => Number.parseFloat(value.textContent))
    const [total] = lines.slice(-1)
    expect(lines.slice(0, -1).reduce((sum, line) => sum + line, 0)).toBeCloseTo(total!, 1)
  })
})

describe('what it took', () => {
  beforeEach(() => open('bon-voyage', 'journal'))

  it('has the minutes of each step in one stage, by knife too', async () => {
    await toStage('sheets')
    await choose('Cut with', 'knife and ruler')
    await toStage('journal')
    await settled()
    // “45 s”, “4 min 10”, “12 min”, “1 h 05”.
    const minutes = (stage: string) => {
      const text = one(`[data-testid=spent-${stage}]`).previousElementSibling!.textContent
      const [first = 0, second = 0] = text.match(/\d+/g)!.map(Number)
      if (text.endsWith('s')) return first / 60
      return text.includes('h') ? 60 * first + second : first + second / 60
    }
    const { steps } = (store.getState().plan.views as unknown as { assembly: AssemblyPlan }).assembly
    const worked = steps.filter(({ needs }) => needs.length > 0)
    const total = worked.reduce((sum, step) => sum + step.minutes, 0)
    await waitFor(() => expect(Math.abs(minutes('sheets') + minutes('assembly') - total)).toBeLessThan(1.1))
  })

  it('is timed by one clock at a time', async () => {
    vi.useFakeTimers({ toFake: ['Date'], now: 1_800_000_000_000 })
    await press('Start the clock of Layers')
    vi.setSystemTime(Date.now() + 90 * 60_000)
    await press('Start the clock of Paper')
    vi.setSystemTime(Date.now() + 30 * 60_000)
    await press('Stop')
    const rows = [...document.querySelectorAll('tr')].map((row) => row.textContent)
    expect(rows.find((row) => row.startsWith('Layers'))).toContain('1 h 30')
    expect(rows.find((row) => row.startsWith('Paper'))).toContain('30 min')
    // Two hours at the hourly rate.
    await waitFor(() => expect(euros('Hands')).toBeCloseTo(2 * project().plan.hourlyRate, 1))
    await undo()
    await soon('button', 'Stop')
  })

  it('sheets leave the drawer once, clean off-cuts go in, and undo brings all back', async () => {
    const before = sheetsAtHand()
    const offCuts = () =>
      store.getState().document.stock.reduce((sum, paper) => sum + paper.offCuts.length, 0)
    const kept = offCuts()
    const clean = await waitFor(() => {
      const found = (all('switch') as HTMLInputElement[]).filter(({ checked }) => checked).length
      expect(found).toBeGreaterThan(0)
      return found
    })
    await press('Note sheets as used')
    await waitFor(() => expect(project().cut.length).toBe(3))
    expect(sheetsAtHand()).toBe(before - 3)
    expect(offCuts()).toBe(kept + clean)
    await waitFor(() => expect(the('button', 'Note sheets as used')).toHaveProperty('disabled', true))
    expect(project().journal.sheetsUsed.reduce((sum, { count }) => sum + count, 0)).toBe(3)
    await undo()
    expect([sheetsAtHand(), offCuts()]).toEqual([before, kept])
  })

  it('steps of the bench are corrected, thrown away, saved as CSV, and teach what comes next', async () => {
    vi.useFakeTimers({ toFake: ['Date'], now: 1_800_000_000_000 })
    await toStage('assembly')
    await press('To the bench')
    await waitFor(() => expect(document.activeElement).toBe(the('button', /space bar/)))
    vi.setSystemTime(Date.now() + 6 * 60_000)
    await press(/space bar/)
    await waitFor(() => expect(project().journal.steps).toHaveLength(1))
    await user.keyboard('{Escape}')
    await toStage('journal')
    await put('Minutes of Lay everything ready', '12')
    expect(project().journal.steps[0]!.minutes).toBe(12)
    await put('Minutes of Lay everything ready', 'long')
    expect(field('Minutes of Lay everything ready').value).toBe('12')
    await press('Save as CSV')
    await waitFor(() => expect(saved.at(-1)?.name).toBe('steps.csv'))
    expect(String(saved.at(-1)!.content)).toContain('Lay everything ready')
    await press('what it taught', 'radio')
    // Four times as long, once: the fourth root of four.
    await waitFor(() =>
      expect(one('[data-factor=prepare]').textContent).toContain(`× ${(4 ** 0.25).toFixed(2)}`),
    )
    await press('Back to our values')
    await waitFor(() => expect(document.querySelector('[data-factor=prepare]')).toBeNull())
    await undo()
    await press('what it took', 'radio')
    await press('Bin the time of Lay everything ready')
    expect(project().journal.steps).toEqual([])
  })

  it('a note leads to what it names', async () => {
    await put('Note', 'The Small boat wants a slower cut')
    await user.click(await soon('button', 'Small boat', panel()))
    await waitFor(() => expect(location.pathname).toMatch(/layers$/))
    expect(store.getState().view.layerId).toBe(project().layers.find(({ name }) => name === 'Small boat')!.id)
  })
})

describe('what was made', () => {
  beforeEach(async () => {
    await open('bon-voyage', 'journal')
    await press('what was made', 'radio')
  })

  it('counts down a licence, and what is over it is told', async () => {
    await press('may be sold', 'radio')
    await type('At most, 0 for any number', '2')
    await put('Design of', 'a friend')
    await waitFor(() => expect(snags('credit')).toHaveLength(1))
    await put('Credit that must stand with it', 'Design: a friend')
    await waitFor(() => expect(snags('credit')).toEqual([]))
    await press('One sold')
    await press('One given')
    await shows('May still be sold', '1')
    fireEvent.change(all('field', 'How many')[0]!, { target: { value: '3' } })
    await waitFor(() => expect(snags('rights')).toHaveLength(1))
    expect(the('button', 'One sold')).toHaveProperty('disabled', true)
    await press('own use only', 'radio')
    await waitFor(() => expect(snags('rights').length).toBeGreaterThan(0))
  })

  it('for whom, at what price, kept or given', async () => {
    await press('One sold')
    await put('For whom', 'a neighbour')
    await put('Price each', '12,5')
    expect(project().journal.makes[0]).toMatchObject({
      whom: 'a neighbour',
      price: 12.5,
      fate: 'sold',
      count: 1,
    })
    await put('Price each', '-3')
    expect(project().journal.makes[0]!.price).toBe(12.5)
    await choose('What became of it', 'given')
    expect(project().journal.makes[0]!.fate).toBe('given')
    expect(all('field', 'Price each')).toEqual([])
    await press('Bin this entry')
    expect(project().journal.makes).toEqual([])
  })

  it('says of which version it was', async () => {
    await press('One kept')
    await waitFor(() => expect(one('[data-make=kept]').textContent).toContain('1, as now'))
    await toStage('layers')
    await pick('backing')
    await press('Mirror everything')
    await toStage('journal')
    await press('what was made', 'radio')
    await press('One kept')
    const rows = () => [...document.querySelectorAll('[data-make]')].map((row) => row.textContent)
    await waitFor(() => expect(rows()).toHaveLength(2))
    expect(rows().filter((row) => row.includes('as now'))).toHaveLength(1)
  })

  it('a card goes with it; a picture that is none is told', async () => {
    await press('Save the card (PDF)')
    await waitFor(() => expect(saved.at(-1)?.name).toBe('bon-voyage-card.pdf'), { timeout: 30_000 })
    const photos = project().journal.photos
    await bring('Photo of the work', file('notes.png', 'no picture', 'image/png'))
    await waitFor(() =>
      expect(document.body.textContent).toContain('notes.png: this is not a picture that can be read.'),
    )
    expect(project().journal.photos).toBe(photos)
  })
})

describe('over all projects', () => {
  it('the best numbers for a fair are chosen from what is at hand', async () => {
    await goTo('/project/none/measure')
    await waitFor(() => expect(store.getState().document.project).toBeNull())
    await clearShelf()
    await open('bon-voyage', 'journal')
    await press('for a fair', 'radio')
    await waitFor(() => expect(document.body.textContent).not.toMatch(/Counting/), { timeout: 60_000 })
    await type('Evenings until then', '1')
    await type('Hours an evening', '1')
    await press('Choose the best')
    const make = () => one('[data-testid="make-Bon voyage"]').textContent
    // An hour, of which one takes sixteen minutes and a half.
    await waitFor(() => expect(make()).toBe('3'))
    await put('At least of Bon voyage', '9')
    await press('Choose the best')
    expect((await soon('alert', /No choice/)).textContent).toContain('more than')
    await press('all projects', 'radio')
    await waitFor(() => expect(one('[data-want="Chalk"]').textContent).toContain('Bon voyage'))
  })

  it('no more is made for a fair than there are sticks for, and what is short is told', async () => {
    await open('bon-voyage', 'journal')
    const dowels = { ...newThing('sticks', 'dowels'), name: 'dowels', count: 5, perPack: 20, price: 0.1 }
    const withThings = (things: Thing[]) =>
      store.dispatch(
        changeSupplies('sticks', (held) => ({ ...held, supplies: { ...held.supplies, things } })),
      )
    withThings([dowels])
    await press('for a fair', 'radio')
    await waitFor(() => expect(document.body.textContent).not.toMatch(/Counting/), { timeout: 60_000 })
    await press('Choose the best')
    // Two for each, five at hand.
    await waitFor(() => expect(one('[data-testid="make-Bon voyage"]').textContent).toBe('2'))
    const best = one('section[aria-label="The best choice"]').textContent
    expect(best).toContain('would want more of: dowels')
    expect(best).toContain('dowels4 of 5')
    withThings([{ ...dowels, count: 1 }])
    await press('all projects', 'radio')
    // One short, in packs of twenty.
    await waitFor(() =>
      expect(one('[data-want="dowels"]').textContent).toMatch(/thingdowels12■ -11 pack of 202.00/),
    )
    withThings([])
  })

  it('one that cannot be read is passed over, and the others are counted', async () => {
    await keepAs('lost', '{"schemaVersion":')
    await keepProject({ ...demo('regatta'), id: 'flags', name: 'Another' }, 'for a test')
    await open('bon-voyage', 'journal')
    await press('all projects', 'radio')
    const wants = () => [...document.querySelectorAll('[data-want]')].map((row) => row.textContent).join(' ')
    await waitFor(() => expect(wants()).toMatch(/Another.*Bon voyage|Bon voyage.*Another/s), {
      timeout: 30_000,
    })
  })
})
