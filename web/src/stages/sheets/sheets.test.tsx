// Sheets by hand: pieces moved, pinned and sent, loads that are cut and what became of them, searches, files, guests.
import { strFromU8, unzipSync } from 'fflate'
import { beforeEach, describe, expect, it } from 'vitest'
import { rectangle, union } from '@feuillet/core/base/geometry'
import { demo } from '@feuillet/core/demo'
import { newProject, starterMount } from '@feuillet/core/project'
import { makeLayer } from '@feuillet/core/stages/layers'
import { store } from '../../state/store'
import { browserTabs } from '../../session/tabs'
import { keepProject } from '../../session'
import {
  all,
  choose,
  drag,
  figure,
  goTo,
  keptText,
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
  soon,
  the,
  toStage,
  toast,
  type,
  undo,
  user,
  waitFor,
} from '../../../test/screens'
import { smallFrame } from '../../../test/small'

beforeEach(() => void (saved.length = 0))

const tabs = () => all('button', /^Load \d+:/, one('section[aria-label="Order of loads"]'))
const loadCount = () => Number.parseInt(one('h1', panel()).textContent!)
const pieces = () => [...document.querySelectorAll<HTMLElement>('[data-piece]')]
const inStock = (name: string) => store.getState().document.stock.find((paper) => paper.name === name)!

/** Four backings of the topper on one sheet, opened large. */
async function openBackings(): Promise<void> {
  await open('bon-voyage', 'layers')
  await pick('backing')
  await type('Copies to cut', '4')
  await toStage('sheets')
  await user.click(tabs()[0]!)
  await waitFor(() => expect(pieces()).toHaveLength(4))
}

describe('pieces by hand', () => {
  beforeEach(openBackings)

  it('are picked one by one, several with Shift, all by a key', async () => {
    await user.click(pieces()[0]!)
    await soon('heading', 'Piece', panel())
    await user.keyboard('{Shift>}')
    await user.click(pieces()[1]!)
    await user.keyboard('{/Shift}')
    await soon('heading', '2 pieces', panel())
    await user.keyboard('a')
    await soon('heading', '4 pieces', panel())
  })

  it('that are turned are pinned there, and lie as nested once the pin is out', async () => {
    await user.click(pieces()[3]!)
    await shows('Place', 'as nested')
    const before = figure('Turn')
    await drag(pieces()[3]!, [[100, 100], [100, 150], [100, 220]]) // prettier-ignore
    await shows('Place', 'pinned by hand')
    await settled()
    await type('Turn by', '180')
    await waitFor(() => expect(figure('Turn')).not.toBe(before))
    expect(project().plan.pins).toHaveLength(1)
    await settled()
    await press('Take the pin out')
    await shows('Place', 'as nested')
    await shows('Turn', before)
    expect(project().plan.pins).toEqual([])
  })

  it('stay where they lie and are pinned when their layer is moved in the picture', async () => {
    await user.click(pieces()[3]!)
    await drag(pieces()[3]!, [[100, 100], [100, 150], [100, 220]]) // prettier-ignore
    await shows('Place', 'pinned by hand')
    await settled()
    const lying = () => pieces().map((piece) => piece.querySelector('path')!.getAttribute('d'))
    const before = lying()
    const { path } = layer('backing').pieces[0]!
    await toStage('layers')
    await pick('backing')
    await user.keyboard('p')
    await soon('field', 'Middle, from the left')
    await type('Middle, from the left', '97.3')
    expect(layer('backing').pieces[0]!.path).not.toBe(path)
    await toStage('sheets')
    await settled()
    expect(project().plan.pins).toHaveLength(1)
    expect(lying()).toEqual(before)
  })

  it('go to a fresh sheet, and undo brings them back', async () => {
    const before = tabs().length
    await user.click(pieces()[0]!)
    await choose('Send to', 'a fresh sheet')
    await waitFor(() => expect(tabs()).toHaveLength(before + 1))
    expect(project().plan.pins.length).toBeGreaterThan(0)
    await undo()
    await waitFor(() => expect(tabs()).toHaveLength(before))
  })

  it('stay where they are when they may not lie where they were dragged to, and it says why', async () => {
    const before = project()
    await user.click(pieces()[0]!)
    await drag(pieces()[0]!, [[100, 100], [100, 60], [100, -200]]) // prettier-ignore
    expect((await soon('alert', /cannot lie there/)).textContent).toMatch(/lies in the rim|off the sheet/)
    expect(project()).toBe(before)
  })
})

