// The shelf and what is round every stage: projects named, copied, taken off, brought in; finding, keys, versions; what is said
// where something cannot be.
import { strToU8, zipSync } from 'fflate'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { demo } from '@feuillet/core/demo'
import { readProject, tickStep, writeProject } from '@feuillet/core/project'
import { keepProject, loadShelf, readKept, session, vault } from '../session'
import { edited } from '../state/document'
import { forgotten, reported } from '../plan/plan'
import { store } from '../state/store'
import {
  all,
  bring,
  clearShelf,
  field,
  file,
  goTo,
  keepAs,
  kept,
  keptText,
  one,
  open,
  panel,
  press,
  project,
  saved,
  settled,
  soon,
  startedWorkers,
  the,
  toast,
  toStage,
  type,
  undo,
  user,
  waitFor,
} from '../../test/screens'
import { smallFrame } from '../../test/small'

const names = async () => (await loadShelf()).map(({ name }) => name)
const shown = () =>
  all('button', /^Open /)
    .flatMap((entry) => entry.getAttribute('aria-label') ?? [])
    .map((name) => name.slice('Open '.length))
async function toShelf(): Promise<void> {
  await goTo('/')
  await soon('heading', 'Feuillet')
}
async function menu(of: string, item: string | RegExp): Promise<void> {
  await user.click(await soon('button', of))
  await user.click(await soon('menuitem', item))
}

