// The order of work and the bench: steps ticked, timed, gone back to, what dries, what went wrong, a date to be ready by.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { store } from '../../state/store'
import {
  all,
  choose,
  field,
  figure,
  fireEvent,
  one,
  open,
  panel,
  press,
  project,
  saved,
  settled,
  shows,
  soon,
  the,
  toStage,
  type,
  undo,
  user,
  waitFor,
} from '../../../test/screens'
import { smallFrame } from '../../../test/small'

const title = () => one('h1').textContent!
const main = () => the('button', /space bar/)
const done = () => project().progress.done
const foamLeft = () => store.getState().document.supplies.foams.reduce((sum, { count }) => sum + count, 0)

/** To the bench, where the space bar presses Done. */
async function toBench(): Promise<void> {
  await press('To the bench')
  await waitFor(() => expect(title()).toBe('Lay everything ready'))
  await waitFor(() => expect(document.activeElement).toBe(main()))
}

/** To the bench, and on by the space bar until a step is at hand. */
async function benchAt(step: RegExp): Promise<void> {
  await toBench()
  for (let k = 0; k < 16 && !step.test(title()); k++) {
    const before = title()
    await user.keyboard(' ')
    await waitFor(() => expect(title()).not.toBe(before))
  }
  expect(title()).toMatch(step)
}

beforeEach(() => open('bon-voyage', 'assembly'))
afterEach(() => void vi.useRealTimers())

describe('steps', () => {
  it('are ticked and unticked in the list, and all at once', async () => {
    const boxes = () => all('checkbox', /^Done: /) as HTMLInputElement[]
    const count = await waitFor(() => {
      expect(boxes().length).toBeGreaterThan(9)
      return boxes().length
    })
    await user.click(boxes()[0]!)
    await waitFor(() => expect(done()).toHaveLength(1))
    expect(panel().textContent).toContain(`1 of ${count} steps done.`)
    // What is done folds away, and can be looked at.
    await press('1 step done')
    const first = boxes().find((box) => box.checked)!
    await user.click(first)
    await waitFor(() => expect(done()).toEqual([]))
    await user.click(boxes()[0]!)
    await user.click(boxes().find((box) => !box.checked)!)
    await press('Untick all')
    await waitFor(() => expect(done()).toEqual([]))
    expect(the('button', 'Untick all')).toHaveProperty('disabled', true)
  })

  it('take foam from the drawer when they are done, and give it back', async () => {
    await open(smallFrame(), 'assembly')
    const before = foamLeft()
    const pad = await waitFor(() => all('checkbox', /^Done: .*pads/i)[0]!)
    await user.click(pad)
    await waitFor(() => expect(foamLeft()).toBeLessThan(before))
    await undo()
    expect(foamLeft()).toBe(before)
  })

  it('are moved within what waits for what, and are the plan’s again', async () => {
    const fit = await waitFor(() => one('[data-step=dry-fit]'))
    await user.click(the('button', /Fit everything dry/, fit))
    await press('Earlier')
    expect((await soon('alert', /Not moved/)).textContent).toContain('waits for')
    await user.click(
      the('button', /Weed load/, document.querySelectorAll<HTMLElement>('[data-step^=weed-]')[1]!),
    )
    await press('Later')
    await soon('button', 'Leave it to the plan')
    // What waits for what is drawn, with the step that is picked.
    await press('what waits for what', 'radio')
    const picked = await waitFor(() => one('[role=button][aria-pressed=true][aria-label^="Weed load"]'))
    expect(picked).toBeTruthy()
    expect(document.querySelectorAll('[data-critical]').length).toBeGreaterThan(0)
    await press('Leave it to the plan')
    await waitFor(() => expect(all('button', 'Leave it to the plan')).toEqual([]))
  })

  it('follow how the maker works: face down, by two, one glue after the other', async () => {
    const order = () =>
      [...document.querySelectorAll('[data-step]')].map((step) => step.getAttribute('data-step'))
    await waitFor(() => expect(order().length).toBeGreaterThan(9))
    const before = order()
    await press('face down', 'radio')
    await settled()
    await waitFor(() => expect(order()).not.toEqual(before))
    await undo()
    await type('Pairs of hands', '3')
    expect(project().plan.people).toBe(3)
    await choose('Line up by', 'corner jig')
    expect(project().plan.alignment).toBe('corner-jig')
    await press('wait for each', 'radio')
    expect(project().plan.glueWait).toBe('each')
  })
})