describe('how pieces are laid', () => {
  it('further apart, with a wider rim, in quarter turns only: loads follow', async () => {
    await open(smallFrame(), 'sheets')
    const before = loadCount()
    await type('Between pieces', '12')
    expect(project().plan.gapMm).toBe(12)
    await press('quarter', 'radio')
    expect(project().plan.turns).toBe('quarter')
    await settled()
    expect(loadCount()).toBeGreaterThanOrEqual(before)
    await type('Between pieces', '51')
    expect(the('alert', /Between 0 mm and 50 mm/)).toBeTruthy()
    await user.keyboard('{Escape}')
    await type('The whole work, times', '3')
    await waitFor(() => expect(loadCount()).toBeGreaterThan(before))
    await undo()
    await undo()
    await undo()
    await waitFor(() => expect(loadCount()).toBe(before))
  })

  it('numbers are drawn, cut or left out, and crosses come when asked for', async () => {
    await open(smallFrame(), 'sheets')
    const marks = () => document.querySelectorAll('[data-mark]').length
    await waitFor(() => expect(marks()).toBeGreaterThan(0))
    const drawn = marks()
    await press('Crosses where pieces go, hidden by them', 'switch')
    await waitFor(() => expect(marks()).toBeGreaterThan(drawn))
    await press('none', 'radio')
    await press('Crosses where pieces go, hidden by them', 'switch')
    await waitFor(() => expect(marks()).toBe(0))
  })

  it('loads come as they are built where that is wished', async () => {
    await open(smallFrame(), 'sheets')
    await press('as built', 'radio')
    await settled()
    // Back to front: the first load holds layer 1.
    await waitFor(() => expect(tabs()[0]!.getAttribute('aria-label')).toMatch(/layers 1(,|$)/))
  })

  it('by knife there is no cutter, and on a small machine what is too large is told', async () => {
    await open(smallFrame(), 'sheets')
    await choose('Cut with', 'knife and ruler')
    await settled()
    expect(all('button', 'Cutter')).toEqual([])
    await user.click(tabs()[0]!)
    await waitFor(() => expect(panel().textContent).toContain('On a cutting mat, by knife'))
    await toStage('assembly')
    await waitFor(() => expect(document.body.textContent).toMatch(/Cut load 1 by hand/))
    await toStage('sheets')
    await choose('Cut with', /^small, /)
    await settled()
    await waitFor(() =>
      expect(panel().querySelectorAll('[data-snag="piece-too-large"]').length).toBeGreaterThan(0),
    )
    await toStage('journal')
    await press('what it costs', 'radio')
    await waitFor(() =>
      expect(document.body.textContent).toMatch(/larger than a sheet: card for (it|them) is not counted/),
    )
  })
})