describe('the shelf', () => {
  beforeEach(async () => {
    await goTo('/project/none/measure')
    await waitFor(() => expect(document.body.textContent).toContain('not kept in this browser'))
    await clearShelf()
    await keepProject({ ...demo('bon-voyage'), id: 'boat' }, 'for a test')
    await toShelf()
    await waitFor(() => expect(shown()).toEqual(['Bon voyage']))
  })

  it('renames, but to nothing', async () => {
    await menu('More for Bon voyage', 'Rename')
    await user.clear(await soon('field', 'Name of the project'))
    await user.type(field('Name of the project'), '  Good voyage {Enter}')
    await waitFor(() => expect(shown()).toEqual(['Good voyage']))
    expect(readProject((await readKept('boat'))!.text).name).toBe('Good voyage')
    await menu('More for Good voyage', 'Rename')
    await user.clear(await soon('field', 'Name of the project'))
    await user.keyboard('{Enter}')
    await waitFor(() => expect(all('field', 'Name of the project')).toEqual([]))
    expect(await names()).toEqual(['Good voyage'])
  })

  it('duplicates, takes off, and puts back what was taken off', async () => {
    await menu('More for Bon voyage', 'Duplicate')
    await waitFor(() => expect(shown()).toHaveLength(2))
    const copy = (await loadShelf()).find(({ id }) => id !== 'boat')!
    const [a, b] = [readProject((await readKept(copy.id))!.text), readProject((await readKept('boat'))!.text)]
    expect(a.layers).toEqual(b.layers)
    expect(copy.name).not.toBe('Bon voyage')
    await menu(`More for ${copy.name}`, 'Take off the shelf')
    await waitFor(() => expect(shown()).toEqual(['Bon voyage']))
    const told = await toast(/is off the shelf\./)
    await user.click(the('button', 'Undo', told))
    await waitFor(() => expect(shown()).toHaveLength(2))
    expect(readProject((await readKept(copy.id))!.text).layers).toEqual(b.layers)
  })

  it('duplicates a work that is begun as one to be made anew, and says so', async () => {
    const kept = readProject((await readKept('boat'))!.text)
    await keepProject(tickStep(kept, 'prepare', true), 'begun', { isNext: true })
    await menu('More for Bon voyage', 'Duplicate')
    await toast(/is to be made anew: nothing of it is cut or done yet\./)
    const copy = (await loadShelf()).find(({ id }) => id !== 'boat')!
    expect(readProject((await readKept(copy.id))!.text).progress.done).toEqual([])
    expect(readProject((await readKept('boat'))!.text).progress.done).toEqual(['prepare'])
  })

  it('saves a project as a file and takes it back under another id where its own is taken', async () => {
    saved.length = 0
    await menu('More for Bon voyage', 'Save as a project file')
    await waitFor(() => expect(saved).toHaveLength(1))
    expect(saved[0]!.name).toBe('bon-voyage.feuillet.json')
    await bring('Project file', file('bon-voyage.feuillet.json', String(saved[0]!.content)))
    await waitFor(() => expect(store.getState().document.project?.name).toBe('Bon voyage'))
    expect(project().id).not.toBe('boat')
    expect(await names()).toEqual(['Bon voyage', 'Bon voyage'])
  })

  it.each([
    ['notes.json', 'no json', /notes\.json/],
    ['other.json', '{"a":1}', /other\.json/],
    ['old.zip', 'no zip', /old\.zip/],
    ['tide.svg', '<svg/>', /tide\.svg is a drawing: begin with what it will live in/],
    ['tide.zip', zipSync({ 'tide.svg': strToU8('<svg/>') }), /tide\.zip: it holds no project/],
  ])('says in a sentence what is wrong with %s', async (name, content, words) => {
    await bring('Project file', file(name, content))
    expect((await soon('alert', words)).textContent).toMatch(/\.$/)
    expect(await names()).toEqual(['Bon voyage'])
  })

  it('goes out as one zip and comes in again', async () => {
    saved.length = 0
    await press('Save everything as one zip')
    await waitFor(() => expect(saved).toHaveLength(1))
    const zip = saved[0]!.content as Uint8Array<ArrayBuffer>
    await menu('More for Bon voyage', 'Take off the shelf')
    await waitFor(() => expect(shown()).toEqual([]))
    await bring('Project file', file('all.zip', zip, 'application/zip'))
    await waitFor(() => expect(shown()).toEqual(['Bon voyage']))
    await toast(/all\.zip: 1 project taken in\./)
    // What is there already is not taken in twice.
    await bring('Project file', file('all.zip', zip, 'application/zip'))
    await toast(/all\.zip: 0 projects taken in/)
    expect(await names()).toEqual(['Bon voyage'])
  })

  it('begins a project of each kind', async () => {
    for (const kind of ['Frame', 'Card', 'Topper', 'Garland']) {
      await toShelf()
      await user.click(await soon('button', new RegExp(`^${kind}`)))
      await waitFor(() => expect(location.pathname).toMatch(/measure$/))
      await waitFor(() => expect(project().mount.kind).toBe(kind.toLowerCase()))
    }
    expect(await names()).toHaveLength(5)
  })

  it('a project that is not there is told, with a way back', async () => {
    await goTo('/project/nowhere/paper')
    await waitFor(() =>
      expect(document.body.textContent).toContain('This project is not kept in this browser.'),
    )
    await user.click(the('link', 'Back to the shelf'))
    await waitFor(() => expect(shown()).toEqual(['Bon voyage']))
  })

  it('stages by the names that they once had still open', async () => {
    await goTo('/project/boat/log')
    await waitFor(() => expect(location.pathname).toBe('/project/boat/journal'))
    await goTo('/project/boat/what-is-this')
    await waitFor(() => expect(location.pathname).toBe('/project/boat/measure'))
  })
})

describe('what cannot be opened', () => {
  const damaged = JSON.stringify({ ...JSON.parse(writeProject(demo('bon-voyage'))), layers: 'none' })

  it('says why, gives its text as it is, and goes back to what it was', async () => {
    await keepAs('broken', damaged)
    await goTo('/project/broken/measure')
    await soon('heading', 'This project cannot be opened')
    saved.length = 0
    await press('Save its text as a file')
    expect(saved).toEqual([{ name: 'broken.feuillet.json', content: damaged }])
    await user.click((await waitFor(() => all('button', 'Go back to it')))[0]!)
    await waitFor(() => expect(store.getState().document.project?.layers).toHaveLength(3))
  })

  it('of a newer Feuillet it is looked at, and nothing of it is changed', async () => {
    const newer = JSON.parse(writeProject(demo('bon-voyage'))) as { schemaVersion: number }
    const text = JSON.stringify({ ...newer, schemaVersion: newer.schemaVersion + 1 })
    await keepAs('newer', text)
    await goTo('/project/newer/measure')
    await waitFor(() => expect(store.getState().document.role).toBe('reading'))
    await soon('status', /written by a newer Feuillet/)
    const before = project()
    await user.type(await soon('field', 'Topper width'), '5{Enter}')
    expect(project()).toBe(before)
    await toast(/looked at and exported, not changed/)
    saved.length = 0
    await press('Save it as a file')
    expect(saved).toHaveLength(1)
    expect((await readKept('newer'))!.text).toBe(text)
  })
})