describe('the bench', () => {
  it('ticks by the space bar, goes back, and is left by Escape', async () => {
    await toBench()
    await user.keyboard(' ')
    await waitFor(() => expect(document.body.textContent).toContain('step 2 of'))
    await user.keyboard(' ')
    await waitFor(() => expect(document.body.textContent).toContain('step 3 of'))
    await press('← back')
    await waitFor(() => expect(document.body.textContent).toContain('step 2 of'))
    expect(done()).toHaveLength(1)
    await user.keyboard('{Escape}')
    await waitFor(() => expect(panel().textContent).toContain('1 of'))
  })

  it('shows the sheet that is weeded as it was cut', async () => {
    await benchAt(/^Weed load 1/)
    await waitFor(() => expect(document.body.textContent).toMatch(/Load 1, .*, as it was cut/))
    expect(document.querySelectorAll('[aria-label^="The sheet of this step"] path').length).toBeGreaterThan(2)
  })

  it('notes what a step took, pauses taken out', async () => {
    vi.useFakeTimers({ toFake: ['Date'], now: 1_800_000_000_000 })
    await toBench()
    vi.setSystemTime(Date.now() + 4 * 60_000)
    await press('pause')
    vi.setSystemTime(Date.now() + 30 * 60_000)
    await press('go on after the pause')
    vi.setSystemTime(Date.now() + 2 * 60_000)
    await press(/space bar/)
    await waitFor(() => expect(project().journal.steps).toHaveLength(1))
    expect(project().journal.steps[0]!.minutes).toBeCloseTo(6, 1)
  })

  it('lets glue dry by itself, says what waits for it, and rings when it is over', async () => {
    const sounds: string[] = []
    vi.stubGlobal('AudioContext', function () {
      sounds.push('ring')
      throw new Error('no sound')
    })
    await benchAt(/take hold/)
    const drying = title()
    expect(main().textContent).toMatch(/^Let it dry, \d+ min/)
    await user.click(main())
    const clocks = () => one('ul[aria-label="What dries"]')
    await waitFor(() => expect(clocks().textContent).toContain(drying))
    expect(project().progress.drying).toHaveLength(1)
    await waitFor(() => expect(document.body.textContent).toContain('It waits for what still dries'))
    expect(sounds).toEqual([])
    vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + 20 * 60_000 })
    await waitFor(() => expect(clocks().querySelector('li')!.dataset['over']).toBe('true'))
    await waitFor(() => expect(sounds).toHaveLength(1))
    await user.click(the('button', 'It is dry', clocks()))
    expect(project().progress.drying).toEqual([])
    expect(done().length).toBeGreaterThan(3)
  })

  it('may be told that it is dry already', async () => {
    await benchAt(/take hold/)
    const drying = title()
    await press('it is dry already')
    await waitFor(() => expect(title()).not.toBe(drying))
    expect(project().progress.drying).toEqual([])
  })

  it('knows what to do when something went wrong', async () => {
    await toStage('journal')
    await press('Note sheets as used')
    await waitFor(() => expect(project().cut.length).toBeGreaterThan(0))
    await toStage('assembly')
    await benchAt(/^Lay layer 2/)
    await press('something went wrong')
    const dialog = await soon('dialog', /^/)
    expect(dialog.textContent).toContain('Something went wrong')
    await user.click(the('radio', 'torn', dialog))
    await user.click(the('button', 'Cut it again', dialog))
    await waitFor(() => expect(document.body.textContent).toContain('One piece is to be cut again'))
    expect(
      project()
        .cut.flatMap(({ pieces }) => pieces)
        .filter(({ spoilt }) => spoilt !== null),
    ).toHaveLength(1)
    await waitFor(() => expect(title()).toMatch(/^Cut load/))
    expect(all('dialog')).toEqual([])
  })

  it('that was nothing changes nothing', async () => {
    await benchAt(/^Weed|^Cut|^Lay/)
    const before = project()
    await press('something went wrong')
    await soon('dialog')
    await press('It was nothing')
    await waitFor(() => expect(all('dialog')).toEqual([]))
    expect(project()).toBe(before)
  })

  it('reads steps out where the browser has a voice', async () => {
    const said: string[] = []
    vi.stubGlobal('SpeechSynthesisUtterance', class { lang = ''; constructor(readonly text: string) {} }) // prettier-ignore
    Object.assign(window, {
      speechSynthesis: { cancel: () => undefined, speak: ({ text }: { text: string }) => said.push(text) },
    })
    await press('To the bench')
    await user.click(await soon('button', 'read out'))
    await waitFor(() => expect(said[0]).toMatch(/^Lay everything ready\. /))
    await press(/space bar/)
    await waitFor(() => expect(said).toHaveLength(2))
    await press('read out')
    await press(/space bar/)
    expect(said).toHaveLength(2)
  })
})

describe('a date', () => {
  it('is planned back to over evenings, and goes into a calendar', async () => {
    await press('Plan back from a date')
    fireEvent.change(await soon('field', 'Ready by'), { target: { value: '2026-12-20T18:00' } })
    const evenings = () =>
      [...one('[aria-label="Evenings of work"]').querySelectorAll('li')].map((row) => row.textContent)
    await waitFor(() => expect(evenings().at(-1)).toContain('Sat 19 Dec'))
    await press('Evenings on Sat', 'checkbox')
    await waitFor(() => expect(evenings().at(-1)).toContain('Fri 18 Dec'))
    fireEvent.change(field('Evenings to'), { target: { value: '19:04' } })
    await waitFor(() => expect(panel().textContent).toContain('at least 5 minutes'))
    fireEvent.change(field('Evenings to'), { target: { value: '20:30' } })
    await press('Save as a calendar')
    await waitFor(() => expect(saved.at(-1)?.name).toMatch(/\.ics$/))
    const text = String(saved.at(-1)!.content)
    expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(evenings().length)
    expect(text.startsWith('BEGIN:VCALENDAR')).toBe(true)
  })
})

it('of several each takes less, by station or one by one', async () => {
  await toStage('sheets')
  await type('The whole work, times', '4')
  await toStage('assembly')
  const hands = () => figure('Your hands')
  const before = await waitFor(hands)
  await type('Twice as many: each takes', '70')
  expect(project().plan.batchRate).toBeCloseTo(0.7, 6)
  await waitFor(() => expect(hands()).not.toBe(before))
  await press('one by one', 'radio')
  await settled()
  await waitFor(() => expect([...document.querySelectorAll('[data-step]')].length).toBeGreaterThan(20))
  await shows('Hands still to go', hands())
})