describe('a load that is cut', () => {
  it('leaves the plan with its sheet; what is torn is laid again, whatever is undone', async () => {
    await open(smallFrame(), 'sheets')
    const loads = tabs().length
    const paper = /^Load 1: (.*), layers/.exec(tabs()[0]!.getAttribute('aria-label')!)![1]!
    const count = inStock(paper).count
    await user.click(tabs()[0]!)
    await user.click(await soon('button', 'All of it is cut'))
    await waitFor(() => expect(tabs()).toHaveLength(loads - 1))
    expect(inStock(paper).count).toBe(count - 1)
    expect(project().cut).toHaveLength(1)
    const sheet = await waitFor(() => one('[data-cut-sheet]'))
    expect(sheet.textContent).toMatch(/\d{1,2} [A-Z][a-z]{2} 20\d\d, \d+ of \d+ whole/)
    await user.click(the('button', /whole/, sheet))
    const list = all('combobox', /^Piece /, sheet)
    expect(list.length).toBe(project().cut[0]!.pieces.length)
    const name = list[0]!.getAttribute('aria-label')!
    const left = () => tabs().map((tab) => tab.getAttribute('aria-label')!.replace(/^Load \d+/, ''))
    const before = left()
    await choose(name, 'torn')
    await waitFor(() => expect(tabs()).toHaveLength(loads))
    // What is torn has a load of its own; the others are as they were.
    expect(left()).toEqual(expect.arrayContaining(before))
    expect(project().cut[0]!.pieces[0]!.spoilt).toBe('torn')
    await waitFor(() => expect(document.querySelectorAll('[data-spoilt="torn"]')).toHaveLength(1))
    await undo()
    await waitFor(() => expect(tabs()).toHaveLength(loads - 1))
    await user.click(await soon('button', 'Not cut after all'))
    await waitFor(() => expect(tabs()).toHaveLength(loads))
    expect(inStock(paper).count).toBe(count)
  })

  it('is looked at as it was, and what came to grief is picked on it', async () => {
    const { layers, ...rest } = smallFrame()
    await open({ ...rest, layers: layers.slice(0, 1) }, 'sheets')
    await user.click(tabs()[0]!)
    await soon('heading', /^Load 1: /)
    await settled()
    const path = pieces()[0]!.querySelector('path')!.getAttribute('d')!
    await user.click(await soon('button', 'All of it is cut'))
    await waitFor(() => expect(project().cut).toHaveLength(1))
    await shows('Sheets cut', '1')
    await user.click(await soon('button', /^Cut sheet 1: /))
    const piece = await soon('button', /: whole$/)
    await waitFor(() => expect(piece.querySelector('path')!.getAttribute('d')).toBe(path))
    piece.focus()
    await user.keyboard('{Enter}')
    await choose('What became of it', 'lost')
    await waitFor(() => expect(project().cut[0]!.pieces[0]!.spoilt).toBe('lost'))
    await waitFor(() => expect(tabs()).toHaveLength(1))
    await soon('button', /: lost$/)
    await press('All sheets')
    await shows('Cutting', /min| s/)
  })

  it('is told of where it would be spoilt, before and after, and one press takes that back', async () => {
    const small = smallFrame()
    const id = small.layers[0]!.id
    await open({ ...small, layers: small.layers.slice(0, 1) }, 'sheets')
    await user.click(tabs()[0]!)
    await user.click(await soon('button', 'All of it is cut'))
    await waitFor(() => expect(project().cut).toHaveLength(1))
    const cut = project().cut[0]!.pieces.length
    const told = () => [...panel().querySelectorAll('[data-spoils]')].map((note) => note.textContent)
    for (const [stage, words] of [
      ['paper', /cut: another paper spoils/],
      ['layers', /cut: another shape, size or paper spoils/],
    ] as const) {
      await toStage(stage)
      await pick(id)
      await waitFor(() => expect(told().some((note) => words.test(note))).toBe(true))
    }
    await type('Width, proportions locked', '77')
    const words = cut === 1 ? /spoils a piece that is cut/ : new RegExp(`spoils ${cut} pieces that are cut`)
    const note = await toast(words)
    expect(told()).toEqual([])
    await user.click(the('button', 'Undo', note))
    await waitFor(() => expect(told().length).toBeGreaterThan(0))
  })

  it('is spoilt piece by piece: what of a layer is left as it is stays cut', async () => {
    const dumbbell = union(
      [rectangle([0, 0], 20, 20)],
      [rectangle([30, 0], 20, 20)],
      [rectangle([19, 9], 12, 0.8)],
    )
    const plates = [rectangle([0, 30], 22, 22), rectangle([30, 30], 21, 21)]
    const layers = [makeLayer({ id: 'a', name: 'A' }, [...dumbbell, ...plates])]
    await open({ ...newProject('x', 'Plates', starterMount('free')), layers }, 'sheets')
    await user.click(tabs()[0]!)
    await user.click(await soon('button', 'All of it is cut'))
    await waitFor(() => expect(project().cut[0]!.pieces).toHaveLength(3))
    await toStage('layers')
    await waitFor(() => expect(panel().textContent).toContain('spoils up to 3 pieces that are cut'))
    await press('Make it 1.2 mm wide')
    await toast(/^That spoils a piece that is cut/)
    await toStage('sheets')
    await waitFor(() => expect(pieces()).toHaveLength(1))
  })

  it('in part: only what came out whole counts', async () => {
    await openBackings()
    await user.click(pieces()[0]!)
    await press('Only the 1 picked came out whole')
    await waitFor(() => expect(project().cut).toHaveLength(1))
    const { pieces: noted } = project().cut[0]!
    expect(noted.filter(({ spoilt }) => spoilt === null)).toHaveLength(1)
    await settled()
    // The three others are laid again.
    await user.click(tabs().find((tab) => /layers .*1/.test(tab.getAttribute('aria-label')!))!)
    await waitFor(() => expect(pieces()).toHaveLength(3))
  })

  it('teaches the book what its setting did', async () => {
    await open(smallFrame(), 'sheets')
    await user.click(tabs()[0]!)
    await user.click(await soon('button', 'corners hung'))
    await waitFor(() => expect(panel().textContent).toContain('a step on: corners hung last time'))
    await undo()
    await waitFor(() => expect(panel().textContent).not.toContain('corners hung last time'))
  })
})