describe('round every stage', () => {
  it('a name is given in the bar; undo and redo go by keys', async () => {
    await open('bon-voyage', 'measure')
    await menu('Project: Bon voyage', 'Rename')
    await user.clear(await soon('field', 'Name of the project'))
    await user.type(field('Name of the project'), 'Farewell{Enter}')
    expect(project().name).toBe('Farewell')
    await user.keyboard('{Control>}z{/Control}')
    expect(project().name).toBe('Bon voyage')
    await user.keyboard('{Control>}{Shift>}z{/Shift}{/Control}')
    expect(project().name).toBe('Farewell')
    expect(readProject(await keptText()).name).toBe('Farewell')
  })

  it('finds layers, papers, loads, steps and things to do by a few letters', async () => {
    await open('bon-voyage', 'measure')
    await user.keyboard('{Control>}k{/Control}')
    const input = await waitFor(() => one('[cmdk-input]'))
    await user.type(input, 'layer words')
    const found = () => [...document.querySelectorAll('[cmdk-item]')].map((item) => item.textContent)
    await waitFor(() => expect(found()).toHaveLength(1))
    await user.keyboard('{Enter}')
    await waitFor(() => expect(location.pathname).toMatch(/layers$/))
    expect(store.getState().view.layerId).toBe('words')
    await user.keyboard('{Control>}k{/Control}')
    await user.type(await waitFor(() => one('[cmdk-input]')), 'no such thing')
    await waitFor(() => expect(document.body.textContent).toContain('Nothing of that name here.'))
    await user.keyboard('{Escape}')
    await waitFor(() => expect(document.querySelector('[cmdk-input]')).toBeNull())
    await user.keyboard('{Control>}k{/Control}')
    await user.type(await waitFor(() => one('[cmdk-input]')), 'load 1')
    await waitFor(() => expect(found()[0]).toMatch(/^load/))
    await user.keyboard('{Enter}')
    await waitFor(() => expect(location.pathname).toMatch(/sheets$/))
  })

  it('letters that are keys mean nothing while a name is typed', async () => {
    await open('bon-voyage', 'layers')
    await user.click(await waitFor(() => one('[data-row=words] button')))
    await user.click(await soon('field', 'Name'))
    await user.keyboard('pikx')
    expect(store.getState().view).toMatchObject({ placing: false, bits: false, only: false })
    expect(field('Name').value).toContain('pikx')
  })

  it('lists all keys', async () => {
    await open('bon-voyage', 'measure')
    await user.keyboard('?')
    const dialog = await soon('dialog')
    expect(dialog.querySelectorAll('dt').length).toBeGreaterThan(20)
    await user.keyboard('{Escape}')
    await waitFor(() => expect(all('dialog')).toEqual([]))
  })

  it('past versions are looked at and gone back to, and that too is undone', async () => {
    await open('bon-voyage', 'measure')
    await type('Topper width', '140')
    await kept()
    await session.flush()
    const before = project()
    await menu('Project: Bon voyage', /version/i)
    const dialog = await soon('dialog')
    await waitFor(() => expect(all('button', /as it was opened|after:/, dialog).length).toBeGreaterThan(0))
    await user.click(all('button', /as it was opened|after:/, dialog).at(-1)!)
    await user.click(the('button', 'Go back to this version', dialog))
    await waitFor(() => expect(project()).not.toBe(before))
    expect(project().mount).toEqual(demo('bon-voyage').mount)
    await undo()
    expect(project().mount).toEqual(before.mount)
  })

  it('snags are stepped through, meant so, and told again', async () => {
    await open(smallFrame(), 'paper')
    const [a, b] = project().layers
    const papers = project().drawer.papers
    store.dispatch(
      edited({
        label: 'alike',
        project: {
          ...project(),
          layers: project().layers.map((one) => (one === b ? { ...one, paperId: a!.paperId } : one)),
        },
      }),
    )
    expect(papers.length).toBeGreaterThan(1)
    await settled()
    const note = await waitFor(() => one('[data-snag=too-alike]', panel()))
    await user.click(the('button', 'Meant so', note))
    await waitFor(() => expect(document.querySelector('[data-snag=too-alike]')).toBeNull())
    await user.click(await soon('button', '1 meant so'))
    await press('Take it back')
    await waitFor(() => one('[data-snag=too-alike]', panel()))
  })

  it('a full store is told once, plainly, with the file a press away, and no more once it is kept', async () => {
    await open('bon-voyage', 'measure')
    const held = await vault()
    const full = vi
      .spyOn(held, 'save')
      .mockRejectedValue(Object.assign(new Error('full'), { name: 'QuotaExceededError' }))
    await type('Topper width', '140')
    const notice = await soon('status', /^.?\s*Not kept/)
    expect(the('button', 'Save it as a file', notice)).toBeTruthy()
    full.mockRestore()
    await type('Topper width', '141')
    await kept()
    await waitFor(() => expect(all('status', /Not kept/)).toEqual([]))
  })

  it('a planner that dies is started anew, and its figures come back', async () => {
    await open('bon-voyage', 'sheets')
    const planners = () => startedWorkers.filter(({ name }) => name === 'planner')
    const before = planners().length
    planners().at(-1)!.worker.dispatchEvent(new Event('error'))
    store.dispatch(forgotten())
    await type('Between pieces', '4')
    await waitFor(() => expect(planners()).toHaveLength(before + 1))
    await settled()
    await waitFor(() => expect(one('h1', panel()).textContent).toMatch(/^3 loads/))
  })

  it('what could not be computed is told until it is; of a layer that is gone nothing is', async () => {
    await open('bon-voyage', 'sheets')
    const told = () => all('alert', /could not be computed/)
    const report = (failed: [string, string][], fresh: string[] = []) => {
      const revision = store.getState().plan.settled!
      store.dispatch(reported({ revision, views: [], fresh, failed, doing: null }))
    }
    report([['figures gone', 'this layer is not there']])
    expect(told()).toEqual([])
    report([
      ['nested', 'the pieces of a paper could not be laid'],
      ['loads', 'the pieces of a paper could not be laid'],
    ])
    await waitFor(() => expect(told()).toHaveLength(1))
    expect(told()[0]!.textContent!.match(/could not be laid/g)).toHaveLength(1)
    const clear = () => one('section[aria-label="Snags"]', panel()).textContent
    expect(clear()).toContain('✓')
    const { views } = store.getState().plan
    store.dispatch(forgotten())
    await waitFor(() => expect(clear()).toBe('Computing…'))
    store.dispatch(
      reported({ revision: 1, views: Object.entries(views), fresh: [], failed: [], doing: null }),
    )
    // Computed anew with the next change.
    await type('Between pieces', '4')
    await settled()
    await waitFor(() => expect(told()).toEqual([]))
  })

  it('a screen that breaks off leaves the rest alive, with the file a press away', async () => {
    const quiet = vi.spyOn(console, 'error').mockImplementation(() => undefined)
    await open('bon-voyage', 'paper')
    const { revision } = store.getState().document
    // What no core makes: needs that are no list.
    store.dispatch(
      reported({ revision, views: [['needed', {}]], fresh: ['needed'], failed: [], doing: null }),
    )
    const broken = await soon('alert', /This screen broke off/)
    expect(broken.textContent).toContain('Nothing of your work is lost.')
    saved.length = 0
    await user.click(the('button', 'Save the project as a file', broken))
    expect(saved).toHaveLength(1)
    expect(readProject(String(saved[0]!.content)).layers).toEqual(project().layers)
    await press(/^Units/)
    expect(project().unit).toBe('in')
    await toStage('depth')
    expect(all('alert', /broke off/)).toEqual([])
    quiet.mockRestore()
  })
})