describe('a longer search', () => {
  it('runs beside everything else, rests, and gives what it has when it is stopped', async () => {
    await openBackings()
    await toStage('layers')
    await pick('backing')
    await type('Copies to cut', '7')
    await toStage('sheets')
    await press('Search')
    const bar = await waitFor(() => one('[aria-label="Search for fewer sheets"]'))
    await waitFor(() => expect(document.body.textContent).toMatch(/at\sfirst/))
    await press('Pause')
    await soon('button', 'Go on')
    await press('Go on')
    await type('Between pieces', '3')
    expect(project().plan.gapMm).toBe(3)
    await press('Stop')
    await waitFor(() => expect(bar.isConnected).toBe(false))
    expect(the('button', 'Search')).toHaveProperty('disabled', false)
    await settled()
  })
})

describe('files', () => {
  const menu = async (item: RegExp) => {
    await user.click(await soon('button', 'Cut files'))
    await user.click(await soon('menuitem', item))
  }

  it('of one load or of all, as they are named', async () => {
    await open('bon-voyage', 'sheets')
    await menu(/^Load 1, /)
    await waitFor(() => expect(saved).toHaveLength(1))
    expect(saved[0]!.name).toMatch(/^load-01-.*\.svg$/)
    expect(String(saved[0]!.content)).toContain('mm"')
    await menu(/test square/i)
    await waitFor(() => expect(saved.at(-1)!.name).toBe('test-square.svg'))
  })

  it('lists and tags are PDFs', async () => {
    await open('bon-voyage', 'sheets')
    await menu(/tags/i)
    await waitFor(() => expect(saved.at(-1)?.name).toBe('sheet-tags.pdf'), { timeout: 30_000 })
    expect(strFromU8((saved.at(-1)!.content as Uint8Array).slice(0, 5))).toBe('%PDF-')
  })

  it('all cut files go into one zip, a file a load', async () => {
    await open('bon-voyage', 'sheets')
    const loads = tabs().length
    await press('Cut files')
    const items = await waitFor(() => {
      const found = all('menuitem')
      expect(found.length).toBeGreaterThan(8)
      return found
    })
    const zipped = items.find(
      (item) => /SVG/.test(item.textContent!) && !/^Load|PNG/.test(item.textContent!),
    )!
    await user.click(zipped)
    await waitFor(() => expect(saved.at(-1)?.name).toBe('bon-voyage-files.zip'))
    const names = Object.keys(unzipSync(saved.at(-1)!.content as Uint8Array))
    expect(names).toHaveLength(loads)
    expect(names.every((name) => /^load-\d\d-.*\.svg$/.test(name))).toBe(true)
  })
})

describe('a load of which a cut file was saved', () => {
  const saveFiles = async () => {
    await press('Cut files')
    await user.click(await soon('menuitem', /^Load 1, /))
    await waitFor(() => expect(saved).toHaveLength(1))
  }
  const change = async () => {
    await type('Between pieces', '6')
    await settled()
    await user.click(tabs()[0]!)
    await soon('heading', 'Is it cut?', panel())
  }

  it('says that the plan has changed since, and is noted as in the file or as planned now', async () => {
    await openBackings()
    await saveFiles()
    await change()
    await soon('button', 'Cut from that file', panel())
    expect(panel().textContent).toContain('The plan has changed since the cut file of this load was saved on')
    await toStage('assembly')
    await user.click(await soon('button', /Cut load 1: .*its file is older than the plan/))
    await waitFor(() =>
      expect(panel().textContent).toContain('it is noted as in the file when this is ticked'),
    )
    await user.click(the('link', 'load 1', panel()))
    await soon('heading', 'Is it cut?')
    await soon('button', 'Cut from that file')
    await press('Cut as planned now')
    await waitFor(() => expect(project().cut).toHaveLength(1))
    await undo()
    await waitFor(() => expect(project().cut).toHaveLength(0))
    await user.click(tabs()[0]!)
    await user.click(await soon('button', 'Cut from that file', panel()))
    await waitFor(() => expect(project().cut).toHaveLength(1))
    const asSaved = project().cut
    await user.click(the('button', 'Note as planned now', await toast(/noted as in the cut file of/)))
    await waitFor(() => expect(project().cut).toHaveLength(1))
    await waitFor(() => expect(project().cut).not.toEqual(asSaved))
  })
})

describe('another project', () => {
  it('comes along onto these sheets, is found changed, and is sent home', async () => {
    const guest = { ...demo('bon-voyage'), id: crypto.randomUUID(), name: 'A guest' }
    await keepProject(guest, 'for a test')
    await open('tide-rose', 'sheets')
    const alone = tabs().length
    await soon('combobox', 'Cut another project along')
    await choose('Cut another project along', 'A guest')
    await waitFor(() => expect(project().plan.guests).toHaveLength(1))
    await settled()
    expect(tabs().length).toBeGreaterThanOrEqual(alone)
    expect(panel().textContent).not.toContain('It has changed since.')
    await waitFor(() => expect(tabs().some((tab) => tab.textContent.includes('A1'))).toBe(true))
    await keptText()
    // The guest knows whose sheets it is cut from.
    await goTo(`/project/${guest.id}/sheets`)
    await waitFor(() =>
      expect(document.body.textContent).toContain('Its pieces are cut along with “Tide rose”.'),
    )
    await user.click(the('link', 'To the sheets of “Tide rose”'))
    await waitFor(() => expect(store.getState().document.project?.name).toBe('Tide rose'))
    await soon('button', 'Send home')
    const [first, ...rest] = guest.layers
    await keepProject({ ...guest, layers: [{ ...first!, copies: 2 }, ...rest] }, 'another number')
    await keepProject({ ...guest, id: crypto.randomUUID(), name: 'Another guest' }, 'for a test')
    // The other tab that they were kept in says so, and no more is needed to see it.
    const otherTab = browserTabs()
    otherTab.say({ kind: 'kept', id: guest.id, about: [] })
    await waitFor(() => expect(panel().textContent).toContain('It has changed since.'))
    await user.click(the('combobox', 'Cut another project along'))
    await soon('option', 'Another guest')
    await user.keyboard('{Escape}')
    await press('Take it anew')
    await waitFor(() => expect(panel().textContent).not.toContain('It has changed since.'))
    await press('Send home')
    expect(project().plan.guests).toEqual([])
    await waitFor(() => expect(tabs()).toHaveLength(alone))
  })
})

it('what was cut on another’s sheets is not cut again at home, and says where it was', async () => {
  const sky = { ...smallFrame(), layers: smallFrame().layers.slice(0, 1) }
  const guest = { ...sky, id: crypto.randomUUID(), name: 'Cut along' }
  await keepProject(guest, 'for a test')
  await open({ ...sky, name: 'A host' }, 'sheets')
  await soon('combobox', 'Cut another project along')
  await choose('Cut another project along', 'Cut along')
  await waitFor(() => expect(project().plan.guests).toHaveLength(1))
  await settled()
  for (let cut = 1; all('button', /^Load \d+:/).length > 0; cut++) {
    await user.click(tabs()[0]!)
    await user.click(await soon('button', 'All of it is cut'))
    await waitFor(() => expect(project().cut).toHaveLength(cut))
    await settled()
  }
  expect(one('h1', panel()).textContent).toBe('All of it is cut')
  await press('Send home')
  await keptText()
  await goTo(`/project/${guest.id}/sheets`)
  await waitFor(() => expect(project().name).toBe('Cut along'))
  await settled()
  expect(one('h1', panel()).textContent).toBe('All of it is cut')
  expect(panel().textContent).toContain('1 piece was cut and paid for with “A host”')
  expect(the('link', '“A host”', panel()).getAttribute('href')).toMatch(/\/sheets$/)
})

it('what is changed after it was cut is told before it is done: moved it stays cut, of another size it is laid again', async () => {
  await open(smallFrame(), 'sheets')
  const loads = tabs().length
  await user.click(tabs()[0]!)
  await user.click(await soon('button', 'All of it is cut'))
  await waitFor(() => expect(project().cut).toHaveLength(1))
  await waitFor(() => expect(tabs()).toHaveLength(loads - 1))
  const { layerId } = project().cut[0]!.pieces[0]!
  await toStage('layers')
  await pick(layerId)
  expect(panel().textContent).toMatch(/cut: another shape, size or paper\s+spoils/)
  await press('this layer', 'radio')
  await press('Mirror this layer')
  await undo()
  await user.keyboard('p')
  await soon('field', 'Middle, from the left')
  await type('Middle, from the left', '97')
  await toStage('sheets')
  await settled()
  expect(tabs()).toHaveLength(loads - 1)
  await undo()
  await toStage('layers')
  await type('Its width, proportions locked', '150')
  await toStage('sheets')
  await waitFor(() => expect(tabs()).toHaveLength(loads))
  expect(layer(layerId).pieces).toHaveLength(1)
})

it('a cut piece that becomes a layer of its own stays cut, and its sheet says what it is now', async () => {
  await open(smallFrame(), 'sheets')
  const loads = tabs().length
  const paper = project().drawer.papers.find(({ id }) => id === layer('swell').paperId)!.name
  await user.click(tabs().find((tab) => tab.getAttribute('aria-label')!.includes(paper))!)
  await user.click(await soon('button', 'All of it is cut'))
  await waitFor(() => expect(project().cut[0]?.pieces).toHaveLength(2))
  await toStage('layers')
  await pick('swell')
  await user.keyboard('i')
  await soon('heading', 'Pieces of Swell', panel())
  await user.click(the('any', 'Piece 2', one('[data-board]')))
  await press('A layer of its own')
  await waitFor(() => expect(project().layers).toHaveLength(5))
  await toStage('sheets')
  await settled()
  expect(tabs()).toHaveLength(loads - 1)
  await user.click(await soon('button', /2 of 2 whole/, panel()))
  expect(one('ul[aria-label="Sheets that are cut"]').textContent).toContain('now Swell, part, p2')
})
